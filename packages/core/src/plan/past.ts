import { serialOf } from '../units/index.js';
import { learnedOf, raceIfWired, type IfWired, type Known, type Race } from '../growth/index.js';
import { bandOf, MOST_BY_HAND_DEG, SEASON_RISK, type Band } from '../wood/index.js';
import type { PlacedTree } from '../tree/index.js';
import { gapFor, tryWire, USUAL_PAST, type PastOf, type BendToHold, type RunBranchPlan, type RunPlan, type WireToTry } from '../wire/index.js';

/** Shares past the target that are tried. */
const PASTS = [0, 0.05, 0.1, 0.15, 0.2, 0.25];

const DAYS_A_WEEK = 7;
/** What marks later than this did not mark in its first summer. */
const SUMMER_WEEKS = 12;

/** When the wire of a green shoot has to be off, in words; none for what is wound snugly on wood. */
export function sayGreen(placed: PlacedTree, onDay: number, { metal, size, strands, angle }: RunPlan, part: RunBranchPlan, known?: Known): string[] {
  if (!part.gap) return [];
  const { branch, gap, bendTo: bentDeg, target: targetDeg, bendLength: over } = part;
  const { marking } = raceIfWired(placed, { branch, metal, size, strands, angle, gap, bentDeg, targetDeg, over }, onDay, { known }).forecast;
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

/** A bend's target, the wire on it, and how far past the target it settles: what comes of that. */
export interface PastChoice {
  past: number;
  /** The bend that the hand makes for it, degrees, and how near that comes to breaking it. */
  handDeg: number;
  risk: number;
  race: Race;
}

/** What each share past the target would come to, for one bend under one wire; those that the wood does not bear, or that the hand does not reach, are left out. docs: Settling past the target. */
export const pastChoices = (...of: Parameters<typeof eachPast>): PastChoice[] => [...eachPast(...of)];

/** The same one by one, the least first. */
function* eachPast(placed: PlacedTree, onDay: number, branch: string, bend: BendToHold, wire: WireToTry, seen: IfWired = {}): Generator<PastChoice> {
  const { metal, size, strands, coilAngleDeg: angle } = wire;
  const gap = gapFor(placed.byId.get(branch)!);
  for (const past of PASTS) {
    const { bendToDeg: handDeg, risk } = tryWire(bend, wire, past);
    if (!Number.isFinite(handDeg) || risk > SEASON_RISK || (past > 0 && handDeg > MOST_BY_HAND_DEG)) continue;
    const held = { branch, metal, size, strands, angle, gap, bentDeg: handDeg, targetDeg: bend.angleDeg, over: bend.length };
    yield { past, handDeg, risk, race: raceIfWired(placed, held, onDay, seen) };
  }
}

/** How far past its target a bend is left: as its artist chose, else the least that opens a firm window in which its wire comes off clean, or any; where none does, what sets the soonest, in weeks, of those that ask no more of the wood than the usual. */
export function pastByWindow(placed: PlacedTree, onDay: number, seen: IfWired = {}): PastOf {
  const learned = learnedOf(placed, onDay, seen.known);
  const chosen = new Map((placed.tree.plan.wiring ?? []).flatMap((w) => (w.past === undefined ? [] : [[w.branch, w.past] as const])));
  const found = new Map<string, number>();
  const byWindow: PastOf = (branch, bend, wire) => {
    let any: number | null = null;
    let within = USUAL_PAST;
    let soonest: { past: number | null; weeks: number } = { past: null, weeks: Infinity };
    const usual = bandOf(tryWire(bend, wire, USUAL_PAST).risk);
    // No window is worth a bend that is heavy for its sake, no haste one that is graver at all.
    const bears = (risk: number, ...bands: Band[]): boolean => bands.includes(bandOf(risk)) && bandOf(risk) !== 'heavy';
    for (const { past, risk, race } of eachPast(placed, onDay, branch, bend, wire, { ...seen, learned })) {
      if (past <= USUAL_PAST) within = past;
      const opens = race.window !== null && (past <= USUAL_PAST || bears(risk, 'calm', 'careful'));
      if (opens && race.window!.firm !== null) return past;
      if (opens) any ??= past;
      const { setSure } = race.forecast;
      const weeks = setSure === null ? Infinity : Math.ceil((setSure - onDay) / DAYS_A_WEEK);
      if (weeks < soonest.weeks && (past <= USUAL_PAST || bears(risk, usual))) soonest = { past, weeks };
    }
    return any ?? soonest.past ?? within;
  };
  return (branch, bend, wire) => {
    const own = chosen.get(branch);
    if (own !== undefined) return own;
    // Asked for what a branch would be given, and again for the piece that it gets.
    const key = `${branch} ${serialOf(bend)} ${Object.values(wire).join(' ')}`;
    const past = found.get(key) ?? byWindow(branch, bend, wire);
    found.set(key, past);
    return past;
  };
}
