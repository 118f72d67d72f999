import {
  dayOf,
  decided,
  distance,
  gapMap,
  generateTree,
  linesInWorld,
  namesOf,
  outcomeOf,
  placeTree,
  planTree,
  proposePoses,
  restFor,
  screenAxes,
  dot,
  turnBetween,
  type PlannedPose,
  type Tree,
  type Vec,
  sayDeg,
} from '../src/index.js';
import { after, branch, listed, tree } from './trees.js';

const FRONT = { bearing: 0, pitch: 0, roll: 0 };
const { right } = screenAxes(0);
/** A place as the viewer sees it: to the right, and up. */
const asSeen = (p: Vec): Vec => [dot(p, right), 0, p[2]];

test('a gap that a cut opens is closed by a branch that reaches it, or by the shoot nearest to it: both end nearer to its middle', () => {
  const closed = { gap: 0, shoot: 0 };
  let nearer = 0;
  for (let seed = 1; seed <= 14; seed++) {
    const grown = generateTree({ seed, name: 'Any', species: 'larch', height: 600, base: 50, primaries: 8, secondaries: 3, swing: 0.1 });
    const whole = { ...grown, plan: { ...grown.plan, front: FRONT } };
    const broad = [...whole.branches].filter((b) => b.parent === 'trunk').sort((a, b) => b.green - a.green)[1]!;
    const cut = decided(whole, broad.id, 'remove');
    const left = placeTree(outcomeOf(cut).tree);
    const gaps = gapMap(placeTree(cut), left, FRONT);
    const [without, with_] = [[], gaps].map((g) => proposePoses(left, g).poses) as [PlannedPose[], PlannedPose[]];
    const [linesWithout, linesWith] = [without, with_].map((poses) => linesInWorld(left, poses));
    for (const pose of with_.filter((p) => p.from === 'gap')) {
      const main = left.byId.get(pose.branch)!.branch.parent === 'trunk';
      const before = without.find((p) => p.branch === pose.branch);
      const tip = (lines: typeof linesWith): Vec => lines!.get(pose.branch)!.points.at(-1)!;
      const nearest = (lines: typeof linesWith): number =>
        Math.min(
          ...gaps
            .filter((g) => g.opened)
            .map((g) =>
              g.seen === 'front' ? distance(asSeen(tip(lines)), asSeen(g.center)) : Math.hypot(tip(lines)[0] - g.center[0], tip(lines)[1] - g.center[1]),
            ),
        );
      if (nearest(linesWith) < nearest(linesWithout)) nearer++;
      expect(pose.because.join(' ')).toMatch(
        main ? /It closes the gap seen from (the front|above): reaches it, turned by \d+°/ : /Turned \d+° into the gap seen from/,
      );
      // Not farther from its slope or its fan than is good for it.
      if (before) expect(turnBetween(before, pose)).toBeLessThan(main ? 60 : 45);
      closed[main ? 'gap' : 'shoot']++;
    }
  }
  // Not each: its slope, and what it grows on, have their say as well.
  expect(nearer / (closed.gap + closed.shoot)).toBeGreaterThan(0.7);
  expect(closed.gap).toBeGreaterThan(1);
  expect(closed.shoot).toBeGreaterThan(1);
});

test('what a cut asks of its neighbours is asked still once it is made, for a year', () => {
  let kept = 0;
  for (let seed = 1; seed <= 6; seed++) {
    const grown = generateTree({ seed, name: 'Any', species: 'larch', height: 600, base: 50, primaries: 8, secondaries: 1, swing: 0.1 });
    const broad = [...grown.branches].filter((b) => b.parent === 'trunk').sort((a, b) => b.green - a.green)[1]!;
    const decidedOn = after({ ...grown, plan: { ...grown.plan, front: FRONT } }, { kind: 'decide', branch: broad.id, act: 'remove' });
    const made = after(decidedOn, { kind: 'take-off', on: '2026-10-10', branches: [broad.id] });
    expect(made.branches.some((b) => b.id === broad.id)).toBe(false);
    const closing = (t: Tree, on: string): string[] =>
      planTree(t, dayOf(on), { fronts: false })
        .poses.filter((p) => p.from === 'gap' || /into the gap/.test(p.because.join(' ')))
        .map((p) => `${p.branch} to ${Math.round(p.bearing / 2)}`);
    const asked = closing(decidedOn, '2026-10-10');
    expect(closing(made, '2026-10-10')).toEqual(asked);
    expect(closing(made, '2027-10-09')).toEqual(asked);
    expect(closing(made, '2027-10-11')).toEqual([]);
    kept += asked.length;
  }
  expect(kept).toBeGreaterThan(3);
});

test('pads are moved apart only where one lies close above another: both with foliage, on one side, and not far above', () => {
  const raised = (own: object, lower: object = {}): boolean => {
    const t = tree([branch('below', { at: 200, bearing: 90, elevation: 30, ...lower }), branch('above', { at: 235, bearing: 100, elevation: 30, ...own })]);
    const placed = placeTree(t);
    return /Raised|aside/.test(
      proposePoses(placed)
        .poses.find((p) => p.branch === 'above')!
        .because.join(' '),
    );
  };
  expect([raised({}), raised({ at: 300 }), raised({ bearing: 140 }), raised({ green: 0 }), raised({}, { green: 0 })]).toEqual([
    true,
    false,
    false,
    false,
    false,
  ]);
  // Raised as far as its place allows, it is led to the freer side as well.
  const crowd = tree([branch('below', { at: 200, bearing: 90, elevation: 30 }), branch('above', { at: 203, bearing: 95, elevation: 30, length: 60 })]);
  const pose = proposePoses(placeTree(crowd)).poses.find((p) => p.branch === 'above')!;
  expect(pose.because.join(' ')).toMatch(/Raised 14°.*Led \d+° aside from above first left/);
  expect(pose.bearing - 90).toBeGreaterThan(25);
});

test('a bend rests for minutes, a heavy or a thick one for days', () => {
  expect([[6, 0.8], [8, 0.8], [14, 0.99], [19.9, 0.9], [20, 0.5], [9, 1], [10, 1.2], [20, 1.2], [35, 1.2]].map(([d, risk]) => restFor(d!, risk!).text)).toEqual([
    '5 minutes', '10 minutes', '20 minutes', '20 minutes', '14 days', '2 days', '7 days', '14 days', '21 days',
  ]); // prettier-ignore
});

test('what is said of the poses of a made-up tree', () => {
  const grown = generateTree({
    seed: 23,
    name: 'Any',
    species: 'hemlock',
    height: 680,
    base: 54,
    primaries: 10,
    secondaries: 2,
    swing: 0.1,
    faults: ['bar', 'hanging', 'dead'],
  });
  const t = { ...grown, plan: { ...grown.plan, front: { bearing: 30, pitch: 3, roll: -2 } } };
  const { poses, asGrown } = proposePoses(placeTree(t));
  const names = namesOf(t);
  const way = ({ bearing, elevation }: { bearing: number; elevation: number }): string => `${sayDeg(bearing)}/${sayDeg(elevation)}`;
  const said = poses.map(
    (p) =>
      `${way(p.now)} to ${way(p)}, ${p.bends.map((b) => `${b.kind} ${b.angle.toFixed(0)}° over ${b.length}`).join(', ')}; ${p.from}. ${p.because.join(' ')}`,
  );
  expect(
    listed({
      ...Object.fromEntries(poses.map((p, i) => [names(p.branch), [said[i]!]])),
      ...Object.fromEntries(asGrown.map((b) => [names(b.branch), [`${way(b)}. ${b.because.join(' ')}`]])),
    }),
  ).toMatchInlineSnapshot(`
   [
     "first left: 93°/23° to 93°/-17°, drop 55° over 79, movement 5° over 37, movement 9° over 38, movement 9° over 37, tip 44° over 53; first. The first branch; it comes to the side and a little forward as it grows. On mountain hemlock, branches at 25% of the height lie near -17°. It grows at 23°.",
     "first back: 225°/20° to 225°/-13°, drop 45° over 57, movement 5° over 31, movement 9° over 32, movement 9° over 32, tip 37° over 42; habit. On mountain hemlock, branches at 34% of the height lie near -13°. It grows at 20°.",
     "second left: 164°/30° to 164°/-5°, drop 48° over 65, movement 8° over 31, movement 14° over 30, movement 14° over 30, tip 27° over 43; habit. On mountain hemlock, branches at 49% of the height lie near -5°. It grows at 30°.",
     "first right: 271°/47° to 271°/-1°, drop 62° over 53, movement 7° over 32, movement 11° over 32, movement 11° over 32, tip 9° over 42; habit. On mountain hemlock, branches at 56% of the height lie near -1°. It grows at 47°.",
     "third front: 40°/13° to 68°/2°, drop 41° over 52, movement 6° over 23, movement 9° over 23, movement 9° over 23, tip 19° over 33; eye. It points at the viewer: led aside. On mountain hemlock, branches at 62% of the height lie near 2°. It grows at 13°.",
     "second back: 193°/34° to 193°/5°, drop 37° over 31, movement 5° over 22, movement 9° over 22, movement 9° over 22, tip 20° over 27; habit. On mountain hemlock, branches at 69% of the height lie near 5°. It grows at 34°.",
     "second right: 337°/37° to 337°/9°, drop 38° over 34, movement 9° over 17, movement 16° over 17, movement 16° over 17, tip 9° over 24; habit. On mountain hemlock, branches at 76% of the height lie near 9°. It grows at 37°.",
     "third left: 102°/48° to 102°/12°, drop 45° over 27, movement 10° over 13, movement 17° over 14, movement 17° over 14, tip 10° over 19; habit. On mountain hemlock, branches at 83% of the height lie near 12°. It grows at 48°.",
     "crown: 202°/62° to 202°/15°, drop 58° over 20, movement 7° over 12, movement 12° over 13, movement 12° over 12, tip 19° over 16; habit. On mountain hemlock, branches at 90% of the height lie near 15°. It grows at 62°.",
     "first front: 31°/17° to 68°/-12°, drop 65° over 62, movement 8° over 21, movement 13° over 21, movement 13° over 21, tip 45° over 35; eye. It points at the viewer: led aside. On mountain hemlock, branches at 34% of the height lie near -13°. It grows at 17°.",
     "first left, first from the trunk on its right side: 124°/5° to 143°/-3°, drop 23° over 17, movement 7° over 21, movement 11° over 21; fan. Fanned flat to the right of its branch, 50° from it.",
     "first left, third from the trunk on its left side: 52°/32° to 53°/-3°, drop 39° over 15, movement 8° over 29, movement 13° over 28, tip 13° over 21; fan. Fanned flat to the left of its branch, 41° from it.",
     "first back, second from the trunk on its left side: 174°/4° to 184°/0°, drop 13° over 5, movement 12° over 19, movement 20° over 20, tip 10° over 13; fan. Fanned flat to the left of its branch, 41° from it.",
     "first right, first from the trunk on its right side: 308°/12° to 321°/5°, drop 16° over 6, movement 9° over 26, movement 15° over 26; fan. Fanned flat to the right of its branch, 50° from it.",
     "first right, second from the trunk on its left side: 262°/36° to 230°/5°, drop 47° over 11, movement 11° over 18, movement 18° over 19, tip 4° over 14; fan. Fanned flat to the left of its branch, 41° from it.",
     "third front, first from the trunk on its right side: 125°/-4° to 118°/7°, drop 13° over 6, movement 8° over 17, movement 13° over 17; fan. Fanned flat to the right of its branch, 50° from it.",
     "third front, second from the trunk on its left side: 322°/36° to 27°/7°, drop 76° over 15, movement 7° over 15, movement 12° over 14, tip 9° over 12; fan. Fanned flat to the left of its branch, 41° from it.",
     "second back, first from the trunk on its right side: 231°/30° to 242°/9°, drop 28° over 10, movement 8° over 12, movement 14° over 13; fan. Fanned flat to the right of its branch, 50° from it.",
     "second back, second from the trunk on its left side: 154°/23° to 152°/9°, drop 15° over 3, movement 10° over 16, movement 16° over 16; fan. Fanned flat to the left of its branch, 41° from it.",
     "second right, first from the trunk on its right side: 18°/16° to 27°/10°, drop 11° over 5, movement 10° over 13, movement 16° over 13; fan. Fanned flat to the right of its branch, 50° from it.",
     "second right, second from the trunk on its left side: 321°/22° to 297°/10°, drop 28° over 6, movement 8° over 14, movement 13° over 14; fan. Fanned flat to the left of its branch, 41° from it.",
     "third left, first from the trunk on its right side: 118°/14° to 152°/12°, drop 39° over 10, movement 10° over 9, movement 17° over 9, tip 7° over 7; fan. Fanned flat to the right of its branch, 50° from it.",
     "third left, second from the trunk on its left side: 78°/35° to 62°/12°, drop 30° over 5, movement 11° over 9, movement 19° over 9; fan. Fanned flat to the left of its branch, 41° from it.",
     "crown, first from the trunk on its right side: 226°/14° to 252°/14°, drop 27° over 5, movement 12° over 7, movement 20° over 7; fan. Fanned flat to the right of its branch, 50° from it.",
     "crown, second from the trunk on its left side: 178°/44° to 162°/14°, drop 37° over 6, movement 12° over 8, movement 20° over 8, tip 4° over 6; fan. Fanned flat to the left of its branch, 41° from it.",
     "second front: 10°/-3°. Dead wood: it stays as it is, or becomes a jin.",
     "first left, second from the trunk on its under side: 258°/-51°. It would have to turn 120°, which looks forced: take it off, or pose it by hand.",
     "first back, first from the trunk on its right side: 275°/-4°. It lies within 10° of where it should.",
     "second front, first from the trunk on its right side: 54°/-3°. Dead wood: it stays as it is, or becomes a jin.",
     "second front, second from the trunk on its left side: 327°/-21°. Dead wood: it stays as it is, or becomes a jin.",
     "second left, first from the trunk on its right side: 208°/-2°. It lies within 10° of where it should.",
     "second left, second from the trunk on its left side: 126°/6°. It lies within 10° of where it should.",
   ]
  `);
});
