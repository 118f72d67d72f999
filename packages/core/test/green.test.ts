import {
  generateTree,
  greenOf,
  placeTree,
  project,
  scale,
  add,
  seeded,
  withGreen,
  unit,
  cross,
  type Camera,
  type GreenMask,
  type Pad,
  type Vec,
} from '../src/index.js';

const [WIDTH, HEIGHT, STEP] = [1200, 900, 5];
const cameras = new Map(
  Array.from({ length: 10 }, (_, i): [string, Camera] => {
    const [turn, height] = [(36 * i * Math.PI) / 180, i % 3 === 2 ? 800 : 250];
    const at: Vec = [900 * Math.sin(turn), 900 * Math.cos(turn), height];
    const forward = unit([-at[0], -at[1], 200 - height]);
    const right = unit(cross(forward, [0, 0, 1]));
    return [`p${i}`, { at, forward, right, down: cross(forward, right), focal: 950, k1: 0.01, centre: [WIDTH / 2, HEIGHT / 2] }];
  }),
);

/** Where a photo is green: the foliage as points inside its pads. */
function maskOf(camera: Camera, pads: readonly Pad[]): GreenMask {
  const [columns, rows] = [WIDTH / STEP, HEIGHT / STEP];
  const green = new Uint8Array(columns * rows);
  const random = seeded(5);
  for (const pad of pads)
    for (let i = 0; i < 4000; i++) {
      const [u, v, w] = [random(), random(), random()].map((x) => 2 * x - 1) as [number, number, number];
      if (u * u + v * v + w * w > 1) continue;
      const at = [u, v, w].reduce<Vec>((sum, x, k) => add(sum, scale(pad.axes[k]!, x * pad.half[k]!)), pad.center);
      const px = project(camera, at);
      if (px && px[0] >= 0 && px[1] >= 0 && px[0] < WIDTH && px[1] < HEIGHT) green[Math.floor(px[1] / STEP) * columns + Math.floor(px[0] / STEP)] = 1;
    }
  return { step: STEP, columns, rows, green };
}

test('foliage that ten photos show is found on its branches, by share and by where it begins; a bare branch has none, a dead one is given none', () => {
  const grown = generateTree({ seed: 91, name: 'Ruff', species: 'larch', height: 420, base: 40, primaries: 7, secondaries: 0 });
  const [bare, dead] = [grown.branches[1]!.id, grown.branches[2]!.id];
  const tree = {
    ...grown,
    branches: grown.branches.map((b) => (b.id === bare ? { ...b, green: 0 } : b.id === dead ? { ...b, state: 'dead' as const, green: 0 } : b)),
  };
  const placed = placeTree(tree);
  const pads = [...placed.branches.flatMap((b) => b.pad ?? []), ...(placed.apexPad ? [placed.apexPad] : [])];
  const masks = new Map([...cameras].map(([photo, camera]) => [photo, maskOf(camera, pads)]));
  // Nothing of it is told beforehand.
  const asked = { ...tree, branches: tree.branches.map((b) => ({ ...b, green: 0, bareTo: 0.5 })) };
  const found = greenOf(asked, masks, cameras)!;
  const volume = (pad: Pad): number => pad.half[0] * pad.half[1] * pad.half[2];
  const whole = pads.reduce((sum, pad) => sum + volume(pad), 0);
  for (const { branch, pad } of placed.branches) {
    const own = found.byBranch.get(branch.id)!;
    if (!pad) expect([branch.id, own.green < 0.02]).toEqual([branch.id, true]);
    else {
      const truth = volume(pad) / whole;
      // Beside the crown it is anybody's guess whose leaf it is.
      const fits = truth > 0.05 ? Math.abs(own.green / truth - 1) < 0.25 : own.green > truth / 2 && own.green < truth + 0.15;
      expect([branch.id, fits, Math.abs(own.bareTo - branch.bareTo) < 0.2]).toEqual([branch.id, true, true]);
    }
  }
  expect(found.rest + [...found.byBranch.values()].reduce((sum, b) => sum + b.green, 0)).toBeLessThan(1.001);
  const after = withGreen(asked, found);
  expect(after.find((b) => b.id === dead)!.green).toBe(0);
  expect(after.reduce((sum, b) => sum + b.green, 0)).toBeLessThanOrEqual(1);
  // Two photos tell too little of it.
  expect(greenOf(asked, new Map([...masks].slice(0, 2)), cameras)).toBeNull();
});
