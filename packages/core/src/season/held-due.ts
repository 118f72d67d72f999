import { heldAfter } from '../growth/index.js';
import { coilHistory, coilsOn, woodIn, type CoilOnce, type PlacedTree } from '../tree/index.js';

/** What springs back does so within days; after so many the angle that stays is measured. */
export const SPRINGS_BACK_DAYS = 5;
/** Later than so many days after unwiring an angle says little of the wire. */
const TOLD_WITHIN = 60;

/** Coils that came off with a bend noted, whose angle nobody measured since: day numbers on which to measure it. docs: Learning. */
export function heldDue(placed: PlacedTree, onDay: number): { coil: CoilOnce; on: number }[] {
  const wiredNow = new Set(coilsOn(placed.tree, onDay).map((c) => c.branch));
  const last = new Map(coilHistory(placed.tree, onDay).flatMap((coil) => (coil.offOn === null ? [] : [[coil.branch, coil] as const])));
  return [...last.values()].flatMap((coil) => {
    const { branch, offOn, bentDeg } = coil;
    if (!bentDeg || wiredNow.has(branch) || !woodIn(placed, branch) || onDay - offOn! > TOLD_WITHIN) return [];
    const measured = heldAfter(placed, { ...coil, off: null }, onDay) !== null;
    return measured ? [] : [{ coil, on: offOn! + SPRINGS_BACK_DAYS }];
  });
}
