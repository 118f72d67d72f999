import fc from 'fast-check';
import {
  branchIn,
  dayOf,
  decided,
  generateTree,
  isoOf,
  searchFronts,
  placeTree,
  usualWeights,
  WEIGHT_PROFILES,
  type Front,
  type LineOf,
  type Tree,
  NOTHING_LEARNT,
} from '@ustle/core';
import { planner } from '../src/jobs/planner';

const tree = generateTree({ seed: 11, name: 'Any', species: 'maple-trident', height: 500, base: 45, primaries: 4, secondaries: 1 });
const weights = WEIGHT_PROFILES[usualWeights(tree)]!;
const [first, second] = tree.branches.filter((b) => b.parent === 'trunk').map((b) => b.id) as [string, string];

const coil = (branch: string, on: string): LineOf<'wired'> => ({
  ...{ id: branch, on, kind: 'wired', run: `r-${branch}`, branch, metal: 'aluminium', size: 2.5, strands: 1, angle: 45, hand: 'cw', start: 'over' },
  ...{ gap: 0, wrap: 'none', bentDeg: 40, targetDeg: 32, over: 40 },
});
const wired: Tree = { ...tree, record: [coil(first, '2026-03-10'), coil(second, '2026-05-01')] };

test('a search tells a coarse rose at once, then how far it is, and ends with what the whole search finds', async () => {
  const told: { rose: number; done: number }[] = [];
  const found = await planner.fronts(tree, { tilts: [0], weights }, (rose: Front[], done: number) => void told.push({ rose: rose.length, done }));
  expect(told[0]).toEqual({ rose: 24, done: 0 });
  const shares = told.map((t) => t.done);
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(shares.at(-1)).toBeGreaterThan(0.8);
  const whole = searchFronts(placeTree(tree), { weights, pitches: [0], rolls: [0] });
  expect(found!.candidates).toEqual(whole.candidates);
  expect(found!.rose).toHaveLength(120);
});

test('a later search or a stop ends the one before, which then has no answer', async () => {
  const early = planner.fronts(tree, { tilts: [0], weights }, () => undefined);
  const late = planner.fronts(decided(tree, first, 'remove'), { tilts: [0], weights }, () => undefined);
  expect(await early).toBeNull();
  expect((await late)!.candidates.length).toBeGreaterThan(0);
  const stopped = planner.fronts(tree, { tilts: [-5, 0, 5], weights }, () => undefined);
  planner.stopSearch();
  expect(await stopped).toBeNull();
});

test('fronts are judged on the tree that the plan leaves', () => {
  const without = decided(tree, first, 'remove');
  const view = { bearing: tree.branches.find((b) => b.id === first)!.bearing, pitch: 0, roll: 0 };
  const before = planner.judge(tree, view, weights);
  const after = planner.judge(without, view, weights);
  expect(before.front.hiding.some((h) => h.branch === first)).toBe(true);
  expect(after.front.hiding.some((h) => h.branch === first)).toBe(false);
  expect(after.front.parts.trunkInSight).toBeGreaterThan(before.front.parts.trunkInSight);
  expect(after.planting.branches.some((b) => b.branch === first)).toBe(false);
});

test('the curves of a coil begin when it was put on, never fall, and cross where the plan dates them', () => {
  const on = '2026-06-01';
  const curves = planner.curves(wired, on, 60, NOTHING_LEARNT);
  expect(curves.map((c) => c.branch).sort()).toEqual([first, second].sort());
  const { wires } = planner.plan(wired, on, NOTHING_LEARNT);
  for (const c of curves) {
    expect(c.days[0]).toBe(wired.record.find((e) => branchIn(e) === c.branch)!.on);
    for (const chances of [c.touching, c.marking]) {
      chances.forEach((v, i) => expect(v).toBeGreaterThanOrEqual((chances[i - 1] ?? 0) - 1e-9));
      expect(chances.every((v) => v >= 0 && v <= 1)).toBe(true);
    }
    // What touches may mark, never the other way round.
    c.marking.forEach((v, i) => expect(v).toBeLessThanOrEqual(c.touching[i]! + 1e-9));
    const { marking } = wires.find((w) => w.branch === c.branch)!;
    for (const [share, day] of [
      [0.1, marking.p10],
      [0.9, marking.p90],
    ] as const) {
      const week = c.days.findIndex((d) => d >= day!);
      if (week < 1) continue;
      expect(c.marking[week]).toBeGreaterThanOrEqual(share - 1e-6);
      expect(c.marking[week - 1]).toBeLessThan(share + 1e-6);
    }
  }
});

test('on any day only the coils that are on by then are told, each further on than the day before', () => {
  const order = ['clear', 'touching', 'marking', 'deep', 'swallowed'];
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 1, max: 120 }), (after, later) => {
      const at = (days: number): ReturnType<typeof planner.stages> => planner.stages(wired, '2026-06-01', isoOf(dayOf('2026-03-10') + days), NOTHING_LEARNT);
      const now = at(after);
      expect(now.map((s) => s.branch)).toEqual(after < 52 ? [first] : [first, second]);
      for (const s of at(after + later)) {
        const before = now.find((x) => x.branch === s.branch);
        if (before) expect(order.indexOf(s.stage)).toBeGreaterThanOrEqual(order.indexOf(before.stage));
        if (before) expect(s.set ?? 0).toBeGreaterThanOrEqual((before.set ?? 0) - 1e-9);
      }
    }),
    { numRuns: 25 },
  );
});

test('the season curve peaks at 1, rests in winter, and is half a year off in the south', () => {
  const north = planner.season('maple-trident', 'north', '2026-01-01', 52);
  const south = planner.season('maple-trident', 'south', '2026-01-01', 52);
  for (const year of [north, south]) expect([Math.max(...year), year.every((w) => w >= 0)]).toEqual([1, true]);
  const peak = (year: number[]): number => year.indexOf(1);
  expect([peak(north) > 12 && peak(north) < 40, north[2]! < 0.05, south[28]! < 0.05]).toEqual([true, true, true]);
  expect(Math.abs(Math.abs(peak(north) - peak(south)) - 26)).toBeLessThanOrEqual(2);
});
