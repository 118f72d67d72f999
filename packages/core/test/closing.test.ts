import {
  dayOf,
  decided,
  distance,
  gapMap,
  generateTree,
  linesInWorld,
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
import { after, branch, tree } from './trees.js';

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
  expect(pose.bearing - 90).toBeGreaterThan(20);
});

test('a bend rests for minutes, a heavy or a thick one for days', () => {
  expect([[6, 0.8], [8, 0.8], [14, 0.99], [19.9, 0.9], [20, 0.5], [9, 1], [10, 1.2], [20, 1.2], [35, 1.2]].map(([d, risk]) => restFor(d!, risk!).text)).toEqual([
    '5 minutes', '10 minutes', '20 minutes', '20 minutes', '14 days', '2 days', '7 days', '14 days', '21 days',
  ]); // prettier-ignore
});

test('what is said of a pose is what is asked of it: where it grows, where it should lie, and why it is left', () => {
  for (const seed of [1, 12, 23, 34]) {
    const grown = generateTree({
      seed,
      name: 'Any',
      species: 'hemlock',
      height: 680,
      base: 54,
      primaries: 10,
      secondaries: 2,
      faults: ['bar', 'hanging', 'dead'],
    });
    const t = { ...grown, plan: { ...grown.plan, front: { bearing: 30, pitch: 3, roll: -2 } } };
    const { poses, asGrown } = proposePoses(placeTree(t));
    expect([...poses, ...asGrown].map((p) => p.branch).sort()).toEqual(t.branches.map((b) => b.id).sort());
    for (const p of poses) {
      const told = p.because.join(' ');
      const slopes = [...told.matchAll(/lie near (-?\d+)°/g)].map((m) => m[1]);
      if (p.from === 'habit' || p.from === 'first') expect(Math.abs(Number(slopes[0]) - p.elevation)).toBeLessThan(/are missing/.test(told) ? 60 : 16);
      for (const [, grows] of told.matchAll(/It grows at (-?\d+)°/g)) expect(`${grows}°`).toBe(sayDeg(p.now.elevation));
      expect(p.from === 'fan').toBe(/Fanned flat to the (left|right) of its branch, \d+° from it/.test(told));
      // Bends follow each other along the branch, and the last ends on it.
      const { length } = t.branches.find((b) => b.id === p.branch)!;
      p.bends.forEach((b, i) => expect(b.at).toBeGreaterThanOrEqual(i ? p.bends[i - 1]!.at + p.bends[i - 1]!.length - 1 : 0));
      expect(Math.max(0, ...p.bends.map((b) => b.at + b.length))).toBeLessThanOrEqual(length + 1);
    }
    for (const left of asGrown) expect(left.because.join(' ')).toMatch(/Dead wood|within \d+° of where it should|looks forced|[Tt]oo short|stays/);
  }
});
