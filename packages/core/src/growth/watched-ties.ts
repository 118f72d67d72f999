import { toRad } from '../units/index.js';
import { lengthOf } from '../space/index.js';
import { settingOf, speciesOf, woodOf, yearlyGrowthOf } from '../species/index.js';
import { heldShare, recoverable, usualBendLength } from '../wood/index.js';
import { guysOn, VIGOUR_FACTOR, woodIn, type GuyOn, type PlacedTree } from '../tree/index.js';
import { GROWING_WEEKS, lookAfter } from './looks.js';
import { courseOf } from './coil-state.js';
import { grownAlong, growingDaysAlong } from './course.js';
import { NOTHING_LEARNT, type Known } from './known.js';
import { learnedOf, type Learned } from './learned.js';
import { quantile } from './unknown.js';
import { cushionDates } from './watch.js';

/** A tie that is on, with the day to look at its cushion and when the branch is likely to hold without it. */
export interface WatchedGuy extends GuyOn {
  look: number;
  /** Day number; null where it would not hold within fifteen years, or how far it was drawn is not known. */
  holds: number | null;
  /** Day numbers from which one in ten such cushions, and one in two, marks the bark; null beyond fifteen years. */
  marks: { p10: number | null; p50: number | null };
}

const DAYS_A_YEAR = 365.25;
const MOST_YEARS = 15;
/** A branch is drawn a quarter past where it shall stay, so it is let go when it keeps so much. */
const HELD = 0.8;
/** A cushion presses on a hand's breadth, not along a line: looked at and found clear it is let be for so many weeks, found pressing for so many. */
const PRESSING_WEEKS = 3;
const LEAST_DAYS = 28;

/** The day by which a cushion is to be looked at again: by rule, and no later than half of the time until it may mark, nor sooner than in four weeks. One that was seen to mark waits for nothing. docs: Rounds. */
function lookDay({ tree }: PlacedTree, { seen, bark }: GuyOn, { p10 }: WatchedGuy['marks']): number {
  if (bark && bark !== 'clear' && bark !== 'touching') return seen;
  if (bark === 'touching') return seen + PRESSING_WEEKS * 7;
  const byRule = lookAfter(speciesOf(tree.species), tree.site.hemisphere, seen, GROWING_WEEKS);
  return p10 === null ? byRule : Math.min(byRule, seen + Math.max(LEAST_DAYS, Math.ceil((p10 - seen) / 2)));
}

/** The day from which a branch is likely to hold without its tie: all that would come back is stored while only the tie holds it. docs: Set. */
export function holdsFrom(
  placed: PlacedTree,
  { branch: id, since, cameDeg }: Pick<GuyOn, 'branch' | 'since' | 'cameDeg'>,
  known: Known = NOTHING_LEARNT,
  learned: Learned = learnedOf(placed, since, known),
): number | null {
  const b = woodIn(placed, id);
  if (!b || !cameDeg) return null;
  const species = speciesOf(placed.tree.species);
  const wood = woodOf(species);
  const diameter = b.branch.d;
  const length = usualBendLength({ diameter, angleDeg: cameDeg, k0: species.bendRatio.value, branchLength: lengthOf(b.line) });
  const curvature = toRad(cameDeg) / length;
  const back = recoverable({ diameter, curvature, wood });
  const { hemisphere } = placed.tree.site;
  const course = courseOf(placed, known);
  const yearly = yearlyGrowthOf(species, diameter) * VIGOUR_FACTOR[placed.tree.vigour] * Math.exp(quantile(learned.of(id), 0.5));
  const half = Math.round(DAYS_A_YEAR / 2);
  for (let day = since + half; day <= since + MOST_YEARS * DAYS_A_YEAR; day += half) {
    const held = heldShare({
      diameter,
      curvature,
      recoverable: back,
      growingDays: growingDaysAlong(species, hemisphere, course, since, day),
      ...settingOf(species, diameter),
      radialGrowth: yearly * grownAlong(species, hemisphere, course, since, day),
    });
    if (held >= HELD) return day;
  }
  return null;
}

/** Every tie and device on the tree on a day, the most urgent first. */
export function watchGuys(placed: PlacedTree, onDay: number, known: Known = NOTHING_LEARNT): WatchedGuy[] {
  const on = guysOn(placed.tree, onDay);
  const learned = on.length ? learnedOf(placed, onDay, known) : null;
  return on
    .filter((g) => woodIn(placed, g.branch) !== undefined)
    .map((g): WatchedGuy => {
      const { p10, p50 } = cushionDates(placed, { ...g, seen: g.bark ? [{ day: g.seen, stage: g.bark }] : [] }, known, learned!).marking;
      const marks = { p10, p50 };
      return { ...g, marks, look: lookDay(placed, g, marks), holds: holdsFrom(placed, g, known, learned!) };
    })
    .sort((a, b) => a.look - b.look || (a.guy < b.guy ? -1 : 1));
}
