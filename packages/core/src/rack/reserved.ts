import { coilsOn, type Tree } from '../tree/index.js';
import type { Piece } from './needs.js';

/** The pieces that a tree's plan has settled and that are not on it: wire that is spoken for. A settled piece without a length is none: the plan has yet to measure it. */
export function reservedBy(id: string, tree: Tree, onDay: number): Piece[] {
  const on = new Set(coilsOn(tree, onDay).map((c) => c.run));
  return tree.plan.runs.flatMap(({ id: run, metal, size, strands, length }) =>
    length === undefined || on.has(run) ? [] : Array.from({ length: strands }, (): Piece => ({ metal, size, length, tree: id, run })),
  );
}
