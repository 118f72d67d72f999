import Papa from 'papaparse';
import { applyAct, dayOf, isRefused, type Act, type Tree } from '@ustle/core';
import { writeRecordCsv } from '../src/index.js';
import { fullTree } from './full-tree.js';

const ON = dayOf('2030-01-01');
const withActs = (start: Tree, ...acts: object[]): Tree =>
  acts.reduce<Tree>((now, act, i) => {
    const outcome = applyAct(now, { id: `n${i}`, on: '2026-05-20', ...act } as Act, ON);
    if (isRefused(outcome)) throw new Error(outcome.refused[0]!.message);
    return { ...outcome.tree, record: [...now.record, ...outcome.lines] };
  }, start);
const rowsOf = (trees: readonly Tree[]): Record<string, string>[] =>
  Papa.parse<Record<string, string>>(writeRecordCsv(trees), { header: true, skipEmptyLines: true }).data;

test('the record as a table has a line for each, in the order in which they were written, of every tree', () => {
  const tree = fullTree;
  const rows = rowsOf([tree, { ...tree, name: 'Another' }]);
  expect(rows).toHaveLength(2 * tree.record.length);
  expect(rows.slice(0, tree.record.length).map((r) => [r.on, r.kind])).toEqual(tree.record.map((l) => [l.on, l.kind]));
  expect(new Set(rows.map((r) => r.tree))).toEqual(new Set([tree.name, 'Another']));
  for (const r of rows) expect(r.said!.length).toBeGreaterThan(2);
});

test('it tells who and how long, what no longer stands, and no text of it can be run as a formula', () => {
  const tree = withActs(
    { ...fullTree, record: [] },
    { kind: 'note', text: '=cmd|"/c calc"!A1' },
    { kind: 'note', text: 'Two lines,\nand a "word".' },
    { kind: 'hours', hours: 1.5, by: '+Ash' },
    { kind: 'session', session: 's1', done: 'begun', by: 'Robin' },
    { kind: 'worked', session: 's1', step: 'clear', answer: 'done', minutes: 12.5, by: 'Robin', did: [] },
    { kind: 'withdrawn', corrects: 'n1' },
  );
  const rows = rowsOf([tree]);
  expect(rows.map((r) => r.stands)).toEqual(['yes', 'no', 'yes', 'yes', 'yes', 'no']);
  expect(rows.map((r) => r.minutes)).toEqual(['', '', '90', '', '12.5', '']);
  expect(rows[1]!.text).toBe('Two lines,\nand a "word".');
  expect(rows[3]!.by).toBe('Robin');
  for (const cell of writeRecordCsv([tree]).split(/[,\n]/)) expect(cell.replace(/^"/, '')).not.toMatch(/^[=+@]/);
  expect(rows[5]).toMatchObject({ kind: 'withdrawn', corrects: 'n1' });
});
