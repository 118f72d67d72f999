import { planTree, type PlanDocument, type Tree } from '@ustle/core';

/** The whole plan of a tree on a day, on a thread of its own. */
export default function plan({ tree, on }: { tree: Tree; on: number }): PlanDocument {
  return planTree(tree, on);
}
