import fc from 'fast-check';
import { dayOf, decide, findingsOf, greenTally, judgeFront, placeTree, readTree, outcomeOf, type Branch, type Tree } from '../src/index.js';
import { anyTree, branch, tree, turned } from './trees.js';

const find = (t: Tree) => findingsOf(placeTree(t), t.plan.front ? judgeFront(placeTree(t), t.plan.front) : null);
const rules = (t: Tree, id: string) =>
  find(t)
    .filter((f) => f.branch === id)
    .map((f) => f.rule);
const withFront = (t: Tree, bearing: number): Tree => ({ ...t, plan: { ...t.plan, front: { bearing, pitch: 0, roll: 0 } } });

const parent = branch('p', { bearing: 90, elevation: 0, length: 300, d: 14 });
const CASES: [rule: string, id: string, fires: Tree, holds: Tree][] = [
  ['dead', 'a', tree([branch('a', { state: 'dead' })]), tree([branch('a', { state: 'weak' })])],
  ['blind', 'a', tree([branch('a', { state: 'blind' })]), tree([branch('a')])],
  ['weak', 'a', tree([branch('a', { state: 'weak' })]), tree([branch('a', { state: 'strong' })])],
  [
    'hanging',
    'a',
    tree([parent, branch('a', { parent: 'p', at: 150, elevation: -61 })]),
    tree([parent, branch('a', { parent: 'p', at: 150, elevation: -59 })]),
  ],
  // The trunk is 36 mm thick at 200 mm: branches within 18 mm of height belong together.
  [
    'bar',
    'a',
    tree([branch('a', { bearing: 89, green: 0.01 }), branch('b', { bearing: 250, at: 217 })]),
    tree([branch('a', { bearing: 92, green: 0.01 }), branch('b', { bearing: 250, at: 217 })]),
  ],
  [
    'bar',
    'a',
    tree([branch('a', { green: 0.01 }), branch('b', { bearing: 270, at: 217 })]),
    tree([branch('a', { green: 0.01 }), branch('b', { bearing: 270, at: 220 })]),
  ],
  [
    'whorl',
    'c',
    tree([branch('a', { at: 200 }), branch('b', { at: 208, bearing: 210 }), branch('c', { at: 216, bearing: 330, green: 0.01 })]),
    tree([branch('a', { at: 200 }), branch('b', { at: 208, bearing: 210 }), branch('c', { at: 222, bearing: 330, green: 0.01 })]),
  ],
  ['eye', 'a', withFront(tree([branch('a', { bearing: 90, elevation: 0 })]), 71), withFront(tree([branch('a', { bearing: 90, elevation: 0 })]), 69)],
];

test.each(CASES)('%s: found on branch %s where it holds, not just inside the threshold', (rule, id, fires, holds) => {
  expect(rules(fires, id)).toContain(rule);
  expect(rules(holds, id)).not.toContain(rule);
});

test('findings turn with the tree and do not depend on the order of its branches', () => {
  fc.assert(
    fc.property(anyTree, fc.integer({ min: 1, max: 359 }), fc.integer({ min: 0, max: 359 }), (t, by, bearing) => {
      const key = (x: Tree): string[] => find(x).map((f) => `${f.branch} ${f.rule} ${f.advice}`);
      const here = key(withFront(t, bearing));
      expect(key(withFront({ ...t, branches: [...t.branches].reverse() }, bearing))).toEqual(here);
      const still = (list: string[]): string[] => list.filter((l) => !/eye|hides/.test(l)).sort();
      expect(still(key(turned(t, by)))).toEqual(still(key(t)));
    }),
    { numRuns: 25 },
  );
});

test('every finding is advice with a reason, names what it would cost, and says no "must"', () => {
  const heavy = tree([branch('a', { state: 'blind', green: 0.3, backBuds: false }), branch('kid', { parent: 'a', at: 100, green: 0.05 })], {
    species: 'pine-two-needle',
  });
  heavy.plan.runs.push({ id: 'w1', metal: 'copper', size: 2, strands: 1, angle: 45, branches: [{ branch: 'kid', hand: 'cw', start: 'over' }] });
  const [found] = find(heavy);
  expect(found!.because.join(' ')).toMatch(/takes 1 branch.*35% of the green.*does not bud back/s);
  expect(found!.conflicts).toEqual(['w1']);
  fc.assert(
    fc.property(anyTree, (t) =>
      expect(
        find(t)
          .flatMap((f) => f.because)
          .join(' '),
      ).not.toMatch(/\bmust\b/),
    ),
  );
});

test('a removed branch takes its own along, and the tally counts each green once', () => {
  const t = tree([branch('a', { green: 0.2 }), branch('a1', { parent: 'a', at: 90, green: 0.1 }), branch('b', { green: 0.3 })]);
  const cut = decide('a', { act: 'remove' })(decide('a1', { act: 'remove' })(t));
  expect([...outcomeOf(cut).gone].sort()).toEqual(['a', 'a1']);
  expect(greenTally(cut).removed).toBeCloseTo(0.3, 9);
  expect(greenTally(cut).cap).toBeCloseTo(0.4, 9);
  const kept: Branch[] = cut.branches;
  expect(kept).toHaveLength(3);
});

test('a tree just collected or repotted is left alone or lightly worked', () => {
  const on = dayOf('2026-10-10');
  const verdict = (own: Partial<Tree>) => readTree(tree([], own), on).verdict;
  expect(verdict({ vigour: 'strong' })).toBe('go');
  expect(verdict({ repottedOn: '2026-03-20' })).toBe('light');
  expect(verdict({ collectedOn: '2026-03-20' })).toBe('leave');
  expect(verdict({ vigour: 'weak', repottedOn: '2026-09-20' })).toBe('leave');
});
