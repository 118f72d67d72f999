import { dayOf, decided as decideOn, generateTree, planTree, type LineOf, type PlanDocument, type Tree } from '@ustle/core';
import { settled as removeSettled } from '../src/stages/remove/settled';
import { settled as watchSettled } from '../src/stages/watch/settled';
import { settled as wireSettled } from '../src/stages/wire/settled';

const DAY = '2026-02-10';
const bare = generateTree({ seed: 8, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 4, secondaries: 0, faults: ['bar', 'dead'] });
const fronted: Tree = { ...bare, plan: { ...bare.plan, front: { bearing: 0, pitch: 0, roll: 0 } } };
const plan = (tree: Tree) => planTree(tree, dayOf(DAY), { fronts: false });
const STAGES = { remove: removeSettled, wire: wireSettled, watch: watchSettled };
const settledBy = (tree: Tree, by: PlanDocument): string[] => Object.entries(STAGES).flatMap(([key, is]) => (is(tree, by) ? key : []));
const settled = (tree: Tree): string[] => settledBy(tree, plan(tree));

/** Every branch that a finding speaks against is decided on. */
const decided = plan(fronted).findings.reduce((t, f) => decideOn(t, f.branch, f.rule === 'dead' ? 'remove' : 'keep'), fronted);

const coils = (tree: Tree, count: number): LineOf<'wired'>[] =>
  plan(tree)
    .runs.slice(0, count)
    .flatMap((run) =>
      run.branches.map((b): LineOf<'wired'> => ({
        ...{ id: `w-${b.branch}`, on: '2026-02-01', kind: 'wired', run: run.id, branch: b.branch, metal: run.metal, size: run.size, strands: run.strands },
        ...{ angle: run.angle, hand: b.hand, start: b.start, gap: 0, wrap: 'none', bentDeg: b.bendTo, targetDeg: b.target, over: b.bendLength },
      })),
    );

test('removing is settled when every branch that something speaks against is decided on', () => {
  expect(plan(fronted).findings.length).toBeGreaterThan(1);
  expect([settled(fronted).includes('remove'), settled(decided).includes('remove')]).toEqual([false, true]);
  // One finding left open is enough to keep it open.
  const reopened = decideOn(decided, plan(fronted).findings[0]!.branch, 'undecided');
  expect(settled(reopened)).not.toContain('remove');
});

test('wiring is settled when every run of the plan is on, watching while no coil is late', () => {
  const runs = plan(decided).runs.length;
  expect(runs).toBeGreaterThan(1);
  const half: Tree = { ...decided, record: coils(decided, runs - 1) };
  const whole: Tree = { ...decided, record: coils(decided, runs) };
  expect([decided, half, whole].map((t) => settled(t).includes('wire'))).toEqual([false, false, true]);
  expect([decided, whole].map((t) => settled(t).includes('watch'))).toEqual([false, true]);
  const later = planTree(whole, dayOf('2028-08-01'), { fronts: false });
  expect(settledBy(whole, later).includes('watch')).toBe(false);
});
