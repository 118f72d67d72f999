import ical from 'ical-generator';

export interface CalendarDay {
  /** Stable across downloads, so that a calendar updates the entry instead of doubling it. */
  uid: string;
  on: string;
  title: string;
  text: string;
}

/** An iCalendar document of whole-day entries. `madeOn` is an ISO date. */
export function writeCalendar(name: string, days: readonly CalendarDay[], madeOn: string): string {
  const calendar = ical({ name, prodId: { company: 'Ustle', product: 'Ustle' } });
  for (const day of days) {
    calendar.createEvent({
      id: `${day.uid}@ustle`,
      start: new Date(`${day.on}T00:00:00Z`),
      stamp: new Date(`${madeOn}T00:00:00Z`),
      allDay: true,
      timezone: 'UTC',
      summary: day.title,
      description: day.text,
    });
  }
  return calendar.toString();
}
