import type { PlanDevice, PlanGuy } from '../plan/index.js';
import type { LineOf } from '../tree/index.js';

/** How far a tie has led its branch once so much of it is twisted. */
export const drawnBy = ({ bends }: Pick<PlanGuy, 'bends'>, share: number): PlanGuy['bends'] =>
  bends.map((b) => ({ ...b, bentDeg: Math.round(b.bentDeg * Math.min(1, share) * 10) / 10 }));

/** What a device has moved once a share of its work is done, as its line of the record keeps it. */
export function movedBy({ device, moved }: Pick<PlanDevice, 'device' | 'moved'>, share = 1): Pick<LineOf<'guyed'>, 'bends' | 'other'> {
  const own = moved.find((m) => m.branch === device.branch);
  const other = moved.find((m) => m.branch !== device.branch);
  return { ...(own ? { bends: drawnBy(own, share) } : {}), ...(other ? { other: { branch: other.branch, bends: drawnBy(other, share) } } : {}) };
}

/** Turns or twists that are no more than this short of all are all. */
const ALL_BUT = 0.5;

/** The next stage of a tie or a device: the twists or turns to make (none where it has none), what share of its way is made then, and the day of the stage after it. */
export interface NextStage {
  turns?: number;
  share: number;
  next?: string;
}

interface Turned extends Pick<PlanGuy, 'stages' | 'dates'> {
  all: number | null;
  made: number;
  /** The least step that a hand makes. */
  step: number;
}

/** What is turned next, all of it where no days of rest lie between; null where nothing is left. */
function nextOf({ all, made, stages, dates, step }: Turned): NextStage | null {
  if (all === null) return { share: 1 };
  const left = all - made;
  if (left < ALL_BUT && made > 0) return null;
  const inSteps = (turns: number): number => Math.max(step, Math.round(turns / step) * step);
  const turns = dates.length > 1 ? Math.min(inSteps(left), Math.max(1, Math.round(all / (stages ?? 1)))) : left > 0 ? inSteps(left) : 0;
  return { turns, share: all > 0 ? Math.min(1, (made + turns) / all) : 1, ...(dates[1] ? { next: dates[1] } : {}) };
}

/** The next stage of a device; null where nothing is left to be turned. */
export const nextStage = ({ turns, stages, dates, on }: PlanDevice): NextStage | null =>
  on && turns === null ? null : nextOf({ all: turns, made: on?.turns ?? 0, stages, dates, step: 0.5 });

/** The next twists of a tie; null where nothing is left to be twisted. */
export const nextTwists = ({ windlassTurns, stages, dates, on }: PlanGuy): NextStage | null =>
  nextOf({ all: windlassTurns, made: on?.twists ?? 0, stages, dates, step: 1 });

/** N that a device holds with once a share of its way is made: what it does after the stage that comes nearest. */
export const forceAt = ({ stageForces, force }: Pick<PlanDevice, 'stageForces' | 'force'>, share: number): number =>
  Math.round(stageForces[Math.max(0, Math.round(share * stageForces.length) - 1)] ?? force);
