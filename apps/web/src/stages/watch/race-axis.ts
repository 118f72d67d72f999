import { greatestOf } from '@ustle/core';
import type { PlanWire } from '@ustle/core';

const LEAST_WEEKS = 16;
const AFTER_WEEKS = 5;
const MOST_TICKS = 7;

const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'short', timeZone: 'UTC' });
const month = (iso: string): string => MONTH.format(new Date(`${iso}T00:00:00Z`));

/** Index of the week that begins on or after a day; the last one where it lies beyond. */
export function weekOf(days: readonly string[], iso: string): number {
  const found = days.findIndex((d) => d >= iso);
  return found < 0 ? days.length - 1 : found;
}

/** How many weeks tell the whole race: until the last of its dates, today among them, and a little on. */
export function weeksOfRace(days: readonly string[], { touching, marking, set }: Pick<PlanWire, 'touching' | 'marking' | 'set'>, today: string): number {
  const told = [today, touching.p90, marking.p90, set.p90].filter((d): d is string => d !== null);
  return Math.min(days.length, Math.max(LEAST_WEEKS, greatestOf(told.map((d) => weekOf(days, d))) + AFTER_WEEKS));
}

/** Words under the weeks: a month where it begins, with its year at the first and in January; every few months only where they would crowd. */
export function monthTicks(days: readonly string[]): string[] {
  const begins = days.map((d, i) => i > 0 && d.slice(0, 7) !== days[i - 1]!.slice(0, 7));
  const every = Math.ceil(begins.filter(Boolean).length / MOST_TICKS);
  let count = 0;
  return days.map((d, i) => {
    if (!begins[i] || count++ % every > 0) return '';
    return count === 1 || d.slice(5, 7) === '01' ? `${month(d)} ${d.slice(2, 4)}` : month(d);
  });
}
