import { growingDays, growthShare, type Hemisphere, type Species } from '../species/index.js';
import { happenings, type EventKind, type Tree } from '../tree/index.js';

/** A time in which a tree grows faster or slower than it else would, day numbers, the last not counted. */
export interface Spell {
  from: number;
  to: number;
  factor: number;
}

/** By how many days the season is ahead of its usual course from a day on; sorted by day. */
export interface Ahead {
  day: number;
  days: number;
}

/** What makes a tree's growth other than its species' usual year. */
export interface Course {
  spells: readonly Spell[];
  ahead: readonly Ahead[];
}
export const USUAL_COURSE: Course = { spells: [], ahead: [] };

/** How much each event changes growth; own estimates, see docs: Events. */
export const EVENTS: Record<EventKind, number> = { fed: 1.2, pruned: 0.6, defoliated: 0.4, repotted: 0.6, ailing: 0.4 };

/** The spells that a tree's history tells of. */
export const spellsOf = (tree: Tree): Spell[] => happenings(tree).map(({ kind, from, to }) => ({ from, to, factor: EVENTS[kind] }));

function aheadOn(ahead: readonly Ahead[], day: number): number {
  let days = 0;
  for (const step of ahead) {
    if (step.day > day) break;
    days = step.days;
  }
  return days;
}

/** The day of the usual year that a day corresponds to; never back in time, though the steps of a table may say so. */
const usualDay = ({ ahead }: Course, day: number): number => day + (ahead.length ? aheadOn(ahead, day) : 0);

/** F(t0, t) along a course: share of a usual year's radial growth between two day numbers. docs: Season and growth. */
export function grownAlong(species: Species, hemisphere: Hemisphere, course: Course, from: number, to: number): number {
  const share = (a: number, b: number): number => Math.max(0, growthShare(species, hemisphere, usualDay(course, a), usualDay(course, b)));
  const within = course.spells.filter((s) => s.from < to && s.to > from);
  if (!within.length) return share(from, to);
  const cuts = [...new Set([from, to, ...within.flatMap((s) => [Math.max(from, s.from), Math.min(to, s.to)])])].sort((a, b) => a - b);
  let sum = 0;
  for (let i = 0; i + 1 < cuts.length; i++) {
    const [a, b] = [cuts[i]!, cuts[i + 1]!];
    const factor = within.reduce((f, s) => (s.from <= a && s.to >= b ? f * s.factor : f), 1);
    sum += factor * share(a, b);
  }
  return sum;
}

/** Days of growing season along a course. */
export const growingDaysAlong = (species: Species, hemisphere: Hemisphere, course: Course, from: number, to: number): number =>
  Math.max(0, growingDays(species, hemisphere, usualDay(course, from), usualDay(course, to)));
