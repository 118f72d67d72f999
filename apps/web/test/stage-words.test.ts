import fc from 'fast-check';
import { applyAct, dayOf, generateTree, isRefused, planTree, type Act, type Branch, type PlanDocument, type RunBranchPlan, type Tree } from '@ustle/core';
import { sameView, sayView } from '../src/stages/front/views';
import { settled as guySettled } from '../src/stages/guy/settled';
import { HEADS, ruleOf, shownIn, storedFrom } from '../src/stages/measure/columns';
import { keptPose } from '../src/stages/pose/kept';
import { settled as poseSettled } from '../src/stages/pose/settled';
import { bendName } from '../src/stages/pose/words';
import { sayMiss, sayPush } from '../src/stages/wire/words';

const DAY = dayOf('2026-02-10');
const tree = generateTree({ seed: 8, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 4, secondaries: 1, faults: [] });
const planOf = (t: Tree): PlanDocument => planTree(t, DAY, { fronts: false });
const done = (t: Tree, act: object): Tree => {
  const outcome = applyAct(t, { id: 'a', on: '2026-02-10', ...act } as Act, DAY);
  if (isRefused(outcome)) throw new Error(outcome.refused[0]!.message);
  return outcome.tree;
};

test('what is typed into a column is stored so that the column shows it again, within its bounds, by the clock too', () => {
  const [b] = tree.branches as [Branch];
  fc.assert(
    fc.property(fc.constantFrom(...HEADS.map((h) => h.column)), fc.boolean(), fc.double({ min: 0, max: 1, noNaN: true }), (column, clock, share) => {
      const rule = ruleOf(column, clock);
      const typed = Math.round((rule.minimum + share * (rule.maximum - rule.minimum)) * 10) / 10;
      const shown = shownIn({ ...b, [column]: storedFrom(column, typed, clock) }, column, clock);
      const turn = column === 'bearing' ? (clock ? 12 : 360) : Infinity;
      const off = Math.abs(shown - typed) % turn;
      expect(Math.min(off, turn - off)).toBeLessThan(0.06);
    }),
  );
  expect(HEADS.map((h) => ruleOf(h.column, false).unit)).toEqual(['mm', 'degrees', 'degrees', 'mm', 'mm', 'mm', '%', '%']);
  expect([ruleOf('bearing', true).maximum, shownIn({ ...b, bearing: 180 }, 'bearing', false), storedFrom('bearing', 370, false)]).toEqual([12, 180, 10]);
});

test('a pose that is accepted stays as it was shown, and a stage of poses is settled when every main branch that moves has its own', () => {
  const shown = planOf(tree);
  const mains = shown.poses.filter((p) => tree.branches.some((b) => b.id === p.branch && b.parent === 'trunk'));
  expect(mains.length).toBeGreaterThan(1);
  const accepted = mains.reduce((t, p) => done(t, { kind: 'pose', ...keptPose(p, undefined) }), tree);
  const after = planOf(accepted);
  for (const p of mains) {
    const now = after.poses.find((q) => q.branch === p.branch)!;
    expect(now).toMatchObject({ from: 'plan', bearing: p.bearing, elevation: p.elevation });
    expect(now.bends.map((b) => [b.at, b.angle, b.length])).toEqual(p.bends.map((b) => [b.at, b.angle, b.length]));
  }
  const allButOne = mains.slice(1).reduce((t, p) => done(t, { kind: 'pose', ...keptPose(p, undefined) }), tree);
  expect([tree, allButOne, accepted].map((t) => poseSettled(t, planOf(t)))).toEqual([false, false, true]);
  // What else its artist had said of the pose stays.
  expect(keptPose(mains[0]!, { branch: mains[0]!.branch, bearing: 1, elevation: 2, bends: [], reach: 90, arcs: 3 })).toMatchObject({
    reach: 90,
    arcs: 3,
    bearing: mains[0]!.bearing,
  });
  expect(mains[0]!.bends.map(bendName)[0]).toMatch(/^bend 1, (at the shoulder|on its way|an arc|the tip up)$/);
});

test('ties are settled when all that the plan has are on', () => {
  const on = { on: { since: '2026-01-01' } };
  const ties = (guys: object[], devices: object[] = []) => guySettled(tree, { guys, devices } as unknown as PlanDocument);
  expect([ties([]), ties([on]), ties([on, { on: null }]), ties([on], [{ fault: 'x' }]), ties([], [on])]).toEqual([false, true, false, false, true]);
});

test('a view, a press and a miss in words', () => {
  expect(
    [
      { bearing: 152, pitch: 0, roll: 0 },
      { bearing: 0, pitch: 5, roll: -3 },
      { bearing: 9, pitch: -5, roll: 2 },
    ].map(sayView),
  ).toEqual(['152°', '0°, leaning 5° to you and 3° left', '9°, leaning 5° away and 2° right']);
  const view = { bearing: 1, pitch: 2, roll: 3 };
  expect([sameView(view, { ...view }), ...(['bearing', 'pitch', 'roll'] as const).map((k) => sameView(view, { ...view, [k]: 9 }))]).toEqual([
    true,
    false,
    false,
    false,
  ]);
  expect([0.96, 0.95, 0.74, 0.65, 0.64].map(sayPush)).toEqual([
    'moves the branch, almost surely',
    'moves the branch, almost surely',
    'moves the branch, 7 times in 10',
    'moves the branch, 7 times in 10',
    'as likely moves the branch as gives way: press it first',
  ]);
  const part = (missDeg: (number | null)[]) => ({ bends: missDeg.map((m) => (m === null ? null : { missDeg: m })) }) as unknown as RunBranchPlan;
  expect([[], [25, null, 3], [25.4, 10, 40]].map((m) => sayMiss(part(m)))).toEqual([
    'on the outside of every bend',
    'on the outside of every bend',
    '25° beside the outside of bend 1, 40° beside the outside of bend 3',
  ]);
});
