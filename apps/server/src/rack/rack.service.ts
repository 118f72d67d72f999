import { Injectable } from '@nestjs/common';
import type { RackView } from '@ustle/contract';
import { dayOf, rackFault, rackOf, reservedBy, usesOf, type KeptRackLine, type RackLine, type Tree, type TreeUses } from '@ustle/core';
import { In, IsNull, type EntityManager } from 'typeorm';
import { ProblemException } from '../problem.js';
import { Clock } from '../store/clock.service.js';
import { LineRow, RackLineRow, TreeRow } from '../store/entities.js';
import { Store } from '../store/store.service.js';
import { lineIn, UnreadableTree } from '../trees/tree-rows.js';
import { TreesService } from '../trees/trees.service.js';

/** The rack: what came, was weighed and is gone stands in its own history; what was cut, in the trees' records. */
/** Whether a plan, as it is kept, has settled a piece of wire; what cannot be read has not. */
function hasSettledWire(plan: string): boolean {
  try {
    return (JSON.parse(plan) as Tree['plan']).runs.some((run) => run.length !== undefined);
  } catch {
    return false;
  }
}

/** What cannot be read has spoken for no wire. */
const nothingOfUnreadable = (error: unknown): [] => {
  if (error instanceof UnreadableTree) return [];
  throw error;
};

@Injectable()
export class RackService {
  private told: { key: string; rack: Promise<RackView> } | null = null;

  constructor(
    private readonly store: Store,
    private readonly clock: Clock,
    private readonly trees: TreesService,
  ) {}

  /** The rack as it stands; the same answer for as long as nothing is written and the day lasts. */
  rack(): Promise<RackView> {
    const key = `${this.store.writes}/${this.clock.today()}`;
    if (this.told?.key === key) return this.told.rack;
    const rack = this.read();
    rack.catch(() => (this.told = null));
    this.told = { key, rack };
    return rack;
  }

  /** Adds a line to the rack's history; sent twice it is written once. */
  async add(line: RackLine): Promise<RackView> {
    if (dayOf(line.on) > this.clock.today()) throw new ProblemException(400, { code: 'future', field: 'on', message: `${line.on} is still to come.` });
    await this.store.write(async ({ db }) => {
      if (await db.existsBy(RackLineRow, { id: line.id })) return;
      const fault = rackFault(line, await this.kept(db));
      if (fault) throw new ProblemException(fault.code === 'not-found' ? 404 : 400, fault);
      const trees = await db.find(TreeRow, { select: { id: true, recorded: true } });
      const recorded = Object.fromEntries(trees.map((t) => [t.id, t.recorded]));
      await db.insert(RackLineRow, { id: line.id, on: line.on, kind: line.kind, document: JSON.stringify(line), recorded });
    });
    return this.rack();
  }

  private async read(): Promise<RackView> {
    const today = this.clock.today();
    const settled = await this.store.read((db) => this.withSettledWire(db));
    const reserved = await Promise.all(
      settled.map(async (id) => reservedBy(id, (await this.trees.tree(id)).tree, today)).map((r) => r.catch(nothingOfUnreadable)),
    );
    const stock = await this.store.read(async (db) => rackOf(await this.kept(db), await this.cut(db)));
    return { stock, reserved: reserved.flat() };
  }

  /** The trees on the bench whose plans have settled a piece of wire: only they are read whole. */
  private async withSettledWire(db: EntityManager): Promise<string[]> {
    const rows = await db.find(TreeRow, { select: { id: true, plan: true }, where: { asideOn: IsNull() } });
    return rows.filter(({ plan }) => hasSettledWire(plan)).map(({ id }) => id);
  }

  private async kept(db: EntityManager): Promise<KeptRackLine[]> {
    const rows = await db.find(RackLineRow, { order: { ordinal: 'ASC' } });
    return rows.map(({ document, recorded }) => ({ line: JSON.parse(document) as RackLine, recorded }));
  }

  /** What the records of all trees say was cut. */
  private async cut(db: EntityManager): Promise<TreeUses[]> {
    const trees = await db.find(TreeRow, { select: { id: true, name: true } });
    const rows = await db.find(LineRow, { where: { kind: In(['wired', 'withdrawn']) }, order: { treeId: 'ASC', ordinal: 'ASC' } });
    const byTree = new Map<string, LineRow[]>(trees.map((t) => [t.id, []]));
    rows.forEach((row) => byTree.get(row.treeId)?.push(row));
    return trees.map(({ id, name }) => {
      const own = byTree.get(id)!;
      const told = own.flatMap((row) => {
        const line = lineIn(row);
        return line ? [{ line, ordinal: row.ordinal }] : [];
      });
      const uses = usesOf(told.map((t) => t.line));
      return { tree: id, name, uses: uses.map((use) => ({ ...use, at: told[use.at]!.ordinal })) };
    });
  }
}
