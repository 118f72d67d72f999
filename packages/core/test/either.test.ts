import { consequencesOf, dayOf, gapMap, generateTree, judgeFront, outcomeOf, placeTree, proposePoses, openGaps, turnDeg, type Tree } from '../src/index.js';
import { after, branch, decided, tree } from './trees.js';

const DAY = dayOf('2026-10-10');
const VIEW = { bearing: 20, pitch: 0, roll: 0 };

test('either of two is weighed as if it were decided: its green, the gaps that open, and what goes with the one alone', () => {
  let [gaps, losses] = [0, 0];
  for (const seed of [3, 5, 8, 13]) {
    const t = generateTree({ seed, name: 'Either', species: 'juniper-scale', height: 420, base: 38, primaries: 7, secondaries: 2 });
    const [a, b] = t.branches.filter((x) => x.parent === 'trunk').sort((x, y) => y.green - x.green).map((x) => x.id) as [string, string]; // prettier-ignore
    const chosen = after(t, { kind: 'front', front: VIEW }, { kind: 'either', a, b });
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
  expect([gaps > 0, losses > 0]).toEqual([true, true]);
});

test('a side shoot is turned into a gap by a few degrees at least, and never across its own branch', () => {
  let turned = 0;
  for (let seed = 1; seed <= 25; seed++) {
    const made = generateTree({ seed, name: 'Fan', species: 'larch', height: 460, base: 40, primaries: 6, secondaries: 4 });
    const cut = made.branches.filter((b) => b.parent === 'trunk')[seed % 5]!;
    const t = decided(after(made, { kind: 'front', front: VIEW }), [cut.id, 'remove']);
    const [before, left] = [placeTree(t), placeTree(outcomeOf(t).tree)];
    const { poses } = proposePoses(left, openGaps(before, left, DAY));
    const wayOf = (id: string): number | undefined => poses.find((p) => p.branch === id)?.bearing;
    for (const p of poses) {
      const said = p.because.map((b) => /^Turned (\d+)° into the gap/.exec(b)).find((m) => m);
      const parent = wayOf(left.byId.get(p.branch)!.branch.parent);
      if (!said || parent === undefined) continue;
      turned++;
      const side = p.because.some((b) => /to the left of its branch/.test(b)) ? -1 : 1;
      expect(Number(said[1])).toBeGreaterThan(3);
      expect(Number(said[1])).toBeLessThanOrEqual(28);
      expect(side * turnDeg(parent, p.bearing)).toBeGreaterThan(5);
    }
  }
  expect(turned).toBeGreaterThan(5);
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
