import { growingDays, growthShare, type Hemisphere, type Species } from '../species/index.js';
import { quantile, type Unknown } from './unknown.js';
import { chanceReached, stageAt, stageStarts } from './marking.js';
import { growthToHold } from '../wood/index.js';
import { MARK_STAGES, type MarkStage } from '../tree/index.js';

/** The bend that a coil holds: curvatures (1/mm) under the wire, stored in the branch there, and wanted in the end. */
export interface HeldBend {
  wired: number;
  stored: number;
  target: number;
  /** The length of the bend was not noted: the usual one is taken, mm. */
  assumedLength: number | null;
}

/** What was seen of a coil, and when: a forecast never contradicts it. */
export interface Seen {
  day: number;
  stage: MarkStage;
}

/** All that a forecast of one coil rests on. */
export interface CoilState {
  species: Species;
  hemisphere: Hemisphere;
  /** Day number it was put on. */
  since: number;
  diameter: number;
  wireDiameter: number;
  /** Known growth factor x: vigour, stage, position, swelling at the bend. */
  factor: number;
  /** Growth that passes before it beds in, mm. */
  allowance: number;
  markLimit: number;
  bend: HeldBend | null;
  unknown: Unknown;
  seen: readonly Seen[];
}

export const HORIZON_DAYS = 15 * 365;
/** Set: within a tenth of the target. */
export const SET_TOLERANCE = 0.1;

/** Expected radial growth since the coil went on, mm, before the unknown factor. */
export const expectedGrowth = (coil: CoilState, day: number): number =>
  coil.species.yearlyGrowth.value * coil.factor * growthShare(coil.species, coil.hemisphere, coil.since, day);

const starts = (coil: CoilState): ReturnType<typeof stageStarts> => stageStarts(coil.markLimit, coil.wireDiameter);

const rank = (stage: MarkStage): number => MARK_STAGES.indexOf(stage);

/** What was seen leaves open of when a stage began: after the last day on which it had not, by the first on which it had. */
function bounds({ seen }: CoilState, stage: MarkStage): { after: number; by: number } {
  const by = Math.min(Infinity, ...seen.filter((s) => rank(s.stage) >= rank(stage)).map((s) => s.day));
  // Two looks that contradict each other: what was there first has been there since.
  const after = Math.max(-Infinity, ...seen.filter((s) => rank(s.stage) < rank(stage) && s.day < by).map((s) => s.day));
  return { after, by };
}

/** Probability that a stage has begun by a day: none where it was seen not to have, certainty where it was seen. */
export function chanceOfStage(coil: CoilState, stage: Exclude<MarkStage, 'clear'>, day: number): number {
  const { after, by } = bounds(coil, stage);
  if (day >= by) return 1;
  if (day <= after) return 0;
  return chanceReached(coil.allowance + starts(coil)[stage], expectedGrowth(coil, day), coil.unknown);
}

/** Probability that the branch would stay within a tenth of its target if unwired on a day; null without a recorded bend. */
export function chanceSet(coil: CoilState, day: number): number | null {
  if (!coil.bend) return null;
  const { wired, stored, target } = coil.bend;
  const share = (target * (1 - SET_TOLERANCE)) / wired;
  if (share > 1) return 0;
  const needed = growthToHold(
    {
      diameter: coil.diameter,
      curvature: wired,
      recoverable: stored,
      growingDays: growingDays(coil.species, coil.hemisphere, coil.since, day),
      relaxedShare: coil.species.relaxedShare.value,
      relaxationDays: coil.species.relaxationDays.value,
    },
    share,
  );
  return chanceReached(needed, expectedGrowth(coil, day), coil.unknown);
}

/** First day on which a rising chance reaches p; null beyond fifteen years. */
function firstDay(since: number, p: number, chance: (day: number) => number): number | null {
  if (chance(since) >= p) return since;
  let low = since;
  let high = since + HORIZON_DAYS;
  if (chance(high) < p) return null;
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (chance(middle) >= p) high = middle;
    else low = middle;
  }
  return high;
}

export interface Dates {
  p10: number | null;
  p50: number | null;
  p90: number | null;
}

const datesOf = (since: number, chance: (day: number) => number): Dates => ({
  p10: firstDay(since, 0.1, chance),
  p50: firstDay(since, 0.5, chance),
  p90: firstDay(since, 0.9, chance),
});

export interface Forecast {
  touching: Dates;
  marking: Dates;
  deep: Dates;
  set: Dates;
  /** First day with four chances in five of being set. */
  setSure: number | null;
  /** First day with one chance in twenty that the mark is deep. */
  deepRisk: number | null;
  /** First day with one chance in five that the bark touches the wire. */
  firstTouch: number | null;
}

/** When a coil will touch, mark and have done its work. docs: The race. */
export function forecast(coil: CoilState): Forecast {
  const touching = (day: number): number => chanceOfStage(coil, 'touching', day);
  const deep = (day: number): number => chanceOfStage(coil, 'deep', day);
  const set = (day: number): number => chanceSet(coil, day)!;
  const never: Dates = { p10: null, p50: null, p90: null };
  return {
    touching: datesOf(coil.since, touching),
    marking: datesOf(coil.since, (day) => chanceOfStage(coil, 'marking', day)),
    deep: datesOf(coil.since, deep),
    deepRisk: firstDay(coil.since, 0.05, deep),
    set: coil.bend ? datesOf(coil.since, set) : never,
    setSure: coil.bend ? firstDay(coil.since, 0.8, set) : null,
    firstTouch: firstDay(coil.since, 0.2, touching),
  };
}

/** The likeliest stage of a coil on a day: that of its median growth, within what was seen before and after. */
export function likelyStage(coil: CoilState, day: number): MarkStage {
  const growth = expectedGrowth(coil, day) * Math.exp(quantile(coil.unknown, 0.5));
  const likely = rank(stageAt(growth - coil.allowance, starts(coil)));
  const least = Math.max(0, ...coil.seen.filter((s) => s.day <= day).map((s) => rank(s.stage)));
  const most = Math.min(MARK_STAGES.length - 1, ...coil.seen.filter((s) => s.day >= day).map((s) => rank(s.stage)));
  return MARK_STAGES[Math.max(least, Math.min(most, likely))]!;
}
