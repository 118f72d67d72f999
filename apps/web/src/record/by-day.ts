import type { RecordLine } from '@ustle/core';

/** Lines by the day of which they tell, the newest day first; within a day as they were written. */
export function byDay(lines: readonly RecordLine[]): { on: string; lines: RecordLine[] }[] {
  const days = new Map<string, RecordLine[]>();
  for (const line of lines) days.set(line.on, [...(days.get(line.on) ?? []), line]);
  return [...days].map(([on, of]) => ({ on, lines: of })).sort((a, b) => (a.on < b.on ? 1 : -1));
}
