import { dayOf, northernMonth, type Hemisphere, type Species, type Task } from '@ustle/core';

/** A lane is so long: eighteen months. */
export const DAYS = 548;

/** The months in which a kind of work is good for a tree, as stretches of the lane. */
export function goodMonths(species: Species, task: Task, hemisphere: Hemisphere, from: string): [number, number][] {
  const found: [number, number][] = [];
  const first = dayOf(from);
  for (let day = first; day < first + DAYS; day += 7) {
    if (!species.months[task].good.includes(northernMonth(hemisphere, day))) continue;
    const at: [number, number] = [((day - first) / DAYS) * 100, (Math.min(DAYS, day - first + 7) / DAYS) * 100];
    const last = found[found.length - 1];
    if (last && Math.abs(last[1] - at[0]) < 1e-6) last[1] = at[1];
    else found.push(at);
  }
  return found;
}
