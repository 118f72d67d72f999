import { dayOf, monthName, sayDay } from '../units/index.js';
import { northernMonth, speciesOf } from '../species/index.js';
import { removedIds, type Tree, type Vigour } from '../tree/index.js';

const VIGOUR_CAPACITY: Record<Vigour, number> = { weak: 0.3, refined: 0.8, normal: 0.9, strong: 1.1, free: 1.3 };

/** Green taken off by the plan, and the most to take in a year from this tree; shares 0..1. */
export function greenTally(tree: Tree): { removed: number; cap: number } {
  const gone = removedIds(tree);
  const removed = tree.branches.filter((b) => gone.has(b.id)).reduce((sum, b) => sum + b.green, 0);
  return { removed, cap: speciesOf(tree.species).greenCap.value * Math.min(1.15, VIGOUR_CAPACITY[tree.vigour] / 0.9) };
}

export interface Reading {
  verdict: 'go' | 'light' | 'leave';
  /** 1 = a full session's work on a tree of ordinary strength. */
  capacity: number;
  used: number;
  because: string[];
}

const monthsBetween = (from: number, to: number): number => (to - from) / 30.44;

/** Whether the tree is strong enough today, and how much may be done. */
export function readTree(tree: Tree, onDay: number, work: { heavyBends: number; wiredShare: number } = { heavyBends: 0, wiredShare: 0 }): Reading {
  const species = speciesOf(tree.species);
  const because = [`${tree.vigour[0]!.toUpperCase()}${tree.vigour.slice(1)} growth.`];
  let capacity = VIGOUR_CAPACITY[tree.vigour];
  const ease = (factor: number, sentence: string): void => {
    capacity *= factor;
    because.push(sentence);
  };
  const repotted = tree.repottedOn ? dayOf(tree.repottedOn) : null;
  if (repotted !== null && repotted <= onDay) {
    const months = monthsBetween(repotted, onDay);
    if (months < 3) ease(0.3, `Repotted on ${sayDay(repotted)}: its roots are still taking hold.`);
    else if (months < 12) ease(0.6, `Repotted on ${sayDay(repotted)}: within a year of that, do less.`);
  }
  const collected = tree.collectedOn ? dayOf(tree.collectedOn) : null;
  if (collected !== null && collected <= onDay) {
    const months = monthsBetween(collected, onDay);
    if (months < 18) ease(0.15, `Collected on ${sayDay(collected)}: leave it to root.`);
    else if (months < 36) ease(0.5, `Collected on ${sayDay(collected)}: first works only.`);
  }
  const month = northernMonth(tree.site.hemisphere, onDay);
  const { good, bad } = species.months.wiring;
  if (bad.includes(month)) ease(0.5, `${monthName(month)} (northern calendar) is a bad month to work on ${species.name.toLowerCase()}.`);
  else if (!good.includes(month)) ease(0.8, `${monthName(month)} (northern calendar) is not its best month for structural work.`);
  const green = greenTally(tree);
  const used = green.removed / green.cap + 0.25 * work.heavyBends + 0.3 * work.wiredShare;
  if (used > capacity) because.push('The plan asks for more than this: leave part of it for the next session.');
  return { verdict: capacity < 0.25 ? 'leave' : capacity < 0.6 ? 'light' : 'go', capacity, used, because };
}
