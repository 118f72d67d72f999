import fc from 'fast-check';
import {
  applyAct,
  coilsOn,
  dayOf,
  dueOn,
  generateTree,
  guysOn,
  isRefused,
  labourOf,
  openSession,
  standing,
  workSessions,
  type Act,
  type Intent,
  type Tree,
} from '../src/index.js';
import { after, branch, tree } from './trees.js';

const ON = dayOf('2026-10-10');
const on = '2026-10-10';
const start: Tree = after(generateTree({ seed: 12, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 5, secondaries: 1, faults: [] }), {
  kind: 'session',
  session: 's1',
  done: 'begun',
});
const ids = start.branches.filter((b) => b.parent === 'trunk').map((b) => b.id);

/** What each step of a made-up session does: wire on a branch, a bend of it, a tie. */
const STEPS = ids.flatMap((id) => [
  { step: `wire:${id}`, did: [{ kind: 'wired', on, metal: 'copper', size: 2, strands: 1, angle: 45, branch: id, hand: 'cw', start: 'over', length: 400 }] },
  { step: `bend:${id}:1`, did: [{ kind: 'bent', on, branch: id, bentDeg: 30, targetDeg: 20, over: 30 }] },
  { step: `guy:${id}:60`, did: [{ kind: 'tie', on, branch: id, at: 20, anchor: { kind: 'pot-rim', bearing: 90 }, wire: 1 }] },
]);
const answers = ['done', 'otherwise', 'skipped', 'ran-out', 'changed'] as const;

/** What two devices send, each act once or several times, in any order. */
const sent = fc.array(
  fc.record({
    device: fc.constantFrom('a', 'b'),
    step: fc.nat(STEPS.length - 1),
    answer: fc.constantFrom(...answers),
    times: fc.integer({ min: 1, max: 3 }),
    minutes: fc.integer({ min: 0, max: 90 }),
  }),
  { minLength: 1, maxLength: 40 },
);

test('whatever two devices send, in whatever order and however often, each step is done once and nothing that was taken is lost', () => {
  fc.assert(
    fc.property(sent, (all) => {
      let now = start;
      const known = new Set<string>();
      const taken = new Map<string, string>();
      let minutes = 0;
      all.forEach(({ device, step, answer, times, minutes: took }, i) => {
        const { step: key, did } = STEPS[step]!;
        const open = answer === 'ran-out' || answer === 'changed';
        const act = {
          id: `${device}${i}`,
          on,
          kind: 'worked',
          session: 's1',
          step: key,
          answer,
          minutes: open ? undefined : took,
          did: answer === 'done' || answer === 'otherwise' ? did : [],
        };
        for (let t = 0; t < times; t++) {
          // The store answers an id it knows with what it did before.
          if (known.has(act.id)) continue;
          const outcome = applyAct(now, JSON.parse(JSON.stringify(act)) as Act, ON);
          if (isRefused(outcome)) {
            expect(outcome.refused[0]!.code).toBe('answered');
            expect(taken.has(key)).toBe(true);
            continue;
          }
          known.add(act.id);
          expect(taken.has(key)).toBe(false);
          if (!open) {
            taken.set(key, answer);
            minutes += took;
          }
          const record = [...now.record, ...outcome.lines];
          expect(record.slice(0, now.record.length)).toEqual(now.record);
          now = { ...outcome.tree, record };
        }
      });
      const done = [...taken].flatMap(([key, answer]) => (answer === 'skipped' ? [] : [key]));
      const of = (kind: string): string[] =>
        done
          .filter((k) => k.startsWith(`${kind}:`))
          .map((k) => k.split(':')[1]!)
          .sort();
      expect(
        coilsOn(now, ON)
          .map((c) => c.branch)
          .sort(),
      ).toEqual(of('wire'));
      expect(
        guysOn(now, ON)
          .map((g) => g.branch)
          .sort(),
      ).toEqual(of('guy'));
      expect(
        standing(now.record)
          .filter((l) => l.kind === 'bent')
          .map((l) => ('branch' in l ? l.branch : ''))
          .sort(),
      ).toEqual(of('bend'));
      expect((labourOf(now)[0]?.hours ?? 0) * 60).toBeCloseTo(minutes, 6);
      expect(new Set(now.record.map((l) => l.id)).size).toBe(now.record.length);
    }),
    { numRuns: 120 },
  );
});

const plain = tree([branch('b1'), branch('b2', { at: 320 })]);
const coil: Intent = { kind: 'wired', on: '2026-09-01', metal: 'copper', size: 2, strands: 1, angle: 45, branch: 'b1', hand: 'cw', start: 'over' };

test('a branch bent once its wire is on says so on the coil: of several bends the greatest, and none before the wire or of another branch', () => {
  const bent = (own: object): Intent => ({ kind: 'bent', on: '2026-09-02', branch: 'b1', ...own }) as Intent;
  const bendOf = (...acts: Intent[]): (number | null)[] => {
    const [c] = coilsOn(after(plain, ...acts), ON);
    return [c!.bentDeg, c!.targetDeg, c!.over];
  };
  expect(bendOf(coil)).toEqual([null, null, null]);
  expect(bendOf(coil, bent({ bentDeg: 40, targetDeg: 28, over: 35 }))).toEqual([40, 28, 35]);
  expect(bendOf(coil, bent({ bentDeg: 20, stage: 1 }), bent({ bentDeg: 40, stage: 2, over: 35 }), bent({ bentDeg: 15, at: 120, over: 10 }))).toEqual([
    40,
    null,
    35,
  ]);
  expect(bendOf(bent({ on: '2026-08-01', bentDeg: 40 }), coil)).toEqual([null, null, null]);
  expect(bendOf(coil, bent({ branch: 'b2', bentDeg: 40 }))).toEqual([null, null, null]);
  expect(bendOf(coil, bent({ sound: 'fibre' }))).toEqual([null, null, null]);
});

test('the next stage of a bend, an open session and a promise are due on their days, until they are done', () => {
  const due = (t: Tree, day: number): string[] =>
    dueOn(t, day).due.flatMap((d) => (['stage', 'session', 'vow'].includes(d.kind) ? [`${d.kind} ${d.on} ${d.branches.join('+')}`.trim()] : []));
  const staged = after(plain, coil, { kind: 'bent', on: '2026-10-01', branch: 'b1', stage: 1, bentDeg: 20, next: '2026-10-15' });
  expect(due(staged, ON)).toEqual(['stage 2026-10-15 b1']);
  expect(due(staged, dayOf('2026-11-02'))).toEqual(['stage 2026-11-02 b1']);
  expect(due(after(staged, { kind: 'bent', branch: 'b1', stage: 2, bentDeg: 40 }), dayOf('2026-11-02'))).toEqual([]);
  expect(due(after(staged, { kind: 'bent', branch: 'b1', stage: 2, crack: 'across', next: '2026-10-20' }), dayOf('2026-11-02'))).toEqual([]);
  expect(due(after(staged, { kind: 'unwired', branch: 'b1', method: 'cut' }), dayOf('2026-11-02'))).toEqual([]);
  const begun = after(plain, { kind: 'session', session: 's1', done: 'begun', by: 'Ash' });
  expect(due(begun, ON)).toEqual(['session 2026-10-10']);
  expect(openSession(begun)).toMatchObject({ by: 'Ash', closed: null });
  const closed = after(begun, { kind: 'session', session: 's1', done: 'closed' });
  expect(due(closed, ON)).toEqual([]);
  expect(workSessions(closed)).toMatchObject([{ id: 's1', closed: ON }]);
  expect(due(after(plain, { kind: 'promised', what: 'graft', branch: 'b2', from: '2027-04-01' }), ON)).toEqual(['vow 2027-04-01 b2']);
});

test('what cannot be promised, or begun, is refused beside its field', () => {
  const refusal = (t: Tree, intent: object): unknown => {
    const outcome = applyAct(t, { id: 'x', on, ...intent } as Act, ON);
    return isRefused(outcome) ? outcome.refused.map((r) => `${r.field} ${r.code}`) : 'taken';
  };
  expect(refusal(plain, { kind: 'promised', what: 'other' })).toEqual(['text missing']);
  expect(refusal(plain, { kind: 'promised', what: 'feed', from: '2026-12-01', until: '2026-11-01' })).toEqual(['until value']);
  expect(refusal(plain, { kind: 'promised', what: 'feed', branch: 'b9' })).toEqual(['branch not-found']);
  expect(refusal(plain, { kind: 'promised', what: 'feed', corrects: 'nothing' })).toEqual(['corrects not-found']);
  expect(refusal(plain, { kind: 'fulfilled', promise: 'nothing', how: 'done' })).toEqual(['promise not-found']);
  expect(refusal(plain, { kind: 'session', session: 's9', done: 'closed' })).toEqual(['session not-found']);
  expect(refusal(plain, { kind: 'session', session: 's9', done: 'begun', holds: ['b1', 'b9'] })).toEqual(['holds not-found']);
  expect(refusal(plain, { kind: 'worked', session: 's9', step: 'clear', answer: 'done' })).toEqual(['session not-found']);
  const owed = after(plain, { kind: 'promised', what: 'feed' });
  const promise = owed.record[0]!.id!;
  const kept = after(owed, { kind: 'fulfilled', promise, how: 'done' });
  expect(refusal(kept, { kind: 'fulfilled', promise, how: 'done' })).toEqual(['promise ended']);
  const closed = after(plain, { kind: 'session', session: 's1', done: 'begun' }, { kind: 'session', session: 's1', done: 'closed' });
  expect(refusal(closed, { kind: 'worked', session: 's1', step: 'clear', answer: 'done' })).toEqual(['session closed']);
});
