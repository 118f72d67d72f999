import { speciesOf, yearlyGrowthOf } from '../species/index.js';
import { VIGOUR_FACTOR, woodIn, type PlacedTree } from '../tree/index.js';
import { courseOf } from './coil-state.js';
import { grownAlong } from './course.js';
import { HORIZON_DAYS } from './forecast.js';
import { NOTHING_LEARNT, type Known } from './known.js';
import { learnedOf } from './learned.js';
import { quantile } from './unknown.js';

/** Wood below a branch that runs free thickens as on a free-growing tree, were it fed and not cut back. */
const FREE_RUN = 1.8;

/** When wood (a branch, or trunk) below a free-running branch will have grown by so much in diameter (mm): early, likely and late day; null beyond fifteen years. docs: Sacrifice. */
export function thickensBy(
  placed: PlacedTree,
  wood: string,
  fromDay: number,
  diameterMm: number,
  known: Known = NOTHING_LEARNT,
): { early: number | null; likely: number | null; late: number | null } {
  const { tree } = placed;
  const unknown = learnedOf(placed, fromDay, known).of(wood);
  const course = courseOf(placed, known);
  const share = (to: number): number => grownAlong(species, tree.site.hemisphere, course, fromDay, to);
  const species = speciesOf(tree.species);
  const factor = Math.min(FREE_RUN, VIGOUR_FACTOR[tree.vigour] * FREE_RUN);
  const yearly = yearlyGrowthOf(species, woodIn(placed, wood)!.branch.d) * factor;
  const when = (p: number): number | null => {
    const needed = Math.max(0, diameterMm / 2) / (yearly * Math.exp(quantile(unknown, p)));
    let [low, high] = [fromDay, fromDay + HORIZON_DAYS];
    if (share(high) < needed) return null;
    while (high - low > 1) {
      const middle = Math.floor((low + high) / 2);
      if (share(middle) >= needed) high = middle;
      else low = middle;
    }
    return high;
  };
  return { early: when(0.9), likely: when(0.5), late: when(0.1) };
}
