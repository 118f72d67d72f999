import { formatISO, isValid, parse, parseISO } from 'date-fns';

const TYPED = ['yyyy-MM-dd', 'd MMMM yyyy', 'd MMM yyyy', 'd.M.yyyy', 'd/M/yyyy', 'd MMMM', 'd MMM', 'd.M.'];

/** A date as people type it, ISO; null for what is none. Without a year it is this year's. */
export function readDate(text: string, today: string): string | null {
  for (const form of TYPED) {
    const date = parse(text.trim(), form, parseISO(today));
    if (isValid(date) && date.getFullYear() >= 1900 && date.getFullYear() <= 2200) return formatISO(date, { representation: 'date' });
  }
  return null;
}
