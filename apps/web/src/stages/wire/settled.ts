import type { Stage } from '../stage';

/** Every run of the plan is on. */
export const settled: Stage['settled'] = (_tree, plan) => {
  const wired = new Set(plan.wires.map((w) => w.branch));
  return wired.size > 0 && plan.runs.every((r) => r.branches.every((b) => wired.has(b.branch)));
};
