import type { Stage } from '../stage';

/** Every branch that a finding speaks against is decided on. */
export const settled: Stage['settled'] = (tree, plan) => {
  const decided = new Set(tree.plan.decisions.map((d) => d.branch));
  return decided.size > 0 && plan.findings.every((f) => decided.has(f.branch));
};
