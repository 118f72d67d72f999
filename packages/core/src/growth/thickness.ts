import { speciesOf } from '../species/index.js';
import { branchOf, lastCaliper, type PlacedTree } from '../tree/index.js';
import { courseOf, growthFactor } from './coil-state.js';
import { grownAlong } from './course.js';
import { NOTHING_LEARNT } from './known.js';

/** How thick a branch is on a day, mm: as last measured, and grown since at its usual pace, or the one that its artist gave. docs: As it stands. */
export function thicknessOn(placed: PlacedTree, branch: string, onDay: number): number | undefined {
  const { tree } = placed;
  const last = lastCaliper(tree, branch, onDay);
  if (!last || last.day === null || last.day >= onDay || branchOf(tree, branch)?.state === 'dead') return last?.d;
  const species = speciesOf(tree.species);
  const share = grownAlong(species, tree.site.hemisphere, courseOf(placed, NOTHING_LEARNT), last.day, onDay);
  return last.d + 2 * species.yearlyGrowth.value * growthFactor(placed, branch) * (tree.plan.pace ?? 1) * share;
}
