import { speciesOf } from '../species/index.js';
import { greenCutInYear } from './cuts.js';
import type { Vigour } from './measures.js';
import { cutsAmong, sessionOf, takenOff, upToSession } from './outcome.js';
import type { Tree } from './types.js';

/** Work a tree bears in one session by its vigour; 1 is a full session on a tree of ordinary strength. */
export const VIGOUR_CAPACITY: Record<Vigour, number> = { weak: 0.3, refined: 0.8, normal: 0.9, strong: 1.1, free: 1.3 };

export interface GreenTally {
  /** Share of the green that the plan takes off in all its sessions. */
  removed: number;
  /** The most to take in twelve months: the species' own, by vigour. */
  cap: number;
  /** Cut in the last twelve months, by the record. */
  pastYear: number;
  sessions: { session: number; removed: number }[];
}

/** Green that goes by the plan and went by the record; shares 0..1 of the tree as it is now. */
export function greenTally(tree: Tree, onDay = Infinity): GreenTally {
  const numbers = [...new Set(cutsAmong(tree).map(sessionOf))].sort((a, b) => a - b);
  let before = 0;
  const sessions = numbers.map((session) => {
    const upTo = takenOff(tree, upToSession(tree, session)).green;
    const removed = Math.max(0, upTo - before);
    before = upTo;
    return { session, removed };
  });
  return {
    removed: takenOff(tree, tree.plan.decisions).green,
    cap: speciesOf(tree.species).greenCap.value * Math.min(1.15, VIGOUR_CAPACITY[tree.vigour] / 0.9),
    pastYear: Number.isFinite(onDay) ? greenCutInYear(tree, onDay) : 0,
    sessions,
  };
}
