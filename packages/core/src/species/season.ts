import { clamp, dayOf, yearAndDay } from '../units/index.js';
import type { Flush, Species } from './types.js';

export type Hemisphere = 'north' | 'south';

const HALF_YEAR = 182;
const dayOfYear = (monthDay: string): number => dayOf(`2001-${monthDay}`) - dayOf('2001-01-01');

/** Share of a flush's wood laid down at the share u of its span: Beta(2, 3), quick at first, tapering off. */
const laid = (u: number): number => u * u * (6 - 8 * u + 3 * u * u);

interface Span {
  from: number;
  to: number;
  share: number;
}
const spans = new WeakMap<readonly Flush[], Span[]>();
function spansOf(flushes: readonly Flush[]): Span[] {
  let found = spans.get(flushes);
  if (!found) {
    found = flushes.map((f) => ({ from: dayOfYear(f.from), to: dayOfYear(f.to), share: f.share }));
    spans.set(flushes, found);
  }
  return found;
}

/** Day number moved into the northern year that the season curves are given for. */
const northern = (day: number, hemisphere: Hemisphere): number => (hemisphere === 'south' ? day + HALF_YEAR : day);

/** Years' worth of growth laid down by a day since 1970, for differences only. */
function grownBy(flushes: readonly Flush[], northDay: number): number {
  const { year, dayOfYear: today } = yearAndDay(Math.floor(northDay));
  const inYear = today + (northDay - Math.floor(northDay));
  const within = spansOf(flushes).reduce((sum, f) => sum + f.share * laid(clamp((inYear - f.from) / (f.to - f.from), 0, 1)), 0);
  return year - 1970 + within;
}

/** F(t0, t): share of a year's radial growth between two day numbers (2 for two whole years). docs: Season. */
export function growthShare(species: Species, hemisphere: Hemisphere, fromDay: number, toDay: number): number {
  if (toDay <= fromDay) return 0;
  return grownBy(species.flushes, northern(toDay, hemisphere)) - grownBy(species.flushes, northern(fromDay, hemisphere));
}

function growingDaysBy(flushes: readonly Flush[], northDay: number): number {
  const { year, dayOfYear: today } = yearAndDay(northDay);
  const all = spansOf(flushes);
  const full = all.reduce((sum, f) => sum + (f.to - f.from), 0);
  return (year - 1970) * full + all.reduce((sum, f) => sum + clamp(today - f.from, 0, f.to - f.from), 0);
}

/** Days of growing season between two day numbers. */
export function growingDays(species: Species, hemisphere: Hemisphere, fromDay: number, toDay: number): number {
  if (toDay <= fromDay) return 0;
  return growingDaysBy(species.flushes, northern(toDay, hemisphere)) - growingDaysBy(species.flushes, northern(fromDay, hemisphere));
}

/** Whether the tree lays down wood on a day. */
export function isGrowing(species: Species, hemisphere: Hemisphere, day: number): boolean {
  const { dayOfYear: today } = yearAndDay(northern(day, hemisphere));
  return spansOf(species.flushes).some((f) => today >= f.from && today < f.to);
}

/** Month 1..12 of the northern year that a day corresponds to; work calendars are kept for that year. */
export function northernMonth(hemisphere: Hemisphere, day: number): number {
  return new Date(northern(day, hemisphere) * 86_400_000).getUTCMonth() + 1;
}
