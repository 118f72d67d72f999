import type { Branch } from './measures.js';
import type { Tree } from './types.js';

/** Branches that grow nearer to each other along their limb than so many thicknesses are beside each other. */
const BESIDE = 3;

/** Whether work on some branches lies in the way of work on others: on the same branch, on what it grows on, or beside it along their limb. */
export function inTheWay({ branches }: Pick<Tree, 'branches'>, some: readonly string[], others: readonly string[]): boolean {
  const of = (ids: readonly string[]): Branch[] => branches.filter((b) => ids.includes(b.id));
  const [mine, theirs] = [of(some), of(others)];
  return mine.some((a) =>
    theirs.some((b) => {
      if (a.id === b.id || a.parent === b.id || b.parent === a.id) return true;
      return a.parent === b.parent && Math.abs(a.at - b.at) <= BESIDE * Math.max(a.d, b.d);
    }),
  );
}
