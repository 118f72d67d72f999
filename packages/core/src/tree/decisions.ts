import { takenOff } from './outcome.js';
import type { Act, Tree } from './types.js';

/** What is decided for each branch; 'undecided' where nothing is. A branch that goes with another one counts as removed. */
export function decisionsOf(tree: Tree): Map<string, Act> {
  const own = new Map(tree.plan.decisions.map((d) => [d.branch, d.act]));
  const { gone } = takenOff(tree, tree.plan.decisions);
  return new Map(tree.branches.map((b) => [b.id, gone.has(b.id) ? 'remove' : (own.get(b.id) ?? 'undecided')]));
}
