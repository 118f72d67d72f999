/** Dates are whole day numbers (days since 1970-01-01) inside the core, ISO dates outside. */
const MS_PER_DAY = 86_400_000;

const MONTH_DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];
const isLeap = (year: number): boolean => (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;

/** Day number of an ISO date (YYYY-MM-DD); NaN when the text is no calendar date. */
export function dayOf(iso: string): number {
  const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso);
  if (!match) return NaN;
  const [year, month, date] = [+match[1]!, +match[2]! - 1, +match[3]!];
  const days = MONTH_DAYS[month];
  if (days === undefined || date < 1 || date > days + (month === 1 && isLeap(year) ? 1 : 0)) return NaN;
  return Date.UTC(year, month, date) / MS_PER_DAY;
}

/** ISO date of a day number. */
export const isoOf = (day: number): string => new Date(Math.round(day) * MS_PER_DAY).toISOString().slice(0, 10);

const before = (year: number): number => Math.floor(year / 4) - Math.floor(year / 100) + Math.floor(year / 400);
const LEAP_DAYS = before(1969);
/** Day number of 1 January of a year. */
const newYear = (year: number): number => (year - 1970) * 365 + before(year - 1) - LEAP_DAYS;

/** Calendar year and the day within it (0 = 1 January) of a day number. */
export function yearAndDay(day: number): { year: number; dayOfYear: number } {
  if (day >= last.from && day < last.to) return { year: last.year, dayOfYear: day - last.from };
  // 400 years have 146,097 days: the estimate is at most a year off.
  let year = 1970 + Math.floor((day * 400) / 146_097);
  while (newYear(year + 1) <= day) year++;
  while (newYear(year) > day) year--;
  last = { year, from: newYear(year), to: newYear(year + 1) };
  return { year, dayOfYear: day - last.from };
}
/** The year that was asked for last: the next question is mostly about the same. */
let last = { year: 1970, from: 0, to: 365 };

/** Month 1..12 of a day number. */
export const monthOf = (day: number): number => new Date(day * MS_PER_DAY).getUTCMonth() + 1;

const MONTHS = 'January February March April May June July August September October November December'.split(' ');
export const monthName = (month: number): string => MONTHS[(month - 1 + 12) % 12]!;

/** Months in words, those that follow each other as one stretch, over the turn of the year too: "March to May, October". */
export function sayMonths(months: readonly number[]): string {
  const rows: number[][] = [];
  for (const m of months) {
    const last = rows.at(-1);
    if (last && (m - last.at(-1)! - 1) % 12 === 0) last.push(m);
    else rows.push([m]);
  }
  const [first, last] = [rows[0], rows.at(-1)];
  if (first && last && first !== last && (first[0]! - last.at(-1)! - 1) % 12 === 0) rows.splice(0, rows.length, [...last, ...first], ...rows.slice(1, -1));
  return rows.map((r) => (r.length > 2 ? `${monthName(r[0]!)} to ${monthName(r.at(-1)!)}` : r.map(monthName).join(', '))).join(', ');
}

/** A date as a person says it: "20 June 2026". */
export function sayDay(day: number): string {
  const date = new Date(Math.round(day) * MS_PER_DAY);
  return `${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]} ${date.getUTCFullYear()}`;
}
