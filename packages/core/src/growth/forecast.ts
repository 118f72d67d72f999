import { growingDays, growthShare, type Hemisphere, type Species } from '../species/index.js';
import { chanceBelow, quantile, type Unknown } from './unknown.js';
import { stageAt, stageStarts, unknownNeeded } from './marking.js';
import { growthToHold } from './set.js';
import type { MarkStage } from '../tree/index.js';

/** The bend that a coil holds: curvatures (1/mm) under the wire and wanted in the end. */
export interface HeldBend {
  wired: number;
  target: number;
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
}

export const HORIZON_DAYS = 15 * 365;
/** Set: within a tenth of the target. */
export const SET_TOLERANCE = 0.1;

/** Expected radial growth since the coil went on, mm, before the unknown factor. */
export const expectedGrowth = (coil: CoilState, day: number): number =>
  coil.species.yearlyGrowth.value * coil.factor * growthShare(coil.species, coil.hemisphere, coil.since, day);

const starts = (coil: CoilState): ReturnType<typeof stageStarts> => stageStarts(coil.markLimit, coil.wireDiameter);

/** Probability that a stage has begun by a day. */
export function chanceOfStage(coil: CoilState, stage: Exclude<MarkStage, 'clear'>, day: number): number {
  const needed = unknownNeeded(coil.allowance + starts(coil)[stage], expectedGrowth(coil, day));
  return 1 - chanceBelow(coil.unknown, needed);
}

/** Probability that the branch would stay within a tenth of its target if unwired on a day; null without a recorded bend. */
export function chanceSet(coil: CoilState, day: number): number | null {
  if (!coil.bend) return null;
  const { wired, target } = coil.bend;
  const share = (target * (1 - SET_TOLERANCE)) / wired;
  if (share > 1) return 0;
  const needed = growthToHold(
    {
      diameter: coil.diameter,
      curvature: wired,
      elasticStrain: coil.species.elasticStrain.value,
      growingDays: growingDays(coil.species, coil.hemisphere, coil.since, day),
      relaxedShare: coil.species.relaxedShare.value,
      relaxationDays: coil.species.relaxationDays.value,
    },
    share,
  );
  return 1 - chanceBelow(coil.unknown, unknownNeeded(needed, expectedGrowth(coil, day)));
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
  set: Dates;
  /** First day with four chances in five of being set. */
  setSure: number | null;
  /** First day with one chance in five that the bark presses on the wire. */
  firstTouch: number | null;
}

/** When a coil will touch, mark and have done its work. docs: The race. */
export function forecast(coil: CoilState): Forecast {
  const touching = (day: number): number => chanceOfStage(coil, 'touching', day);
  const set = (day: number): number => chanceSet(coil, day)!;
  const never: Dates = { p10: null, p50: null, p90: null };
  return {
    touching: datesOf(coil.since, touching),
    marking: datesOf(coil.since, (day) => chanceOfStage(coil, 'marking', day)),
    set: coil.bend ? datesOf(coil.since, set) : never,
    setSure: coil.bend ? firstDay(coil.since, 0.8, set) : null,
    firstTouch: firstDay(coil.since, 0.2, touching),
  };
}

/** The likeliest stage of a coil on a day: that of its median growth. */
export function likelyStage(coil: CoilState, day: number): MarkStage {
  const growth = expectedGrowth(coil, day) * Math.exp(quantile(coil.unknown, 0.5));
  return stageAt(growth - coil.allowance, starts(coil));
}
