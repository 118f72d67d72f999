import { unfinishedCut } from '@ustle/core';
import type { Stage } from '../stage';

/** Every branch that a finding speaks against is decided on, and every cut that is decided can be made. */
export const settled: Stage['settled'] = (tree, plan) => {
  const { decisions } = tree.plan;
  const decided = new Set(decisions.map((d) => d.branch));
  return decided.size > 0 && plan.findings.every((f) => decided.has(f.branch)) && decisions.every((d) => !unfinishedCut(tree, d));
};
