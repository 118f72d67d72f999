import equal from 'fast-deep-equal';
import type { Tree } from '@ustle/core';

function kept<T extends object>(now: T, before: T): T {
  const keys = Object.keys(now) as (keyof T)[];
  const parts = keys.map((key) => (equal(now[key], before[key]) ? before[key] : now[key]));
  const same = keys.length === Object.keys(before).length && keys.every((key, i) => parts[i] === before[key]);
  return same ? before : (Object.fromEntries(keys.map((key, i) => [key, parts[i]])) as T);
}

/** A tree made of the parts of the one before wherever they are alike, the same one where all are: what was drawn or computed from them holds. */
export const withSameParts = (now: Tree, before: Tree): Tree => kept({ ...now, plan: kept(now.plan, before.plan) }, before);
