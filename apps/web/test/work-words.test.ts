import { generateTree, planTree, dayOf, type RecordLine, type Tree } from '@ustle/core';
import { byDay } from '../src/record/by-day';
import { filtered } from '../src/record/filters';
import { sayClock, ticked } from '../src/stages/work/ticking';
import { settled } from '../src/stages/work/settled';

const kept = { key: 's1 clear', seconds: 10, at: 1_000_000, paused: false, restUntil: 0 };

test('the clock counts what passes while somebody is there: not while it is stopped, not while they are away, and never backwards', () => {
  expect(ticked(kept, 1_005_000)).toMatchObject({ seconds: 15, at: 1_005_000 });
  expect(ticked({ ...kept, paused: true }, 1_005_000)).toMatchObject({ seconds: 10, at: 1_005_000 });
  expect(ticked(kept, 1_000_000 + 16 * 60_000).seconds).toBe(10);
  expect(ticked(kept, 1_000_000 + 14 * 60_000).seconds).toBe(850);
  // A clock that was set back.
  expect(ticked(kept, 900_000)).toMatchObject({ seconds: 10, at: 900_000 });
  expect([0, 59.9, 245, 3750].map(sayClock)).toEqual(['0:00', '0:59', '4:05', '1:02:30']);
});

const line = (id: string, kind: string, on: string, own: object = {}): RecordLine => ({ id, kind, on, ...own }) as never;
const RECORD = [
  line('1', 'wired', '2026-03-01', { branch: 'b1' }),
  line('2', 'removed', '2026-05-02', { branch: 'b2' }),
  line('3', 'photo', '2026-05-02'),
  line('4', 'withdrawn', '2026-05-03', { corrects: '1' }),
  line('5', 'inspected', '2026-04-01', { branch: 'b1' }),
  line('6', 'worked', '2026-05-02', { branch: 'b1' }),
];

test('the story passes what is asked for, a day at a time with the newest first, and tells a withdrawal by what it struck out', () => {
  const idsOf = (lines: readonly RecordLine[]): string => lines.map((l) => l.id).join('');
  expect(idsOf(filtered(RECORD, 'all', null))).toBe('12356');
  expect(idsOf(filtered(RECORD, 'all', 'b1'))).toBe('156');
  expect(['work', 'cuts', 'wire', 'looks', 'photos', 'notes', 'ties'].map((f) => idsOf(filtered(RECORD, f as never, null)))).toEqual([
    '6',
    '2',
    '1',
    '5',
    '3',
    '',
    '',
  ]);
  expect(byDay(filtered(RECORD, 'all', null)).map((d) => `${d.on} ${idsOf(d.lines)}`)).toEqual(['2026-05-02 236', '2026-04-01 5', '2026-03-01 1']);
});

test('work is settled once a session was closed and nothing that was decided waits', () => {
  const made = generateTree({ seed: 3, name: 'Any', species: 'larch', height: 400, base: 40, primaries: 3, secondaries: 1 });
  const plan = planTree(made, dayOf('2026-05-20'), { fronts: false });
  const session = (done: 'begun' | 'closed'): RecordLine => line(done, 'session', '2026-05-20', { session: 's1', done });
  const closed: Tree = { ...made, record: [session('begun'), session('closed')] };
  expect(settled(made, plan)).toBe(false);
  expect(settled({ ...made, record: [session('begun')] }, plan)).toBe(false);
  expect(settled(closed, plan)).toBe(true);
  const [first] = made.branches;
  expect(settled({ ...closed, plan: { ...closed.plan, decisions: [{ branch: first!.id, act: 'remove' }] } }, plan)).toBe(false);
  expect(settled({ ...closed, plan: { ...closed.plan, decisions: [{ branch: first!.id, act: 'remove', session: 2 }] } }, plan)).toBe(true);
  const run = { id: 'w1', metal: 'copper', size: 2, strands: 1, angle: 45, branches: [{ branch: first!.id, hand: 'cw', start: 'over' }] } as const;
  expect(settled({ ...closed, plan: { ...closed.plan, runs: [run as never] } }, plan)).toBe(false);
});
