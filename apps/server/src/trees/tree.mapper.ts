import type { Branch, Decision, Feature, Guy, Pose, RecordEntry, Run, RunBranch, Tree } from '@ustle/core';
import type { EntityManager } from 'typeorm';
import {
  BranchEntity,
  DecisionEntity,
  FeatureEntity,
  GuyEntity,
  PoseEntity,
  RecordEntity,
  RunBranchEntity,
  RunEntity,
  TreeEntity,
  TreePart,
} from '../store/entities.js';

type Row = Record<string, unknown>;
type PartClass = new () => TreePart;

/** The known keys of each part of the file, each a column of its table; all others go to `extra`. */
const COLUMNS = {
  tree: ['name', 'species', 'vigour', 'styledOn', 'repottedOn', 'collectedOn', 'site', 'pot', 'trunk', 'roots'],
  branch: ['id', 'name', 'parent', 'at', 'bearing', 'elevation', 'length', 'd', 'tipD', 'path', 'bareTo', 'green', 'state', 'stage', 'backBuds'],
  feature: ['kind', 'bearing', 'z', 'good', 'weight'],
  decision: ['branch', 'act'],
  pose: ['branch', 'bearing', 'elevation', 'bends'],
  run: ['id', 'metal', 'size', 'strands', 'angle'],
  runBranch: ['branch', 'hand', 'start'],
  guy: ['id', 'branch', 'at', 'anchor', 'wire'],
} as const;

/** An object's known keys as columns, the rest under `extra`. A key that is null in the file stays there, as no column can tell it from a missing one. */
function split(value: object, known: readonly string[]): Row {
  const row: Row = {};
  const extra: Row = {};
  for (const [key, v] of Object.entries(value)) (known.includes(key) && v !== null ? row : extra)[key] = v;
  return { ...row, extra };
}

/** The object again: the columns that are set, and the extra keys. */
function join<T>(row: object, known: readonly string[]): T {
  const entries = known.map((key) => [key, (row as Row)[key]] as const).filter(([, v]) => v !== null && v !== undefined);
  return { ...Object.fromEntries(entries), ...((row as Row).extra as object) } as T;
}

/** Replaces the rows of one part of a tree. */
async function replace(db: EntityManager, entity: PartClass, treeId: string, rows: readonly Row[]): Promise<void> {
  await db.delete(entity, { treeId });
  const all = rows.map((row, ordinal) => ({ ...row, treeId, ordinal }));
  for (let i = 0; i < all.length; i += 200) await db.insert(entity, all.slice(i, i + 200));
}

/** Stores a tree and its plan (not its record) under an id and revision; new or in place of what was there. */
export async function storeTree(db: EntityManager, id: string, revision: number, tree: Tree): Promise<void> {
  const { format: _format, version: _version, branches, features, plan, record: _record, ...own } = tree;
  const { front, decisions, poses, runs, guys, ...planExtra } = plan;
  const row: Row = {
    id,
    revision,
    styledOn: null,
    repottedOn: null,
    collectedOn: null,
    ...split(own, COLUMNS.tree),
    front: front ?? null,
    planExtra: 'front' in plan && !front ? { ...planExtra, front: null } : planExtra,
  };
  const known = await db.existsBy(TreeEntity, { id });
  if (known) await db.update(TreeEntity, { id }, row);
  else await db.insert(TreeEntity, row);
  await replace(
    db,
    BranchEntity,
    id,
    branches.map((b) => split(b, COLUMNS.branch)),
  );
  await replace(
    db,
    FeatureEntity,
    id,
    features.map((f) => split(f, COLUMNS.feature)),
  );
  await replace(
    db,
    DecisionEntity,
    id,
    decisions.map((d) => split(d, COLUMNS.decision)),
  );
  await replace(
    db,
    PoseEntity,
    id,
    poses.map((p) => split(p, COLUMNS.pose)),
  );
  await replace(
    db,
    RunEntity,
    id,
    runs.map(({ branches: _branches, ...run }) => split(run, COLUMNS.run)),
  );
  await replace(
    db,
    RunBranchEntity,
    id,
    runs.flatMap((run) => run.branches.map((b) => ({ ...split(b, COLUMNS.runBranch), run: run.id }))),
  );
  await replace(
    db,
    GuyEntity,
    id,
    guys.map((g) => split(g, COLUMNS.guy)),
  );
}

/** Adds lines to a tree's record; lines without an id get the next free one. Returns them as stored. */
export async function appendRecord(db: EntityManager, treeId: string, entries: readonly RecordEntry[]): Promise<RecordEntry[]> {
  const before = await db.find(RecordEntity, { where: { treeId }, select: { ordinal: true, entryId: true } });
  const used = new Set([...before.map((r) => r.entryId), ...entries.map((e) => e.id).filter(Boolean)]);
  const first = before.length;
  let next = first + 1;
  const rows = entries.map((entry, i) => {
    let entryId = entry.id;
    while (!entryId) {
      const candidate = `r${next++}`;
      if (!used.has(candidate)) entryId = candidate;
    }
    used.add(entryId);
    return { treeId, ordinal: first + i, entryId, on: entry.on, kind: entry.kind, branch: entry.branch ?? null, entry: { ...entry, id: entryId } };
  });
  for (let i = 0; i < rows.length; i += 200) await db.insert(RecordEntity, rows.slice(i, i + 200));
  return rows.map((r) => r.entry);
}

/** A stored tree with its revision; null for an unknown id. */
export async function loadTree(db: EntityManager, id: string): Promise<{ revision: number; tree: Tree } | null> {
  const row = await db.findOneBy(TreeEntity, { id });
  if (!row) return null;
  const parts = async <E extends TreePart>(entity: new () => E): Promise<E[]> =>
    db.find(entity as PartClass, { where: { treeId: id }, order: { ordinal: 'ASC' } }) as Promise<E[]>;
  const record = await db.find(RecordEntity, { where: { treeId: id }, order: { ordinal: 'ASC' } });
  const winds = await parts(RunBranchEntity);
  const tree = {
    format: 'ustle-tree',
    version: 1,
    ...join<object>(row, COLUMNS.tree),
    branches: (await parts(BranchEntity)).map((b) => join<Branch>(b, COLUMNS.branch)),
    features: (await parts(FeatureEntity)).map((f) => join<Feature>(f, COLUMNS.feature)),
    plan: {
      ...(row.front ? { front: row.front } : {}),
      decisions: (await parts(DecisionEntity)).map((d) => join<Decision>(d, COLUMNS.decision)),
      poses: (await parts(PoseEntity)).map((p) => join<Pose>(p, COLUMNS.pose)),
      runs: (await parts(RunEntity)).map((r) => ({
        ...join<Omit<Run, 'branches'>>(r, COLUMNS.run),
        branches: winds.filter((w) => w.run === r.id).map((w) => join<RunBranch>(w, COLUMNS.runBranch)),
      })),
      guys: (await parts(GuyEntity)).map((g) => join<Guy>(g, COLUMNS.guy)),
      ...(row.planExtra as object),
    },
    record: record.map((r) => r.entry as RecordEntry),
  };
  return { revision: row.revision, tree: tree as Tree };
}
