import fc from 'fast-check';
import ICAL from 'ical.js';
import { LARGEST_FILE_BYTES, ACT_NAMES, generateTree, MOST_PINNED, step, type Act, type Tree } from '@ustle/core';
import { anyAct, anyRowOfFew, numbered, run, TODAY } from '../../core/test/any-act.js';
import { anyTree } from '../../core/test/trees.js';
import { readTreeFile, writeCalendar, writeTreeFile } from '../src/index.js';

const good = (): Tree => generateTree({ seed: 3, name: 'Good', species: 'larch', height: 500, base: 40, primaries: 4, secondaries: 1 });
const faultsOf = (value: unknown): { path: string; code: string }[] => {
  const read = readTreeFile(typeof value === 'string' ? value : JSON.stringify(value));
  return 'faults' in read ? read.faults.map(({ path, code, message }) => (expect(message).toMatch(/^.{8,}[.!?]$/s), { path, code })) : [];
};

test('a tree file survives reading and writing, with keys this version does not know', () => {
  fc.assert(
    fc.property(fc.nat(9999), fc.jsonValue(), (seed, extra) => {
      const tree = { ...generateTree({ seed, name: 'Any', species: 'elm', height: 400, base: 35, primaries: 3, secondaries: 1 }), later: extra };
      const read = readTreeFile(writeTreeFile(tree));
      expect('tree' in read && read.tree).toEqual(JSON.parse(JSON.stringify(tree)));
    }),
    { numRuns: 20 },
  );
  expect(faultsOf(`\uFEFF${JSON.stringify(good())}`)).toEqual([]);
});

test('whatever row of acts is accepted, made, taken back or made again: the tree is written, and read as it is', () => {
  const within = { sizes: 0, kinds: new Set<string>() };
  fc.assert(
    fc.property(anyTree, fc.oneof(anyRowOfFew, fc.array(anyAct, { minLength: 25, maxLength: 25 })), fc.nat(8), (start, row, back) => {
      const { tree, log, done } = run(start, numbered(row));
      let now = { tree, log };
      for (let i = 0; i < 2 * back; i++) {
        const next = step(now.tree, now.log, { id: `s${i}`, kind: i < back ? 'undo' : 'redo' }, TODAY);
        if (!('refused' in next)) now = next;
      }
      for (const each of [tree, now.tree]) {
        const text = writeTreeFile(each);
        expect(readTreeFile(text)).toEqual({ tree: JSON.parse(text) });
      }
      done.forEach((act) => within.kinds.add(act.kind));
      within.sizes = Math.max(within.sizes, tree.plan.pinned?.length ?? 0);
    }),
    { numRuns: 150 },
  );
  expect(within.kinds.size).toBeGreaterThan(ACT_NAMES.length / 2);
  const views = Array.from({ length: MOST_PINNED + 2 }, (_, i) => ({
    id: `v${i}`,
    on: '2026-11-26',
    kind: 'keep-open',
    view: { bearing: 10 * i, pitch: 0, roll: 0 },
  }));
  const full = run(good(), views as Act[]);
  expect([full.done.length, full.tree.plan.pinned!.length]).toEqual([MOST_PINNED, MOST_PINNED]);
  expect(readTreeFile(writeTreeFile(full.tree))).toHaveProperty('tree');
});

const broken = (change: (t: any) => void): unknown => {
  const t = structuredClone(good());
  change(t);
  return t;
};

test.each([
  ['another version', broken((t) => (t.version = 2)), '/version', 'version'],
  ['another format', broken((t) => (t.format = 'something')), '/format', 'format'],
  ['a missing field', broken((t) => delete t.vigour), '/vigour', 'required'],
  ['a negative thickness', broken((t) => (t.branches[2].d = -4)), '/branches/2/d', 'range'],
  ['an absurd thickness', broken((t) => (t.branches[2].d = 4e9)), '/branches/2/d', 'range'],
  ['words for a number', broken((t) => (t.branches[1].length = 'long')), '/branches/1/length', 'type'],
  ['an unknown choice', broken((t) => (t.branches[0].state = 'happy')), '/branches/0/state', 'choice'],
  ['no such day', broken((t) => (t.repottedOn = '2026-02-30')), '/repottedOn', 'date'],
  ['a missing parent', broken((t) => (t.branches[1].parent = 'zz')), '/branches/1/parent', 'unknown-parent'],
  ['a cycle', broken((t) => ((t.branches[0].parent = 'b2'), (t.branches[1].parent = 'b1'))), '/branches/0/parent', 'cycle'],
  ['an id used twice', broken((t) => (t.branches[1].id = 'b1')), '/branches/1/id', 'duplicate'],
  ['an unknown species', broken((t) => (t.species = 'money-tree')), '/species', 'unknown-species'],
  ['too much green', broken((t) => (t.branches[0].green = 1)), '/branches', 'green-sum'],
  ['a decision on no branch', broken((t) => t.plan.decisions.push({ branch: 'zz', act: 'keep' })), '/plan/decisions/0/branch', 'unknown-branch'],
  ['no JSON', 'hello', '/', 'not-json'],
  ['NaN', '{"d": NaN}', '/', 'not-json'],
  ['nothing', '', '/', 'not-json'],
  ['a list', [], '/', 'type'],
  ['fifty megabytes', `"${'x'.repeat(LARGEST_FILE_BYTES)}"`, '/', 'too-large'],
])('%s is refused with its path and reason', (_, value, path, code) => {
  expect(faultsOf(value)).toContainEqual({ path, code });
});

test('every fault of a file is named, not only the first', () => {
  const faults = faultsOf(broken((t) => ((t.version = 7), (t.branches[0].d = -1), delete t.pot)));
  expect(faults.map((f) => f.path).sort()).toEqual(['/branches/0/d', '/pot', '/version']);
});

test('a calendar is read by another parser, whole days and all', () => {
  const text = writeCalendar(
    'Yard',
    [{ uid: 'a-b', on: '2026-03-29', title: 'Gull: look, at b1; b2', text: 'Line one.\nLine two, with a comma' }],
    '2026-03-01',
  );
  const calendar = new ICAL.Component(ICAL.parse(text));
  const [event] = calendar.getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  expect(calendar.getFirstPropertyValue('version')).toBe('2.0');
  expect(event!.summary).toBe('Gull: look, at b1; b2');
  expect(event!.description).toBe('Line one.\nLine two, with a comma');
  expect([event!.startDate.isDate, event!.startDate.toString(), event!.uid]).toEqual([true, '2026-03-29', 'a-b@ustle']);
  expect(calendar.getFirstSubcomponent('vevent')!.getFirstPropertyValue('dtstamp')).toBeTruthy();
});
