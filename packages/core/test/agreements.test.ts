import { agreedBranches, applyAct, dayOf, dueOn, isRefused, layOut, needsAgreement, planTree, type Intent, type Tree } from '../src/index.js';
import { after, branch, tree } from './trees.js';

const DAY = dayOf('2026-10-10');
const clients = (): Tree =>
  after(
    tree([branch('low', { at: 120, length: 240, d: 12 }), branch('right', { at: 240, length: 200 }), branch('dry', { at: 300, state: 'dead', green: 0 })], {
      client: 'the Harbour Board',
    }),
    { kind: 'front', front: { bearing: 0, pitch: 0, roll: 0 } },
    { kind: 'decide', branch: 'low', act: 'shorten', length: 120 },
    { kind: 'decide', branch: 'right', act: 'remove' },
  );
const agreed = (branches: string[], to?: string[]): Intent => ({ kind: 'agreed', by: 'A. Pilot', branches, ...(to ? { to } : {}) }) as Intent;
const refused = (t: Tree, intent: Intent): string | null => {
  const outcome = applyAct(t, { id: 'x', on: '2026-10-10', ...intent } as Parameters<typeof applyAct>[1], DAY);
  return isRefused(outcome) ? outcome.refused[0]!.code : null;
};
const cut = (id: string): Intent => ({ kind: 'take-off', branches: [id] });

test('a cut is agreed to as it is decided: decided otherwise, it is asked anew, and agreed to once it is as it was', () => {
  const t = after(clients(), agreed(['low']));
  expect([...agreedBranches(t)!]).toEqual(['low']);
  expect([refused(t, cut('low')), refused(t, cut('right'))]).toEqual([null, 'not-agreed']);
  const shorter = after(t, { kind: 'decide', branch: 'low', act: 'shorten', length: 60 });
  expect([...agreedBranches(shorter)!]).toEqual([]);
  expect(refused(shorter, cut('low'))).toBe('not-agreed');
  const gone = after(t, { kind: 'decide', branch: 'low', act: 'remove' });
  expect(refused(gone, cut('low'))).toBe('not-agreed');
  expect(refused(after(gone, agreed(['low'])), cut('low'))).toBeNull();
  expect(refused(after(shorter, { kind: 'decide', branch: 'low', act: 'shorten', length: 120 }), cut('low'))).toBeNull();
  // What was noted before the cut was kept with it is to whatever was decided.
  const old: Tree = { ...clients(), record: [{ id: 'old', on: '2026-01-01', kind: 'agreed', by: 'B.', branches: ['low'] }] };
  expect(refused(old, cut('low'))).toBeNull();
});

test("what cannot be undone waits for the owner: living wood off the list, the trunk bent; open cuts say so, and a tree of one's own asks nobody", () => {
  const t = clients();
  const unlist = (id: string): Intent => ({ kind: 'unlist', branches: [id] });
  const without = (id: string): Intent => ({ kind: 'measure', measured: { branches: t.branches.filter((b) => b.id !== id) } });
  expect([unlist('low'), unlist('dry'), without('low'), without('dry')].map((i) => refused(t, i))).toEqual(['not-agreed', null, 'not-agreed', null]);
  expect(refused(after(t, agreed([], ['unlisting'])), unlist('low'))).toBeNull();
  expect(refused({ ...t, client: null }, unlist('low'))).toBeNull();
  expect([needsAgreement(t, 'repotting'), needsAgreement(after(t, agreed(['low'])), 'repotting'), needsAgreement(after(t, agreed([], ['repotting'])), 'repotting')]).toEqual([true, true, false]); // prettier-ignore
  const said = (x: Tree): string => dueOn(x, DAY).due.find((d) => d.kind === 'plan')!.text;
  expect(said(t)).toMatch(/^the Harbour Board has not agreed yet\./);
  expect(said(after(t, agreed(['low', 'right'])))).not.toMatch(/agreed/);

  const tall = after(tree([branch('low', { at: 300, length: 200 })], { client: 'the Harbour Board', trunk: [0, 200, 400, 600].map((z) => ({ x: 0, y: 0, z, d: 14 - z / 80 })) }), { kind: 'front', front: { bearing: 0, pitch: 0, roll: 0 } }, { kind: 'trunk-way', way: 'gentle-s' }); // prettier-ignore
  const trunkSteps = (x: Tree): number => layOut(x, planTree(x, DAY, { fronts: false }), DAY, { hours: 40, beyond: true }).steps.filter((s) => s.kind === 'bend' && s.branches.includes('trunk')).length; // prettier-ignore
  expect(trunkSteps(tall)).toBe(0);
  expect(trunkSteps(after(tall, agreed([], ['trunk'])))).toBeGreaterThan(0);
});
