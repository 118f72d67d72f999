import { gripOf, type MetalName } from '../wood/index.js';
import type { PlacedTree, PlannedPose } from '../tree/index.js';
import { chooseWire } from './choose.js';
import { bendsToHold, gapFor, metalFor } from './needs.js';
import { stiffnessOf } from './press-test.js';

export interface LightCoil {
  metal: MetalName;
  /** mm. */
  size: number;
}

/** The one wire that holds a branch's movement while a tie holds its position: for its bends past the shoulder; null where there are none, or no one wire holds them. docs: Ties. */
export function lightCoil(placed: PlacedTree, pose: Pick<PlannedPose, 'branch' | 'bends'>): LightCoil | null {
  const b = placed.byId.get(pose.branch);
  const shape = pose.bends.filter((bend) => bend.kind !== 'drop');
  if (!b || !shape.length) return null;
  const [bend, ...others] = bendsToHold(placed, b, { bends: shape }, stiffnessOf(placed.tree)(pose.branch));
  // The tie carries the branch: its wire need not be firm.
  const choice = chooseWire(bend, metalFor(placed, b), 'light', { others, grip: gripOf(gapFor(b)) });
  return choice?.strands === 1 ? { metal: choice.metal, size: choice.size } : null;
}
