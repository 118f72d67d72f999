import { LARGEST_FILE_BYTES, generateTree, type Tree } from '@ustle/core';
import { checkTree, readBranchCsv, readCylinderCsv, readTreeFile, writeBranchCsv, writeCalendar } from '../src/index.js';

/** Answers under their questions, a line each. */
const listed = (all: Record<string, readonly string[]>): string[] => Object.entries(all).flatMap(([of, each]) => each.map((x) => `${of}: ${x}`));

const tree = (): Tree => generateTree({ seed: 2, name: 'Knot', species: 'larch', height: 300, base: 30, primaries: 2, secondaries: 1 });
const said = (result: object): string[] =>
  'faults' in result ? (result.faults as { path: string; code: string; message: string }[]).map((f) => `${f.path} ${f.code}: ${f.message}`) : ['taken'];

test('what is wrong with a tree file is said so that it can be mended', () => {
  const bad = (change: (t: any) => void): string[] => {
    const value = structuredClone(tree());
    change(value);
    return said(checkTree(value));
  };
  expect(
    listed({
      'a part is missing': bad((t) => delete t.trunk),
      'not our format': bad((t) => (t.format = 'other')),
      'a later version': bad((t) => (t.version = 2)),
      'a foreign key with a control character': bad((t) => (t['a\u0007'] = 1)),
      'text for a number': bad((t) => (t.branches[0].d = 'thick')),
      'too much': bad((t) => (t.branches[0].elevation = 95)),
      'none of the choices': bad((t) => (t.branches[0].state = 'happy')),
      'no date': bad((t) => (t.styledOn = '2026-02-30')),
      'no such act': bad((t) => t.plan.decisions.push({ branch: 'b1', act: 'burn' })),
      'an act of no kind': bad((t) => t.plan.decisions.push({ branch: 'b1' })),
      'a detail of another act': bad((t) => t.plan.decisions.push({ branch: 'b1', act: 'keep', length: 20 })),
      'no such line': bad((t) => t.record.push({ on: '2026-01-01', kind: 'sung' })),
      'a field of another line': bad((t) => t.record.push({ on: '2026-01-01', kind: 'fed', stage: 'clear' })),
      'too long a name': bad((t) => (t.name = 'x'.repeat(121))),
      'one station': bad((t) => (t.trunk = t.trunk.slice(0, 1))),
      'a run twice': bad(
        (t) =>
          (t.plan.runs = ['b1', 'b2'].map((branch) => ({
            id: 'w1',
            metal: 'copper',
            size: 2,
            strands: 1,
            angle: 45,
            branches: [{ branch, hand: 'cw', start: 'over' }],
          }))),
      ),
      'a guy by the id of a run': bad((t) => {
        t.plan.runs = [{ id: 'x', metal: 'copper', size: 2, strands: 1, angle: 45, branches: [{ branch: 'b1', hand: 'cw', start: 'over' }] }];
        t.plan.guys = [{ id: 'x', branch: 'b1', at: 40, anchor: { kind: 'pot-hole', index: 0 }, wire: 1 }];
      }),
      'two decisions and two poses': bad((t) => {
        t.plan.decisions = [{ branch: 'b1', act: 'keep' }, { branch: 'b1', act: 'remove' }]; // prettier-ignore
        t.plan.poses = [1, 2].map(() => ({ branch: 'b2', bearing: 10, elevation: 0, bends: [] }));
      }),
      'lines of one id': bad((t) => (t.record = [1, 2].map(() => ({ id: 'r1', on: '2026-01-01', kind: 'note', text: 'x' })))),
      'what is not there': bad((t) => {
        t.plan.either = [['b1', 'b99']]; // prettier-ignore
        t.record = [{ on: '2026-01-01', kind: 'agreed', by: 'us', branches: ['b98'] }, { on: '2026-01-01', kind: 'withdrawn', corrects: 'r9' }]; // prettier-ignore
      }),
      'a circle of branches': bad((t) => {
        t.branches[0].parent = t.branches[1].id;
        t.branches[1].parent = t.branches[0].id;
      }),
      'more green than there is': bad((t) => t.branches.forEach((b: any) => (b.green = 0.9))),
    }),
  ).toMatchInlineSnapshot(`
   [
     "a part is missing: /trunk required: "trunk" is missing.",
     "not our format: /format format: "other" is not "ustle-tree": this is not an Ustle tree file.",
     "a later version: /version version: Version 2 is not known; this program reads version 1.",
     "a foreign key with a control character: taken",
     "text for a number: /branches/0/d type: It must be between 0.3 and 400 mm; it is "thick".",
     "too much: /branches/0/elevation range: It must be between -90 and 90 degrees; it is 95.",
     "none of the choices: /branches/0/state choice: It must be one of: dead, blind, weak, normal, strong; it is "happy".",
     "no date: /styledOn date: It must be a date from 1900 to 2200, such as 2026-03-01; it is "2026-02-30".",
     "no such act: /plan/decisions/0/act choice: "burn" is not known. Known are: keep, remove, shorten, stub, reserve, sacrifice, undecided.",
     "an act of no kind: /plan/decisions/0/act required: "act" is missing.",
     "a detail of another act: /plan/decisions/0/length foreign-field: "length" does not belong here: keep has nothing of the kind.",
     "no such line: /record/0/kind choice: "sung" is not known. Known are: wired, bent, guyed, pushed, measured, inspected, cut, snoozed, unwired, removed, shortened, session, worked, promised, fulfilled, agreed, repotted, fed, styled, pruned, defoliated, ailing, note, photo, hours, withdrawn.",
     "a field of another line: /record/0/stage foreign-field: "stage" does not belong here: fed has nothing of the kind.",
     "too long a name: /name count: It must be plain text of 1 to 120 letters; it is "xxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxxx….",
     "one station: /trunk count: It must be a list of 2 to 400; it is [{"x":0,"y":0,"z":0,"d":40.5}].",
     "a run twice: /plan/runs/1/id duplicate: "w1" is used twice.",
     "a guy by the id of a run: /plan/guys/0/id duplicate: "x" is used twice.",
     "two decisions and two poses: /plan/decisions/1/branch duplicate: Two decisions on "b1"; there can be one.",
     "two decisions and two poses: /plan/poses/1/branch duplicate: Two poses of "b2"; there can be one.",
     "lines of one id: /record/1/id duplicate: "r1" is used twice.",
     "what is not there: /plan/either/0/1 unknown-branch: "b99" is no branch of this tree.",
     "what is not there: /record/0/branches/0 unknown-branch: "b98" is no branch of this tree.",
     "what is not there: /record/1/corrects unknown-line: "r9" is no line of this record.",
     "a circle of branches: /branches/0/parent cycle: "b1" grows on itself: b1 → b2 → b1.",
     "a circle of branches: /branches/1/parent cycle: "b2" grows on itself: b1 → b2 → b1.",
     "more green than there is: /branches green-sum: The branches' shares of green add up to 360%, more than the whole tree.",
   ]
  `);
});

test('what is wrong with a text is said too: no JSON, too deep, too large', () => {
  const deep = `${'['.repeat(60)}${']'.repeat(60)}`;
  expect([
    said(readTreeFile('{"a": NaN}')),
    said(readTreeFile('{"a": 1,')).map((s) => s.slice(0, 40)),
    said(readTreeFile(deep)),
    said(readTreeFile('x'.repeat(LARGEST_FILE_BYTES + 1))),
    said(readTreeFile(`\uFEFF${JSON.stringify(tree())}`)),
  ]).toMatchInlineSnapshot(`
   [
     [
       "/ not-json: NaN is not a number that JSON knows, near character 7.",
     ],
     [
       "/ not-json: This is not JSON: Expected d",
     ],
     [
       "/ too-deep: It is nested more than 40 deep.",
     ],
     [
       "/ too-large: The file has 64.1 MB; a tree file has at most 64 MB.",
     ],
     [
       "taken",
     ],
   ]
  `);
});

test('faults of tables are named by the line they stand in, empty lines counted', () => {
  const head = 'id,parent,at,bearing,elevation,length,d,state,backBuds';
  expect(
    listed({
      branches: said(readBranchCsv(`\n${head}\n\nb1,trunk,10,20,30,x,9,,\n,,,,,,,,\nb2,trunk,10,20,30,100,9,merry,maybe\n`)),
      'no rows': said(readBranchCsv(`${head}\n`)),
      'a column of no name': said(readBranchCsv(`${head},\nb1,trunk,10,20,30,100,9,,,`)),
      'no cylinders': said(readCylinderCsv('parent,x,y,z,ax,ay,az,length,radius\n')),
      'missing columns': said(readCylinderCsv('parent,x,y\n-1,0,0')),
      'no numbers': said(readCylinderCsv('parent,x,y,z,ax,ay,az,length,radius\n-1,0,0,0,0,0,1,long,0.02')),
      'parents below and nowhere': said(
        readCylinderCsv(
          'parent,x,y,z,ax,ay,az,length,radius\n-1,0,0,0,0,0,1,0.1,0.02\n1,0,0,0.1,0,0,1,0.1,0.01\n9,0,0,0.1,0,0,1,0.1,0.01\n-1,0,0,0,0,0,1,0.1,0.02',
        ),
      ),
    }),
  ).toMatchInlineSnapshot(`
   [
     "branches: /line/4/length type: Line 4, length: "x" is not a number.",
     "branches: /line/6/state choice: Line 6, state: "merry" is none of: dead, blind, weak, normal, strong.",
     "branches: /line/6/backBuds type: Line 6, backBuds: "maybe" is neither yes nor no.",
     "no rows: /line/1/id empty: Line 1, id: there is no branch below the head of the table.",
     "a column of no name: /line/1/(no name) unknown-column: Line 1, (no name): no such column. Known are: id, parent, at, bearing, elevation, length, d, name, tipD, bareTo, green, state, stage, backBuds.",
     "no cylinders: /line/1 empty: There is no cylinder below the head of the table.",
     "missing columns: /line/1/z missing-column: Line 1, z: this column is missing.",
     "missing columns: /line/1/ax missing-column: Line 1, ax: this column is missing.",
     "missing columns: /line/1/ay missing-column: Line 1, ay: this column is missing.",
     "missing columns: /line/1/az missing-column: Line 1, az: this column is missing.",
     "missing columns: /line/1/length missing-column: Line 1, length: this column is missing.",
     "missing columns: /line/1/radius missing-column: Line 1, radius: this column is missing.",
     "no numbers: /line/2/length type: Line 2, length: "long" is not a number.",
     "parents below and nowhere: /line/3/parent unknown-parent: Line 3, parent: 1 is no cylinder above this line.",
     "parents below and nowhere: /line/4/parent unknown-parent: Line 4, parent: 9 is no cylinder above this line.",
     "parents below and nowhere: /line/2/parent root: 2 cylinders have no parent (-1); the foot of the trunk is to be the only one.",
   ]
  `);
  expect(writeBranchCsv(tree().branches.slice(0, 2))).toMatchInlineSnapshot(`
   "id,parent,at,bearing,elevation,length,d,name,tipD,bareTo,green,state,stage,backBuds
   b1,trunk,81.5,54.3,32.4,160.2,9,,2.9,0.3,0.567,normal,wood,false
   b2,b1,67.3,103.1,32.5,48.2,4.1,,1.3,0.3,0.171,normal,wood,true
   "
  `);
});

test('a calendar holds whole days with ids that stay', () => {
  const text = writeCalendar('Wire', [{ uid: 'a-look-b1', on: '2026-06-01', title: 'Knot: look', text: 'It may mark; look.' }], '2026-05-20');
  expect(text.split(/\r?\n/)).toMatchInlineSnapshot(`
   [
     "BEGIN:VCALENDAR",
     "VERSION:2.0",
     "PRODID:-//Ustle//Ustle//EN",
     "NAME:Wire",
     "X-WR-CALNAME:Wire",
     "BEGIN:VEVENT",
     "UID:a-look-b1@ustle",
     "SEQUENCE:0",
     "DTSTAMP:20260520T000000Z",
     "DTSTART;VALUE=DATE:20260601",
     "X-MICROSOFT-CDO-ALLDAYEVENT:TRUE",
     "X-MICROSOFT-MSNCALENDAR-ALLDAYEVENT:TRUE",
     "SUMMARY:Knot: look",
     "DESCRIPTION:It may mark\\; look.",
     "END:VEVENT",
     "END:VCALENDAR",
   ]
  `);
});
