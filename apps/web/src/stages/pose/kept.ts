import type { Bend, PlanPose, Pose } from '@ustle/core';

/** A bend as the plan keeps it, from one as it was shown. */
export const keptBend = ({ at, length, angle, toward }: PlanPose['bends'][number]): Bend => ({ at, angle, toward, over: length });
/** A shown pose as the plan keeps it, bends and all. */
export const keptPose = (shown: PlanPose, own: Pose | undefined): Pose => ({
  ...own,
  branch: shown.branch,
  bearing: shown.bearing,
  elevation: shown.elevation,
  bends: shown.bends.map(keptBend),
});
