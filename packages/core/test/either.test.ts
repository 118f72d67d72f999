import {
  consequencesOf,
  dayOf,
  direction,
  fanTargets,
  gapMap,
  generateTree,
  judgeFront,
  lengthOf,
  outcomeOf,
  placeTree,
  sub,
  turnDeg,
  type Gap,
  type Tree,
  type Vec,
} from '../src/index.js';
import { after, branch, decided, tree } from './trees.js';

const DAY = dayOf('2026-10-10');
const VIEW = { bearing: 20, pitch: 0, roll: 0 };

test('either of two is weighed as if it were decided: its green, the gaps that open, and what goes with the one alone', () => {
  let [gaps, losses, others] = [0, 0, 0];
  for (const seed of [3, 5, 8, 13]) {
    const t = generateTree({ seed, name: 'Either', species: 'juniper-scale', height: 420, base: 38, primaries: 7, secondaries: 2 });
    const [a, b, c] = t.branches.filter((x) => x.parent === 'trunk').sort((x, y) => y.green - x.green).map((x) => x.id) as [string, string, string]; // prettier-ignore
    const chosen = after(t, { kind: 'front', front: VIEW }, { kind: 'decide', branch: c, act: 'remove' }, { kind: 'either', a, b });
    // What goes anyway is no loss of the one or the other.
    others += consequencesOf(chosen, DAY).losses.filter((l) => l.branch === c).length;
    const { either } = consequencesOf(chosen, DAY);
    expect(either).toHaveLength(1);
    for (const [i, way] of either[0]!.entries()) {
      const [keep, remove] = i ? [b, a] : [a, b];
      expect([way.keep, way.remove]).toEqual([keep, remove]);
      const off = outcomeOf(decided(chosen, [keep, 'keep'], [remove, 'remove']));
      expect(way.green).toBe(off.green);
      const [before, left] = [placeTree(decided(chosen, [keep, 'keep'], [remove, 'remove'])), placeTree(off.tree)];
      expect(way.gaps).toBe(gapMap(before, left, VIEW).filter((g) => g.opened).length);
      expect(way.looks.score).toBe(judgeFront(left, VIEW).score);
      for (const loss of way.losses) expect(loss.branch).toBe(remove);
      gaps += way.gaps;
      losses += way.losses.length;
    }
  }
  expect([gaps > 0, losses > 0, others > 0]).toEqual([true, true, true]);
});

test('a side shoot is turned into a gap by what brings it there, as far as that is worth it and it stays on its own side', () => {
  const t = tree([
    branch('main', { at: 200, bearing: 90, elevation: 0, length: 300 }),
    branch('shoot', { parent: 'main', at: 296, bearing: 40, elevation: 0, length: 80 }),
  ]);
  const { byId } = placeTree(t);
  const { line } = byId.get('main')!;
  const shoots = [{ b: byId.get('shoot')!, line: byId.get('shoot')!.line }];
  const parent = { way: sub(line.points.at(-1)!, line.points[0]!), length: lengthOf(line) };
  const free = fanTargets(parent, shoots, new Map()).get('shoot')!;
  /** Where it is led with a hole so many degrees from where it would be fanned to. */
  const led = (offDeg: number): { by: number; from: string } => {
    const from = shoots[0]!.line.points[0]!;
    const out = direction({ bearingDeg: free.bearing + offDeg, elevationDeg: 0 });
    const hole = { gap: { seen: 'above' } as Gap, center: [from[0] + 70 * out[0], from[1] + 70 * out[1], from[2]] as Vec };
    const found = fanTargets(parent, shoots, new Map([['shoot', hole]])).get('shoot')!;
    return { by: turnDeg(free.bearing, found.bearing), from: found.from };
  };
  // To the left of its branch: farther out is a lesser bearing.
  expect(turnDeg(90, free.bearing)).toBeLessThan(0);
  for (const off of [-20, -12, -6, 8, 20]) expect([Math.round(led(off).by), led(off).from]).toEqual([off, 'gap']);
  // Farther than it may be turned it is turned so far; less than is worth it, or onto its own branch, not at all.
  expect(Math.round(led(-60).by)).toBe(-28);
  // Nearer to its branch than 15° it is not turned.
  for (const off of [-3, 0, 3, 4, 25, 28]) expect(led(off)).toEqual({ by: 0, from: 'fan' });
});

test('what points at the eye counts by its size beside the tree’s', () => {
  const eyeOf = (t: Tree): number => judgeFront(placeTree(t), { bearing: 90, pitch: 0, roll: 0 }).parts.eye;
  const spear = (of: number): Tree => {
    const t = tree([branch('spear', { at: 120 * of, bearing: 90, elevation: 0, length: 200 * of, d: 10 * of, tipD: 4 * of })]);
    return { ...t, trunk: t.trunk.map((s) => ({ x: s.x * of, y: s.y * of, z: s.z * of, d: s.d * of })) };
  };
  // The same tree twice as large is the same front; a branch twice as thick, or twice as long, is worse alike.
  expect(eyeOf(spear(2))).toBeCloseTo(eyeOf(spear(1)), 9);
  const own = (d: number, length: number): number => eyeOf(tree([branch('spear', { at: 120, bearing: 90, elevation: 0, length, d })]));
  expect(own(20, 200)).toBeCloseTo(own(10, 400), 9);
  expect(own(20, 200)).toBeLessThan(own(10, 200));
  expect(1 / own(20, 200) - 1).toBeCloseTo(2 * (1 / own(10, 200) - 1), 9);
  // All of it before the trunk's eye: twelve times thickness × length beside the trunk's own, a fifth more where it comes straight.
  const t = tree([]);
  expect(1 / own(10, 200) - 1).toBeCloseTo((12 * 1.2 * 10 * 200) / (t.trunk[0]!.d * 600), 6);
});
