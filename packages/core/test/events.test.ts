import {
  capacityOf,
  coilsOn,
  dayOf,
  EVENTS,
  lastOn,
  LASTS,
  placeTree,
  spellsOf,
  thickensBy,
  tiltsFor,
  unwiringOf,
  watch,
  watchingOf,
  type RecordLine,
} from '../src/index.js';
import { wired } from './coils.js';
import { branch, tree } from './trees.js';

const lived = (record: RecordLine[], own: { repottedOn?: string } = {}) => tree([branch('a', { d: 7 })], { record, ...own });

test('what was done to a tree counts from its day, for its time, once; what was taken back, and what concerns one branch, does not', () => {
  const fed: RecordLine = { id: 'f', on: '2026-04-01', kind: 'fed' };
  expect(spellsOf(lived([fed]))).toEqual([{ from: dayOf('2026-04-01'), to: dayOf('2026-04-01') + LASTS.fed, factor: EVENTS.fed }]);
  expect(spellsOf(lived([fed, { id: 'w', on: '2026-04-02', kind: 'withdrawn', corrects: 'f' }]))).toEqual([]);
  expect(spellsOf(lived([{ ...fed, branch: 'a' }]))).toEqual([]);
  const [spell] = spellsOf(lived([{ on: '2026-05-01', kind: 'ailing', weeks: 6 }]));
  expect(spell!.to - spell!.from).toBe(42);
  const potted: RecordLine = { on: '2026-03-20', kind: 'repotted' };
  expect(spellsOf(lived([potted], { repottedOn: '2026-03-20' }))).toHaveLength(1);
  expect(spellsOf(lived([], { repottedOn: '2026-03-20' }))).toEqual(spellsOf(lived([potted])));
  expect(spellsOf(lived([potted], { repottedOn: '2023-03-20' }))).toHaveLength(2);
  // Pruned on the day it was repotted: both work on.
  expect(spellsOf(lived([{ on: '2026-03-20', kind: 'pruned' }], { repottedOn: '2026-03-20' }))).toHaveLength(2);
});

const capacity = (record: RecordLine[], own = {}, on = '2026-10-10'): number => capacityOf(lived(record, own), dayOf(on)).value;

test('what the record tells of a tree counts in Read like a date that is typed there, until it has worn off', () => {
  const rested = capacity([]);
  for (const day of ['2026-09-01', '2026-02-01', '2024-01-01']) {
    expect(capacity([{ on: day, kind: 'repotted' }])).toBe(capacity([], { repottedOn: day }));
    expect(capacity([{ on: day, kind: 'repotted' }], { repottedOn: '2023-03-01' })).toBe(capacity([], { repottedOn: day }));
    expect(capacity([{ on: day, kind: 'styled' }])).toBe(capacity([], { styledOn: day }));
  }
  expect(tiltsFor(lived([{ on: '2026-03-01', kind: 'repotted' }]), dayOf('2026-10-10'))).toEqual([-5, 0, 5]);
  const lasting: [RecordLine, number, string][] = [
    [{ on: '2026-09-01', kind: 'ailing' }, 0.4, '2026-12-01'],
    [{ on: '2026-09-20', kind: 'ailing', weeks: 2 }, 1, '2026-10-10'],
    [{ on: '2026-09-20', kind: 'pruned' }, 0.8, '2026-12-01'],
    [{ on: '2026-09-20', kind: 'defoliated' }, 0.8, '2026-11-10'],
  ];
  for (const [line, factor, over] of lasting) {
    expect(capacity([line])).toBeCloseTo(factor * rested, 9);
    expect(capacity([line], {}, over)).toBe(capacity([], {}, over));
    expect(capacity([{ ...line, branch: 'a' } as RecordLine])).toBe(rested);
    expect(
      capacity([
        { ...line, id: 'x' },
        { id: 'y', on: line.on, kind: 'withdrawn', corrects: 'x' },
      ]),
    ).toBe(rested);
  }
});

test('a session that was closed is heavy work once it is no longer the same session, if anything heavy was done in it', () => {
  const worked = (step: string, answer: 'done' | 'skipped' = 'done'): RecordLine[] => [
    { on: '2026-08-01', kind: 'session', session: 's', done: 'begun' },
    { on: '2026-08-02', kind: 'worked', session: 's', step, answer },
    { on: '2026-08-02', kind: 'session', session: 's', done: 'closed' },
  ];
  for (const step of ['cut:a', 'wire:a+b', 'bend:a:1', 'guy:a']) expect(capacity(worked(step))).toBe(capacity([], { styledOn: '2026-08-02' }));
  expect(capacity(worked('wire:a'), {}, '2026-08-10')).toBe(capacity([], {}, '2026-08-10'));
  for (const lines of [worked('clean'), worked('wire:a', 'skipped'), worked('wire:a').slice(0, 2)]) expect(capacity(lines)).toBe(capacity([]));
  // One heavy step among light ones is enough; on the fourteenth day it is heavy work, on the thirteenth still the same session.
  const mixed = [...worked('clean').slice(0, 2), ...worked('wire:a').slice(1)];
  expect([lastOn(lived(mixed), 'styled', dayOf('2026-08-16')), lastOn(lived(mixed), 'styled', dayOf('2026-08-15'))]).toEqual([dayOf('2026-08-02'), null]);
});

test('a line that names no piece takes none off that has a name while one without is on', () => {
  const off = (runs: (string | undefined)[], run?: string): string[] => {
    const record = [
      ...runs.map((r, i): RecordLine => ({ ...wired('a'), id: `w${i}`, ...(r ? { run: r } : { run: undefined }) }) as RecordLine),
      { on: '2026-06-01', kind: 'unwired' as const, branch: 'a', ...(run ? { run } : {}) },
    ];
    return coilsOn(lived(record), dayOf('2026-07-01')).map((c) => c.run);
  };
  expect([off(['w1', 'w2'], 'w2'), off(['w1', undefined]), off([undefined]), off(['w1'])]).toEqual([['w1'], ['w1'], [], []]);
});

test('a pace that is said stands, however far from the usual, whatever was seen; and it moves ties and sacrifices too', () => {
  const seen: RecordLine = { on: '2026-06-01', kind: 'inspected', branch: 'a', stage: 'touching' };
  const on = dayOf('2026-06-10');
  for (const pace of [0.2, 0.5, 2, 5]) {
    const t = { ...lived([wired('a'), seen]), plan: { ...tree([]).plan, pace } };
    const { now, before } = watchingOf(t, on).pace;
    expect([before.likely, now.likely / pace]).toEqual([expect.closeTo(pace, 6), expect.closeTo(1, 0)]);
    // Marked late on others does not hold back one that is said to be quick.
    expect(Math.abs(Math.log(now.likely / pace))).toBeLessThan(0.3);
    const parent = { ...t, record: [], branches: [...t.branches, branch('b', { parent: 'a', at: 60 })] };
    const [slow, quick] = [
      { ...parent, plan: { ...parent.plan, pace: 1 } },
      { ...parent, plan: { ...parent.plan, pace: 2 } },
    ].map((x) => thickensBy(placeTree(x), 'a', on, 3).likely!);
    expect(quick!).toBeLessThan(slow!);
  }
});

test('a coil’s pieces are counted by its turns and strands, and a window that is open is the time to take all of it', () => {
  const line = { ...wired('a'), metal: 'aluminium' as const, size: 2.5, strands: 2, turns: 5.6 };
  const at = (day: string) => {
    const [w] = watch(placeTree(lived([line])), dayOf(day));
    return { w: w!, off: unwiringOf(w!, dayOf(day)) };
  };
  const { w, off } = at('2026-03-05');
  expect(off).toMatchObject({ take: 'none', pieces: 12, warnings: [] });
  expect(off.because).toHaveLength(1);
  const open = w.race.window;
  if (open) expect(unwiringOf(w, open.from).take).toBe('all');
  // Two weeks before it should be off, nobody walks back for it.
  else expect(unwiringOf(w, w.race.limit! - 14).take).toBe('all');
  expect(at('2026-03-05').off).toEqual(off);
});
