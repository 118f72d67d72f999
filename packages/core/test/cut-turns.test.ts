import { coilHistory, coilsOn, dayOf, dueOn, learnedOf, placeTree, scarsOf, treeOn, watch, type LineOf, type RecordLine, type Tree } from '../src/index.js';
import { wired } from './coils.js';
import { branch, tree } from './trees.js';

const PUT: RecordLine = { ...wired('a'), turns: 9 };
const SAW: RecordLine = { on: '2026-06-20', kind: 'inspected', run: 'w-a', branch: 'a', stage: 'deep' };
const CUT_ON = dayOf('2026-06-20');
const cut = (own: Partial<LineOf<'cut'>>): RecordLine => ({ on: '2026-06-20', kind: 'cut', run: 'w-a', branch: 'a', ...own });
const with_ = (...lines: RecordLine[]): Tree => tree([branch('a', { d: 7 })], { record: [PUT, SAW, ...lines] });
const watched = (t: Tree, day = CUT_ON) => watch(placeTree(treeOn(t, day)), day)[0]!;
const asks = (t: Tree, day = CUT_ON): string[] => dueOn(treeOn(t, day), day).due.flatMap((d) => (d.kind === 'remove' || d.kind === 'look' ? d.kind : []));

test('turns that marked are cut off: what is left lay free, so that nothing asks for it today, and its dates begin anew', () => {
  const whole = with_();
  expect(watched(whole).race.advice).toBe('remove-now');
  expect(asks(whole)).toEqual(['remove']);
  const left = with_(cut({ left: 5 }));
  const now = watched(left);
  expect(now).toMatchObject({ lastSeen: { stage: 'clear', day: CUT_ON }, coil: { turns: 5 } });
  expect(now.race.advice).not.toBe('remove-now');
  expect(asks(left)).not.toContain('remove');
  // The growth to the next mark is counted from what lay free: not sooner than it took when the wire was new and the year young.
  const marks = now.race.forecast.marking;
  expect(marks.p10!).toBeGreaterThan(CUT_ON + 7);
  expect(marks.p50!).toBeGreaterThan(marks.p10!);
  // Seen marking again later, it asks again; what the first turns told of growth is still known, and their mark a scar.
  const again: RecordLine = { ...SAW, on: '2026-09-20' } as RecordLine;
  expect(watched(with_(cut({ left: 5 }), again), dayOf('2026-09-20')).race.advice).toBe('remove-now');
  expect(learnedOf(placeTree(left), CUT_ON).of('a')).toEqual(learnedOf(placeTree(whole), CUT_ON).of('a'));
  expect(scarsOf(placeTree(left), CUT_ON)).toHaveLength(1);
});

test('fewer turns hold less; under one they hold nothing and are taken off; all of them cut are off, told as cut', () => {
  const stored = (left: number): number => watched(with_(cut({ left }))).state.bend?.wired ?? 0;
  expect(stored(5)).toBe(stored(2));
  expect(stored(1)).toBeLessThan(stored(2));
  const rest = watched(with_(cut({ left: 0.5 })));
  expect(rest.race).toMatchObject({ advice: 'remove-now', because: [expect.stringMatching(/Less than a turn/)] });
  // Counted by its pieces, a turn each; never all of it by that.
  expect(watched(with_(cut({ pieces: 3 }))).coil.turns).toBe(6);
  expect(coilsOn(with_(cut({ pieces: 30 })), CUT_ON)).toHaveLength(1);
  const off = coilHistory(with_(cut({ left: 0, pieces: 9 })), CUT_ON)[0]!;
  expect(off).toMatchObject({ offOn: CUT_ON, off: { kind: 'unwired', method: 'cut', pieces: 9 } });
  expect(coilsOn(with_(cut({ left: 0 })), CUT_ON)).toEqual([]);
});
