import { asItStands, dayOf, distance, movedBy, placeTree, pointAt, type Intent, type PlanDevice, type Tree, type Vec } from '../src/index.js';
import { planOn } from './thick.js';
import { after, branch, tree } from './trees.js';

test('a branch that a tie leads lies as the tie draws it, what grows on it rides along, and it goes back by what was measured, or foreseen, once the tie is off', () => {
  const day = dayOf('2026-03-01');
  const made = tree(
    [
      branch('low', { at: 140, bearing: 80, elevation: 35, d: 24, tipD: 8, length: 420, green: 0.3 }),
      branch('shoot', { parent: 'low', at: 300, bearing: 120, elevation: 20, d: 6, length: 110, green: 0.05 }),
      branch('back', { at: 340, bearing: 190, elevation: 20, d: 9, length: 220, green: 0.15 }),
    ],
    { species: 'yew', plan: { front: { bearing: 0, pitch: 3, roll: -4 }, decisions: [], poses: [], runs: [], guys: [] } },
  );
  const plan = planOn(made, day);
  const guy = plan.guys.find((g) => g.branch === 'low')!;
  const put = (t: Tree, share: number): Tree =>
    after(t, {
      ...{ kind: 'tie', on: '2026-03-01', guy: guy.id, branch: 'low', at: guy.at, anchor: guy.anchor, wire: guy.wire, cushion: guy.cushion },
      ...{ twists: 10 * share, tension: guy.tension, cameDeg: 30, bends: guy.bends.map((b) => ({ ...b, bentDeg: b.bentDeg * share })) },
    } as Intent);
  const tip = (t: Tree, id = 'low', on = '2026-03-02'): Vec =>
    placeTree(asItStands(t, dayOf(on)))
      .byId.get(id)!
      .line.points.at(-1)!;
  const drawn = put(made, 1);
  const from = tip(made);
  // As the rod lies, within a few hundredths of how far it came.
  expect(distance(tip(drawn), guy.line.at(-1)!)).toBeLessThan(0.06 * distance(from, guy.line.at(-1)!));
  expect(distance(tip(drawn, 'shoot'), tip(made, 'shoot'))).toBeGreaterThan(30);
  expect(distance(tip(drawn, 'back'), tip(made, 'back'))).toBe(0);
  // In stages: half, then all.
  const half = put(made, 0.5);
  const whole = after(half, { kind: 'guyed', on: '2026-03-02', branch: 'low', guy: guy.id, done: 'twisted', twists: 5, bends: guy.bends });
  expect(distance(from, tip(half))).toBeLessThan(0.7 * distance(from, tip(drawn)));
  expect(distance(tip(whole), tip(drawn))).toBeLessThan(0.01);
  // Off at once nearly all of it comes back; after years the most is kept; what was measured is so.
  const off = (on: string): Tree => after(drawn, { kind: 'untie', on, guy: guy.id });
  const back = (t: Tree, on = '2029-12-01'): number => distance(tip(t, 'low', on), from) / distance(tip(drawn), from);
  expect(back(off('2026-03-02'))).toBeLessThan(0.8);
  expect(back(off('2029-03-02'))).toBeGreaterThan(back(off('2026-03-02')) + 0.1);
  const measured = after(off('2026-03-02'), { kind: 'measured', on: '2026-03-10', branch: 'low', guy: guy.id, heldDeg: 15 });
  expect(back(measured)).toBeCloseTo(0.5, 1);
});

test('a spreader moves both of its stems apart as far as it is turned, and both go back by themselves when it is off', () => {
  const day = dayOf('2026-03-01');
  // Stems of their own, which no pose lays down.
  const stem = (id: string, bearing: number) => branch(id, { at: 20, bearing, elevation: 70, length: 480, d: 24, tipD: 8, green: 0.2 });
  const spreader = { kind: 'device', what: 'spreader', branch: 'a', at: 300, other: { branch: 'b', at: 300 }, by: 30 } as Intent;
  const made = after(tree([stem('a', 90), stem('b', 270)], { species: 'larch' }), spreader);
  const found = planOn(made, day).devices[0] as PlanDevice;
  const gap = (t: Tree, on = '2026-03-03'): number => {
    const { byId } = placeTree(asItStands(t, dayOf(on)));
    return distance(pointAt(byId.get('a')!.line, 300).point, pointAt(byId.get('b')!.line, 300).point);
  };
  const before = gap(made);
  const setUp = (share: number): Tree => after(made, { kind: 'set-up', on: '2026-03-01', device: found.id, twists: 10 * share, ...movedBy(found, share) });
  expect(gap(setUp(1)) - before).toBeGreaterThan(24);
  expect(gap(setUp(1)) - before).toBeLessThan(36);
  // Turned on by as much again it has moved them as far as at once.
  const turned = after(setUp(0.5), { kind: 'guyed', on: '2026-03-02', branch: 'a', guy: found.id, device: 'spreader', done: 'twisted', twists: 5 });
  expect(Math.abs(gap(turned) - gap(setUp(1)))).toBeLessThan(2);
  const off = after(setUp(1), { kind: 'take-down', on: '2026-03-02', device: found.id });
  expect(gap(off)).toBeLessThan(gap(setUp(1)) - 5);
});
