import { isoOf, monthName, monthOf } from '../units/index.js';
import { nameInText, northernMonth, speciesOf } from '../species/index.js';
import { greenCutInYear, greenTally, cutsAmong, takenOff, sessionOf, type Decision, type Tree } from '../tree/index.js';

/** A session of cutting as proposed: which branches, how much green, and from when. */
export interface ProposedSession {
  session: number;
  /** The first day on which the tree bears it, ISO; null when none is found within three years. */
  on: string | null;
  branches: string[];
  green: number;
  because: string;
}

const LEAST_REST_DAYS = 60;
const SEARCH_DAYS = 3 * 365;
const MOST_SESSIONS = 5;
const YEAR = 365;

/** Whether a tree is strong enough for structural work on a day. */
export type Bears = (tree: Tree, day: number) => boolean;

/** The first day, by weeks, on which a rested tree bears a cut of this share of its green. */
function firstDay(tree: Tree, after: number, green: number, cutBefore: { day: number; green: number }[], bears: Bears): { on: number | null; because: string } {
  const { cap } = greenTally(tree);
  const species = speciesOf(tree.species);
  const { bad } = species.months.pruning;
  const rested: Tree = { ...tree, styledOn: isoOf(after) };
  for (let day = after + LEAST_REST_DAYS; day <= after + SEARCH_DAYS; day += 7) {
    const inYear = cutBefore.filter((c) => c.day > day - YEAR).reduce((sum, c) => sum + c.green, greenCutInYear(tree, day));
    if (inYear + green > Math.max(cap, green) + 1e-9) continue;
    if (!bears(rested, day)) continue;
    if (bad.includes(northernMonth(tree.site.hemisphere, day))) continue;
    return {
      on: day,
      because: `Rested by then, the twelve months have room for it, and ${monthName(monthOf(day))} does not speak against cutting ${nameInText(species)}.`,
    };
  }
  return { on: null, because: 'No day within three years on which this tree would bear it: think again about some of it.' };
}

/** Dead wood first, then what matters most, then what costs least green. */
function inOrder(tree: Tree, cuts: readonly Decision[], weight: (branch: string) => number): { decision: Decision; green: number }[] {
  return cuts
    .map((decision) => ({ decision, green: takenOff(tree, [decision]).green }))
    .sort(
      (a, b) =>
        Number(a.green > 0) - Number(b.green > 0) ||
        weight(b.decision.branch) - weight(a.decision.branch) ||
        a.green - b.green ||
        (a.decision.branch < b.decision.branch ? -1 : 1),
    );
}

/**
 * This session's cuts spread over as many as the tree needs; null when they all fit now. `room` is what the rest of the work
 * leaves of the capacity, `weight` how much each branch's going matters (its worst finding).
 */
export function proposeSessions(tree: Tree, onDay: number, room: number, weight: (branch: string) => number, bears: Bears): ProposedSession[] | null {
  const { cap, pastYear } = greenTally(tree, onDay);
  const cuts = cutsAmong(tree).filter((d) => sessionOf(d) === 1);
  const now = Math.max(0, Math.min(cap - pastYear, room * cap - pastYear));
  if (takenOff(tree, cuts).green <= now + 1e-9) return null;
  const sessions: ProposedSession[] = [];
  const cutBefore: { day: number; green: number }[] = [];
  let rest = inOrder(tree, cuts, weight);
  for (let session = 1; rest.length && session <= MOST_SESSIONS; session++) {
    const limit = session === 1 ? now : cap;
    const taken: typeof rest = [];
    for (const cut of rest) {
      const green = takenOff(
        tree,
        [...taken, cut].map((c) => c.decision),
      ).green;
      // A cut that is over the cap by itself has a session to itself: warned of, never forbidden.
      if (green <= limit + 1e-9 || (session > 1 && !taken.length)) taken.push(cut);
    }
    const left = rest.filter((c) => !taken.includes(c));
    const decisions = taken.map((c) => c.decision);
    const { green } = takenOff(tree, decisions);
    const last = cutBefore[cutBefore.length - 1]?.day ?? onDay;
    const when =
      session === 1
        ? { on: onDay, because: 'What the tree bears now: dead wood, what matters most, what costs least green.' }
        : firstDay(tree, last, green, cutBefore, bears);
    sessions.push({ session, on: when.on === null ? null : isoOf(when.on), branches: decisions.map((d) => d.branch), green, because: when.because });
    cutBefore.push({ day: when.on ?? last, green });
    if (when.on === null) {
      sessions[sessions.length - 1]!.branches.push(...left.map((c) => c.decision.branch));
      break;
    }
    rest = left;
  }
  return sessions;
}
