import { lengthOf, type Limb } from '../space/index.js';
import type { Bend, PlacedTree, Pose } from '../tree/index.js';

/** Why a pose cannot be, with the nearest that can: the field, a code, a sentence. */
export interface PoseFault {
  field: string;
  code: string;
  message: string;
}

const mm = (x: number): string => `${Math.floor(x)} mm`;

/** Bends that leave their branch or overlap, each with the nearest that would do. */
function bendFaults(line: Limb, bends: readonly Bend[]): PoseFault[] {
  const total = lengthOf(line);
  const faults: PoseFault[] = [];
  bends.forEach(({ at, over }, i) => {
    const fault = (field: string, message: string): void => void faults.push({ field: `bends/${i}/${field}`, code: 'bend', message });
    const nth = `Bend ${i + 1}`;
    if (at >= total)
      return fault('at', `${nth} begins at ${mm(at)}, beyond the tip: the branch is ${mm(total)} long. It can begin at ${mm(Math.max(0, total - over))}.`);
    // Measured to the millimetre, a bend may end a hair past the tip.
    if (at + over > total + 1)
      return fault('over', `${nth} ends at ${mm(at + over)}, beyond the tip at ${mm(total)}. From ${mm(at)} it can be spread over ${mm(total - at)}.`);
    const before = bends[i - 1];
    if (before && before.at + before.over > at + 0.5)
      fault('at', `${nth} begins at ${mm(at)}, within the one before, which ends at ${mm(before.at + before.over)}. It can begin there.`);
  });
  return faults;
}

/** What is wrong with a pose on a tree: bends that overlap or leave the branch, a reach longer than it. Empty where it can be. */
export function poseFaults({ byId }: PlacedTree, pose: Pose): PoseFault[] {
  const line = byId.get(pose.branch)!.line;
  const total = lengthOf(line);
  const faults = bendFaults(line, pose.bends);
  if (pose.reach && pose.reach >= total)
    faults.push({
      field: 'reach',
      code: 'range',
      message: `reach: ${mm(pose.reach)} is more than the branch, which is ${mm(total)} long. Up to ${mm(total - 1)} it can be made shorter.`,
    });
  return faults;
}
