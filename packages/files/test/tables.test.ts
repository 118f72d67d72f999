import { generateTree, largeTree, lengthOf, MOST_BRANCHES, placeTree, pointAt, type Tree } from '@ustle/core';
import { checkTree, readBranchCsv, readCylinderCsv, writeBranchCsv } from '../src/index.js';

const branchesOf = (text: string) => {
  const read = readBranchCsv(text);
  if ('faults' in read) throw new Error(read.faults.map((f) => f.message).join('\n'));
  return read.measured.branches!;
};
const faultsOf = (text: string, read: typeof readBranchCsv = readBranchCsv) => {
  const result = read(text);
  return 'faults' in result ? result.faults.map((f) => [f.path, f.code]) : [];
};
const tree = (): Tree => generateTree({ seed: 9, name: 'Scan', species: 'larch', height: 500, base: 44, primaries: 5, secondaries: 2 });

test('branches come back from their table', () => {
  const branches = tree().branches.map(({ path: _path, ...b }) => b);
  expect(branchesOf(writeBranchCsv(branches))).toEqual(branches);
});

test('a file of more branches than a plan is made for is refused, and the limit is said', () => {
  const many = largeTree(MOST_BRANCHES + 1, 3);
  expect(checkTree(many)).toEqual({ faults: [{ path: '/branches', code: 'count', message: 'There may be at most 2000 here; there are 2001.' }] });
  expect(checkTree(largeTree(MOST_BRANCHES, 3))).toHaveProperty('tree');
});

test('no name can be run as a formula by a spreadsheet, and it comes back as it was', () => {
  const [first] = tree().branches.map(({ path: _path, ...b }) => b);
  const names = ['=1+1', '+HYPERLINK("http://x")', '-2', '@SUM(A1)', "'quoted", 'a, "b"'];
  const branches = names.map((name, i) => ({ ...first!, id: `n${i}`, name, elevation: -10 }));
  const text = writeBranchCsv(branches);
  for (const line of text.split('\n').slice(1)) for (const cell of line.split(',')) expect(cell).not.toMatch(/^"?[=+@]/);
  expect(text).not.toMatch(/(^|,)"?-[^\d]|,"?-2"?,/m);
  expect(branchesOf(text)).toEqual(branches);
});

const HEAD = 'id,parent,at,bearing,elevation,length,d';
test.each([
  [
    'decimal commas, semicolons, a byte-order mark, Windows lines and empty ones',
    '\uFEFFid;parent;at;bearing;elevation;length;d\r\n\r\nb1;trunk;110,5;80;12;200;9,5\r\n;;;;;;\r\n',
  ],
  ['tabs, as a spreadsheet pastes', 'id\tparent\tat\tbearing\televation\tlength\td\nb1\ttrunk\t110.5\t80\t12\t200\t9.5'],
  ['a share in percent and spaces', `${HEAD},green\n b1 , trunk , 110.5 ,80,12,200,9.5,8%`],
])('%s are read', (_, text) => {
  expect(branchesOf(text)).toMatchObject([{ id: 'b1', parent: 'trunk', at: 110.5, length: 200, d: 9.5, state: 'normal' }]);
});

test('what is wrong is refused with its line and column', () => {
  expect(faultsOf('id,parent,at,bearing,elevation,length,girth\nb1,trunk,1,2,3,4,5')).toEqual([
    ['/line/1/girth', 'unknown-column'],
    ['/line/1/d', 'missing-column'],
  ]);
  expect(faultsOf(`${HEAD},state\nb1,trunk,10,20,5,100,8,normal\n\nb2,trunk,high,20,5,,8,merry`).sort()).toEqual([
    ['/line/4/at', 'type'],
    ['/line/4/length', 'type'],
    ['/line/4/state', 'choice'],
  ]);
  expect(faultsOf(HEAD)).toEqual([['/line/1/id', 'empty']]);
});

/** A tree as a scanner's model gives it: a cylinder for each piece of each limb, in metres. */
function cylindersFrom(t: Tree): string {
  const placed = placeTree(t);
  const rows: string[] = [];
  const last = new Map<string, { index: number; along: number }[]>();
  const limbs = [
    { id: 'trunk', parent: '', at: 0, line: placed.trunk },
    ...placed.branches.map((b) => ({ id: b.branch.id, parent: b.branch.parent, at: b.branch.at, line: b.line })),
  ];
  for (const { id, parent, at, line } of limbs) {
    const pieces: { index: number; along: number }[] = [];
    line.points.slice(1).forEach((end, i) => {
      const start = line.points[i]!;
      const axis = end.map((v, k) => v - start[k]!);
      const length = Math.hypot(...axis);
      // A limb leaves from the end of a piece, never from the last one: there its parent would end and it go on.
      const below = (last.get(parent) ?? []).slice(0, -1);
      const on = i > 0 ? pieces[i - 1]!.index : ((below.filter((p) => p.along <= at).at(-1) ?? below[0])?.index ?? -1);
      rows.push([on, ...start.map((v) => v / 1000), ...axis.map((v) => v / length), length / 1000, pointAt(line, line.along[i]!).diameter / 2000].join(','));
      pieces.push({ index: rows.length - 1, along: line.along[i + 1]! });
    });
    last.set(id, pieces);
  }
  return `parent,x,y,z,ax,ay,az,length,radius\n${rows.join('\n')}\n`;
}

test('the skeleton of a scan becomes trunk, branches and sub-branches of the same lengths and thicknesses', () => {
  const t = tree();
  const read = readCylinderCsv(cylindersFrom(t));
  if ('faults' in read) throw new Error(JSON.stringify(read.faults));
  const { trunk, branches } = read.measured;
  expect(trunk!.at(-1)!.z).toBeCloseTo(t.trunk.at(-1)!.z, 0);
  expect(branches).toHaveLength(t.branches.length);
  const ordered = (list: readonly { length: number }[]): number[] => list.map((b) => Math.round(b.length)).sort((a, b) => a - b);
  expect(ordered(branches!)).toEqual(ordered(t.branches));
  expect(branches!.filter((b) => b.parent === 'trunk').length).toBe(t.branches.filter((b) => b.parent === 'trunk').length);
  const scanned = { ...t, trunk: trunk!, branches: branches! };
  expect(checkTree(scanned)).toHaveProperty('tree');
  expect(lengthOf(placeTree(scanned).trunk) / lengthOf(placeTree(t).trunk)).toBeCloseTo(1, 2);
});

test('a broken scan is refused by line', () => {
  const head = 'parent,x,y,z,ax,ay,az,length,radius';
  expect(faultsOf(`${head}\n-1,0,0,0,0,0,1,0.1,0.02\n7,0,0,0.1,0,0,1,0.1,0.02`, readCylinderCsv)).toEqual([['/line/3/parent', 'unknown-parent']]);
  expect(faultsOf(`${head}\n-1,0,0,0,0,0,1,0.1,0.02\n-1,0,0,0.1,0,0,1,x,0.02`, readCylinderCsv)).toEqual([['/line/3/length', 'type']]);
  expect(faultsOf('x,y\n1,2', readCylinderCsv).length).toBe(7);
});
