import { greatestOf } from '../units/index.js';
import { cutList } from '../removal/index.js';
import {
  afterCut,
  agreedBranches,
  cutLines,
  id,
  isCutting,
  list,
  MOST_BRANCHES,
  namesOf,
  placeTree,
  sayBranches,
  sessionOf,
  unfinishedCut,
  type Tree,
} from '../tree/index.js';
import { actKind, missing, refuse } from './act.js';

/** The tree with the numbers of its list of cuts written to the decisions: from the first cut on they stay. */
function numbered(tree: Tree, session: number): { tree: Tree; tags: Map<string, number> } {
  const { plan } = tree;
  const tags = new Map(cutList(placeTree(tree), session).map((c) => [c.branch, c.tag]));
  const goesOn = plan.cutting && plan.decisions.some((d) => d.tag);
  const decisions = plan.decisions.map((d) => (tags.has(d.branch) ? { ...d, tag: tags.get(d.branch)! } : d));
  const cutting = {
    numbers: greatestOf(tags.values(), Math.max(1, goesOn ? plan.cutting!.numbers : 0)),
    since: goesOn ? plan.cutting!.since : tree.record.length,
  };
  return { tree: { ...tree, plan: { ...plan, decisions, cutting } }, tags };
}

/** Branches were cut as the plan decided: the measured tree moves on, the record keeps the wood as it was. A client's tree is cut only as they agreed. */
export const takeOff = actKind({
  kind: 'take-off',
  fields: { branches: list(id('a branch'), MOST_BRANCHES, 'which branches', 1) },
  guarded: true,
  apply: (tree, { branches, on }) => {
    const decided = new Map(tree.plan.decisions.filter(isCutting).map((d) => [d.branch, d]));
    const agreed = agreedBranches(tree);
    const names = namesOf(tree);
    for (const branch of branches) {
      const gone = missing(tree, branch, 'branches');
      if (gone) return gone;
      const decision = decided.get(branch);
      if (!decision) return refuse('branches', 'not-decided', `It is not decided to cut ${names(branch)}. Decide that first.`);
      const unfinished = unfinishedCut(tree, decision);
      if (unfinished) return refuse('branches', 'unfinished', `${names(branch)}: ${unfinished}`);
      if (agreed && !agreed.has(branch))
        return refuse('branches', 'not-agreed', `This tree belongs to ${tree.client}: note first who agreed to cut ${names(branch)}, and when.`);
    }
    const first = tree.plan.decisions.find((d) => d.branch === branches[0])!;
    const { tree: before, tags } = numbered(tree, sessionOf(first));
    const lines = cutLines(before, branches, on).map((line) => (tags.has(line.branch) ? { ...line, tag: tags.get(line.branch)! } : line));
    return { tree: afterCut(before, branches), lines };
  },
  say: ({ branches }, names) => `cut ${sayBranches(names, branches, 4)}`,
});
