import fc from 'fast-check';
import { decided, generateTree, type Tree } from '@ustle/core';
import { withSameParts } from '../src/shared/same-parts';

/** Through the wire and back. */
const said = (tree: Tree): Tree => JSON.parse(JSON.stringify(tree)) as Tree;

const grown = fc
  .nat(5000)
  .map((seed): Tree => said(generateTree({ seed, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 4, secondaries: 2 })));

/** The tree as an answer brings it: everything anew, its keys in another order. */
const answered = (tree: Tree): Tree => {
  const { plan, ...rest } = said(tree);
  return { plan, ...rest };
};

test('an answer that says the same is the same tree; of another only what changed is new', () => {
  fc.assert(
    fc.property(grown, fc.nat(9), fc.nat(359), (tree, i, bearing) => {
      expect(withSameParts(answered(tree), tree)).toBe(tree);
      const branch = tree.branches[i % tree.branches.length]!;
      const cutOff = decided(tree, branch.id, 'remove');
      const changed: Tree = { ...cutOff, plan: { ...cutOff.plan, front: { bearing, pitch: 0, roll: 0 } } };
      const joined = withSameParts(answered(changed), tree);
      expect(joined).toEqual(changed);
      expect(
        [joined.branches, joined.trunk, joined.record, joined.plan.runs].map((part, k) => part === [tree.branches, tree.trunk, tree.record, tree.plan.runs][k]),
      ).toEqual(Array(4).fill(true));
      expect(joined.plan.decisions).not.toBe(tree.plan.decisions);
      const cut = { ...tree, branches: tree.branches.filter((b) => b !== branch) };
      expect(withSameParts(answered(cut), tree)).toEqual(cut);
      // A part that is gone is gone.
      const { styledOn: _styledOn, ...never } = { ...tree, styledOn: '2026-01-01' };
      expect(withSameParts(answered(never as Tree), { ...tree, styledOn: '2026-01-01' })).toEqual(never);
    }),
    { numRuns: 25 },
  );
});
