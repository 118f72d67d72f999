import { addDays as plusDays, differenceInCalendarDays, format, formatISO, parseISO } from 'date-fns';

/** "Sat 28 Nov" */
export const sayShort = (iso: string): string => format(parseISO(iso), 'EEE d MMM');
/** "28 Nov" */
export const sayBrief = (iso: string): string => format(parseISO(iso), 'd MMM');
/** "Tuesday 24 November" */
export const sayLong = (iso: string): string => format(parseISO(iso), 'EEEE d MMMM');
/** A moment kept in the world's time, in the device's: "28 November, 14:05" */
export const sayMoment = (iso: string): string => format(parseISO(`${iso}Z`), 'd MMMM, HH:mm');
/** "28 November 2026" */
export const sayDate = (iso: string): string => format(parseISO(iso), 'd MMMM yyyy');

export const daysBetween = (from: string, to: string): number => differenceInCalendarDays(parseISO(to), parseISO(from));
const isoOf = (date: Date): string => formatISO(date, { representation: 'date' });
export const addDays = (iso: string, days: number): string => isoOf(plusDays(parseISO(iso), days));

/** "29 August to 2 September 2026": the year once where it is the same. */
export function saySpan(from: string, to: string): string {
  const first = from.slice(0, 4) === to.slice(0, 4) ? format(parseISO(from), 'd MMMM') : sayDate(from);
  return `${first} to ${sayDate(to)}`;
}

/** When wire should come off: no forecast of wood is good to the day. */
export const sayWindow = (from: string, to: string): string => (daysBetween(from, to) < 7 ? `in the week of ${sayDate(from)}` : saySpan(from, to));

/** "46%"; what is under one percent and not nothing keeps a digit. */
export const percent = (share: number): string => `${share > 0.0005 && share < 0.0095 ? (share * 100).toFixed(1) : Math.round(share * 100)}%`;
/** Counts in words where they are few: "one branch", "3 branches". */
export const count = (n: number, one: string, many = `${one}s`): string => `${n === 1 ? 'one' : n} ${n === 1 ? one : many}`;
