import { dayOf, decide, generateTree, planTree, type RecordEntry, type Tree } from '@ustle/core';
import { settledStages, STAGE_KEYS } from '../src/stages/settled';

const DAY = '2026-02-10';
const bare = generateTree({ seed: 8, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 4, secondaries: 0, faults: ['bar', 'dead'] });
const fronted: Tree = { ...bare, plan: { ...bare.plan, front: { bearing: 0, pitch: 0, roll: 0 } } };
const plan = (tree: Tree) => planTree(tree, dayOf(DAY), { fronts: false });
const settled = (tree: Tree): string[] => STAGE_KEYS.filter((s) => settledStages(tree, plan(tree)).has(s));

/** Every branch that a finding speaks against is decided on. */
const decided = plan(fronted).findings.reduce((t, f) => decide(f.branch, { act: f.rule === 'dead' ? 'remove' : 'keep' })(t), fronted);

const coils = (tree: Tree, count: number): RecordEntry[] =>
  plan(tree)
    .runs.slice(0, count)
    .flatMap((run) =>
      run.branches.map((b): RecordEntry => ({
        ...{ id: `w-${b.branch}`, on: '2026-02-01', kind: 'wired', run: run.id, branch: b.branch, metal: run.metal, size: run.size, strands: run.strands },
        ...{ angle: run.angle, hand: b.hand, start: b.start, gap: 0, wrap: 'none', bentDeg: b.bendTo, targetDeg: b.target, over: b.bendLength },
      })),
    );

test('a stage is settled when it needs nothing more: none without a plan, each in its turn', () => {
  expect([...settledStages(fronted, null)]).toEqual([]);
  expect(settled({ ...bare, branches: [] })).not.toContain('measure');
  expect(settled(bare)).toEqual(expect.arrayContaining(['measure']));
  expect([settled(bare).includes('front'), settled(fronted).includes('front')]).toEqual([false, true]);
  expect(plan(fronted).findings.length).toBeGreaterThan(1);
  expect([settled(fronted).includes('remove'), settled(decided).includes('remove')]).toEqual([false, true]);
  // One finding left open is enough to keep it open.
  const reopened = decide(plan(fronted).findings[0]!.branch, { act: 'undecided' })(decided);
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
  expect(settledStages(whole, later).has('watch')).toBe(false);
});
