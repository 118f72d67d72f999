import { asItStands, branchOf, dayOf, growthByThickness, learnedOf, placeTree, speciesOf, treeOn, type Intent, type Tree } from '../src/index.js';
import { planOn, thick } from './thick.js';
import { after } from './trees.js';

/** How thick a branch stands on a day, mm. */
const standsThick = (t: Tree, on: string, id = 'right'): number => branchOf(asItStands(treeOn(t, dayOf(on)), dayOf(on)), id)!.d;
const caliper = (on: string, d: number): Intent => ({ kind: 'measured', on, branch: 'right', d }) as Intent;
const remeasure = (on: string, d: number): Intent => ({ kind: 'remeasure', on, branch: 'right', changes: { d } });

/** Two full years of a strong spruce lay on so much, mm of thickness. */
const TWO_YEARS = 2 * 2 * 1.5 * speciesOf('spruce').yearlyGrowth.value * growthByThickness({ diameter: 11.4 });

test('a branch is as thick as it was measured last, and grows on from there at its pace; one that nobody dated stays', () => {
  expect(standsThick(thick(), '2035-01-01')).toBe(11);
  const dated = after(thick(), remeasure('2026-01-10', 11.4));
  expect(standsThick(dated, '2026-01-11')).toBe(11.4);
  expect(standsThick(dated, '2028-01-10')).toBeCloseTo(11.4 + TWO_YEARS, 1);
  expect(standsThick(after(dated, { kind: 'manner', pace: 0.5 } as Intent), '2028-01-10')).toBeCloseTo(11.4 + TWO_YEARS / 2, 1);
  // Dead wood does not grow; the tip keeps its share.
  expect(standsThick(after(dated, { kind: 'remeasure', on: '2026-01-11', branch: 'right', changes: { state: 'dead' } }), '2028-01-10')).toBe(11.4);
  const now = branchOf(asItStands(dated, dayOf('2028-01-10')), 'right')!;
  expect(now.tipD / now.d).toBeCloseTo(branchOf(dated, 'right')!.tipD / 11.4, 1);
  // By caliper on a walk, it begins from there; on a day before, it does not.
  const walked = after(dated, caliper('2027-06-01', 12));
  expect([standsThick(walked, '2027-06-01'), standsThick(walked, '2027-05-31') > 12]).toEqual([12, true]);
  expect(standsThick(after(walked, remeasure('2027-06-01', 12.4)), '2027-06-01')).toBe(12.4);
});

test('each measure of a thickness teaches how fast a branch grows, and a correction within days does not', () => {
  const looks = (t: Tree): number => learnedOf(placeTree(t), dayOf('2029-01-01')).looks;
  const once = after(thick(), remeasure('2026-01-10', 11.4));
  expect([looks(once), looks(after(once, remeasure('2026-01-12', 10.9)))]).toEqual([0, 0]);
  const slow = after(once, remeasure('2028-01-10', 12));
  expect(looks(slow)).toBe(1);
  expect(slow.record.filter((l) => l.kind === 'measured')).toMatchObject([{ on: '2026-01-10', branch: 'right', d: 11.4 }]);
  expect(looks(after(once, caliper('2028-01-10', 12)))).toBe(1);
  const mean = (t: Tree): number => learnedOf(placeTree(t), dayOf('2029-01-01')).tree.mean;
  expect(mean(slow)).toBeLessThan(mean(after(once, remeasure('2028-01-10', 18))));
});

test('wire is planned for the thickness that a branch has by then', () => {
  const dated = after(thick(), remeasure('2026-01-10', 9));
  const wire = (on: string): number => {
    const run = planOn(dated, dayOf(on)).runs.find((r) => r.branches.some((b) => b.branch === 'right'))!;
    return run.size * run.strands;
  };
  expect(wire('2028-02-10')).toBeGreaterThan(wire('2026-02-10'));
});
