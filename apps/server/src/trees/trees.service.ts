import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import type { ActAnswer, StepBack, StoredTree } from '@ustle/contract';
import {
  branchesOf,
  EMPTY_LOG,
  isGuarded,
  isoOf,
  LARGEST_FILE_BYTES,
  namesOf,
  perform,
  sayAct,
  whereDone,
  step,
  withChildren,
  type Act,
  type Performed,
  type RecordLine,
  type Refusal,
  type Step,
  type Tree,
} from '@ustle/core';
import { readTreeFile } from '@ustle/files';
import type { EntityManager } from 'typeorm';
import { actRefused, notFound, ProblemException, refused } from '../problem.js';
import { Clock } from '../store/clock.service.js';
import { PhotoFiles } from '../photos/photo-files.js';
import { ActRow, ForgottenRow, LineRow, TreeRow } from '../store/entities.js';
import { Store } from '../store/store.service.js';
import { Changes } from './changes.service.js';
import { actOf, actsAfter, builtOn, doneOf, meant, stacked, stacksOf, type Stacked, type Stacks } from './history.js';
import {
  bytesOf,
  forgetTree,
  insertAct,
  insertLines,
  insertTree,
  keptTree,
  loadTree,
  photosOf,
  stepOn,
  UnreadableTree,
  updateTree,
  type KeptTree,
  type StoredAct,
} from './tree-rows.js';

/** A tree as it is held in memory beside its rows, so that an act reads nothing anew. */
interface Held {
  revision: number;
  tree: Tree;
  stacks: Stacks;
  asideOn: string | null;
}

/** What a file has beside its parts. */
const ROOM_BYTES = 1024 * 1024;
const TOO_LARGE: Refusal = {
  field: '/',
  code: 'too-large',
  message: `With this the tree and its record would be larger than one file may be (${LARGEST_FILE_BYTES / 1048576} MB). Nothing was changed.`,
};

const MOST_HELD = 60;
const isStep = (act: StoredAct): act is Step & { on: string } => act.kind === 'undo' || act.kind === 'redo';

/** The trees: kept on the disk, the ones in use held in memory too. Every change is an act, and every act one transaction. */
@Injectable()
export class TreesService {
  private readonly held = new Map<string, Held>();

  constructor(
    private readonly store: Store,
    private readonly clock: Clock,
    private readonly photos: PhotoFiles,
    private readonly changes: Changes,
  ) {}

  /** A tree as a device sees it: with what that did last. */
  get(id: string, desk: string | null = null): Promise<StoredTree> {
    return this.store.read(async (db) => this.view(db, id, await this.hold(db, id), desk));
  }

  /** A tree with its revision, as it is stored. */
  async tree(id: string): Promise<{ revision: number; tree: Tree }> {
    return this.store.read((db) => this.hold(db, id));
  }

  /** Of every tree what can be told without reading it. */
  listed(): Promise<Pick<TreeRow, 'id' | 'revision' | 'name' | 'species' | 'recorded' | 'asideOn'>[]> {
    return this.store.read((db) =>
      db.find(TreeRow, { select: { id: true, revision: true, name: true, species: true, recorded: true, asideOn: true }, order: { name: 'ASC', id: 'ASC' } }),
    );
  }

  /** Takes in the text of a tree file; refused whole, with every fault, when it is not sound. */
  async importText(text: string, id?: string): Promise<StoredTree> {
    const read = readTreeFile(text);
    if ('faults' in read) throw refused(read.faults);
    return this.add(read.tree, id);
  }

  /** Adds a tree; under an id that is known already it was sent twice, and is answered with what is there. */
  add(tree: Tree, id: string = randomUUID()): Promise<StoredTree> {
    return this.store.write(async ({ db }) => {
      if (await db.existsBy(ForgottenRow, { treeId: id }))
        throw new ProblemException(410, { code: 'deleted', field: 'id', message: 'A tree with this id was deleted for good; bring it in as a new one.' });
      if (!(await db.existsBy(TreeRow, { id }))) await insertTree(db, id, tree);
      return this.view(db, id, await this.hold(db, id));
    });
  }

  /** Puts a tree aside or back on the bench; asked again it stays as it is. */
  putAside(id: string, aside: boolean): Promise<StoredTree | { id: string; asideOn: string | null }> {
    return this.store.write(async ({ db, whenStored }) => {
      const kept = await this.holdOrKept(db, id);
      if (!('tree' in kept)) {
        const asideOn = aside ? (kept.row.asideOn ?? isoOf(this.clock.today())) : null;
        await db.update(TreeRow, { id }, { asideOn });
        return { id, asideOn };
      }
      const held = kept;
      const next: Held = { ...held, asideOn: aside ? (held.asideOn ?? isoOf(this.clock.today())) : null };
      await db.update(TreeRow, { id }, { asideOn: next.asideOn });
      whenStored(() => this.keep(id, next));
      return this.view(db, id, next);
    });
  }

  /** Deletes a tree for good; what is gone already is gone. */
  forget(id: string): Promise<void> {
    return this.store.write(async ({ db, whenStored }) => {
      if (await db.existsBy(ForgottenRow, { treeId: id })) return;
      await this.holdOrKept(db, id);
      const own = await photosOf(db, id);
      await forgetTree(db, id);
      const kept = await photosOf(db);
      whenStored(() => {
        this.held.delete(id);
        [...own].filter((photo) => !kept.has(photo) && this.photos.has(photo)).forEach((photo) => this.photos.remove(photo));
      });
    });
  }

  /** Does an act on a tree. One that arrives again is answered with what it did the first time. */
  act(id: string, act: Act, revision: number | undefined): Promise<ActAnswer> {
    return this.change(id, act, isGuarded(act) ? (revision ?? NaN) : null, (held) => perform(held.tree, EMPTY_LOG, act, this.clock.today()));
  }

  /** Takes the newest act of a device back, or makes it again. */
  async step(id: string, asked: Step, revision: number): Promise<StoredTree> {
    const { kind, desk = null } = asked;
    await this.change(id, stepOn(asked, this.clock.today()), revision, async (held, db) => {
      const target = meant(held.stacks, kind, desk);
      if (asked.of !== undefined && asked.of !== target?.id) throw await this.elsewhere(db, id, held, asked, target);
      const later = target && kind === 'undo' ? builtOn(held.stacks, target) : undefined;
      if (later && later.desk !== desk) throw await this.underneath(db, id, held, target!, later, desk);
      const last = await doneOf(db, target?.id);
      return step(held.tree, { ...EMPTY_LOG, [kind === 'undo' ? 'done' : 'undone']: last ? [last] : [] }, asked, this.clock.today());
    });
    return this.get(id, desk);
  }

  /** What was meant is not the newest any more that this device did. */
  private async elsewhere(db: EntityManager, id: string, held: Held, { kind, desk }: Step, target: Stacked | undefined): Promise<ProblemException> {
    const now = target ? ` The newest is: ${sayAct(await actOf(db, target.id), namesOf(held.tree))}.` : '';
    const message = `What was to be ${kind === 'undo' ? 'taken back' : 'made again'} is not the newest done here any more.${now} Nothing was changed.`;
    return new ProblemException(409, { code: 'not-newest', field: 'of', message, current: await this.view(db, id, held, desk ?? null) });
  }

  /** What another did since rests on it. */
  private async underneath(db: EntityManager, id: string, held: Held, target: Stacked, later: Stacked, desk: string | null): Promise<ProblemException> {
    const names = namesOf(held.tree);
    const [own, other] = [await actOf(db, target.id), await actOf(db, later.id)];
    const message = `"${sayAct(own, names)}" cannot be taken back: ${other.who ?? 'somebody else'} changed the plan since ("${sayAct(other, names)}"). Nothing was changed.`;
    return new ProblemException(409, { code: 'built-on', field: 'of', message, current: await this.view(db, id, held, desk) });
  }

  private change(
    id: string,
    act: StoredAct,
    /** The revision that a guarded act was made on; null where it does not matter. */
    madeOn: number | null,
    work: (held: Held, db: EntityManager) => Performed | { refused: Refusal[] } | Promise<Performed | { refused: Refusal[] }>,
  ): Promise<ActAnswer> {
    return this.store.write(async ({ db, whenStored }) => {
      const held = await this.hold(db, id);
      const first = await db.findOneBy(ActRow, { id: act.id });
      const desk = act.desk ?? null;
      if (first) return this.answer(db, id, held, await this.linesOf(db, id, first.lines), desk);
      if (madeOn !== null && madeOn !== held.revision && !(await this.isApart(db, id, held, act, madeOn))) throw await this.stale(db, id, held, madeOn, desk);
      const result = await work(held, db);
      if ('refused' in result) throw actRefused(result.refused);
      const { tree, lines, done } = result;
      const changed = tree.plan !== held.tree.plan || Object.keys(tree).some((k) => k !== 'record' && tree[k as keyof Tree] !== held.tree[k as keyof Tree]);
      const revision = held.revision + Number(changed);
      const of = isStep(act) ? meant(held.stacks, act.kind, desk)!.id : null;
      const row = { of, desk, revision: changed ? revision : null };
      const next: Held = { ...held, tree, revision, stacks: stacked(held.stacks, { id: act.id, kind: act.kind, ...row }) };
      if (changed) await updateTree(db, id, next.revision, held.tree, tree);
      await insertLines(db, id, held.tree.record.length, lines);
      if ((await bytesOf(db, id)) > LARGEST_FILE_BYTES - ROOM_BYTES) throw actRefused([TOO_LARGE]);
      await insertAct(db, id, act, { lines: lines.map((l) => l.id!), before: done && done.before, ...row });
      whenStored(() => {
        this.keep(id, next);
        this.changes.tell({ tree: id, revision, recorded: tree.record.length, desk });
      });
      return this.answer(db, id, next, lines, desk);
    });
  }

  /** An act made on an older tree is still what was meant where all that changed since was about other branches. */
  private async isApart(db: EntityManager, id: string, { tree, revision }: Held, act: StoredAct, madeOn: number): Promise<boolean> {
    if (isStep(act) || !(madeOn < revision)) return false;
    const reach = (of: Act): Set<string> | null => {
      const branches = branchesOf(of);
      return branches && new Set(branches.flatMap((b) => [...withChildren(tree, b)]));
    };
    const own = reach(act);
    const others = await actsAfter(db, id, madeOn);
    // Every revision since is known, and none of them touches what this one is about.
    return own !== null && others.length >= revision - madeOn && others.map(reach).every((theirs) => theirs !== null && ![...theirs].some((b) => own.has(b)));
  }

  private async answer(db: EntityManager, id: string, held: Held, lines: RecordLine[], desk: string | null): Promise<ActAnswer> {
    const { undo, redo, revision } = await this.view(db, id, held, desk);
    return { revision, lines, recorded: held.tree.record.length, undo, redo };
  }

  private async linesOf(db: EntityManager, treeId: string, ids: readonly string[]): Promise<RecordLine[]> {
    const rows = await Promise.all(ids.map((lineId) => db.findOneByOrFail(LineRow, { treeId, lineId })));
    return rows.map((row) => JSON.parse(row.document) as RecordLine);
  }

  private keep(id: string, held: Held): Held {
    this.held.delete(id);
    this.held.set(id, held);
    const [oldest] = this.held.keys();
    if (this.held.size > MOST_HELD) this.held.delete(oldest!);
    return held;
  }

  private async hold(db: EntityManager, id: string): Promise<Held> {
    const known = this.held.get(id);
    if (known) return this.keep(id, known);
    const found = await loadTree(db, id);
    if (!found) throw notFound('This tree', 'id');
    return this.keep(id, { ...found, stacks: await stacksOf(db, id) });
  }

  /** A tree, or where it cannot be read what is kept of it. */
  private async holdOrKept(db: EntityManager, id: string): Promise<Held | KeptTree> {
    try {
      return await this.hold(db, id);
    } catch (error) {
      if (!(error instanceof UnreadableTree)) throw error;
      return (await keptTree(db, id))!;
    }
  }

  /** What is kept of a tree, as it is kept: for one that cannot be read. */
  async asKept(id: string): Promise<{ name: string; text: string }> {
    const kept = await this.store.read((db) => keptTree(db, id));
    if (!kept) throw notFound('This tree', 'id');
    const { row, own, record } = kept;
    return {
      name: row.name,
      text: `${JSON.stringify({ name: row.name, species: row.species, revision: row.revision, measures: own, plan: row.plan, record: record.map((l) => l.document) }, null, 1)}\n`,
    };
  }

  private async stale(db: EntityManager, id: string, held: Held, madeOn: number, desk: string | null): Promise<ProblemException> {
    return new ProblemException(409, {
      code: 'stale',
      field: 'revision',
      message: Number.isNaN(madeOn)
        ? 'revision: this act needs the revision of the tree that it was made on.'
        : `The plan was changed meanwhile (revision ${held.revision}, yours is ${madeOn}). Look at it as it is now, and decide again.`,
      current: await this.view(db, id, held, desk),
    });
  }

  private async view(db: EntityManager, id: string, { revision, tree, stacks, asideOn }: Held, desk: string | null = null): Promise<StoredTree> {
    const names = namesOf(tree);
    const step = async (kind: 'undo' | 'redo'): Promise<StepBack | null> => {
      const target = meant(stacks, kind, desk);
      if (!target || (kind === 'undo' && (builtOn(stacks, target)?.desk ?? desk) !== desk)) return null;
      const act = await actOf(db, target.id);
      return { of: target.id, said: sayAct(act, names), at: whereDone(act) };
    };
    return { id, revision, tree, asideOn, undo: await step('undo'), redo: await step('redo') };
  }
}
