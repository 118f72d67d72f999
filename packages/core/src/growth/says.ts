import { placeTree, type Tree } from '../tree/index.js';
import { calibrationOf, NO_CASES, type Calibration } from './calibration.js';
import { fromOthers, NOTHING_LEARNT, type Known, type Said } from './known.js';
import { learnedOf } from './learned.js';

/** What one tree's record says of its kind at its place. */
export interface TreeSays {
  species: string;
  growth: Said;
  spring: Said;
  /** Looks, gaps and thicknesses that growth was learnt from. */
  looks: number;
  cases: Calibration;
}

const DIGITS = 100;
/** So little changes nothing that anybody would see, and all forecasts of a kind need not be made anew for it. */
const rounded = (x: number): number => Math.round(x * DIGITS) / DIGITS;

/** A tree that tells nothing of its kind. */
export const saysNothing = (species: string): TreeSays => ({ species, growth: NO_WORD, spring: NO_WORD, looks: 0, cases: NO_CASES });

/** What a tree's record says of its kind, by a day. */
export function treeSays(tree: Tree, onDay: number): TreeSays {
  if (!tree.record.length) return saysNothing(tree.species);
  const placed = placeTree(tree);
  const { tree: growth, springSaid: spring, looks } = learnedOf(placed, onDay);
  // A pace that its artist gave it is not evidence for others.
  return { species: tree.species, growth: tree.plan.pace ? NO_WORD : growth, spring, looks, cases: calibrationOf(placed, onDay) };
}
const NO_WORD: Said = { mean: 0, precision: 0 };

/** What is taken of a tree from what others of its kind say, and from the weather at their place. docs: Learning. */
export function knownFrom(others: readonly TreeSays[], { ahead, aheadIn }: Pick<Known, 'ahead' | 'aheadIn'> = NOTHING_LEARNT): Known {
  const guess = (said: readonly Said[], first: Known['growth']): Known['growth'] => {
    const { mean, sd } = fromOthers(said, first);
    return { mean: rounded(mean), sd: rounded(sd) };
  };
  return {
    growth: guess(
      others.map((o) => o.growth),
      NOTHING_LEARNT.growth,
    ),
    spring: guess(
      others.map((o) => o.spring),
      NOTHING_LEARNT.spring,
    ),
    ahead,
    aheadIn,
  };
}
