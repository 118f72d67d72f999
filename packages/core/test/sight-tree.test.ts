import {
  blankTree,
  cameraOf,
  depthOf,
  generateTree,
  lengthOf,
  measuredBySight,
  nextPhoto,
  placeTree,
  pointAt,
  project,
  sayScale,
  seeded,
  shoulderIn,
  reshaped,
  sightIn,
  SightMemory,
  sinceBefore,
  workOutSight,
  cornersOf,
  cross,
  scale,
  unit,
  type Camera,
  type KeptSight,
  type Sight,
  type Tree,
  type Vec,
} from '../src/index.js';

const [WIDTH, HEIGHT] = [1600, 1200];
const SIDE = 60;

/** A camera at a bearing (degrees) and height that looks at the middle of a tree. */
function cameraAt(bearing: number, height: number, away: number): Camera {
  const turn = (bearing * Math.PI) / 180;
  const at: Vec = [away * Math.sin(turn), away * Math.cos(turn), height];
  const forward = unit([-at[0], -at[1], 180 - height]);
  const right = unit(cross(forward, [0, 0, 1]));
  return { at, forward, right, down: cross(forward, right), focal: 1250, k1: 0.02, centre: [WIDTH / 2 + 5, HEIGHT / 2 - 4] };
}

/** A tree as it is seen in eight photos with cards about it: its trunk and branches drawn in some of them, by a steady hand. */
function seenOf(tree: Tree, noise: number): { kept: KeptSight; cameras: Camera[] } {
  const placed = placeTree(tree);
  const random = seeded(11);
  const off = (): number => noise * (2 * random() - 1);
  const cameras = Array.from({ length: 8 }, (_, i) => cameraAt(45 * i, i % 3 === 2 ? 900 : 320, 1000));
  const cards = Array.from({ length: 6 }, (_, card) => {
    const turn = (card * Math.PI) / 3;
    return { card, laid: { x: 240 * Math.sin(turn), y: 240 * Math.cos(turn), turn: 0.7 * card } };
  });
  const bench = -tree.pot.height;
  const photos = cameras.map((camera, i) => ({
    photo: `p${i}`,
    width: WIDTH,
    height: HEIGHT,
    focalGuess: 1200,
    cards: cards.map(({ card, laid }) => ({ card, corners: cornersOf(laid, SIDE).map(([x, y]) => project(camera, [x, y, bench])!) as never })),
  }));
  const wood = [['trunk', placed.trunk, 0] as const, ...placed.branches.map((b) => [b.branch.id, b.line, 0.2 * b.parentDiameter] as const)];
  const drawn = wood.flatMap(([line, limb, from]) =>
    [0, 2, 3, 5].map((i) => {
      const spot = (share: number) => pointAt(limb, from + share * (lengthOf(limb) - from));
      const points = Array.from({ length: 9 }, (_, k) => project(cameras[i]!, spot(k / 8).point)!.map((v) => v + off()) as [number, number]);
      const widths = [0.1, 0.9].map((share): [number, number] => {
        const { point, diameter } = spot(share);
        return [share, (diameter * cameras[i]!.focal) / depthOf(cameras[i]!, point)];
      });
      return { line, photo: `p${i}`, points, widths };
    }),
  );
  return { kept: { cardSide: SIDE, photos, drawn }, cameras };
}

/** What was worked out of these photos before: only what is drawn anew is placed again. */
const memory = new SightMemory();
const solved = (kept: KeptSight): Sight => {
  const found = workOutSight(kept, memory);
  if ('refused' in found) throw new Error(found.refused);
  return found;
};
const tree = generateTree({ seed: 512, name: 'Brant', species: 'larch', height: 420, base: 40, swing: 0.1, primaries: 7, secondaries: 2 });
const away = (a: Vec, b: Vec): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

test('a tree drawn over its photos is measured as it stands: each branch on its parent, its tip where it is, known as by photographs', () => {
  const { kept } = seenOf(tree, 1);
  const blank: Tree = { ...blankTree('Brant', 'larch'), pot: tree.pot };
  const sight = solved(kept);
  const { measured, fresh, changed } = measuredBySight(blank, kept, sight);
  expect([fresh.length, changed.length]).toEqual([tree.branches.length, tree.branches.length + 1]);
  const after: Tree = { ...blank, ...measured };
  const [truth, found] = [placeTree(tree), placeTree(after)];
  expect(Math.abs(lengthOf(found.trunk) / lengthOf(truth.trunk) - 1)).toBeLessThan(0.02);
  const shares = tree.branches.map((b) => {
    const [was, now] = [truth.byId.get(b.id)!, found.byId.get(b.id)!];
    expect([b.id, now.branch.parent, now.branch.known?.how]).toEqual([b.id, b.parent, 'photographs']);
    const tip = away(was.line.points.at(-1)!, now.line.points.at(-1)!);
    expect([b.id, tip < 8]).toEqual([b.id, true]);
    return { d: Math.abs(now.branch.d / b.d - 1), length: Math.abs(lengthOf(now.line) / lengthOf(was.line) - 1) };
  });
  const median = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1]!;
  expect(median(shares.map((s) => s.d))).toBeLessThan(0.06);
  expect(median(shares.map((s) => s.length))).toBeLessThan(0.03);
  // Taken in, the tree is as its photos have it: nothing is left to be taken in, and its cameras are kept where they stood.
  expect(measuredBySight(after, kept, sight).changed).toEqual([]);
  for (const { photo, camera } of sight.cameras) {
    const again = cameraOf(after.sight!.photos.find((p) => p.photo === photo)!.camera!);
    const [a, b] = [project(camera, [90, -60, 250])!, project(again, [90, -60, 250])!];
    expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.1);
  }
});

test('a listed branch keeps what photos do not show: its parent, green, state and name; one whose width is not drawn its thickness', () => {
  const { kept } = seenOf(tree, 0);
  const [chosen] = tree.branches.filter((b) => b.parent !== 'trunk');
  const listed: Tree = { ...tree, branches: tree.branches.map((b) => (b.id === chosen!.id ? { ...b, name: 'lantern arm', state: 'weak', green: 0.02 } : b)) };
  const bare = { ...kept, drawn: kept.drawn.map((d) => (d.line === chosen!.id ? { line: d.line, photo: d.photo, points: d.points } : d)) };
  const { measured, fresh } = measuredBySight(listed, bare, solved(bare));
  expect(fresh).toEqual([]);
  const now = measured.branches!.find((b) => b.id === chosen!.id)!;
  expect(now).toMatchObject({ name: 'lantern arm', state: 'weak', green: 0.02, parent: chosen!.parent, d: chosen!.d });
  // Nobody drew how thick it is: that stays known as well as it was, by ruler.
  expect(now.known!.d! / now.d).toBeLessThan(0.04);
  expect(now.known!.length! / now.length).toBeGreaterThan(0.005);
});

test('where a drawn place can be in another photo is the line of sight to it; the next photo is one that crosses those it is drawn in', () => {
  const { kept, cameras } = seenOf(tree, 0);
  const point = placeTree(tree).branches[0]!.line.points.at(-1)!;
  const [from, to] = [cameras[0]!, cameras[2]!];
  const line = sightIn(from, project(from, point)!, to);
  const there = project(to, point)!;
  // It passes through where the place is seen there.
  const offs = line.slice(1).map((b, i) => {
    const a = line[i]!;
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const k = Math.min(1, Math.max(0, ((there[0] - a[0]) * dx + (there[1] - a[1]) * dy) / (dx * dx + dy * dy)));
    return Math.hypot(there[0] - a[0] - k * dx, there[1] - a[1] - k * dy);
  });
  expect(Math.min(...offs)).toBeLessThan(1);
  const all = new Map(cameras.map((c, i) => [`p${i}`, c]));
  const only = (photos: readonly string[]) => kept.drawn.filter((d) => d.line === 'b1' && photos.includes(d.photo));
  const across = (photo: string): number => {
    const [a, b] = [all.get('p0')!, all.get(photo)!].map((c) => unit(scale(c.at, -1)));
    return Math.abs(a![0] * b![0] + a![1] * b![1] + a![2] * b![2]);
  };
  const next = nextPhoto('b1', only(['p0']), all, point)!;
  expect(across(next)).toBeLessThan(0.75);
  expect(nextPhoto('b1', [...all.keys()].map((photo) => ({ ...kept.drawn[0]!, line: 'b1', photo })), all, point)).toBeNull(); // prettier-ignore
});

/** A line through places of space as it is drawn over some of the photos. */
const drawnThrough = (line: string, places: readonly Vec[], cameras: readonly Camera[], widths: [number, number][] = []) =>
  [0, 2, 5].map((i) => ({ line, photo: `p${i}`, points: places.map((p) => project(cameras[i]!, p)!), widths }));

test('where a shoulder pressed in one photo is in another: where its line of sight meets the wood it leaves; beside all wood it is nowhere', () => {
  const { kept, cameras } = seenOf(tree, 0);
  const [from, to] = [solved(kept).cameras[0]!.camera, solved(kept).cameras[2]!.camera];
  const trunk = solved(kept).lines.filter((l) => l.line === 'trunk');
  const placed = placeTree(tree);
  const offs = placed.branches
    .filter((b) => b.order === 1)
    .map(({ line, parentDiameter }) => {
      const shoulder = pointAt(line, 0.2 * parentDiameter).point;
      const [there, truth] = [shoulderIn(from, project(cameras[0]!, shoulder)!, trunk, to)!, project(cameras[2]!, shoulder)!];
      return Math.hypot(there[0] - truth[0], there[1] - truth[1]);
    });
  // Half the trunk is 20 mm, 25 px: nowhere is it worse than the bark's own depth, mostly far better.
  expect(Math.max(...offs)).toBeLessThan(25);
  expect(offs.sort((a, b) => a - b)[offs.length >> 1]).toBeLessThan(12);
  expect(shoulderIn(from, [20, 20], trunk, to)).toBeNull();
});

test('roots and dead wood drawn over photos become the tree’s, each once; drawn anew it replaces its own', () => {
  const { kept, cameras } = seenOf(tree, 0);
  const root: Vec[] = [[14, 14, 2], [40, 40, 0], [60, 62, -3]]; // prettier-ignore
  const trunk = placeTree(tree).trunk;
  const bark = (z: number): Vec => {
    const { point, diameter } = pointAt(trunk, z);
    return [point[0] + diameter / 2, point[1], point[2]];
  };
  const extra = [...drawnThrough('root-1', root, cameras, [[0, 14]]), ...drawnThrough('shari-1', [bark(60), bark(100), bark(140)], cameras)];
  const all: KeptSight = { ...kept, drawn: [...kept.drawn, ...extra] };
  const bare: Tree = { ...tree, roots: [{ bearing: 200, length: 50, d: 12 }], features: [] };
  const { measured, changed } = measuredBySight(bare, all, solved(all));
  expect(changed).toEqual(expect.arrayContaining(['root-1', 'shari-1']));
  expect(measured.branches!.map((b) => b.id)).toEqual(tree.branches.map((b) => b.id));
  const [own, drawn] = measured.roots!;
  expect(own).toEqual(bare.roots[0]);
  expect([Math.round(drawn!.bearing / 5) * 5, Math.abs(drawn!.length - 67) < 4]).toEqual([45, true]);
  const [shari] = measured.features!;
  expect(shari!.kind).toBe('shari');
  expect(shari!.z[0]).toBeCloseTo(bark(60)[2], 0);
  expect(shari!.z[1]).toBeCloseTo(bark(140)[2], 0);
  expect(Math.abs(shari!.bearing - 90)).toBeLessThan(15);
  const after: Tree = { ...bare, ...measured };
  expect(measuredBySight(after, all, solved(all)).changed.filter((c) => c.includes('-'))).toEqual([]);
  const farther = { ...all, drawn: all.drawn.map((d) => (d.line === 'root-1' ? drawnThrough('root-1', [root[0]!, root[1]!, [90, 92, -3]], cameras).find((x) => x.photo === d.photo)! : d)) }; // prettier-ignore
  const again = measuredBySight(after, farther, solved(farther)).measured.roots!;
  expect([again.length, again[1]!.length > drawn!.length + 25]).toEqual([2, true]);
});

test('on a bench that is not level what hangs plumb says which way is up; cards of another size than told are noticed by what was measured with the ruler', () => {
  const { kept, cameras } = seenOf(tree, 0);
  const lean = (6 * Math.PI) / 180;
  const thread: Vec[] = [[150 + 300 * Math.sin(lean), 40, 300 * Math.cos(lean)], [150, 40, 0]]; // prettier-ignore
  const top = (set: KeptSight): Vec => solved(set).lines.find((l) => l.line === 'trunk')!.end;
  const [level, plumb] = [top(kept), top({ ...kept, drawn: [...kept.drawn, ...drawnThrough('plumb', thread, cameras)] })];
  expect(plumb[0]).toBeCloseTo(level[0] * Math.cos(lean) - level[2] * Math.sin(lean), -0.5);
  expect(plumb[2]).toBeCloseTo(level[2] * Math.cos(lean) + level[0] * Math.sin(lean), -0.5);
  expect(sayScale(tree, kept, solved(kept))).toBeNull();
  const small = { ...kept, cardSide: 45 };
  expect(sayScale(tree, small, solved(small))).toMatch(/make all 0\.7[3-7] times .* with the ruler\. Is the side of a card 45 mm\? With (59|60|61)/);
  const unmeasured = { ...tree, trunkKnown: { how: 'guessed' as const }, branches: tree.branches.map((b) => ({ ...b, known: { how: 'drawn' as const } })) };
  expect(sayScale(unmeasured, small, solved(small))).toBeNull();
  const half = tree.pot.width / 2;
  const rims = { ...small, drawn: [...small.drawn, ...drawnThrough('pot', [[-half, 0, 0], [half, 0, 0]], cameras)] }; // prettier-ignore
  expect(sayScale(unmeasured, rims, solved(rims))).toMatch(/the pot’s width .* With (59|60|61)/);
});

/** A place turned about the upright by a bearing. */
function turned(deg: number, x: number, y: number): { x: number; y: number } {
  const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
  return { x: x * c + y * s, y: y * c - x * s };
}

/** A tree turned about the upright by a bearing. */
const turnedTree = (deg: number, t: Tree): Tree => ({
  ...t,
  trunk: t.trunk.map((s) => ({ ...s, ...turned(deg, s.x, s.y) })),
  branches: t.branches.map((b) => {
    const path = b.path?.map(([x, y, z]): Vec => [turned(deg, x, y).x, turned(deg, x, y).y, z]);
    return { ...b, bearing: (b.bearing + deg) % 360, ...(path ? { path } : {}) };
  }),
});

test('photographed again with the cards laid anew: brought to the first round by foot and shoulders, the branch that was bent tells by how much', () => {
  const first = seenOf(tree, 0.7);
  const blank: Tree = { ...blankTree('Brant', 'larch'), pot: tree.pot };
  const then: Tree = { ...blank, ...measuredBySight(blank, first.kept, solved(first.kept)).measured };
  const onTrunk = tree.branches.filter((b) => b.parent === 'trunk');
  const [bent, still] = [onTrunk[0]!, onTrunk[1]!];
  const lower = reshaped(bent, { elevation: bent.elevation - 20, d: bent.d + 1.5 });
  const later = { ...tree, branches: tree.branches.map((b) => (b.id === bent.id ? lower : b)) };
  // The tree was turned on its bench: what lies at bearing 0 for the cards lay elsewhere then.
  const second = seenOf(turnedTree(70, later), 0.7);
  const again = sinceBefore(solved(second.kept), then.sight!);
  if (typeof again === 'string') throw new Error(again);
  expect(again.rmsMm).toBeLessThan(6);
  const of = new Map(again.since.map((s) => [s.line, s]));
  expect(Math.abs(of.get(bent.id)!.turned - 20)).toBeLessThan(4);
  expect(Math.abs(of.get(bent.id)!.thicker! - 1.5)).toBeLessThan(0.8);
  const others = onTrunk.slice(1).map((b) => of.get(b.id)!.turned).sort((a, b) => a - b); // prettier-ignore
  expect(others[others.length >> 1]!).toBeLessThan(2.5);
  // Measured by it the tree stands where it stood: what nothing was done to is not moved.
  const now = placeTree({ ...then, ...measuredBySight(then, second.kept, again.sight).measured });
  expect(away(now.byId.get(still.id)!.line.points.at(-1)!, placeTree(then).byId.get(still.id)!.line.points.at(-1)!)).toBeLessThan(10);
  // Too few shoulders in both: said.
  const few = { ...second.kept, drawn: second.kept.drawn.filter((d) => d.line === 'trunk' || d.line === still.id) };
  expect(sinceBefore(solved(few), then.sight!)).toMatch(/Draw the trunk and three branches/);
});
