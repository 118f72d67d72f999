import { howKnown, type KnownBy, type Tree } from '@ustle/core';
import type { Column } from './columns';

export const KNOWN_WORDS: Record<KnownBy, string> = { ruler: 'by ruler', photographs: 'from photographs', drawn: 'drawn by eye', guessed: 'guessed' };

const NOTHING: Partial<Record<Column, string>> = {};
const remembered = new WeakMap<Tree, Map<string, Partial<Record<Column, string>>>>();

/** How well the figures of a branch are known, said by column; nothing of one that was measured. The same object while the tree is the same. */
export function unsureOf(tree: Tree, id: string): Partial<Record<Column, string>> {
  const known = remembered.get(tree) ?? new Map<string, Partial<Record<Column, string>>>();
  remembered.set(tree, known);
  const before = known.get(id);
  if (before) return before;
  const branch = tree.branches.find((b) => b.id === id);
  if (!branch?.known || branch.known.how === 'ruler') return NOTHING;
  const { how, d, deg, length } = howKnown(tree, id);
  const said = KNOWN_WORDS[how];
  const mm = (x: number): string => `${said}, ± ${x < 10 ? x.toFixed(1) : x.toFixed(0)} mm`;
  const degrees = `${said}, ± ${deg.toFixed(0)}°`;
  const found = { d: mm(d), tipD: mm(d), length: mm(length), at: said, bearing: degrees, elevation: degrees };
  known.set(id, found);
  return found;
}
