import type { Stage } from '../stage';

/** Every tie and device that the plan has is on. */
export const settled: Stage['settled'] = (_tree, plan) => {
  const all = [...plan.guys, ...plan.devices];
  return all.length > 0 && all.every((x) => 'on' in x && x.on !== null);
};
