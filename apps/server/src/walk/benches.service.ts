import { Injectable } from '@nestjs/common';
import type { Bench } from '@ustle/core';
import type { EntityManager } from 'typeorm';
import { notFound, ProblemException } from '../problem.js';
import { BenchRow, StandsRow, TreeRow } from '../store/entities.js';
import { Store } from '../store/store.service.js';

/** Where a tree stands. */
export interface Stands {
  bench: string;
  place: number;
}

/** The benches of the yard in walking order, and which trees stand on them. */
@Injectable()
export class BenchesService {
  constructor(private readonly store: Store) {}

  list(): Promise<Bench[]> {
    return this.store.read((db) => this.rows(db));
  }

  /** Where each tree stands that stands on a bench: which, and the how-manieth along it. */
  stands(): Promise<Map<string, Stands>> {
    return this.store.read(async (db) => new Map((await db.find(StandsRow)).map((s) => [s.treeId, { bench: s.benchId, place: s.ordinal }])));
  }

  /** Takes the whole list, in its new order; the trees of a bench that is no longer on it stand nowhere. */
  order(benches: readonly Bench[]): Promise<Bench[]> {
    const twice = benches.find((b, i) => benches.some((other, j) => j < i && (other.id === b.id || other.name.trim() === b.name.trim())));
    if (twice) throw new ProblemException(400, { code: 'twice', field: 'benches', message: `"${twice.name}" is there twice: a bench has a name of its own.` });
    return this.store.write(async ({ db }) => {
      const kept = new Set(benches.map((b) => b.id));
      for (const { id } of await db.find(BenchRow)) if (!kept.has(id)) await db.delete(BenchRow, { id });
      for (const [ordinal, { id, name }] of benches.entries()) await db.upsert(BenchRow, { id, ordinal, name: name.trim() }, ['id']);
      return this.rows(db);
    });
  }

  /** Puts a tree at the end of a bench, or on none. */
  put(treeId: string, benchId: string | null): Promise<void> {
    return this.store.write(async ({ db }) => {
      if (!(await db.existsBy(TreeRow, { id: treeId }))) throw notFound('This tree', 'id');
      if (benchId === null) await db.delete(StandsRow, { treeId });
      else if (!(await db.existsBy(BenchRow, { id: benchId }))) throw notFound('This bench', 'bench');
      else if (!(await db.existsBy(StandsRow, { treeId, benchId })))
        await db.upsert(StandsRow, { treeId, benchId, ordinal: ((await db.maximum(StandsRow, 'ordinal', { benchId })) ?? -1) + 1 }, ['treeId']);
    });
  }

  /** The trees of a bench in the order in which one walks past them; those that are not named come after, as they stood. */
  line(benchId: string, trees: readonly string[]): Promise<void> {
    return this.store.write(async ({ db }) => {
      if (!(await db.existsBy(BenchRow, { id: benchId }))) throw notFound('This bench', 'bench');
      const there = (await db.find(StandsRow, { where: { benchId }, order: { ordinal: 'ASC', treeId: 'ASC' } })).map((s) => s.treeId);
      const wrong = trees.find((id, i) => !there.includes(id) || trees.indexOf(id) !== i);
      if (wrong !== undefined)
        throw new ProblemException(400, {
          code: 'not-there',
          field: 'trees',
          message: there.includes(wrong)
            ? 'One tree is in the list twice.'
            : 'A tree in the list does not stand on this bench: somebody moved it meanwhile. Look again.',
        });
      const order = [...trees, ...there.filter((id) => !trees.includes(id))];
      for (const [ordinal, treeId] of order.entries()) await db.update(StandsRow, { treeId }, { ordinal });
    });
  }

  private async rows(db: EntityManager): Promise<Bench[]> {
    return (await db.find(BenchRow, { order: { ordinal: 'ASC', id: 'ASC' } })).map(({ id, name }) => ({ id, name }));
  }
}
