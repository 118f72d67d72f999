import { sayThick } from '../wood/index.js';
import { dayOf, isoOf } from '../units/index.js';
import { coilTask, lookFrom, SAVES_WALK, unwiringOf, WALKED_BY, watch, watchGuys, type CoilTaskKind, type Known, type Unwiring } from '../growth/index.js';
import { DEVICE_WORDS } from '../guy/index.js';
import { namesOf, outlinesIn, placeTree, woodIn, type MarkStage, type Tree } from '../tree/index.js';
import { asItStands } from '../stand/index.js';
import { gatherRounds } from './rounds.js';

/** One thing on a tree that is looked at on a walk: a coil, a tie or a device. */
export interface WalkItem {
  kind: 'wire' | 'tie';
  branch: string;
  /** The run that the coil belongs to, or the tie's or device's id. */
  of: string;
  /** The branch by its place, and what is on it: "2.5 mm copper", "tie", "spreader". */
  name: string;
  what: string;
  since: string;
  /** The day from which it is looked at where one walks by, that from which it is where it saves a walk, and the day by which it must be; ISO. */
  first: string;
  early: string;
  last: string;
  seen: { on: string; stage: MarkStage; who?: string } | null;
  because: string[];
  /** From when it holds to when it may mark; null where the one comes after the other. */
  window: { from: string; to: string } | null;
  /** The day from which it may mark; null beyond fifteen years. */
  marks: string | null;
  unwiring: Unwiring | null;
  /** Thickness of the branch, mm. */
  d: number;
  /** Outline of the branch in the box of the tree's small picture. */
  outline: string;
  /** The branch at the other end of the piece, by its place, with its outline; null where it has none. */
  other: { branch: string; name: string; outline: string } | null;
  /** What is to be done with a coil; null for what is no coil. */
  task: CoilTaskKind | null;
}

/** All that is on a tree and wants looks, as a phone takes it along, from below. */
export function walkItems(given: Tree, onDay: number, known?: Known): WalkItem[] {
  const tree = asItStands(given, onDay);
  const placed = placeTree(tree);
  const names = namesOf(tree);
  const watched = watch(placed, onDay, known);
  const guys = watchGuys(placed, onDay, known);
  const ids = new Set([...watched.map((w) => w.coil.branch), ...guys.map((g) => g.branch)]);
  const outlines: ReadonlyMap<string, string> = ids.size ? outlinesIn(placed, ids) : new Map();
  const where = (branch: string, other: string | null): Pick<WalkItem, 'd' | 'other' | 'outline'> => ({
    d: woodIn(placed, branch)!.branch.d,
    outline: outlines.get(branch) ?? '',
    other: other === null ? null : { branch: other, name: names(other), outline: outlines.get(other) ?? '' },
  });
  const heightOf = ({ branch }: WalkItem): number => woodIn(placed, branch)!.line.points[0]![2];
  const wires = watched.map((w): WalkItem => {
    const { branch, run, metal, size, strands, since } = w.coil;
    const other = watched.find((o) => run && o.coil.run === run && o.coil.branch !== branch)?.coil.branch ?? null;
    return {
      ...where(branch, other),
      kind: 'wire',
      branch,
      of: run,
      name: names(branch),
      what: `${sayThick(size)} ${metal}${strands > 1 ? ` × ${strands}` : ''}`,
      since: isoOf(since),
      first: isoOf(lookFrom(w, onDay).first),
      early: isoOf(lookFrom(w, onDay).early),
      last: isoOf(coilTask(w, onDay).day),
      task: coilTask(w, onDay).kind,
      seen: w.lastSeen && { on: isoOf(w.lastSeen.day), stage: w.lastSeen.stage, ...(w.lastSeen.who ? { who: w.lastSeen.who } : {}) },
      because: w.race.because,
      window: w.race.window && { from: isoOf(w.race.window.from), to: isoOf(w.race.window.to) },
      marks: w.race.limit === null ? null : isoOf(w.race.limit),
      unwiring: unwiringOf(w, onDay),
    };
  });
  const ties = guys.map((g): WalkItem => {
    const what = g.device ? DEVICE_WORDS[g.device].name : 'tie';
    return {
      ...where(g.branch, null),
      kind: 'tie',
      branch: g.branch,
      of: g.guy,
      name: names(g.branch),
      what,
      since: isoOf(g.since),
      task: null,
      first: isoOf(Math.ceil(g.seen + WALKED_BY * (g.look - g.seen))),
      early: isoOf(Math.ceil(g.seen + SAVES_WALK * (g.look - g.seen))),
      last: isoOf(g.look),
      seen: g.bark && { on: isoOf(g.seen), stage: g.bark },
      because: [
        g.holds !== null && g.holds <= onDay
          ? 'Likely to hold by itself: let it out a little, and see.'
          : `Is the ${what} taut, how does the bark look where it presses?`,
      ],
      window: null,
      marks: g.marks.p10 === null ? null : isoOf(g.marks.p10),
      unwiring: null,
    };
  });
  // Along the tree from below, as one looks it through.
  return [...wires, ...ties].sort((a, b) => heightOf(a) - heightOf(b) || (a.branch < b.branch ? -1 : 1));
}

/** The walks that a yard's items ask for from a day on. docs: Rounds. */
export const walksOf = <I extends Pick<WalkItem, 'first' | 'early' | 'last'>>(items: readonly I[], onDay: number): { day: string; items: I[] }[] =>
  gatherRounds(
    items.map((item) => ({ item, first: dayOf(item.first), early: dayOf(item.early), last: dayOf(item.last) })),
    onDay,
  ).map(({ day, looks }) => ({ day: isoOf(day), items: looks.map((l) => l.item) }));

/** Minutes that a look takes on a walk, with the way there; own estimate. */
export const LOOK_MINUTES = 1.6;

/** How grave it is to let something on a walk wait: what marks first, then what is late the longest. */
const graver = (a: Pick<WalkItem, 'task' | 'last'>, b: Pick<WalkItem, 'task' | 'last'>): number =>
  Number(b.task === 'remove') - Number(a.task === 'remove') || (a.last < b.last ? -1 : a.last > b.last ? 1 : 0);

/** What of a walk can be done in so many minutes, the gravest of it, in the order of the walk; and what has to wait. */
export function inTime<I extends Pick<WalkItem, 'task' | 'last'>>(items: readonly I[], minutes: number): { now: I[]; waits: I[] } {
  const most = Math.max(1, Math.floor(minutes / LOOK_MINUTES));
  const chosen = new Set([...items].sort(graver).slice(0, most));
  return { now: items.filter((i) => chosen.has(i)), waits: items.filter((i) => !chosen.has(i)) };
}
