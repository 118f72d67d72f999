import { dayOf } from '../units/index.js';
import type { Crack, Sound } from './lines.js';
import { standing } from './record.js';
import type { Tree } from './types.js';

/** How far the bending of a branch has come, as the record tells it. */
export interface BendingSoFar {
  /** Stages done, the last day of one, and the angle reached, degrees. */
  stages: number;
  lastOn: number | null;
  bentDeg: number | null;
  sound: Sound;
  crack: Crack;
}

const NOT_BEGUN: BendingSoFar = { stages: 0, lastOn: null, bentDeg: null, sound: 'none', crack: 'none' };
const gravest = <T extends string>(order: readonly T[], a: T, b: T | undefined): T => (b && order.indexOf(b) > order.indexOf(a) ? b : a);

/** What the record says of the bending of each branch up to a day. Taken off its wire, a branch is begun anew. */
export function bendingOf(tree: Tree, onDay: number): Map<string, BendingSoFar> {
  const found = new Map<string, BendingSoFar>();
  for (const line of standing(tree.record)) {
    const day = dayOf(line.on);
    if (day > onDay) break;
    if (line.kind === 'unwired') found.delete(line.branch);
    if (line.kind !== 'bent') continue;
    const before = found.get(line.branch) ?? NOT_BEGUN;
    found.set(line.branch, {
      stages: Math.max(before.stages + (line.stage ? 0 : 1), line.stage ?? 0),
      lastOn: day,
      bentDeg: line.bentDeg ?? before.bentDeg,
      sound: gravest(['none', 'bark', 'fibre'], before.sound, line.sound),
      crack: gravest(['none', 'along', 'across'], before.crack, line.crack),
    });
  }
  return found;
}

/** How long a branch that cracked is let be, days: along the fibre it heals; across it a year shows whether what lies beyond lives. */
export const AFTER_CRACK: Record<Exclude<Crack, 'none'>, number> = { along: 90, across: 365 };

/** A branch that cracked: which way, when, and until when it is neither bent nor wired again; whether its wire came off since or not. */
export interface Cracked {
  crack: Exclude<Crack, 'none'>;
  on: number;
  until: number;
}

/** The branches that are let be on a day, for they cracked. */
export function crackedOn(tree: Tree, onDay: number): Map<string, Cracked> {
  const found = new Map<string, Cracked>();
  for (const line of standing(tree.record)) {
    if (line.kind !== 'bent' || !line.crack || line.crack === 'none') continue;
    const on = dayOf(line.on);
    const until = on + AFTER_CRACK[line.crack];
    if (on <= onDay && until > onDay && until > (found.get(line.branch)?.until ?? 0)) found.set(line.branch, { crack: line.crack, on, until });
  }
  return found;
}
