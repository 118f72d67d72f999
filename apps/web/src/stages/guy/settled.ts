import type { Stage } from '../stage';

/** Every tie that the plan has is on. */
export const settled: Stage['settled'] = (_tree, plan) => plan.guys.length > 0 && plan.guys.every((g) => g.on !== null);
