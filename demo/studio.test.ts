import { dayOf, dueOn, isoOf, placeTree, walkItems, walksOf, watch, type RecordLine, type Tree } from '@ustle/core';
import { readTreeFile, writeTreeFile } from '@ustle/files';
import { studio } from './studio.mjs';

// Loaded in deep winter, in spring, at the height of growth, and on a leap day.
test.each(['2026-01-15', '2026-07-30', '2028-02-29'])('loaded on %s, the studio is sound, has no day to come in its record, and something is due', (on) => {
  const today = dayOf(on);
  const trees = studio(on) as Tree[];
  expect(new Set(trees.map((t) => t.name)).size).toBe(7);
  for (const tree of trees) {
    const again = readTreeFile(writeTreeFile(tree));
    expect(again).toEqual({ tree: expect.objectContaining({ name: tree.name }) });
    for (const line of tree.record) expect(dayOf(line.on)).toBeLessThanOrEqual(today);
    const days = tree.record.map((line) => line.on);
    expect(days).toEqual([...days].sort());
  }
  const due = trees.flatMap((t) => dueOn(t, today).due.map((d) => ({ name: t.name, ...d })));
  const soon = due.filter((d) => d.kind !== 'plan' && d.on <= isoOf(today + 7));
  expect(soon.length).toBeGreaterThan(0);
  // The maple's wire is about to mark, the larch is in the middle of its plan, the hornbeam is fresh.
  const maple = trees.find((t) => t.name === 'Squall')!;
  const marks = watch(placeTree(maple), today).map((w) => w.race.forecast.marking.p50 ?? Infinity);
  expect(marks.filter((d) => d <= today + 30).length * 2).toBeGreaterThanOrEqual(marks.length);
  const larch = trees.find((t) => t.name === 'Lantern')!;
  expect(new Set(larch.plan.decisions.map((d) => d.act))).toEqual(new Set(['remove', 'reserve']));
  const cypress = trees.find((t) => t.name === 'Levanter')!;
  expect([cypress.plan.poses.length, cypress.plan.aside?.length, cypress.record.map((l) => l.kind)]).toEqual([4, 1, ['bent']]);
  const hornbeam = trees.find((t) => t.name === 'Old Ferry')!;
  expect([hornbeam.record, hornbeam.plan.decisions, hornbeam.plan.front ?? null]).toEqual([[], [], null]);
});

test('the studio walked daily for four weeks asks few looks, and none twice in a week', () => {
  const start = dayOf('2026-04-10');
  const trees = studio('2026-04-10') as Tree[];
  const last = new Map<string, number>();
  let looks = 0;
  for (let day = start; day < start + 28; day++) {
    const items = trees.flatMap((t, i) => walkItems(t, day).map((item) => ({ ...item, i })));
    for (const { i, kind, branch, of, unwiring } of walksOf(items, day).flatMap((w) => (w.day <= isoOf(day) ? w.items : []))) {
      const key = `${i} ${branch} ${of}`;
      expect(day - (last.get(key) ?? -Infinity)).toBeGreaterThanOrEqual(7);
      last.set(key, day);
      looks++;
      const line = { id: `${day}${branch}${of}`, on: isoOf(day), branch };
      const run = of ? { run: of } : {};
      const said = kind === 'tie' ? { kind: 'guyed', guy: of, done: 'looked', bark: 'clear' } : { ...run, kind: 'inspected', stage: 'clear' };
      const off = { ...run, kind: 'unwired', method: 'cut' };
      trees[i] = { ...trees[i]!, record: [...trees[i]!.record, { ...line, ...(unwiring?.take === 'all' ? off : said) } as RecordLine] };
    }
  }
  expect(looks).toBeGreaterThan(8);
  expect(looks).toBeLessThanOrEqual(40);
});
