import type { Keep } from '../units/index.js';
import { raceIfWired } from '../growth/index.js';
import type { PlacedTree } from '../tree/index.js';
import { gapFor, tryWire, USUAL_PAST, type PastOf, type RunBranchPlan, type RunPlan } from '../wire/index.js';

/** Shares past the target that are tried. */
const PASTS = [0, 0.05, 0.1, 0.15, 0.2, 0.25];

const DAYS_A_WEEK = 7;
/** What marks later than this did not mark in its first summer. */
const SUMMER_WEEKS = 12;

/** When the wire of a green shoot has to be off, in words; none for what is wound snugly on wood. */
export function sayGreen(placed: PlacedTree, onDay: number, { metal, size, strands, angle }: RunPlan, part: RunBranchPlan): string[] {
  if (!part.gap) return [];
  const { branch, gap, bendTo: bentDeg, target: targetDeg, bendLength: over } = part;
  const { marking } = raceIfWired(placed, { branch, metal, size, strands, angle, gap, bentDeg, targetDeg, over }, onDay).forecast;
  const weeks = (day: number): number => Math.max(1, Math.round((day - onDay) / DAYS_A_WEEK));
  const [early, likely] = [marking.p10, marking.p50].map((day) => (day === null ? null : weeks(day))) as [number | null, number | null];
  const off =
    early === null
      ? 'look at it every two weeks while it grows'
      : likely === null || likely > SUMMER_WEEKS
        ? `put on now, look at it every two weeks from week ${early} on`
        : `put on now, off within ${early === likely ? count(early) : `${early} to ${count(likely)}`}`;
  return [`A green shoot: wind it loosely, ${gap.toFixed(1)} mm off the bark, hold it, do not bend it sharply; ${off}.`];
}

const count = (weeks: number): string => `${weeks} ${weeks === 1 ? 'week' : 'weeks'}`;

/** The least that a bend has to be left past its target for a window to open in which its wire comes off clean; the usual where none does. docs: Settling past the target. */
export const pastByWindow =
  (placed: PlacedTree, onDay: number, keep?: Keep): PastOf =>
  (branch, bend, wire) => {
    const opens = (past: number): boolean => {
      const { bendToDeg, risk } = tryWire(bend, wire, past);
      if (!Number.isFinite(bendToDeg) || risk > 1.6) return false;
      const { metal, size, strands, coilAngleDeg: angle } = wire;
      const gap = gapFor(placed.byId.get(branch)!);
      const race = raceIfWired(
        placed,
        { branch, metal, size, strands, angle, gap, bentDeg: bendToDeg, targetDeg: bend.angleDeg, over: bend.length },
        onDay,
        keep,
      );
      return race.window !== null;
    };
    return PASTS.find(opens) ?? USUAL_PAST;
  };
