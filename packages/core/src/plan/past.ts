import { raceIfWired } from '../growth/index.js';
import type { PlacedTree } from '../tree/index.js';
import { tryWire, USUAL_PAST, type PastOf } from '../wire/index.js';

/** Shares past the target that are tried. */
const PASTS = [0, 0.05, 0.1, 0.15, 0.2, 0.25];

/** The least that a bend has to be left past its target for a window to open in which its wire comes off clean; the usual where none does. docs: Settling past the target. */
export const pastByWindow =
  (placed: PlacedTree, onDay: number): PastOf =>
  (branch, bend, wire) => {
    const opens = (past: number): boolean => {
      const { bendToDeg, risk } = tryWire(bend, wire, past);
      if (!Number.isFinite(bendToDeg) || risk > 1.6) return false;
      const { metal, size, strands, coilAngleDeg: angle } = wire;
      const race = raceIfWired(placed, { branch, metal, size, strands, angle, bentDeg: bendToDeg, targetDeg: bend.angleDeg, over: bend.length }, onDay);
      return race.window !== null;
    };
    return PASTS.find(opens) ?? USUAL_PAST;
  };
