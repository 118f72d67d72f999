const DAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' });
const LONG = new Intl.DateTimeFormat('en-GB', { weekday: 'long', day: 'numeric', month: 'long', timeZone: 'UTC' });
const WITH_YEAR = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' });

const at = (iso: string): Date => new Date(`${iso}T00:00:00Z`);

/** "Sat 28 Nov" */
export const sayShort = (iso: string): string => DAY.format(at(iso));
/** "Tuesday 24 November" */
export const sayLong = (iso: string): string => LONG.format(at(iso));
/** "28 Nov 2026" */
export const sayDate = (iso: string): string => WITH_YEAR.format(at(iso));

export const daysBetween = (from: string, to: string): number => Math.round((at(to).getTime() - at(from).getTime()) / 86_400_000);
export const addDays = (iso: string, days: number): string => new Date(at(iso).getTime() + days * 86_400_000).toISOString().slice(0, 10);

/** "29 Aug to 2 Sept 2026": the year once where it is the same. */
export function saySpan(from: string, to: string): string {
  const first = from.slice(0, 4) === to.slice(0, 4) ? sayDate(from).replace(/ \d{4}$/, '') : sayDate(from);
  return `${first} to ${sayDate(to)}`;
}

/** "46%"; what is under one percent and not nothing keeps a digit. */
export const percent = (share: number): string => `${share > 0.0005 && share < 0.0095 ? (share * 100).toFixed(1) : Math.round(share * 100)}%`;
export const sayMetal = (metal: string, size: number, gauge: number | null): string =>
  `${size.toFixed(1)} mm ${metal}${gauge === null ? '' : ` (gauge ${gauge})`}`;
