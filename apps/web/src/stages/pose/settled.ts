import type { Stage } from '../stage';

/** Every main branch that has to move has a pose of the artist's own. */
export const settled: Stage['settled'] = (tree, plan) => {
  const mains = new Set(tree.branches.filter((b) => b.parent === 'trunk').map((b) => b.id));
  return tree.plan.poses.length > 0 && plan.poses.filter((p) => mains.has(p.branch)).every((p) => p.from === 'plan');
};
