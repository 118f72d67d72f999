import { groupedBy, type RecordLine } from '@ustle/core';

/** Lines by the day of which they tell, the newest day first; within a day as they were written. */
export function byDay(lines: readonly RecordLine[]): { on: string; lines: RecordLine[] }[] {
  return [...groupedBy(lines, (line) => line.on)].map(([on, of]) => ({ on, lines: of })).sort((a, b) => (a.on < b.on ? 1 : -1));
}
