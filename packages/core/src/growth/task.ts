import { whatToTake } from './unwiring.js';
import { dueDay, type Watched } from './watch.js';

/** What is to be done with a coil: looked at, taken off now or before it marks, or taken off while its window is open. */
export type CoilTaskKind = 'look' | 'remove' | 'window';
export interface CoilTask {
  kind: CoilTaskKind;
  /** Day number by which it is to be done; not before today. */
  day: number;
  /** The day by which it was to be done, where that is over; null: it is in time. */
  since: number | null;
}

/** What is to be done with a coil, in words that stand before a day. */
export const COIL_TASKS: Record<CoilTaskKind, string> = { look: 'look', remove: 'take it off', window: 'can come off' };

/** The one thing that is told of a coil on a day, wherever one looks. docs: Taking off. */
export function coilTask(watched: Watched, onDay: number): CoilTask {
  const { race } = watched;
  const take = whatToTake(watched, onDay);
  const kind = race.advice === 'remove-now' ? 'remove' : take === 'none' ? 'look' : race.window ? 'window' : 'remove';
  const due = dueDay(watched, onDay);
  return { kind, day: Math.max(onDay, due), since: watched.nextInspection < onDay ? watched.nextInspection : null };
}
