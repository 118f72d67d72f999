import { useMemo } from 'react';
import { outcomeOf, placeTree, posedLines, type Limb, type PlacedTree, type PlanDocument, type PlanPose, type Tree } from '@ustle/core';

/** The tree as the plan's cuts leave it, laid out. */
export const usePlacedAfter = (tree: Tree): PlacedTree => useMemo(() => placeTree(outcomeOf(tree).tree), [tree]);

/** The lines of all branches as the plan poses them, each bend by a share; null until there is a plan. */
export function usePosedLines(
  tree: Tree,
  plan: PlanDocument | null,
  share = 1,
  poses: readonly PlanPose[] | undefined = plan?.poses,
): ReadonlyMap<string, Limb> | null {
  const placed = usePlacedAfter(tree);
  return useMemo(() => (poses && share > 0 ? posedLines(placed, poses, share) : null), [placed, poses, share]);
}
