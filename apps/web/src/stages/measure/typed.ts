import { useSyncExternalStore } from 'react';

/** A value as it was typed that cannot be taken as it is: it stays in its field, with what is wrong. */
export interface Typed {
  text: string;
  fault: string;
}

/** Values not stored, by tree and field; and fields of new lines that nobody has measured yet. They outlast the page: what nobody measured never looks measured. */
interface Kept {
  typed: Record<string, Typed>;
  unmeasured: string[];
}
const KEY = 'ustle-typed';
const EMPTY: Kept = { typed: {}, unmeasured: [] };

function read(): Record<string, Kept> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Record<string, Kept>;
  } catch {
    return {};
  }
}

let all = read();
const listeners = new Set<() => void>();

function change(tree: string, to: Kept): void {
  all = { ...all, [tree]: to };
  localStorage.setItem(KEY, JSON.stringify(all));
  listeners.forEach((listen) => listen());
}
const keptOf = (tree: string): Kept => all[tree] ?? EMPTY;

export const keepTyped = (tree: string, field: string, typed: Typed | null): void => {
  const before = keptOf(tree);
  if (!typed && !before.typed[field]) return;
  const { [field]: _was, ...others } = before.typed;
  change(tree, { ...before, typed: typed ? { ...others, [field]: typed } : others });
};

/** Forgets what was typed for fields that begin so, such as those of a branch that is gone. */
export const forgetTyped = (tree: string, prefix: string): void => {
  const { typed, unmeasured } = keptOf(tree);
  const rest = Object.fromEntries(Object.entries(typed).filter(([field]) => !field.startsWith(prefix)));
  change(tree, { typed: rest, unmeasured: unmeasured.filter((field) => !field.startsWith(prefix)) });
};

export const markUnmeasured = (tree: string, fields: readonly string[]): void => {
  const before = keptOf(tree);
  change(tree, { ...before, unmeasured: [...new Set([...before.unmeasured, ...fields])] });
};
export const markMeasured = (tree: string, field: string): void => {
  const before = keptOf(tree);
  if (before.unmeasured.includes(field)) change(tree, { ...before, unmeasured: before.unmeasured.filter((f) => f !== field) });
};

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};
export const useTyped = (tree: string): Kept => useSyncExternalStore(subscribe, () => keptOf(tree));
export const isUnmeasured = (tree: string, field: string): boolean => keptOf(tree).unmeasured.includes(field);
