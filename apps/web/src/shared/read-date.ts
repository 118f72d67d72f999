import { addMonths, formatISO, isValid, parse, parseISO, sub, type Duration } from 'date-fns';
import type { Hemisphere } from '@ustle/core';

const TYPED = ['yyyy-MM-dd', 'd MMMM yyyy', 'd MMM yyyy', 'd.M.yyyy', 'd/M/yyyy', 'd MMMM', 'd MMM', 'd.M.'];
const MONTHS = ['MMMM yyyy', 'MMM yyyy', 'yyyy-MM', 'M/yyyy'];
const MONTHS_ALONE = ['MMMM', 'MMM'];
const FIRST = 1900;
const LAST = 2200;

/** A day as it was typed; `rough` where a month, a season or a year was, and the day is the middle of it. */
export interface ReadDay {
  day: string;
  rough: boolean;
}

const isDay = (date: Date): boolean => isValid(date) && date.getFullYear() >= FIRST && date.getFullYear() <= LAST;
const iso = (date: Date): string => formatISO(date, { representation: 'date' });
const parsed = (text: string, forms: readonly string[], today: string): Date | null =>
  forms.map((form) => parse(text, form, parseISO(today))).find(isDay) ?? null;

/** The month in the middle of a season (0: January); a winter is told by the year in which it begins. */
const MIDDLE: Record<string, { north: number; south: number }> = {
  spring: { north: 3, south: 9 },
  summer: { north: 6, south: 12 },
  autumn: { north: 9, south: 3 },
  fall: { north: 9, south: 3 },
  winter: { north: 12, south: 6 },
};
const SEASON = /^(?:in |last )?(spring|summer|autumn|fall|winter)(?: (\d{4}))?$/;
const AGO = /^(?:about )?(an?|one|two|three|four|five|six|\d{1,3}) (day|week|month|year)s? ago$/;
const COUNTS: Record<string, number> = { a: 1, an: 1, one: 1, two: 2, three: 3, four: 4, five: 5, six: 6 };

/** The middle of a month, or the day before which it is not over. */
const middleOf = (year: number, month: number): Date => addMonths(new Date(year, 0, 15), month);

function roughly(text: string, today: string, hemisphere: Hemisphere): Date | null {
  const now = parseISO(today);
  const season = SEASON.exec(text);
  if (season) {
    const month = MIDDLE[season[1]!]![hemisphere];
    if (season[2]) return middleOf(Number(season[2]), month);
    // The last one that has begun.
    const years = [0, -1, -2].map((back) => middleOf(now.getFullYear() + back, month));
    return years.find((d) => addMonths(d, -1) <= now) ?? null;
  }
  const ago = AGO.exec(text);
  if (ago) return sub(now, { [`${ago[2]}s`]: COUNTS[ago[1]!] ?? Number(ago[1]) } as Duration);
  const month = parsed(text, MONTHS, today);
  if (month) return middleOf(month.getFullYear(), month.getMonth());
  const alone = parsed(text.replace(/^(in|last) /, ''), MONTHS_ALONE, today);
  if (alone) {
    const middle = middleOf(now.getFullYear(), alone.getMonth());
    return addMonths(middle, -1) < now && alone <= now ? middle : addMonths(middle, -12);
  }
  return /^\d{4}$/.test(text) ? parsed(`${text}-07-01`, ['yyyy-MM-dd'], today) : null;
}

/** A date as people type it; null for what is none. A day without a year is this year's; a month, a season or a year is taken at its middle, or today where that has not come yet though it has begun. */
export function readDate(typed: string, today: string, hemisphere: Hemisphere = 'north'): ReadDay | null {
  const text = typed.trim().replace(/\s+/g, ' ');
  const word = text.toLowerCase();
  if (word === 'today') return { day: today, rough: false };
  if (word === 'yesterday') return { day: iso(sub(parseISO(today), { days: 1 })), rough: false };
  const exact = parsed(text, TYPED, today);
  if (exact) return { day: iso(exact), rough: false };
  const middle = roughly(word, today, hemisphere);
  if (!middle || !isDay(middle)) return null;
  const day = iso(middle);
  const begun = iso(sub(middle, { days: /^\d{4}$/.test(word) ? 182 : SEASON.test(word) ? 45 : 14 })) <= today;
  return { day: day > today && begun ? today : day, rough: true };
}
