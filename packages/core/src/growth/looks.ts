import { isGrowing, type Hemisphere, type Species } from '../species/index.js';

const DORMANT_WEEKS = 12;
/** What is on a branch is looked at so often while it grows, weeks; where its bark is thin, green or marked, sooner. */
export const GROWING_WEEKS = 6;
export const TENDER_WEEKS = 2;

/** The day to look again, counted from the last look: each day uses up its share of the longest interval, dormant days less of it. */
export function lookAfter(species: Species, hemisphere: Hemisphere, from: number, weeks: number): number {
  let used = 0;
  let day = from;
  while (used < 1 - 1e-9 && day < from + DORMANT_WEEKS * 7) used += 1 / (7 * (isGrowing(species, hemisphere, day++) ? weeks : DORMANT_WEEKS));
  return day;
}
