import { brokenTree, generateTree, unreadable, type Act, type Tree } from '@ustle/core';
import { run } from '../../core/test/any-act.js';
import { checkTree } from '../src/index.js';

/** A tree with something in each corner of its plan and record. */
const made = generateTree({ seed: 3, name: 'Good', species: 'larch', height: 500, base: 40, primaries: 4, secondaries: 1, faults: [] });
const [a, b] = made.branches.filter((x) => x.parent === 'trunk').map((x) => x.id) as [string, string];
const on = '2026-05-01';
const ACTS = [
  { kind: 'front', front: { bearing: 10, pitch: 2, roll: 0 } },
  { kind: 'keep-open', view: { bearing: 40, pitch: 0, roll: 0 } },
  { kind: 'reading', signs: ['dense'], season: 'hardened' },
  { kind: 'decide', branch: a, act: 'shorten', length: 40, why: 'long' },
  { kind: 'pose', branch: b, bearing: 80, elevation: -10, bends: [{ at: 20, angle: 30, toward: { bearing: 90, elevation: -40 }, over: 30 }] },
  { kind: 'run', metal: 'copper', size: 1, strands: 1, angle: 45, branches: [{ branch: b, hand: 'cw', start: 'over' }] },
  { kind: 'guy', branch: b, at: 20, anchor: { kind: 'pot-rim', bearing: 90 }, wire: 1 },
  { kind: 'wired', branch: a, metal: 'copper', size: 1, strands: 1, angle: 45, hand: 'cw', start: 'over', bentDeg: 30 },
  { kind: 'inspected', branch: a, stage: 'clear', gap: 0.2 },
  { kind: 'ailing', weeks: 3 },
  { kind: 'take-off', branches: [a] },
].map((act, i) => ({ id: `a${i}`, on, ...act })) as unknown as Act[];
const done = run(made, ACTS);
const good = JSON.parse(JSON.stringify(done.tree)) as Tree;

/** The tree with one value after another in it changed to what it should not be. */
function* changed(at: unknown, path: (string | number)[] = []): Generator<[path: string, tree: Tree]> {
  const parents = path.slice(0, -1);
  for (const to of path.length ? [null, -1e6, 1e6, 0.5, 'nothing of the kind', 'x'.repeat(6000), '2026-02-30', {}, []] : []) {
    const tree = structuredClone(good);
    (parents.reduce((o, k) => (o as never)[k], tree as unknown) as Record<string, unknown>)[path[path.length - 1]!] = to;
    yield [`${path.join('/')} = ${JSON.stringify(to).slice(0, 14)}`, tree];
  }
  // Of long lists the first and the last are like all the others.
  if (typeof at === 'object' && at !== null)
    for (const key of Array.isArray(at) ? [...new Set([0, at.length - 1])].filter((k) => k in at) : Object.keys(at))
      yield* changed((at as never)[key], [...path, key]);
}

test('what an act may make is what a file may hold: both refuse the same values, each by its own check, and what is refused cannot be worked with', () => {
  expect(done.done).toHaveLength(ACTS.length);
  expect(checkTree(good)).toHaveProperty('tree');
  const nothing = { plan: { decisions: [], poses: [], runs: [], guys: [] }, record: [], branches: [], trunk: good.trunk, species: 'larch' } as unknown as Tree;
  let [same, refused] = [0, 0];
  for (const [path, tree] of changed(good)) {
    const file = 'faults' in checkTree(tree);
    let act: boolean;
    try {
      act = unreadable(nothing, tree).length > 0;
    } catch {
      act = true;
    }
    // A file may leave out lists that a tree always has; its format and version are not an act's to change.
    if (/^(format|version)\b|^plan = {}$/.test(path)) continue;
    expect([path, act]).toEqual([path, file]);
    same++;
    refused += Number(file);
    // What is more than unlikely is told when a kept tree is read.
    if (!file) expect([path, brokenTree(tree)]).toEqual([path, null]);
  }
  expect(same).toBeGreaterThan(1000);
  expect(refused).toBeGreaterThan(800);
});
