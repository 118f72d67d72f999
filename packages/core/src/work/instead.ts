import { greatestOf, leastOf } from '../units/index.js';
import type { PlanRun } from '../plan/index.js';
import { isUsable, type Stock } from '../rack/index.js';
import { canBeWoundOn } from '../wire/index.js';
import { coilHold, GRIP, type MetalName } from '../wood/index.js';

/** Another wire that would do in place of a piece, from the rack: its hold against the planned one's. */
export interface Instead {
  metal: MetalName;
  size: number;
  strands: number;
  /** Times the hold that was planned. */
  hold: number;
  /** mm of it that are there, and that it takes in all. */
  left: number;
  takes: number;
}

const MOST_STRANDS = 3;
/** Weaker than this it would spring back; stronger is only harder on the hands. */
const LEAST = 0.85;
const MOST = 2.5;

/** What else of the rack holds a piece's branches (thickness mm of the thickest and thinnest), nearest to the planned hold first. */
export function insteadOf(
  run: Pick<PlanRun, 'metal' | 'size' | 'strands' | 'angle' | 'length'>,
  diameters: readonly number[],
  stock: readonly Stock[],
): Instead[] {
  const thick = greatestOf(diameters);
  const thin = leastOf(diameters);
  const holdOf = (metal: MetalName, wireDiameter: number, strands: number): number =>
    coilHold({ diameter: thick, wireDiameter, strands, coilAngleDeg: run.angle, grip: GRIP.snug, metal });
  const planned = holdOf(run.metal, run.size, run.strands);
  const found = stock.filter(isUsable).flatMap((s) =>
    Array.from({ length: MOST_STRANDS }, (_, i): Instead => {
      const strands = i + 1;
      return { metal: s.metal, size: s.size, strands, hold: holdOf(s.metal, s.size, strands) / planned, left: s.left, takes: run.length * strands };
    }).filter((w) => {
      const same = w.metal === run.metal && Math.abs(w.size - run.size) < 0.03 && w.strands === run.strands;
      return !same && w.hold >= LEAST && w.hold <= MOST && canBeWoundOn(w.size, thin) && w.left >= w.takes;
    }),
  );
  const best = new Map<string, Instead>();
  for (const w of found) {
    const key = `${w.metal} ${w.size.toFixed(2)} ${w.strands}`;
    if (!best.has(key) || best.get(key)!.left < w.left) best.set(key, w);
  }
  const miss = (w: Instead): number => Math.abs(Math.log(w.hold)) + 0.3 * (w.strands - 1);
  return [...best.values()].sort((a, b) => miss(a) - miss(b)).slice(0, 4);
}
