import { yearAndDay } from '../units/index.js';
import type { Hemisphere } from '../species/index.js';
import type { Ahead } from './course.js';

/** A day's mean temperature at a place, °C; null where the station said nothing. */
export interface DayMean {
  day: number;
  mean: number | null;
}

/** Growth counts warmth above this, °C. */
export const BASE = 5;
/** A day that differs by more than this from the usual one of the place is a fault of the station, K. */
const BELIEVED = 18;
/** So many days with the very same reading mean that the sensor hangs. */
const HANGS = 4;
const STEP_DAYS = 7;
const MOST_AHEAD = 35;
const HALF_YEAR = 182;

/** Day within the growing year, which begins in midwinter. */
const inGrowingYear = (day: number, hemisphere: Hemisphere): { year: number; dayOfYear: number } => yearAndDay(hemisphere === 'south' ? day + HALF_YEAR : day);

/** The usual mean of a day from twelve monthly ones (°C, January first), between the middles of months. */
export function usualMean(monthly: readonly number[], day: number): number {
  const at = (yearAndDay(day).dayOfYear / 365.25) * 12 - 0.5;
  const month = Math.floor(at);
  const [a, b] = [monthly[(month + 12) % 12]!, monthly[(month + 13) % 12]!];
  return a + (b - a) * (at - month);
}

/** Readings that can be believed: gaps, leaps and hanging sensors become null. */
export function believed(readings: readonly DayMean[], monthly: readonly number[]): DayMean[] {
  const said = readings.filter((r) => r.mean !== null && Number.isFinite(r.mean));
  const hanging = new Set<number>();
  for (let i = 0, from = 0; i <= said.length; i++) {
    if (i < said.length && said[i]!.mean === said[from]!.mean) continue;
    if (i - from >= HANGS) for (let j = from; j < i; j++) hanging.add(said[j]!.day);
    from = i;
  }
  return readings.map(({ day, mean }) => {
    const good = mean !== null && Number.isFinite(mean) && !hanging.has(day) && Math.abs(mean - usualMean(monthly, day)) <= BELIEVED;
    return { day, mean: good ? mean : null };
  });
}

const warmthOf = (mean: number): number => Math.max(0, mean - BASE);

/**
 * By how many days each season was, and is, ahead of the usual one of its place: the day of the usual year with as much warmth
 * (growing-degree-days above 5 °C) against the day it is; begun anew each midwinter. Days without a reading count as usual. docs: Warmth.
 */
export function seasonsAhead(readings: readonly DayMean[], monthly: readonly number[], hemisphere: Hemisphere): Ahead[] {
  const ahead: Ahead[] = [];
  const usualWarmth = (day: number): number => warmthOf(usualMean(monthly, day));
  let year = NaN;
  // Degree-days since midwinter up to a day: of the usual year, and as it was.
  let [usual, warmth] = [0, 0];
  for (const { day, mean } of believed(readings, monthly)) {
    const now = inGrowingYear(day, hemisphere);
    if (now.year !== year) {
      const first = day - now.dayOfYear;
      [year, usual] = [now.year, 0];
      for (let d = first; d < day; d++) usual += usualWarmth(d);
      warmth = usual;
      ahead.push({ day: first, days: 0 });
    }
    usual += usualWarmth(day);
    warmth += mean === null ? usualWarmth(day) : warmthOf(mean);
    const days = daysApart(usual, warmth, day, usualWarmth);
    const last = ahead[ahead.length - 1]!;
    if (day - last.day >= STEP_DAYS && days !== last.days) ahead.push({ day, days });
  }
  return ahead;
}

/** How many days later the usual year has as much warmth as there was by a day; less than 0 where it had it earlier. */
function daysApart(usual: number, warmth: number, day: number, usualWarmth: (day: number) => number): number {
  let [sum, days] = [usual, 0];
  while (sum < warmth && days < MOST_AHEAD) sum += usualWarmth(day + ++days);
  while (sum > warmth && days > -MOST_AHEAD && sum - usualWarmth(day + days) >= warmth) sum -= usualWarmth(day + days--);
  return days;
}
