import fc from 'fast-check';
import { applyAct, branchShapeFault, dayOf, generateTree, planTree, senseFaults, trunkShapeFault, type Branch, type Tree } from '../src/index.js';
import { actFrom, anyTree, branch, tree } from './trees.js';

const crooked = (path: [number, number, number][], d = 8): Branch => branch('a', { path, d, tipD: Math.min(3, d) });
/** Points on a circle in the horizontal plane, a quarter of a turn in each step unless said. */
const ring = (radius: number, turns: number, rise = 0, steps = 24): [number, number, number][] =>
  Array.from({ length: turns * steps + 1 }, (_, i) => {
    const a = (i / steps) * 2 * Math.PI;
    return [Math.round(100 * (radius * Math.cos(a) - radius)) / 100, Math.round(100 * radius * Math.sin(a)) / 100, rise * i];
  });

test.each<[string, Branch, RegExp | null]>([
  [
    'a straight one',
    crooked([
      [0, 0, 0],
      [100, 0, 0],
    ]),
    null,
  ],
  [
    'a sharp elbow',
    crooked([
      [0, 0, 0],
      [100, 0, 0],
      [60, 80, 0],
    ]),
    null,
  ],
  ['a spiral that clears itself', crooked(ring(40, 2, 1)), null],
  ['a loop that just lies on itself', crooked(ring(40, 2, 0.25)), null],
  [
    'a hairpin in one point',
    crooked([
      [0, 0, 0],
      [100, 0, 0],
      [1, 4, 0],
    ]),
    /turns back on itself by 178°/,
  ],
  ['a ring closed into itself', crooked(ring(40, 2)), /runs through itself/],
  [
    'a figure of eight through its own wood',
    crooked([
      [0, 0, 0],
      [100, 100, 0],
      [100, 0, 0],
      [0, 100, 0],
    ]),
    /runs through itself/,
  ],
  [
    'longer than any branch',
    crooked([
      [0, 0, 0],
      [3000, 0, 0],
      [3000, 3000, 0],
    ]),
    /6000 mm; at most 4000/,
  ],
  ['more points than a hand could take', crooked(Array.from({ length: 300 }, (_, i) => [i * 0.1, 0, 0])), /300 points on 29.9 mm/],
])('%s', (_, b, why) => {
  const fault = branchShapeFault(b);
  if (why) expect(fault?.message).toMatch(why);
  else expect(fault).toBeNull();
});

test('what is wild is refused by its field, wherever it comes in; what grows is not; a tree that was so before can be worked on', () => {
  const wild = fc.array(fc.tuple(fc.integer({ min: -900, max: 900 }), fc.integer({ min: -900, max: 900 }), fc.integer({ min: -900, max: 900 })), {
    minLength: 25,
    maxLength: 60,
  });
  fc.assert(
    fc.property(wild, (points) => {
      expect(branchShapeFault(crooked([[0, 0, 0], ...points]))).not.toBeNull();
      expect(trunkShapeFault([{ x: 0, y: 0, z: 0, d: 30 }, ...points.map(([x, y, z]) => ({ x, y, z, d: 20 }))])).not.toBeNull();
    }),
    { numRuns: 40 },
  );
  fc.assert(
    fc.property(anyTree, (t) => expect(senseFaults(t)).toEqual([])),
    { numRuns: 40 },
  );
  const path: [number, number, number][] = [
    [0, 0, 0],
    [100, 0, 0],
    [1, 4, 0],
  ];
  const good = tree([branch('a')]);
  const today = dayOf('2030-01-01');
  expect(applyAct(good, actFrom({ kind: 'remeasure', branch: 'a', changes: { path } }), today)).toMatchObject({
    refused: [{ field: '/branches/0/path/1', code: 'shape' }],
  });
  const old: Tree = { ...good, branches: [{ ...good.branches[0]!, path }] };
  expect(applyAct(old, actFrom({ kind: 'note', text: 'goes on' }), today)).toHaveProperty('tree');
});

test('a plan that is told in place of a whole one says why, and what does not depend on it', () => {
  const t = generateTree({ seed: 4, name: 'Any', species: 'larch', height: 400, base: 35, primaries: 3, secondaries: 1 });
  const [whole, bare] = [planTree(t, dayOf('2026-10-10')), planTree(t, dayOf('2026-10-10'), { instead: 'It takes too long.' })];
  expect(bare).toMatchObject({ runs: [], poses: [], fronts: [], guys: [], order: [], notes: ['It takes too long.', ...whole.notes] });
  expect([bare.findings, bare.green, bare.wires]).toEqual([whole.findings, whole.green, whole.wires]);
});
