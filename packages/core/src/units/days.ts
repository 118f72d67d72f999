/** Dates are whole day numbers (days since 1970-01-01) inside the core, ISO dates outside. */
const MS_PER_DAY = 86_400_000;

/** Day number of an ISO date (YYYY-MM-DD); NaN when the text is no calendar date. */
export function dayOf(iso: string): number {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso);
  if (!match) return NaN;
  const day = Date.UTC(+match[1]!, +match[2]! - 1, +match[3]!) / MS_PER_DAY;
  return isoOf(day) === iso ? day : NaN;
}

/** ISO date of a day number. */
export const isoOf = (day: number): string => new Date(Math.round(day) * MS_PER_DAY).toISOString().slice(0, 10);

/** Calendar year and the day within it (0 = 1 January) of a day number. */
export function yearAndDay(day: number): { year: number; dayOfYear: number } {
  const year = new Date(day * MS_PER_DAY).getUTCFullYear();
  return { year, dayOfYear: day - Date.UTC(year, 0, 1) / MS_PER_DAY };
}

/** Month 1..12 of a day number. */
export const monthOf = (day: number): number => new Date(day * MS_PER_DAY).getUTCMonth() + 1;

const MONTHS = 'January February March April May June July August September October November December'.split(' ');
export const monthName = (month: number): string => MONTHS[(month - 1 + 12) % 12]!;

/** A date as a person says it: "20 June 2026". */
export function sayDay(day: number): string {
  const date = new Date(Math.round(day) * MS_PER_DAY);
  return `${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]} ${date.getUTCFullYear()}`;
}
