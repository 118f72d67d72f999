import ICAL from 'ical.js';
import { LARGEST_FILE_BYTES, generateTree, type Tree } from '@ustle/core';
import { checkTree, readBranchCsv, readCylinderCsv, readTreeFile, writeCalendar } from '../src/index.js';

const tree = (): Tree => generateTree({ seed: 2, name: 'Knot', species: 'larch', height: 300, base: 30, primaries: 2, secondaries: 1 });

/** The faults as [where, what kind, the sentence]; each is a sentence that ends. */
function told(result: object): [path: string, code: string, message: string][] {
  const faults = 'faults' in result ? (result.faults as { path: string; code: string; message: string }[]) : [];
  for (const f of faults) expect(f.message).toMatch(/^\S.{8,260}\.$/);
  return faults.map((f) => [f.path, f.code, f.message]);
}
/** Sound, or these faults at these places, in this order, each naming this. */
function expectFaults(result: object, ...expected: [path: string, code: string, names: string][]): void {
  const faults = told(result);
  expect(faults.map(([path, code]) => `${path} ${code}`)).toEqual(expected.map(([path, code]) => `${path} ${code}`));
  expected.forEach(([, , names], i) => expect(faults[i]![2]).toContain(names));
}

const run = (id: string, branch: string) => ({ id, metal: 'copper', size: 2, strands: 1, angle: 45, branches: [{ branch, hand: 'cw', start: 'over' }] });
type Change = (t: any) => void;
type Expected = [path: string, code: string, names: string];

test.each<[string, Change, ...Expected[]]>([
  ['a part is missing', (t) => delete t.trunk, ['/trunk', 'required', 'trunk']],
  ['not our format', (t) => (t.format = 'other'), ['/format', 'format', 'ustle-tree']],
  ['a later version', (t) => (t.version = 2), ['/version', 'version', 'Version 2']],
  ['a foreign key with a control character', (t) => (t['a\u0007'] = 1)],
  ['text for a number', (t) => (t.branches[0].d = 'thick'), ['/branches/0/d', 'type', 'between 0.3 and 400 mm; it is "thick"']],
  ['too much', (t) => (t.branches[0].elevation = 95), ['/branches/0/elevation', 'range', 'between -90 and 90 degrees; it is 95']],
  ['none of the choices', (t) => (t.branches[0].state = 'happy'), ['/branches/0/state', 'choice', 'weak, normal, strong; it is "happy"']],
  ['no date', (t) => (t.styledOn = '2026-02-30'), ['/styledOn', 'date', '2026-02-30']],
  ['no such act', (t) => t.plan.decisions.push({ branch: 'b1', act: 'burn' }), ['/plan/decisions/0/act', 'choice', '"burn" is not known. Known are: keep']],
  ['an act of no kind', (t) => t.plan.decisions.push({ branch: 'b1' }), ['/plan/decisions/0/act', 'required', 'act']],
  ['a detail of another act', (t) => t.plan.decisions.push({ branch: 'b1', act: 'keep', length: 20 }), ['/plan/decisions/0/length', 'foreign-field', 'keep']],
  ['no such line', (t) => t.record.push({ on: '2026-01-01', kind: 'sung' }), ['/record/0/kind', 'choice', '"sung" is not known. Known are: wired']],
  [
    'a field of another line',
    (t) => t.record.push({ on: '2026-01-01', kind: 'fed', stage: 'clear' }),
    ['/record/0/stage', 'foreign-field', '"stage" does not belong here'],
  ],
  ['too long a name', (t) => (t.name = 'x'.repeat(121)), ['/name', 'count', '1 to 120 letters']],
  ['one station', (t) => (t.trunk = t.trunk.slice(0, 1)), ['/trunk', 'count', 'a list of 2 to 400']],
  ['a run twice', (t) => (t.plan.runs = [run('w1', 'b1'), run('w1', 'b2')]), ['/plan/runs/1/id', 'duplicate', 'w1']],
  [
    'a guy by the id of a run',
    (t) => {
      t.plan.runs = [run('x', 'b1')];
      t.plan.guys = [{ id: 'x', branch: 'b1', at: 40, anchor: { kind: 'pot-hole', index: 0 }, wire: 1 }];
    },
    ['/plan/guys/0/id', 'duplicate', 'x'],
  ],
  [
    'two decisions and two poses',
    (t) => {
      t.plan.decisions = ['keep', 'remove'].map((act) => ({ branch: 'b1', act }));
      t.plan.poses = [1, 2].map(() => ({ branch: 'b2', bearing: 10, elevation: 0, bends: [] }));
    },
    ['/plan/decisions/1/branch', 'duplicate', 'b1'],
    ['/plan/poses/1/branch', 'duplicate', 'b2'],
  ],
  ['lines of one id', (t) => (t.record = [1, 2].map(() => ({ id: 'r1', on: '2026-01-01', kind: 'note', text: 'x' }))), ['/record/1/id', 'duplicate', 'r1']],
  [
    'what is not there',
    (t) => {
      t.plan.either = [['b1', 'b99']];
      t.record = [
        { on: '2026-01-01', kind: 'agreed', by: 'us', branches: ['b98'] },
        { on: '2026-01-01', kind: 'withdrawn', corrects: 'r9' },
      ];
    },
    ['/plan/either/0/1', 'unknown-branch', 'b99'],
    ['/record/0/branches/0', 'unknown-branch', 'b98'],
    ['/record/1/corrects', 'unknown-line', 'r9'],
  ],
  [
    'a circle of branches',
    (t) => {
      t.branches[0].parent = t.branches[1].id;
      t.branches[1].parent = t.branches[0].id;
    },
    ['/branches/0/parent', 'cycle', 'b1 → b2 → b1'],
    ['/branches/1/parent', 'cycle', '"b2" grows on itself'],
  ],
  ['more green than there is', (t) => t.branches.forEach((b: any) => (b.green = 0.9)), ['/branches', 'green-sum', '360%']],
])('a tree file with %s is told so where it is', (_, change, ...expected) => {
  const value = structuredClone(tree());
  change(value);
  expectFaults(checkTree(value), ...expected);
});

test('what is wrong with a text is said too: no JSON, too deep, too large', () => {
  expectFaults(readTreeFile('{"a": NaN}'), ['/', 'not-json', 'NaN is not a number that JSON knows, near character 7']);
  expectFaults(readTreeFile('{"a": 1,'), ['/', 'not-json', 'This is not JSON']);
  expectFaults(readTreeFile(`${'['.repeat(60)}${']'.repeat(60)}`), ['/', 'too-deep', '40']);
  expectFaults(readTreeFile('x'.repeat(LARGEST_FILE_BYTES + 1)), ['/', 'too-large', `at most ${LARGEST_FILE_BYTES / 2 ** 20} MB`]);
  expectFaults(readTreeFile(`\uFEFF${JSON.stringify(tree())}`));
});

test('faults of tables are named by the line they stand in, empty lines counted', () => {
  const head = 'id,parent,at,bearing,elevation,length,d,state,backBuds';
  expectFaults(
    readBranchCsv(`\n${head}\n\nb1,trunk,10,20,30,x,9,,\n,,,,,,,,\nb2,trunk,10,20,30,100,9,merry,maybe\n`),
    ['/line/4/length', 'type', 'Line 4, length: "x"'],
    ['/line/6/state', 'choice', 'Line 6, state: "merry"'],
    ['/line/6/backBuds', 'type', 'Line 6, backBuds: "maybe"'],
  );
  expectFaults(readBranchCsv(`${head}\n`), ['/line/1/id', 'empty', 'no branch']);
  expectFaults(readBranchCsv(`${head},\nb1,trunk,10,20,30,100,9,,,`), ['/line/1/(no name)', 'unknown-column', 'id, parent, at']);

  const cylinders = 'parent,x,y,z,ax,ay,az,length,radius\n';
  expectFaults(readCylinderCsv(cylinders), ['/line/1', 'empty', 'no cylinder']);
  expectFaults(
    readCylinderCsv('parent,x,y\n-1,0,0'),
    ...['z', 'ax', 'ay', 'az', 'length', 'radius'].map((c): Expected => [`/line/1/${c}`, 'missing-column', c]),
  );
  expectFaults(readCylinderCsv(`${cylinders}-1,0,0,0,0,0,1,long,0.02`), ['/line/2/length', 'type', '"long"']);
  expectFaults(
    readCylinderCsv(`${cylinders}-1,0,0,0,0,0,1,0.1,0.02\n1,0,0,0.1,0,0,1,0.1,0.01\n9,0,0,0.1,0,0,1,0.1,0.01\n-1,0,0,0,0,0,1,0.1,0.02`),
    ['/line/3/parent', 'unknown-parent', 'parent: 1 is'],
    ['/line/4/parent', 'unknown-parent', 'parent: 9 is'],
    ['/line/2/parent', 'root', '2 cylinders'],
  );
});

test('a calendar holds whole days with ids that stay', () => {
  const text = writeCalendar('Wire', [{ uid: 'a-look-b1', on: '2026-06-01', title: 'Knot: look', text: 'It may mark; look.' }], '2026-05-20');
  const entry = new ICAL.Event(new ICAL.Component(ICAL.parse(text)).getFirstSubcomponent('vevent')!);
  expect([entry.uid, entry.startDate.toString(), entry.startDate.isDate, entry.summary, entry.description]).toEqual([
    'a-look-b1@ustle',
    '2026-06-01',
    true,
    'Knot: look',
    'It may mark; look.',
  ]);
});
