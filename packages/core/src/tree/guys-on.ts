import { dayOf } from '../units/index.js';
import type { MarkStage } from './lines.js';
import type { DeviceKind } from './plan-parts.js';
import { standing } from './record.js';
import type { Tree } from './types.js';

/** A tie or a device that is on a branch or the trunk, as recorded. */
export interface GuyOn {
  guy: string;
  /** Null: a tie. */
  device: DeviceKind | null;
  branch: string;
  since: number;
  /** Twists or turns in it now. */
  twists: number;
  /** N, as reckoned when it was last drawn. */
  tension: number | null;
  /** How far the branch came, degrees. */
  cameDeg: number | null;
  /** mm from the tie point to the anchor when it was last drawn taut. */
  length: number | null;
  /** The last day that somebody was at it, and how the bark was under its cushion. */
  seen: number;
  bark: MarkStage | null;
  /** The day from which its next stage may be made; null where none is open. */
  next: number | null;
}

/** One that came off: the day. */
export interface GuyOff extends GuyOn {
  offOn: number;
}

/** The ties and devices that are on a tree on a day. One comes off when it is taken off, or with its branch. */
export const guysOn = (tree: Tree, onDay: number): GuyOn[] => guyHistory(tree, onDay).on;

/** Those that are on, and those that were taken off their branch. */
export function guyHistory(tree: Tree, onDay: number): { on: GuyOn[]; off: GuyOff[] } {
  const on = new Map<string, GuyOn>();
  const off: GuyOff[] = [];
  for (const line of standing(tree.record)) {
    const day = dayOf(line.on);
    if (day > onDay) break;
    if (line.kind === 'removed') for (const [key, g] of on) if (g.branch === line.branch || line.was?.some((b) => b.id === g.branch)) on.delete(key);
    if (line.kind !== 'guyed') continue;
    const key = line.guy ?? line.branch;
    const before = on.get(key);
    const done = line.done ?? 'placed';
    if (done === 'removed') {
      if (before) off.push({ ...before, offOn: day });
      on.delete(key);
      continue;
    }
    if (!before && done !== 'placed') continue;
    const turned = (line.twists ?? 0) * (done === 'loosened' ? -1 : 1);
    on.set(key, {
      guy: key,
      device: line.device ?? before?.device ?? null,
      branch: line.branch,
      since: before?.since ?? day,
      twists: Math.max(0, (before?.twists ?? 0) + turned),
      tension: line.tension ?? before?.tension ?? null,
      cameDeg: line.cameDeg ?? before?.cameDeg ?? null,
      length: line.length ?? before?.length ?? null,
      seen: day,
      // Let out, it presses no more as it did.
      bark: line.bark ?? (done === 'loosened' ? null : (before?.bark ?? null)),
      // Each turn tells of its next; a look leaves it as it was.
      next: line.next ? dayOf(line.next) : done === 'looked' ? (before?.next ?? null) : null,
    });
  }
  return { on: [...on.values()], off };
}
