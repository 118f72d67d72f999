import type { StepKind } from './step.js';

/** Steps of a kind that were timed: minutes that the rule gave them and that they took, summed. */
export interface Timed {
  cases: number;
  reckoned: number;
  took: number;
}
/** How fast an artist works, by kind of step. */
export type Pace = Partial<Record<StepKind, Timed>>;

/** The rule weighs as much as so many cases of its own. */
const RULE_CASES = 3;
/** A step that took so many times its rule was left lying: nobody works that long at it. */
const MOST_TIMES = 8;

/** The kind of a step by its key. */
export const kindOfStep = (key: string): StepKind => key.slice(0, (key.indexOf(':') + 1 || key.length + 1) - 1) as StepKind;

/** The pace of an artist, by the steps that were timed. */
export function paceOf(timed: readonly { step: string; reckoned: number; minutes: number }[]): Pace {
  const pace: Pace = {};
  for (const { step, reckoned, minutes } of timed) {
    if (reckoned <= 0 || minutes <= 0 || minutes > MOST_TIMES * reckoned) continue;
    const kind = kindOfStep(step);
    const { cases, reckoned: rule, took } = pace[kind] ?? { cases: 0, reckoned: 0, took: 0 };
    pace[kind] = { cases: cases + 1, reckoned: rule + reckoned, took: took + minutes };
  }
  return pace;
}

/** How many times the rule's minutes a kind of step takes: 1 before anything is known, the artist's own after many. docs: Hours. */
export function paceFor(pace: Pace, kind: StepKind): number {
  const timed = pace[kind];
  if (!timed || !timed.cases) return 1;
  const rule = (timed.reckoned / timed.cases) * RULE_CASES;
  return (timed.took + rule) / (timed.reckoned + rule);
}
