import { dueOn, planTree, silhouetteOf, type PlanDocument, type Silhouette, type Tree } from '@ustle/core';

interface Asked {
  tree: Tree;
  on: number;
}

/** The whole plan of a tree on a day, on a thread of its own. */
export const plan = ({ tree, on }: Asked): PlanDocument => planTree(tree, on);

/** What is due on a tree from a day on. */
export const due = ({ tree, on }: Asked): ReturnType<typeof dueOn> => dueOn(tree, on);

export const silhouette = ({ tree }: Asked): Silhouette => silhouetteOf(tree);
