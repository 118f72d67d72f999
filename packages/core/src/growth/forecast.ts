import { greatestOf, leastOf } from '../units/index.js';
import { settingOf, type Hemisphere, type Species } from '../species/index.js';
import { growingDaysAlong, grownAlong, type Course } from './course.js';
import { quantile, type Unknown } from './unknown.js';
import { chanceReached, stageAt, stageStarts } from './marking.js';
import { unrelaxed } from '../wood/index.js';
import { MARK_STAGES, type MarkStage } from '../tree/index.js';

/** The bend that a coil holds: curvatures (1/mm) under the wire, stored in the branch there, and wanted in the end. */
export interface HeldBend {
  wired: number;
  stored: number;
  target: number;
  /** Standard deviation of the logarithm of what is stored: how far springing back may be off. */
  storedSd: number;
  /** The length of the bend was not noted: the usual one is taken, mm. */
  assumedLength: number | null;
}

/** What was seen of a coil, and when: a forecast never contradicts it. */
export interface Seen {
  day: number;
  stage: MarkStage;
}

/** Some turns of a coil that grow in, unlike the others, at a pace of their own. */
export interface Stretch {
  /** Known growth factor x there: vigour, stage, position, swelling at a bend. */
  factor: number;
  /** Growth that passes before it beds in, mm. */
  allowance: number;
}

/** All that a forecast of one coil rests on. */
export interface CoilState {
  species: Species;
  hemisphere: Hemisphere;
  /** Day number it was put on. */
  since: number;
  diameter: number;
  wireDiameter: number;
  /** Where it is bent, or all of it where no bend is noted. */
  factor: number;
  allowance: number;
  /** The turns on straight wood, where they differ from those at the bend. */
  straight: Stretch | null;
  /** What made, and makes, the tree's growth other than usual. */
  course: Course;
  markLimit: number;
  bend: HeldBend | null;
  unknown: Unknown;
  seen: readonly Seen[];
  /** When turns of it were cut off, since when what is left beds in, and how many those are (null: nobody counted); null where none were. */
  cut: { day: number; left: number | null } | null;
}

export const HORIZON_DAYS = 15 * 365;
/** Set: within a tenth of the target. */
export const SET_TOLERANCE = 0.1;

/** Growth since the coil went on by a day, mm of radius, for a factor of one and before the unknown. */
const baseGrowth = ({ species, hemisphere, course, since }: CoilState, day: number): number =>
  species.yearlyGrowth.value * grownAlong(species, hemisphere, course, since, day);

/** The same by which a coil, or what is left of it, has bedded in. */
const beddedBy = (coil: CoilState, day: number): number => baseGrowth({ ...coil, since: coil.cut?.day ?? coil.since }, day);

/** Expected radial growth of a coil's branch between two days, mm, before the unknown factor. */
export const growthBetween = (coil: CoilState, from: number, to: number): number =>
  coil.factor * coil.species.yearlyGrowth.value * grownAlong(coil.species, coil.hemisphere, coil.course, from, to);

/** Expected radial growth since the coil went on, mm, before the unknown factor. */
export const expectedGrowth = (coil: CoilState, day: number): number => coil.factor * baseGrowth(coil, day);

/** The stretches of a coil. */
export const stretchesOf = ({ factor, allowance, straight }: CoilState): Stretch[] => [{ factor, allowance }, ...(straight ? [straight] : [])];

/** The growth (mm, for a factor of one) after which a stage begins, on whichever of its turns comes first. */
const growthToStage = (coil: CoilState, start: number): number =>
  leastOf(stretchesOf(coil).map((s) => (s.factor > 0 ? Math.max(0, s.allowance + start) / s.factor : Infinity)));

/** What is left of a coil once the turns that marked were cut off on a day: those that mark last, which lay free then at the latest. docs: Taking off. */
export function whatIsLeft(coil: CoilState, day: number, left: number | null): CoilState {
  const kept = stretchesOf(coil).reduce((a, b) => (b.allowance / b.factor > a.allowance / a.factor ? b : a));
  const seen: Seen[] = [{ day, stage: 'clear' }, ...coil.seen.filter((s) => s.day > day)];
  return { ...coil, factor: kept.factor, allowance: 0, straight: null, seen, cut: { day, left } };
}

const starts = (coil: CoilState): ReturnType<typeof stageStarts> => stageStarts(coil.markLimit, coil.wireDiameter);

/** How far the turns that are in deepest are in, mm, after a growth told for a factor of one; below 0: they lie free. */
const embedding = (coil: CoilState, grown: number): number => greatestOf(stretchesOf(coil).map((s) => grown * s.factor - s.allowance));

const rank = (stage: MarkStage): number => MARK_STAGES.indexOf(stage);

/** What was seen leaves open of when a stage began: after the last day on which it had not, by the first on which it had. */
function bounds({ seen }: CoilState, stage: MarkStage): { after: number; by: number } {
  const by = leastOf(seen.filter((s) => rank(s.stage) >= rank(stage)).map((s) => s.day));
  // Two looks that contradict each other: what was there first has been there since.
  const after = greatestOf(seen.filter((s) => rank(s.stage) < rank(stage) && s.day < by).map((s) => s.day));
  return { after, by };
}

/** Probability that a stage has begun by a day: none where it was seen not to have, certainty where it was seen. */
export function chanceOfStage(coil: CoilState, stage: Exclude<MarkStage, 'clear'>, day: number): number {
  const { after, by } = bounds(coil, stage);
  if (day >= by) return 1;
  if (day <= after) return 0;
  return chanceReached(growthToStage(coil, starts(coil)[stage]), beddedBy(coil, day), coil.unknown);
}

/** Five values of a standard normal and their weights: what is not known of springing back is averaged over these (Gauss and Hermite). */
const FIVE: readonly (readonly [number, number])[] = [
  [-2.85697, 0.011257],
  [-1.355626, 0.222076],
  [0, 0.533333],
  [1.355626, 0.222076],
  [2.85697, 0.011257],
];

/** Probability that the branch would stay within a tenth of its target if unwired on a day; null without a recorded bend. */
export function chanceSet(coil: CoilState, day: number): number | null {
  if (!coil.bend) return null;
  const { species, hemisphere, course, since, diameter, unknown } = coil;
  const { wired, stored, target, storedSd } = coil.bend;
  const share = (target * (1 - SET_TOLERANCE)) / wired;
  if (share > 1) return 0;
  const grown = expectedGrowth(coil, day);
  const { relaxedShare, relaxationDays } = settingOf(species, diameter);
  const held = unrelaxed(growingDaysAlong(species, hemisphere, course, since, day), relaxedShare, relaxationDays);
  // As in growthToHold: the new wood with which what is stored, and has not relaxed, loosens the branch by no more than it may.
  const most = (held / (1 - share)) ** 0.25;
  const likely = ((held * stored) / (wired * (1 - share))) ** 0.25;
  const chance = (times: number): number => chanceReached((diameter / 2) * Math.max(0, Math.min(most, likely * times) - 1), grown, unknown);
  if (!storedSd) return chance(1);
  let sum = 0;
  for (const [z, weight] of FIVE) sum += weight * chance(Math.exp((storedSd * z) / 4));
  return sum;
}

/** First day on which something that comes and stays is so; null where it is not within fifteen years. */
function firstDay(since: number, reached: (day: number) => boolean): number | null {
  if (reached(since)) return since;
  let low = since;
  let high = since + HORIZON_DAYS;
  if (!reached(high)) return null;
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (reached(middle)) high = middle;
    else low = middle;
  }
  return high;
}

export interface Dates {
  p10: number | null;
  p50: number | null;
  p90: number | null;
}

/** The day on which a stage has begun with a probability: growth is compared with what it takes at that quantile of the unknown. */
function stageDay(coil: CoilState, stage: Exclude<MarkStage, 'clear'>, p: number, grownBy: (day: number) => number): number | null {
  const needed = growthToStage(coil, starts(coil)[stage]) / Math.exp(quantile(coil.unknown, 1 - p));
  const { after, by } = bounds(coil, stage);
  const foreseen = firstDay(coil.since, (day) => grownBy(day) >= needed) ?? Infinity;
  const day = Math.min(by, Math.max(foreseen, after + 1));
  return day > coil.since + HORIZON_DAYS ? null : Math.max(coil.since, day);
}

const stageDates = (coil: CoilState, stage: Exclude<MarkStage, 'clear'>, grownBy: (day: number) => number): Dates => ({
  p10: stageDay(coil, stage, 0.1, grownBy),
  p50: stageDay(coil, stage, 0.5, grownBy),
  p90: stageDay(coil, stage, 0.9, grownBy),
});

/** What was asked of a day is not worked out again. */
function remembered(of: (day: number) => number): (day: number) => number {
  const known = new Map<number, number>();
  return (day) => {
    let found = known.get(day);
    if (found === undefined) known.set(day, (found = of(day)));
    return found;
  };
}

/** The days on which a bend is set with each of some probabilities; their searches share what they compute. */
function setDays(coil: CoilState, ...probabilities: number[]): (number | null)[] {
  if (!coil.bend) return probabilities.map(() => null);
  const chance = remembered((day) => chanceSet(coil, day)!);
  return probabilities.map((p) => firstDay(coil.since, (day) => chance(day) >= p));
}

/** Chance of being set with which wire is taken off on a walk that passes it: sooner, and the yard is walked less often. */
const ALONG = 0.77;

export interface Forecast {
  touching: Dates;
  marking: Dates;
  deep: Dates;
  set: Dates;
  /** First day with four chances in five of being set. */
  setSure: number | null;
  /** A little before that: from then on it is taken off where one walks by. */
  setAlong: number | null;
  /** First day with one chance in twenty that the mark is deep. */
  deepRisk: number | null;
  /** First day with one chance in five that the bark touches the wire. */
  firstTouch: number | null;
}

/** When a coil will touch, mark and have done its work. docs: The race. */
export function forecast(coil: CoilState): Forecast {
  const [p10, p50, p90, setSure, setAlong] = setDays(coil, 0.1, 0.5, 0.9, 0.8, ALONG) as [
    number | null,
    number | null,
    number | null,
    number | null,
    number | null,
  ];
  const grownBy = remembered((day) => beddedBy(coil, day));
  return {
    touching: stageDates(coil, 'touching', grownBy),
    marking: stageDates(coil, 'marking', grownBy),
    deep: stageDates(coil, 'deep', grownBy),
    deepRisk: stageDay(coil, 'deep', 0.05, grownBy),
    set: { p10, p50, p90 },
    setSure,
    setAlong,
    firstTouch: stageDay(coil, 'touching', 0.2, grownBy),
  };
}

/** The likeliest stage of a coil on a day: that of its median growth, within what was seen before and after. */
export function likelyStage(coil: CoilState, day: number): MarkStage {
  const grown = beddedBy(coil, day) * Math.exp(quantile(coil.unknown, 0.5));
  const likely = rank(stageAt(embedding(coil, grown), starts(coil)));
  const least = greatestOf(
    coil.seen.filter((s) => s.day <= day).map((s) => rank(s.stage)),
    0,
  );
  const most = leastOf(
    coil.seen.filter((s) => s.day >= day).map((s) => rank(s.stage)),
    MARK_STAGES.length - 1,
  );
  return MARK_STAGES[Math.max(least, Math.min(most, likely))]!;
}
