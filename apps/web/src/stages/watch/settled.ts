import type { Stage } from '../stage';

/** No coil is late, and none marks. */
export const settled: Stage['settled'] = (_tree, plan) => plan.wires.length > 0 && plan.wires.every((w) => w.task.on > plan.on);
