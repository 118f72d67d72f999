import { growthShare, speciesOf } from '../species/index.js';
import { VIGOUR_FACTOR, type Tree } from '../tree/index.js';
import { quantile, NOTHING_KNOWN } from './unknown.js';
import { HORIZON_DAYS } from './forecast.js';

/** Wood below a branch that runs free thickens as on a free-growing tree, were it fed and not cut back. */
const FREE_RUN = 1.8;

/** When wood below a free-running branch will have grown by so much in diameter (mm): early, likely and late day; null beyond fifteen years. docs: Sacrifice. */
export function thickensBy(tree: Tree, fromDay: number, diameterMm: number): { early: number | null; likely: number | null; late: number | null } {
  const species = speciesOf(tree.species);
  const factor = Math.min(FREE_RUN, VIGOUR_FACTOR[tree.vigour] * FREE_RUN);
  const yearly = species.yearlyGrowth.value * factor;
  const when = (p: number): number | null => {
    const needed = Math.max(0, diameterMm / 2) / (yearly * Math.exp(quantile(NOTHING_KNOWN, p)));
    let [low, high] = [fromDay, fromDay + HORIZON_DAYS];
    if (growthShare(species, tree.site.hemisphere, fromDay, high) < needed) return null;
    while (high - low > 1) {
      const middle = Math.floor((low + high) / 2);
      if (growthShare(species, tree.site.hemisphere, fromDay, middle) >= needed) high = middle;
      else low = middle;
    }
    return high;
  };
  return { early: when(0.9), likely: when(0.5), late: when(0.1) };
}
