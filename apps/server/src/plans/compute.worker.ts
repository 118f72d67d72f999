import {
  asItStands,
  dueOn,
  namesOf,
  planTree,
  sayBranches,
  outlinesIn,
  placeTree,
  seenFrom,
  silhouetteOf,
  treeSays,
  walkItems,
  type Known,
  type PlanDocument,
  type Silhouette,
  type Tree,
  type TreeSays,
  type WalkItem,
} from '@ustle/core';
import type { PieceView, Side } from '@ustle/contract';

type Pieces = Omit<PieceView, 'tree'>[];

interface Asked {
  quarters?: number;
  of?: string[];
  tree: Tree;
  on: number;
  known?: Known;
  places?: boolean;
  instead?: string;
}

/** What is due on a tree, and what of it is looked at on a walk. */
export type Sum = ReturnType<typeof dueOn> & { items: WalkItem[]; hemisphere: Tree['site']['hemisphere']; trouble: string | null };

/** The whole plan of a tree on a day, on a thread of its own. */
export const plan = ({ tree, on, known, places, instead }: Asked): PlanDocument => planTree(tree, on, { known, places, instead });

/** What is due on a tree from a day on. */
export const due = ({ tree, on, known }: Asked): Sum => ({
  ...dueOn(tree, on, known),
  items: walkItems(tree, on, known),
  hemisphere: tree.site.hemisphere,
  trouble: null,
});

/** What a tree's record says of its kind. */
export const says = ({ tree, on }: Asked): TreeSays => treeSays(tree, on);

/** A small picture of a tree as it stands on a day. */
export const silhouette = ({ tree, on }: Asked): Silhouette => silhouetteOf(asItStands(tree, on));

/** The same from another side (quarter turns to the right of its front), with the outlines of some of its branches. */
export function side({ tree, on, quarters = 0, of = [] }: Asked): Side {
  const seen = seenFrom(asItStands(tree, on), quarters);
  return { ...silhouetteOf(seen), outlines: Object.fromEntries(outlinesIn(placeTree(seen), new Set(of))) };
}

/** The pieces of wire that a tree's plan cuts. */
export function pieces({ tree, on, known }: Asked): Pieces {
  const { cutList, runs, coverage } = planTree(tree, on, { fronts: false, known });
  const names = namesOf(asItStands(tree, on));
  return cutList.flatMap(({ metal, size, pieces: of }) =>
    of.map(({ run, length }) => {
      const ids = runs.find((r) => r.id === run)!.branches.map((b) => b.branch);
      return { metal, size, run, length, branches: sayBranches(names, ids, 2), later: coverage.later.includes(run) };
    }),
  );
}
