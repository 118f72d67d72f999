import type { Act, Done } from '@ustle/core';
import type { EntityManager } from 'typeorm';
import { ActRow, BeforeRow } from '../store/entities.js';

/** What can be taken back and made again on a tree, by the ids of the acts, newest last. */
export interface Stacks {
  done: readonly string[];
  undone: readonly string[];
}

/** The stacks after one more act, by its kind. */
export function stacked({ done, undone }: Stacks, { id, kind }: { id: string; kind: string }): Stacks {
  if (kind === 'undo') return { done: done.slice(0, -1), undone: done.length ? [...undone, done[done.length - 1]!] : undone };
  if (kind === 'redo') return { done: [...done, id], undone: undone.slice(0, -1) };
  return { done: [...done, id], undone: [] };
}

/** The stacks of a tree, from all its acts in turn. */
export async function stacksOf(db: EntityManager, treeId: string): Promise<Stacks> {
  const rows = await db.find(ActRow, { where: { treeId }, select: { id: true, kind: true, ordinal: true }, order: { ordinal: 'ASC' } });
  return rows.reduce<Stacks>(stacked, { done: [], undone: [] });
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

/** An act with what is needed to take it back; null where that is no longer kept. */
export async function doneOf(db: EntityManager, id: string | undefined): Promise<Done | null> {
  if (id === undefined) return null;
  const [row, before] = [await db.findOneByOrFail(ActRow, { id }), await db.findOneBy(BeforeRow, { act: id })];
  return before && { act: await actOf(db, id), lines: row.lines, before: JSON.parse(before.document) as Done['before'] };
}
