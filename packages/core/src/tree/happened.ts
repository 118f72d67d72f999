import { dayOf } from '../units/index.js';
import type { LineKind } from './lines.js';
import { standing } from './record.js';
import type { Tree } from './types.js';
import { SAME_SESSION_DAYS, workSessions } from './work-sessions.js';

/** What happens to a whole tree and works on for so many days; own estimates, see docs: Events. */
export const LASTS = { fed: 56, pruned: 70, defoliated: 42, repotted: 120, ailing: 90 } as const satisfies Partial<Record<LineKind, number>>;
export type EventKind = keyof typeof LASTS;

/** Something that happened to a whole tree, with the days over which it works on (day numbers, the last not counted). */
export interface Happening {
  kind: EventKind;
  from: number;
  to: number;
}

/** What happened to a tree: lines of its record, and the repotting that is typed where it is read; once where both tell the same day. */
export function happenings(tree: Tree): Happening[] {
  const told = standing(tree.record).flatMap((line): Happening[] => {
    if (!(line.kind in LASTS) || ('branch' in line && line.branch)) return [];
    const kind = line.kind as EventKind;
    const from = dayOf(line.on);
    return [{ kind, from, to: from + (line.kind === 'ailing' && line.weeks ? line.weeks * 7 : LASTS[kind]) }];
  });
  if (!tree.repottedOn) return told;
  const from = dayOf(tree.repottedOn);
  const known = told.some((h) => h.kind === 'repotted' && h.from === from);
  return known ? told : [...told, { kind: 'repotted', from, to: from + LASTS.repotted }];
}

const HEAVY_STEP = /^(cut|jin|wire|bend|guy|device|place):/;

/** Days on which heavy work was done: typed, noted, or a session closed that cut, wired, bent or tied. Within two weeks it is still that same session. */
function heavyWork(tree: Tree, onDay: number): number[] {
  const closed = workSessions(tree).flatMap(({ closed: day, answers }) =>
    day !== null && day <= onDay - SAME_SESSION_DAYS && answers.some((a) => HEAVY_STEP.test(a.step) && a.answer !== 'skipped') ? [day] : [],
  );
  const noted = standing(tree.record).flatMap((line) => (line.kind === 'styled' ? [dayOf(line.on)] : []));
  return [...(tree.styledOn ? [dayOf(tree.styledOn)] : []), ...noted, ...closed];
}

/** The last day, up to a day, on which a tree was repotted or worked on heavily, from whatever source tells it; null where none does. */
export function lastOn(tree: Tree, what: 'repotted' | 'styled', onDay: number): number | null {
  const days = what === 'styled' ? heavyWork(tree, onDay) : happenings(tree).flatMap((h) => (h.kind === 'repotted' ? [h.from] : []));
  const past = days.filter((day) => day <= onDay);
  return past.length ? past.reduce((a, b) => Math.max(a, b)) : null;
}
