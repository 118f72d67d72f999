import type { LineOf } from './lines.js';
import { standing } from './record.js';
import type { Tree } from './types.js';

/** Something that was promised to a tree, and what became of it. */
export interface Vow {
  line: LineOf<'promised'>;
  /** Null while it is owed. */
  ended: LineOf<'fulfilled'> | null;
}

/** What was promised to a tree, in the order in which it may be done. */
export function vowsOf(tree: Tree): Vow[] {
  const lines = standing(tree.record);
  const ended = new Map(lines.flatMap((l): [string, LineOf<'fulfilled'>][] => (l.kind === 'fulfilled' ? [[l.promise, l]] : [])));
  return lines
    .flatMap((line): Vow[] => (line.kind === 'promised' && line.id ? [{ line, ended: ended.get(line.id) ?? null }] : []))
    .sort((a, b) => ((a.line.from ?? a.line.on) < (b.line.from ?? b.line.on) ? -1 : 1));
}
