import { speciesOf } from '../species/index.js';
import type { Tolerance, Tree } from '../tree/index.js';

/** How much of a mark a tree bears, where its artist has not said: none on bark that keeps it and on refined trees, else a shallow one that grows out. docs: Tolerance. */
export function toleranceOf(tree: Tree): Tolerance {
  if (tree.plan.tolerance) return tree.plan.tolerance;
  const fades = speciesOf(tree.species).markFadeYears !== null;
  return fades && tree.vigour !== 'refined' && tree.vigour !== 'weak' ? 'fading' : 'none';
}
