import type { Act, Done } from '@ustle/core';
import { MoreThan, type EntityManager } from 'typeorm';
import { ActRow, BeforeRow } from '../store/entities.js';

/** An act on its stack: whose it is, and the revision that it made of the tree, if one. */
export type Stacked = Pick<ActRow, 'id' | 'desk' | 'revision'>;

/** What can be taken back and made again on a tree, newest last. */
export interface Stacks {
  done: readonly Stacked[];
  undone: readonly Stacked[];
}

/** What a device did is its own; what no device signed is anybody's. */
const isOwn = ({ desk }: Pick<Stacked, 'desk'>, mine: string | null): boolean => desk === null || desk === mine;

const without = (stack: readonly Stacked[], id: string): Stacked[] => stack.filter((s) => s.id !== id);

/** The stacks after one more act, by its kind; `of` is the act that a step is about. */
export function stacked({ done, undone }: Stacks, act: Stacked & Pick<ActRow, 'kind' | 'of'>): Stacks {
  const one: Stacked = { id: act.id, desk: act.desk, revision: act.revision };
  if (act.kind === 'undo') {
    const of = done.find((d) => d.id === act.of);
    return of ? { done: without(done, of.id), undone: [...undone, of] } : { done, undone };
  }
  if (act.kind === 'redo') return { done: [...done, one], undone: without(undone, act.of!) };
  // What was taken back is made again on what it was taken back from: not once that is another.
  return { done: [...done, one], undone: act.revision === null ? undone.filter((u) => !isOwn(u, act.desk)) : [] };
}

/** The stacks of a tree, from all its acts in turn. */
export async function stacksOf(db: EntityManager, treeId: string): Promise<Stacks> {
  const select = { id: true, kind: true, of: true, desk: true, revision: true, ordinal: true } as const;
  const rows = await db.find(ActRow, { where: { treeId }, select, order: { ordinal: 'ASC' } });
  return rows.reduce<Stacks>(stacked, { done: [], undone: [] });
}

/** The act that a step of a device would take back, or make again: the newest of its own. */
export const meant = ({ done, undone }: Stacks, kind: 'undo' | 'redo', desk: string | null): Stacked | undefined =>
  (kind === 'undo' ? done : undone).filter((s) => isOwn(s, desk)).at(-1);

/** What changed a tree after an act, and was another's: that cannot be taken back from under it. */
export function builtOn({ done }: Stacks, act: Stacked): Stacked | undefined {
  if (act.revision === null) return undefined;
  return done.slice(done.findIndex((d) => d.id === act.id) + 1).find((d) => d.revision !== null);
}

/** An act as it was first made: what was made again is followed back to that, which was before it. */
export async function actOf(db: EntityManager, id: string): Promise<Act> {
  let row = await db.findOneByOrFail(ActRow, { id });
  while (row.kind === 'redo') {
    const first = await db.findOneByOrFail(ActRow, { id: row.of! });
    if (first.ordinal >= row.ordinal) throw new Error(`Act "${row.id}" makes "${first.id}" again, which is not before it.`);
    row = first;
  }
  return JSON.parse(row.document) as Act;
}

/** The acts that made a tree's revisions after one, each as it was first made: a step back by the act that it took back. */
export async function actsAfter(db: EntityManager, treeId: string, revision: number): Promise<Act[]> {
  const rows = await db.find(ActRow, { where: { treeId, revision: MoreThan(revision) } });
  return Promise.all(rows.map((row) => actOf(db, row.kind === 'undo' ? row.of! : row.id)));
}

/** An act with what is needed to take it back; null where that is no longer kept. */
export async function doneOf(db: EntityManager, id: string | undefined): Promise<Done | null> {
  if (id === undefined) return null;
  const [row, before] = [await db.findOneByOrFail(ActRow, { id }), await db.findOneBy(BeforeRow, { act: id })];
  return before && { act: await actOf(db, id), lines: row.lines, before: JSON.parse(before.document) as Done['before'] };
}
