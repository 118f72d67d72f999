import { stageDates } from '../pose/index.js';
import type { Tree } from '../tree/index.js';
import type { WatchedGuy } from '../growth/index.js';

/** Turns or twists that are no more than this short of all are all. */
const ALL_BUT = 0.5;

interface Staged {
  stages: number | null;
  restDays: number;
  /** Turns or twists in all; null where it has none. */
  all: number | null;
  on: WatchedGuy | undefined;
}

/** The days of the stages of a tie or a device that are to come, ISO: from a day on, or once it is on from that which its last turn named. None where it is made in one go. */
export function datesOfStages(tree: Tree, { stages, restDays, all, on }: Staged, onDay: number): string[] {
  if (stages === null || stages < 2 || !restDays) return [];
  if (!on) return stageDates(tree, stages, restDays, onDay);
  if (on.next === null || all === null || all - on.twists < ALL_BUT) return [];
  return stageDates(tree, Math.max(1, Math.round((stages * (all - on.twists)) / all)), restDays, on.next);
}
