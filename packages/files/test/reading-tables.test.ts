import { checkActs, readBranchCsv, readCylinderCsv } from '../src/index.js';
import { numberOf } from '../src/branch-csv.js';

test.each<[string | undefined, number]>([
  ['12', 12],
  ['12.5', 12.5],
  ['12,5', 12.5],
  ['.5', 0.5],
  ['+3', 3],
  ['-30', -30],
  ['1e2', 100],
  ['1E+2', 100],
  ['25e-1', 2.5],
  ['1e12', 1e12],
  ['12mm', NaN],
  ['x12', NaN],
  ['1e', NaN],
  ['1,2,3', NaN],
  ['1 2', NaN],
  ['', NaN],
  [undefined, NaN],
])('%j is read as %p', (text, value) => {
  expect(numberOf(text)).toBe(value);
});

test('a table of branches takes shares in percent, yes and no, and says which cell is none of them', () => {
  const head = 'id,parent,at,bearing,elevation,length,d,bareTo,green,backBuds,stage,state';
  const read = readBranchCsv(`${head}\nb1,,100,90,10,200,9,"40 %","0,05",no,shoot,\nb2,b1,150,270,10,200,9,,,x,,weak`);
  if ('faults' in read) throw new Error(read.faults[0]!.message);
  expect(read.measured.branches).toMatchObject([
    { id: 'b1', parent: 'trunk', bareTo: 0.4, green: 0.05, backBuds: false, stage: 'shoot', state: 'normal', tipD: 3.2 },
    { id: 'b2', parent: 'b1', backBuds: true, stage: 'wood', state: 'weak' },
  ]);
  const wrong = readBranchCsv(`${head}\nb1,,100,90,10,,9,half,,perhaps,,odd`);
  expect('faults' in wrong && wrong.faults.map((f) => [f.path, f.message])).toEqual([
    ['/line/2/state', expect.stringContaining('"odd" is none of')],
    ['/line/2/backBuds', expect.stringContaining('"perhaps" is neither yes nor no')],
    ['/line/2/length', 'Line 2, length: "" is not a number.'],
    ['/line/2/bareTo', 'Line 2, bareTo: "half" is not a number.'],
  ]);
  expect(readBranchCsv(`${head.replace(',d,', ',')}\n`)).toMatchObject({ faults: [{ path: '/line/1/d', code: 'missing-column' }] });
});

const cylinders = (unit: number, fork: [radius: number, length: number][], foot = 0): string =>
  [
    'x,y,z,ax,ay,az,length,radius,parent',
    [0, 0, foot, 0, 0, 1, 0.2 * unit, 0.02 * unit, -1].join(','),
    ...fork.map(([radius, length], i) => [0, 0, foot + 0.2 * unit, i ? 0.6 : -0.6, 0, 0.8, length * unit, radius * unit, 0].join(',')),
  ].join('\n');

test.each<[name: string, fork: [number, number][], height: number, branch: number]>([
  [
    'the thicker limb goes on as the trunk',
    [
      [0.01, 0.3],
      [0.015, 0.1],
    ],
    280,
    300,
  ],
  [
    'of alike ones the longer goes on',
    [
      [0.0148, 0.1],
      [0.015, 0.3],
    ],
    440,
    100,
  ],
  [
    'a little thinner but longer is alike still',
    [
      [0.015, 0.1],
      [0.0135, 0.3],
    ],
    440,
    100,
  ],
  [
    'of quite equal ones the first goes on',
    [
      [0.015, 0.2],
      [0.015, 0.2],
    ],
    360,
    200,
  ],
])('%s, whether the scan is in metres or millimetres', (_, fork, height, length) => {
  for (const unit of [1, 1000]) {
    const read = readCylinderCsv(cylinders(unit, fork));
    if ('faults' in read) throw new Error(read.faults[0]!.message);
    const { trunk, branches } = read.measured;
    expect(trunk![trunk!.length - 1]!.z).toBeCloseTo(height, 0);
    expect(branches).toHaveLength(1);
    expect(branches![0]!.length).toBeCloseTo(length, 0);
  }
});

test('a scan in metres is known by its height: one of 15 m stays in metres, one that is higher is in millimetres', () => {
  const top = (text: string): number => {
    const read = readCylinderCsv(text);
    if ('faults' in read) throw new Error(read.faults[0]!.message);
    const { trunk } = read.measured;
    return trunk![trunk!.length - 1]!.z - trunk![0]!.z;
  };
  expect(top(cylinders(1, [], 15))).toBeCloseTo(200, 3);
  expect(top(cylinders(100, [], 15))).toBeCloseTo(20, 3);
});

test('a file of acts is a list; each fault is named by its place in it', () => {
  const act = { id: 'a1', on: '2026-03-01', kind: 'decide', branch: 'b1', act: 'keep' };
  expect(checkActs([act])).toEqual({ acts: [act] });
  expect(checkActs([])).toEqual({ acts: [] });
  expect(checkActs(act)).toEqual({ faults: [{ path: '/', code: 'type', message: 'A file of acts is a list.' }] });
  expect(checkActs([act, { ...act, act: 'burn' }])).toMatchObject({ faults: [{ path: '/1/act' }] });
  expect(checkActs([act, 7])).toMatchObject({ faults: [{ path: '/1' }] });
});
