import { parentsFirst } from './geometry.js';
import type { Act, Tree } from './types.js';

const GONE: readonly Act[] = ['remove', 'stub'];

/** What is decided for each branch; 'undecided' where nothing is. A branch on a removed one goes with it. */
export function decisionsOf(tree: Tree): Map<string, Act> {
  const own = new Map(tree.plan.decisions.map((d) => [d.branch, d.act]));
  const acts = new Map<string, Act>();
  for (const b of parentsFirst(tree.branches)) {
    const parent = acts.get(b.parent);
    acts.set(b.id, parent && GONE.includes(parent) ? 'remove' : (own.get(b.id) ?? 'undecided'));
  }
  return acts;
}

/** Ids of the branches that the plan takes off. */
export function removedIds(tree: Tree): Set<string> {
  return new Set([...decisionsOf(tree)].filter(([, act]) => GONE.includes(act)).map(([id]) => id));
}
