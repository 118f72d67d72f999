import { Injectable } from '@nestjs/common';
import type { Bench } from '@ustle/core';
import type { EntityManager } from 'typeorm';
import { notFound, ProblemException } from '../problem.js';
import { BenchRow, StandsRow, TreeRow } from '../store/entities.js';
import { Store } from '../store/store.service.js';

/** The benches of the yard in walking order, and which trees stand on them. */
@Injectable()
export class BenchesService {
  constructor(private readonly store: Store) {}

  list(): Promise<Bench[]> {
    return this.store.read((db) => this.rows(db));
  }

  /** Benches by the trees that stand on them. */
  stands(): Promise<Map<string, string>> {
    return this.store.read(async (db) => new Map((await db.find(StandsRow)).map((s) => [s.treeId, s.benchId])));
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

  /** Puts a tree on a bench, or on none. */
  put(treeId: string, benchId: string | null): Promise<void> {
    return this.store.write(async ({ db }) => {
      if (!(await db.existsBy(TreeRow, { id: treeId }))) throw notFound('This tree', 'id');
      if (benchId === null) await db.delete(StandsRow, { treeId });
      else if (!(await db.existsBy(BenchRow, { id: benchId }))) throw notFound('This bench', 'bench');
      else await db.upsert(StandsRow, { treeId, benchId }, ['treeId']);
    });
  }

  private async rows(db: EntityManager): Promise<Bench[]> {
    return (await db.find(BenchRow, { order: { ordinal: 'ASC', id: 'ASC' } })).map(({ id, name }) => ({ id, name }));
  }
}
