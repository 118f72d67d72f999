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
