import { dueOn, namesOf, planTree, sayBranches, silhouetteOf, type PlanDocument, type Silhouette, type Tree } from '@ustle/core';
import type { PieceView } from '@ustle/contract';

type Pieces = Omit<PieceView, 'tree'>[];

interface Asked {
  tree: Tree;
  on: number;
}

/** The whole plan of a tree on a day, on a thread of its own. */
export const plan = ({ tree, on }: Asked): PlanDocument => planTree(tree, on);

/** What is due on a tree from a day on. */
export const due = ({ tree, on }: Asked): ReturnType<typeof dueOn> => dueOn(tree, on);

export const silhouette = ({ tree }: Asked): Silhouette => silhouetteOf(tree);

/** The pieces of wire that a tree's plan cuts. */
export function pieces({ tree, on }: Asked): Pieces {
  const { cutList, runs, coverage } = planTree(tree, on, { fronts: false });
  const names = namesOf(tree);
  return cutList.flatMap(({ metal, size, pieces: of }) =>
    of.map(({ run, length }) => {
      const ids = runs.find((r) => r.id === run)!.branches.map((b) => b.branch);
      return { metal, size, run, length, branches: sayBranches(names, ids, 2), later: coverage.later.includes(run) };
    }),
  );
}
