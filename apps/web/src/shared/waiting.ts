import type { Act } from '@ustle/core';
import { askToKeep } from './day';

/** Acts that the server has not taken yet, by tree. They outlast a reload, and are sent again by the ids they have. */
const KEY = 'ustle-waiting';

type Kept = Record<string, Act[]>;

function read(): Kept {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Kept;
  } catch {
    return {};
  }
}

export const keptActs = (tree: string): Act[] => read()[tree] ?? [];
export const treesWithKeptActs = (): string[] => Object.keys(read());

export function keepActs(tree: string, acts: readonly Act[]): void {
  const { [tree]: _before, ...others } = read();
  const all = acts.length ? { ...others, [tree]: acts } : others;
  if (acts.length) askToKeep();
  if (Object.keys(all).length) localStorage.setItem(KEY, JSON.stringify(all));
  else localStorage.removeItem(KEY);
}
