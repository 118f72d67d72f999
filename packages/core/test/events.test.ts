import { dayOf, EVENTS, placeTree, spellsOf, unwiringOf, watch, type RecordLine } from '../src/index.js';
import { wired } from './coils.js';
import { branch, tree } from './trees.js';

const lived = (record: RecordLine[], own: { repottedOn?: string } = {}) => tree([branch('a', { d: 7 })], { record, ...own });

test('what was done to a tree counts from its day, for its time, once; what was taken back, and what concerns one branch, does not', () => {
  const fed: RecordLine = { id: 'f', on: '2026-04-01', kind: 'fed' };
  expect(spellsOf(lived([fed]))).toEqual([{ from: dayOf('2026-04-01'), to: dayOf('2026-04-01') + EVENTS.fed.days, factor: EVENTS.fed.factor }]);
  expect(spellsOf(lived([fed, { id: 'w', on: '2026-04-02', kind: 'withdrawn', corrects: 'f' }]))).toEqual([]);
  expect(spellsOf(lived([{ ...fed, branch: 'a' }]))).toEqual([]);
  const [spell] = spellsOf(lived([{ on: '2026-05-01', kind: 'ailing', weeks: 6 }]));
  expect(spell!.to - spell!.from).toBe(42);
  const potted: RecordLine = { on: '2026-03-20', kind: 'repotted' };
  expect(spellsOf(lived([potted], { repottedOn: '2026-03-20' }))).toHaveLength(1);
  expect(spellsOf(lived([], { repottedOn: '2026-03-20' }))).toEqual(spellsOf(lived([potted])));
  expect(spellsOf(lived([potted], { repottedOn: '2023-03-20' }))).toHaveLength(2);
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
