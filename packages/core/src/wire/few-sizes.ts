import { groupedBy, leastOf } from '../units/index.js';
import { canBeWoundOn } from './choose.js';
import type { Need } from './limb-work.js';

/** So many sizes of wire a bench has at hand for one tree. */
export const MOST_SIZES = 5;

type Sized = Pick<Need, 'branch' | 'metal' | 'size' | 'diameter'>;

/**
 * Fewer sizes of wire for a tree: as long as there are more than a bench has at hand, the size whose branches lose least by it goes up to the
 * next one that is used, where that still winds on each of them. Branches by the size that they get instead of their own. docs: Choosing.
 */
export function fewerSizes(needs: readonly Sized[]): Map<string, number> {
  const keyOf = ({ metal, size }: Pick<Need, 'metal' | 'size'>): string => `${metal} ${size}`;
  const groups = groupedBy(
    needs.map((n) => ({ ...n })),
    keyOf,
  );
  while (groups.size > MOST_SIZES) {
    const steps = [...groups].flatMap(([key, own]) => {
      const { metal, size } = own[0]!;
      const larger = [...groups.keys()].flatMap((k) => (k.startsWith(`${metal} `) && Number(k.split(' ')[1]) > size ? Number(k.split(' ')[1]) : []));
      if (!larger.length) return [];
      const next = leastOf(larger);
      // What moves a branch grows with the cube of the wire: so much more is wound than it needs.
      return !own.every((n) => canBeWoundOn(next, n.diameter)) ? [] : [{ key, next, cost: own.length * ((next / size) ** 3 - 1) }];
    });
    if (!steps.length) break;
    const { key, next } = steps.reduce((best, s) => (s.cost < best.cost ? s : best));
    const moved = groups.get(key)!.map((n) => ({ ...n, size: next }));
    groups.delete(key);
    const there = keyOf(moved[0]!);
    groups.set(there, [...(groups.get(there) ?? []), ...moved]);
  }
  const before = new Map(needs.map((n) => [n.branch, n.size]));
  return new Map([...groups.values()].flat().flatMap((n) => (before.get(n.branch) === n.size ? [] : [[n.branch, n.size] as const])));
}
