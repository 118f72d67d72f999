import { greatestOf } from '../units/index.js';
import { woodIn, coilHistory, VIGOUR_FACTOR, type CoilOnce, type MarkStage, type PlacedTree } from '../tree/index.js';
import { MARK_STAGES } from '../tree/index.js';
import { speciesOf } from '../species/index.js';
import { courseOf, stateOf } from './coil-state.js';
import { expectedGrowth, stretchesOf } from './forecast.js';
import { learnedOf } from './learned.js';
import { NOTHING_LEARNT, type Known } from './known.js';
import { stageStarts } from './marking.js';
import { quantile } from './unknown.js';

/** What a coil left in the bark. */
export interface Scar {
  branch: string;
  run: string;
  /** Day number that the wire came off, or was last seen marking while it is still on. */
  since: number;
  stage: Exclude<MarkStage, 'clear' | 'touching'>;
  /** About how deep the wire lay, mm; an estimate within what was seen. */
  depth: number;
  /** Day number by which it is likely to have grown out; null where it stays. */
  growsOut: number | null;
  on: boolean;
}

/** How much longer marks take that are deeper than shallow; a swallowed wire leaves its line for good. Own estimates. */
const LONGER: Record<Scar['stage'], number | null> = { marking: 1, deep: 2.5, swallowed: null };
const DAYS_A_YEAR = 365.25;
const SLOWEST = 3;

const worst = (coil: CoilOnce): MarkStage =>
  coil.seen.reduce<MarkStage>((most, s) => (MARK_STAGES.indexOf(s.stage) > MARK_STAGES.indexOf(most) ? s.stage : most), 'clear');

/** Marks that were seen under coils, newest first, with their depth and when they have grown out. docs: Scars. */
export function scarsOf(placed: PlacedTree, onDay: number, known: Known = NOTHING_LEARNT): Scar[] {
  const { tree } = placed;
  const fade = speciesOf(tree.species).markFadeYears;
  const learned = learnedOf(placed, onDay, known);
  const course = courseOf(placed, known);
  return coilHistory(tree, onDay)
    .filter((coil) => woodIn(placed, coil.branch) !== undefined)
    .flatMap((coil): Scar[] => {
      const stage = worst(coil);
      if (stage === 'clear' || stage === 'touching') return [];
      const last = coil.seen.filter((s) => s.stage === stage)[0]!.day;
      const since = coil.offOn ?? last;
      const state = stateOf(placed, coil, learned.of(coil.branch), { course, spring: known.spring, heldBefore: 0 });
      const grown = (expectedGrowth(state, since) / state.factor) * Math.exp(quantile(state.unknown, 0.5));
      const starts = stageStarts(state.markLimit, coil.size);
      const [least, most] = { marking: [starts.marking, starts.deep], deep: [starts.deep, starts.swallowed], swallowed: [starts.swallowed, starts.swallowed] }[
        stage
      ] as [number, number];
      const depth = greatestOf(stretchesOf(state).map((s) => grown * s.factor - s.allowance));
      const longer = LONGER[stage];
      const pace = Math.min(SLOWEST, 1 / Math.sqrt(VIGOUR_FACTOR[tree.vigour]));
      return [
        {
          branch: coil.branch,
          run: coil.run,
          since,
          stage,
          depth: Math.min(most, Math.max(least, depth)),
          growsOut: fade === null || longer === null ? null : Math.round(since + fade * longer * pace * DAYS_A_YEAR),
          on: coil.offOn === null,
        },
      ];
    })
    .sort((a, b) => b.since - a.since || (a.branch < b.branch ? -1 : 1));
}
