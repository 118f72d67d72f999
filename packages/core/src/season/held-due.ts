import { heldAfter } from '../growth/index.js';
import { dayOf } from '../units/index.js';
import { coilHistory, coilsOn, guyHistory, standing, woodIn, type CoilOnce, type GuyOff, type PlacedTree } from '../tree/index.js';

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

/** Ties and devices that came off, where nobody said since what is left of what they did: day numbers on which to see it. Held by another, it cannot be seen. */
export function letGoDue(placed: PlacedTree, onDay: number): { guy: GuyOff; on: number }[] {
  const { on, off } = guyHistory(placed.tree, onDay);
  const heldNow = new Set(on.map((g) => g.branch));
  const seen = standing(placed.tree.record).flatMap((line) => (line.kind === 'measured' && line.guy ? [{ guy: line.guy, day: dayOf(line.on) }] : []));
  return off.flatMap((guy) => {
    const { branch, offOn } = guy;
    if (heldNow.has(branch) || !woodIn(placed, branch) || onDay - offOn > TOLD_WITHIN) return [];
    return seen.some((s) => s.guy === guy.guy && s.day >= offOn) ? [] : [{ guy, on: offOn + SPRINGS_BACK_DAYS }];
  });
}
