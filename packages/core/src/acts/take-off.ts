import { afterCut, agreedBranches, cutLines, id, isCutting, list, namesOf } from '../tree/index.js';
import { actKind, missing, refuse } from './act.js';

/** Branches were cut as the plan decided: the measured tree moves on, the record keeps the wood as it was. A client's tree is cut only as they agreed. */
export const takeOff = actKind({
  kind: 'take-off',
  fields: { branches: list(id('a branch'), 5000, 'which branches', 1) },
  guarded: true,
  apply: (tree, { branches, on }) => {
    const decided = new Set(tree.plan.decisions.filter(isCutting).map((d) => d.branch));
    const agreed = agreedBranches(tree);
    const names = namesOf(tree);
    for (const branch of branches) {
      const gone = missing(tree, branch, 'branches');
      if (gone) return gone;
      if (!decided.has(branch)) return refuse('branches', 'not-decided', `It is not decided to cut ${names(branch)}. Decide that first.`);
      if (agreed && !agreed.has(branch))
        return refuse('branches', 'not-agreed', `This tree belongs to ${tree.client}: note first who agreed to cut ${names(branch)}, and when.`);
    }
    return { tree: afterCut(tree, branches), lines: cutLines(tree, branches, on) };
  },
  say: ({ branches }, names) => `cut ${branches.map(names).join(', ')}`,
});
