import {
  coilsOn,
  dayOf,
  dueOn,
  generateTree,
  isoOf,
  planTree,
  walkItems,
  walksOf,
  type MarkStage,
  type RecordLine,
  type Tree,
  type WalkItem,
} from '../src/index.js';
import { KINDS } from './kinds.js';

const START = dayOf('2025-04-01');

/** A tree of a kind that was wired in spring. */
function wired(i: number): Tree {
  const tree = generateTree({ seed: 400 + i, name: `Tree ${i}`, species: KINDS[(i * 5) % KINDS.length]!, height: 420, base: 34, primaries: 5, secondaries: 1 });
  const record = tree.branches.slice(0, 5).map((b, k): RecordLine => ({
    ...{ kind: 'wired', on: isoOf(START + 3 * k), id: `on${k}`, branch: b.id, run: `w${k}`, metal: 'aluminium', size: 2.5, strands: 1, angle: 45, hand: 'cw', start: 'over' },
    ...{ gap: 0, wrap: 'none', bentDeg: 35, targetDeg: 30, over: 40, turns: 9 },
  }) as RecordLine); // prettier-ignore
  return { ...tree, record };
}

/** A line of the record that answers a thing on the walk. */
function answer(item: WalkItem, day: number, stage: MarkStage): RecordLine {
  const line = { id: `a${day}${item.branch}${item.of}`, on: isoOf(day), branch: item.branch };
  if (item.kind === 'tie') return { ...line, kind: 'guyed', guy: item.of, done: 'looked', bark: stage } as RecordLine;
  if (item.unwiring?.take === 'all') return { ...line, kind: 'unwired', run: item.of, method: 'cut' } as RecordLine;
  return { ...line, kind: 'inspected', run: item.of, stage } as RecordLine;
}

test('season, walk, watch and bench tell one thing of one coil on one day; a window that stands open is not shut by a look that saw it clear', () => {
  for (let i = 0; i < 24; i++) {
    let tree = wired(i);
    const open = new Map<string, number>();
    for (let day = START + 20 + i; day < START + 365; day += 28) {
      const { due } = dueOn(tree, day);
      const items = walkItems(tree, day);
      const { wires } = planTree(tree, day, { fronts: false, instead: 'not asked for' });
      expect(wires).toHaveLength(coilsOn(tree, day).length);
      for (const wire of wires) {
        const item = items.find((x) => x.branch === wire.branch && x.of === wire.run)!;
        const told = due.filter((d) => d.leadsTo === 'watch' && d.branches.includes(wire.branch) && ['look', 'remove', 'window'].includes(d.kind));
        expect(told.map((d) => d.kind)).toEqual([wire.task.kind]);
        expect([item.task, item.last]).toEqual([wire.task.kind, wire.task.on]);
        expect(told[0]!.on <= wire.task.on).toBe(true);
        // What is only to be looked at is not taken off on a walk, and what comes off is.
        expect(item.unwiring!.take !== 'none').toBe(wire.task.kind !== 'look');
        const key = `${wire.branch} ${wire.run}`;
        if (open.has(key) && item.seen?.stage === 'clear') expect([key, wire.task.kind]).not.toEqual([key, 'look']);
        if (wire.task.kind === 'window' && wire.cleanWindow!.from <= isoOf(day)) open.set(key, day);
      }
      // All that stands open is looked at and left on.
      for (const item of items)
        if (item.task === 'window' || item.first <= isoOf(day))
          tree = { ...tree, record: [...tree.record, { ...answer({ ...item, unwiring: null }, day, 'clear') }] };
    }
  }
});

test('sixty trees walked daily for four weeks: each look by its day, none twice in a week, and the wire that can come off comes off', () => {
  const trees = Array.from({ length: 60 }, (_, i) => wired(i));
  const last = new Map<string, number>();
  let looks = 0;
  for (let day = START + 45; day < START + 73; day++) {
    const items = trees.flatMap((t, i) => walkItems(t, day).map((item) => ({ ...item, i })));
    for (const item of walksOf(items, day).flatMap((w) => (w.day <= isoOf(day) ? w.items : []))) {
      const key = `${item.i} ${item.branch} ${item.of}`;
      expect(day - (last.get(key) ?? -Infinity)).toBeGreaterThanOrEqual(7);
      last.set(key, day);
      looks++;
      const t = trees[item.i]!;
      trees[item.i] = { ...t, record: [...t.record, answer(item, day, 'clear')] };
    }
  }
  expect(looks).toBeLessThan(60 * 5 * 2);
  expect(looks).toBeGreaterThan(60);
});
