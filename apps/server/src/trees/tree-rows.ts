import { brokenTree, isoOf, MOST_PINNED, type Act, type Before, type RecordLine, type Step, type Tree } from '@ustle/core';
import type { EntityManager } from 'typeorm';
import { ProblemException } from '../problem.js';
import { ActRow, BeforeRow, ForgottenRow, LineRow, MeasuresRow, TreeRow } from '../store/entities.js';

const CHUNK = 200;

const split = ({ plan, record: _record, ...own }: Tree): { plan: string; own: string } => ({ plan: JSON.stringify(plan), own: JSON.stringify(own) });

/** Stores a new tree with its record; lines without an id get the next free one. */
export async function insertTree(db: EntityManager, id: string, tree: Tree): Promise<void> {
  const { plan, own } = split(tree);
  await db.insert(TreeRow, { id, revision: 1, name: tree.name, species: tree.species, recorded: tree.record.length, plan, asideOn: null });
  await db.insert(MeasuresRow, { treeId: id, document: own });
  const used = new Set(tree.record.flatMap((line) => line.id ?? []));
  let next = 1;
  const free = (): string => {
    while (used.has(`r${next}`)) next++;
    used.add(`r${next}`);
    return `r${next}`;
  };
  await insertLines(
    db,
    id,
    0,
    tree.record.map((line) => ({ ...line, id: line.id ?? free() })),
  );
}

/** Stores what changed of a tree: its plan, and its measures where they are others. */
export async function updateTree(db: EntityManager, id: string, revision: number, before: Tree, after: Tree): Promise<void> {
  const { plan: _a, record: _b, ...own } = after;
  const touched = Object.keys({ ...before, ...own }).some((k) => k !== 'plan' && k !== 'record' && before[k as keyof Tree] !== after[k as keyof Tree]);
  await db.update(TreeRow, { id }, { revision, name: after.name, species: after.species, plan: JSON.stringify(after.plan) });
  if (touched) await db.update(MeasuresRow, { treeId: id }, { document: JSON.stringify(own) });
}

/** Adds lines to a record that has so many. */
export async function insertLines(db: EntityManager, treeId: string, recorded: number, lines: readonly RecordLine[]): Promise<void> {
  const rows = lines.map((line, i) => ({
    treeId,
    ordinal: recorded + i,
    lineId: line.id!,
    on: line.on,
    kind: line.kind,
    document: JSON.stringify(line),
  }));
  for (let i = 0; i < rows.length; i += CHUNK) await db.insert(LineRow, rows.slice(i, i + CHUNK));
  if (rows.length) await db.update(TreeRow, { id: treeId }, { recorded: recorded + rows.length });
}

/** What is kept of a tree as it is kept, whether it can be read or not. */
export interface KeptTree {
  row: TreeRow;
  own: string;
  record: LineRow[];
}

export async function keptTree(db: EntityManager, id: string): Promise<KeptTree | null> {
  const row = await db.findOneBy(TreeRow, { id });
  if (!row) return null;
  const own = await db.findOneBy(MeasuresRow, { treeId: id });
  return { row, own: own?.document ?? 'null', record: await db.find(LineRow, { where: { treeId: id }, order: { ordinal: 'ASC' } }) };
}

/** A tree whose documents are no tree: it alone cannot be worked with. */
export class UnreadableTree extends ProblemException {
  constructor({ row }: KeptTree, why: string) {
    super(422, {
      code: 'unreadable',
      field: 'id',
      message: `What is kept of ${row.name} cannot be read: ${why} Nothing of it is lost: save it as it is kept, then put it aside; an older copy of the data may hold it sound.`,
    });
  }
}

/** A stored tree with its revision, and when it was put aside; null for an unknown id. Fails where what is kept is no tree. */
export async function loadTree(db: EntityManager, id: string): Promise<{ revision: number; tree: Tree; asideOn: string | null } | null> {
  const kept = await keptTree(db, id);
  if (!kept) return null;
  const { row, own, record } = kept;
  let tree: Tree;
  try {
    tree = { ...(JSON.parse(own) as object), plan: JSON.parse(row.plan) as unknown, record: record.map((l) => JSON.parse(l.document) as unknown) } as Tree;
  } catch (error) {
    throw new UnreadableTree(kept, `${error instanceof Error ? error.message : String(error)}.`);
  }
  const fault = brokenTree(tree);
  if (fault) throw new UnreadableTree(kept, `${fault.path}: ${fault.message}`);
  // Earlier versions kept any number of fronts open.
  const { pinned } = tree.plan;
  if (pinned && pinned.length > MOST_PINNED) tree = { ...tree, plan: { ...tree.plan, pinned: pinned.slice(0, MOST_PINNED) } };
  return { revision: row.revision, tree, asideOn: row.asideOn };
}

/** Bytes that a tree takes with its plan and record. */
export async function bytesOf(db: EntityManager, id: string): Promise<number> {
  const [sum] = (await db.query(
    `SELECT (SELECT LENGTH(CAST("plan" AS BLOB)) FROM "tree" WHERE "id" = ?) + (SELECT LENGTH(CAST("document" AS BLOB)) FROM "measures" WHERE "treeId" = ?)
      + (SELECT COALESCE(SUM(LENGTH(CAST("document" AS BLOB)) + 1), 0) FROM "line" WHERE "treeId" = ?) AS "bytes"`,
    [id, id, id],
  )) as { bytes: number }[];
  return sum!.bytes;
}

/** Deletes a tree for good, its record with it; of it only stays that it was here. */
export async function forgetTree(db: EntityManager, treeId: string): Promise<void> {
  await db.insert(ForgottenRow, { treeId });
  for (const rows of [BeforeRow, ActRow, LineRow, MeasuresRow]) await db.delete(rows, { treeId });
  await db.delete(TreeRow, { id: treeId });
}

/** What a line of a record says; null where what is kept is none, on a tree that cannot be read. */
export function lineIn({ document }: Pick<LineRow, 'document'>): RecordLine | null {
  try {
    const line = JSON.parse(document) as unknown;
    return typeof line === 'object' && line !== null && 'kind' in line && 'on' in line ? (line as RecordLine) : null;
  } catch {
    return null;
  }
}

/** Ids of the photos that the record of a tree names, or those of all trees. */
export async function photosOf(db: EntityManager, treeId?: string): Promise<Set<string>> {
  const rows = await db.find(LineRow, { where: { kind: 'photo', ...(treeId === undefined ? {} : { treeId }) } });
  return new Set(rows.flatMap((row) => (lineIn(row) as { photo?: string } | null)?.photo ?? []));
}

/** Taking back and making again are kept among the acts. */
export type StoredAct = Act | (Step & { on: string });

const KEPT_STEPS = 200;

/** Keeps an act with what it found; of the oldest only the act itself stays. */
export async function insertAct(
  db: EntityManager,
  treeId: string,
  act: StoredAct,
  { lines, before, of, revision }: { lines: readonly string[]; before: Before | null } & Pick<ActRow, 'of' | 'revision'>,
): Promise<void> {
  await db.insert(ActRow, { id: act.id, treeId, kind: act.kind, document: JSON.stringify(act), lines: [...lines], of, desk: act.desk ?? null, revision });
  if (!before) return;
  await db.insert(BeforeRow, { act: act.id, treeId, document: JSON.stringify(before) });
  await db.query(`DELETE FROM "before" WHERE "treeId" = ? AND "act" IN (SELECT "id" FROM "act" WHERE "treeId" = ? ORDER BY "ordinal" DESC LIMIT 50 OFFSET ?)`, [
    treeId,
    treeId,
    KEPT_STEPS,
  ]);
}

export const stepOn = (step: Step, today: number): StoredAct => ({ ...step, on: isoOf(today) });
