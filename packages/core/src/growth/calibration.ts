import { greatestOf, leastOf } from '../units/index.js';
import { coilHistory, MARK_STAGES, woodIn, type MarkStage, type PlacedTree } from '../tree/index.js';
import { courseOf, stateOf } from './coil-state.js';
import { forecast, HORIZON_DAYS } from './forecast.js';
import { learnedOf } from './learned.js';
import { NOTHING_LEARNT, type Known } from './known.js';

/** How forecasts of marking, as they were when each wire went on, agree with what was seen later. */
export interface Calibration {
  /** First marks within the band of four in five; sooner; later. */
  inside: number;
  early: number;
  late: number;
  /** Coils that came off, or are still on, before it could be told. */
  open: number;
}
export const NO_CASES: Calibration = { inside: 0, early: 0, late: 0, open: 0 };

export const addCases = (a: Calibration, b: Calibration): Calibration => ({
  inside: a.inside + b.inside,
  early: a.early + b.early,
  late: a.late + b.late,
  open: a.open + b.open,
});

const marks = (stage: MarkStage): boolean => MARK_STAGES.indexOf(stage) >= MARK_STAGES.indexOf('marking');

/** Between which days a coil first marked, as far as looks tell; the second is Infinity where it was never seen to. */
function firstMark(seen: readonly { day: number; stage: MarkStage }[], since: number): [number, number] {
  const by = leastOf(seen.filter((s) => marks(s.stage)).map((s) => s.day));
  const after = greatestOf(
    seen.filter((s) => !marks(s.stage) && s.day < by).map((s) => s.day),
    since,
  );
  return [after, by];
}

/** Counts a tree's coils by whether their first mark came when it was foreseen on the day they went on. docs: Learning. */
export function calibrationOf(placed: PlacedTree, onDay: number, known: Known = NOTHING_LEARNT): Calibration {
  const course = courseOf(placed, known);
  const learnedBy = new Map<number, ReturnType<typeof learnedOf>>();
  const learned = (day: number): ReturnType<typeof learnedOf> => {
    if (!learnedBy.has(day)) learnedBy.set(day, learnedOf(placed, day, known));
    return learnedBy.get(day)!;
  };
  return coilHistory(placed.tree, onDay)
    .filter((coil) => coil.seen.length && woodIn(placed, coil.branch) !== undefined)
    .reduce((sum, coil) => {
      const state = stateOf(placed, { ...coil, seen: [] }, learned(coil.since - 1).of(coil.branch), { course, spring: known.spring, heldBefore: 0 });
      const { p10, p90 } = forecast(state).marking;
      const [from, to] = [p10 ?? coil.since + HORIZON_DAYS, p90 ?? Infinity];
      const [after, by] = firstMark(coil.seen, coil.since);
      if (by < Infinity) {
        if (by < from) return addCases(sum, { ...NO_CASES, early: 1 });
        return addCases(sum, after > to ? { ...NO_CASES, late: 1 } : { ...NO_CASES, inside: 1 });
      }
      return addCases(sum, after > to ? { ...NO_CASES, late: 1 } : { ...NO_CASES, open: 1 });
    }, NO_CASES);
}
