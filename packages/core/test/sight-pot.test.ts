import {
  blankTree,
  depthOf,
  direction,
  cross,
  generateTree,
  lengthOf,
  measuredBySight,
  placeTree,
  pointAt,
  project,
  scale,
  seenWidth,
  slope,
  turnDeg,
  workOutSight,
  type Camera,
  type KeptSight,
  type Px,
  type Tree,
  type Vec,
} from '../src/index.js';

const [WIDTH, HEIGHT, FOCAL] = [1600, 1200, 1300];
const tree = generateTree({ seed: 33, name: 'Smew', species: 'larch', height: 400, base: 42, primaries: 6, secondaries: 0 });
const placed = placeTree(tree);

/** A camera on a stand before the turning table, held level. */
function levelAt(bearing: number): Camera {
  const out = direction({ bearingDeg: bearing, elevationDeg: 0 });
  const forward = scale(out, -1);
  const at: Vec = [1400 * out[0], 1400 * out[1], 190];
  return { at, forward, right: cross(forward, [0, 0, 1]), down: [0, 0, -1], focal: FOCAL, k1: 0, centre: [WIDTH / 2, HEIGHT / 2] };
}

/** The tree seen from bearings without any card: the pot's rims marked, trunk and branches drawn. */
function drawnFrom(bearings: readonly number[]): KeptSight {
  const cameras = bearings.map(levelAt);
  const rims = (camera: Camera): Px[] => {
    const seen = Array.from({ length: 72 }, (_, i) => {
      const turn = (i * Math.PI) / 36;
      return project(camera, [(tree.pot.width / 2) * Math.cos(turn), (tree.pot.depth / 2) * Math.sin(turn), 0])!;
    }).sort((a, b) => a[0] - b[0]);
    return [seen[0]!, seen[71]!];
  };
  const wood = [['trunk', placed.trunk, 0] as const, ...placed.branches.map((b) => [b.branch.id, b.line, 0.2 * b.parentDiameter] as const)];
  return {
    cardSide: 60,
    photos: bearings.map((bearing, i) => ({ photo: `p${i}`, bearing, width: WIDTH, height: HEIGHT, focalGuess: FOCAL, cards: [] })),
    drawn: cameras.flatMap((camera, i) => [
      { line: 'pot', photo: `p${i}`, points: rims(camera) as [number, number][] },
      ...wood.map(([line, limb, from]) => {
        const spot = (share: number) => pointAt(limb, from + share * (lengthOf(limb) - from));
        const width = (share: number): [number, number] => [share, (spot(share).diameter * FOCAL) / depthOf(camera, spot(share).point)];
        return {
          line,
          photo: `p${i}`,
          points: Array.from({ length: 7 }, (_, k) => project(camera, spot(k / 6).point)! as [number, number]),
          widths: [width(0.1), width(0.9)],
        };
      }),
    ]),
  };
}
const measured = (kept: KeptSight): Tree => {
  const sight = workOutSight({ ...kept, pot: tree.pot });
  if ('refused' in sight) throw new Error(sight.refused);
  const blank: Tree = { ...blankTree('Smew', 'larch'), pot: tree.pot };
  return { ...blank, ...measuredBySight(blank, kept, sight).measured };
};

test('four photos from a turning table, no cards: by their bearings and the pot’s width branches stand within a few degrees', () => {
  const found = placeTree(measured(drawnFrom([0, 60, 130, 250])));
  for (const was of placed.branches) {
    const [now, then] = [slope(found.byId.get(was.branch.id)!), slope(was)].map((s) => direction({ bearingDeg: s.bearing, elevationDeg: s.elevation }));
    const off = (Math.acos(Math.min(1, now![0] * then![0] + now![1] * then![1] + now![2] * then![2])) * 180) / Math.PI;
    // Short ones are less sure: within some mm at their tips.
    expect([was.branch.id, (off * lengthOf(was.line)) / 57 < 10]).toEqual([was.branch.id, true]);
    expect(Math.abs(found.byId.get(was.branch.id)!.branch.length / lengthOf(was.line) - 1)).toBeLessThan(0.08);
  }
});

test('one photo and the pot’s width: its lines lie in its plane, known no better than drawn; unmarked it is refused with what to do', () => {
  const one = drawnFrom([0]);
  const now = measured(one);
  expect([now.trunkKnown?.how, ...new Set(now.branches.map((b) => b.known?.how))]).toEqual(['drawn', 'drawn']);
  // What reaches to the side is as long as it is; all lie to the left or right of the viewer.
  for (const b of now.branches) expect(Math.min(Math.abs(turnDeg(b.bearing, 90)), Math.abs(turnDeg(b.bearing, 270)))).toBeLessThan(12);
  const across = placed.branches.filter((b) => Math.abs(Math.abs(turnDeg(slope(b).bearing, 0)) - 90) < 25);
  expect(across.length).toBeGreaterThan(0);
  for (const b of across) expect(Math.abs(now.branches.find((x) => x.id === b.branch.id)!.length / lengthOf(b.line) - 1)).toBeLessThan(0.15);
  expect(Math.abs(now.trunk.at(-1)!.z / placed.height - 1)).toBeLessThan(0.05);
  const unmarked = { ...one, drawn: one.drawn.filter((d) => d.line !== 'pot') };
  expect(workOutSight({ ...unmarked, pot: tree.pot })).toMatchObject({ refused: expect.stringMatching(/mark the pot’s width/) });
});

test('a pot is as wide as its outline is from where it is seen', () => {
  expect(seenWidth({ shape: 'oval', width: 300, depth: 200 }, 0)).toBeCloseTo(300, 6);
  expect(seenWidth({ shape: 'oval', width: 300, depth: 200 }, 90)).toBeCloseTo(200, 6);
  expect(seenWidth({ shape: 'rectangle', width: 300, depth: 200 }, 45)).toBeCloseTo(500 / Math.SQRT2, 6);
});
