import { distance } from '../space/index.js';
import type { Branch } from './measures.js';
import type { Bend, Pose } from './plan-parts.js';

/** Length of a branch along its line, mm. */
export const lengthAlong = ({ path, length }: Branch): number => (path?.length ? path.slice(1).reduce((sum, p, i) => sum + distance(path[i]!, p), 0) : length);

/** Why a pose cannot be, with the nearest that can: the field, a code, a sentence. */
export interface PoseFault {
  field: string;
  code: string;
  message: string;
}

const mm = (x: number): string => `${Math.floor(x)} mm`;
/** Measured to the millimetre, a bend may end a hair past the tip, or begin a hair within the one before. */
const PAST_TIP = 1;
const WITHIN = 0.5;

/** What is wrong with bends, given in order from the shoulder of a branch so long (mm): they leave it or overlap. */
function bendFaults(total: number, bends: readonly Bend[]): PoseFault[] {
  return bends.flatMap(({ at, over }, i): PoseFault[] => {
    const fault = (field: string, message: string): PoseFault[] => [{ field: `bends/${i}/${field}`, code: 'bend', message: `Bend ${i + 1} ${message}` }];
    const before = bends[i - 1];
    if (at >= total)
      return fault('at', `begins at ${mm(at)}, beyond the tip: the branch is ${mm(total)} long. It can begin at ${mm(Math.max(0, total - over))}.`);
    if (at + over > total + PAST_TIP)
      return fault('over', `ends at ${mm(at + over)}, beyond the tip at ${mm(total)}. From ${mm(at)} it can be spread over ${mm(total - at)}.`);
    if (before && before.at + before.over > at + WITHIN)
      return fault('at', `begins at ${mm(at)}, within the one before, which ends at ${mm(before.at + before.over)}. It can begin there.`);
    return [];
  });
}

/** What is wrong with a pose of a branch: bends that overlap or leave it, a reach longer than it. Empty where it can be. */
export function poseFaults(branch: Branch, { bends, reach }: Pose): PoseFault[] {
  const total = lengthAlong(branch);
  const faults = bendFaults(total, bends);
  if (reach && reach >= total)
    faults.push({
      field: 'reach',
      code: 'range',
      message: `reach: ${mm(reach)} is more than the branch, which is ${mm(total)} long. Up to ${mm(total - 1)} it can be made shorter.`,
    });
  return faults;
}

/** A pose of a branch that was cut or measured anew: what does not fit it any more is let go of. */
export function fittedPose(branch: Branch, pose: Pose): Pose {
  if (!poseFaults(branch, pose).length) return pose;
  const total = lengthAlong(branch);
  const { reach, arcs, planes, ...rest } = pose;
  const shorter = reach && reach < total ? { reach, arcs, planes } : {};
  return { ...rest, ...shorter, bends: pose.bends.filter(({ at, over }) => at + over <= total + PAST_TIP) };
}
