import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { TreeView } from '@ustle/contract';
import { beforeCut, cutsOf, dayOf, type RecordEntry, type Tree } from '@ustle/core';
import { checkTree, readTreeFile } from '@ustle/files';
import type { EntityManager } from 'typeorm';
import { notFound, notYet, ProblemException, refused } from '../problem.js';
import { Clock } from '../store/clock.service.js';
import { CommandEntity, TreeEntity } from '../store/entities.js';
import { Store } from '../store/store.service.js';
import { appendRecord, loadTree, storeTree } from './tree.mapper.js';

/** Undo goes back this far. */
const KEPT_COMMANDS = 200;

/** The parts of a tree that a change touched, as they were and as they are; a missing part is null. */
function difference(before: Tree, after: Tree): { before: Partial<Tree>; after: Partial<Tree> } {
  const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])] as (keyof Tree)[];
  const touched = keys.filter((k) => k !== 'record' && JSON.stringify(before[k]) !== JSON.stringify(after[k]));
  const pick = (tree: Tree): Partial<Tree> => Object.fromEntries(touched.map((k) => [k, tree[k] ?? null]));
  return { before: pick(before), after: pick(after) };
}

const hasRef = (entry: RecordEntry, tree: Tree): boolean => entry.branch === undefined || tree.branches.some((b) => b.id === entry.branch);

/** The line that takes another one's effect back: a withdrawal, or for a withdrawal what it withdrew, said again. */
function inverse(entry: RecordEntry, record: readonly RecordEntry[], today: string): RecordEntry {
  const withdrawn = entry.kind === 'withdrawn' ? record.find((e) => e.id === entry.corrects) : undefined;
  if (!withdrawn) return { on: today, kind: 'withdrawn', corrects: entry.id! };
  const { id: _id, ...again } = withdrawn;
  return again;
}

@Injectable()
export class TreesService {
  constructor(
    private readonly store: Store,
    private readonly clock: Clock,
  ) {}

  /** Every stored tree with its id, in order of name. */
  async all(): Promise<{ id: string; revision: number; tree: Tree }[]> {
    return this.store.read(async (db) => {
      const ids = await db.find(TreeEntity, { select: { id: true }, order: { name: 'ASC', id: 'ASC' } });
      const trees: { id: string; revision: number; tree: Tree }[] = [];
      for (const { id } of ids) trees.push({ id, ...(await loadTree(db, id))! });
      return trees;
    });
  }

  get(id: string): Promise<TreeView> {
    return this.store.read((db) => this.view(db, id));
  }

  /** Takes in the text of a tree file; refused whole, with every fault, when it is not sound. */
  async importText(text: string): Promise<TreeView> {
    const read = readTreeFile(text);
    if ('faults' in read) throw refused(read.faults);
    return this.add(read.tree);
  }

  add(tree: Tree): Promise<TreeView> {
    const id = randomUUID();
    return this.store.write(async (db) => {
      await storeTree(db, id, 1, tree);
      await appendRecord(db, id, tree.record);
      return this.view(db, id);
    });
  }

  /** Changes a tree (not its record), on the revision the caller saw; the change is checked, stored and can be undone. */
  revise(
    id: string,
    revision: number,
    label: string,
    change: (tree: Tree) => Tree,
    entriesOf: (tree: Tree) => readonly RecordEntry[] = () => [],
  ): Promise<TreeView> {
    return this.store.write(async (db) => {
      const tree = await this.current(db, id, revision);
      await this.change(db, id, { revision, tree }, label, change(tree), entriesOf(tree));
      return this.view(db, id);
    });
  }

  private async change(
    db: EntityManager,
    id: string,
    { revision, tree }: { revision: number; tree: Tree },
    label: string,
    next: Tree,
    lines: readonly RecordEntry[],
  ): Promise<void> {
    await this.storeChecked(db, id, revision + 1, next);
    const entries = await this.append(db, id, tree, lines);
    await db.delete(CommandEntity, { treeId: id, undone: true });
    await db.insert(CommandEntity, { treeId: id, label, ...difference(tree, next), undone: false, entries });
    await this.forgetOldest(db, id);
  }

  /** Takes back the last change, or makes it again; lines that it wrote to the record are taken back, or said again, by further ones. */
  step(id: string, revision: number, direction: 'undo' | 'redo'): Promise<TreeView> {
    return this.store.write(async (db) => {
      const tree = await this.current(db, id, revision);
      const command = await this.nextCommand(db, id, direction);
      if (!command) throw new ProblemException(409, { code: `nothing-to-${direction}`, message: `There is nothing to ${direction}.` });
      const parts = (direction === 'undo' ? command.before : command.after) as Partial<Tree>;
      await this.storeChecked(db, id, revision + 1, { ...tree, ...parts });
      const told = ((command.entries ?? []) as string[]).flatMap((entryId) => tree.record.find((e) => e.id === entryId) ?? []);
      const lines = told.map((entry) => inverse(entry, tree.record, this.clock.todayIso()));
      const entries = await this.append(db, id, { ...tree, branches: [...tree.branches, ...(parts.branches ?? [])] }, lines);
      await db.update(CommandEntity, { id: command.id }, { undone: direction === 'undo', entries });
      return this.view(db, id);
    });
  }

  /** Adds a line to the record. Taking back a cut puts the wood back on the measured tree. */
  record(id: string, entry: RecordEntry): Promise<TreeView> {
    return this.store.write(async (db) => {
      const found = await this.found(db, id);
      const cut = entry.kind === 'withdrawn' ? cutsOf(found.tree).find((e) => e.id === entry.corrects) : undefined;
      if (cut) await this.change(db, id, found, `take back the cut of ${cut.branch}`, beforeCut(found.tree, cut), [entry]);
      else await this.append(db, id, found.tree, [entry]);
      return this.view(db, id);
    });
  }

  /** Adds lines to the record; returns their ids. */
  private async append(db: EntityManager, id: string, tree: Tree, entries: readonly RecordEntry[]): Promise<string[]> {
    for (const entry of entries) {
      if (dayOf(entry.on) > this.clock.today()) throw notYet(entry.on);
      if (!hasRef(entry, tree)) throw notFound(`Branch "${entry.branch}"`, 'branch');
      if (entry.corrects && !tree.record.some((e) => e.id === entry.corrects)) throw notFound(`Line "${entry.corrects}" of the record`, 'corrects');
    }
    return (await appendRecord(db, id, entries)).map((e) => e.id!);
  }

  private async storeChecked(db: EntityManager, id: string, revision: number, tree: Tree): Promise<void> {
    const checked = checkTree(tree);
    if ('faults' in checked) throw refused(checked.faults);
    await storeTree(db, id, revision, tree);
  }

  private async found(db: EntityManager, id: string): Promise<{ revision: number; tree: Tree }> {
    const found = await loadTree(db, id);
    if (!found) throw notFound('This tree', 'id');
    return found;
  }

  private async current(db: EntityManager, id: string, revision: number): Promise<Tree> {
    const found = await this.found(db, id);
    if (found.revision !== revision) {
      throw new ProblemException(409, {
        code: 'stale',
        field: 'revision',
        message: `The plan was changed meanwhile (revision ${found.revision}, yours is ${revision}). Look at it as it is now, and decide again.`,
        current: await this.view(db, id),
      });
    }
    return found.tree;
  }

  private async view(db: EntityManager, id: string): Promise<TreeView> {
    const found = await this.found(db, id);
    const [undo, redo] = [await this.nextCommand(db, id, 'undo'), await this.nextCommand(db, id, 'redo')];
    return { id, ...found, undo: undo?.label ?? null, redo: redo?.label ?? null };
  }

  private nextCommand(db: EntityManager, treeId: string, direction: 'undo' | 'redo'): Promise<CommandEntity | null> {
    return direction === 'undo'
      ? db.findOne(CommandEntity, { where: { treeId, undone: false }, order: { id: 'DESC' } })
      : db.findOne(CommandEntity, { where: { treeId, undone: true }, order: { id: 'ASC' } });
  }

  private async forgetOldest(db: EntityManager, treeId: string): Promise<void> {
    const old = await db.find(CommandEntity, { where: { treeId }, select: { id: true }, order: { id: 'DESC' }, skip: KEPT_COMMANDS, take: 50 });
    if (old.length)
      await db.delete(
        CommandEntity,
        old.map((c) => c.id),
      );
  }
}
