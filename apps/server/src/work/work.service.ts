import { Injectable } from '@nestjs/common';
import { groupedBy, paceOf, standing, type Pace } from '@ustle/core';
import { In } from 'typeorm';
import { LineRow } from '../store/entities.js';
import { Settings } from '../store/settings.service.js';
import { Store } from '../store/store.service.js';
import { lineIn } from '../trees/tree-rows.js';

/** Who works in the yard, and how long their steps take. */
@Injectable()
export class WorkService {
  constructor(
    private readonly store: Store,
    private readonly settings: Settings,
  ) {}

  /** Of all trees: what was taken back does not count. */
  pace(): Promise<Pace> {
    return this.store.read(async (db) => {
      const rows = await db.find(LineRow, { where: { kind: In(['worked', 'withdrawn']) }, order: { treeId: 'ASC', ordinal: 'ASC' } });
      const byTree = groupedBy(rows, (row) => row.treeId);
      const timed = [...byTree.values()].flatMap((of) =>
        standing(of.flatMap((row) => lineIn(row) ?? [])).flatMap((l) =>
          l.kind === 'worked' && (l.answer === 'done' || l.answer === 'otherwise')
            ? [{ step: l.step, reckoned: l.reckoned ?? 0, minutes: l.minutes ?? 0 }]
            : [],
        ),
      );
      return paceOf(timed);
    });
  }

  people(): Promise<string[]> {
    return this.store.read(async (db) => (await this.settings.read(db, 'people', [])) as string[]);
  }

  name(people: readonly string[]): Promise<string[]> {
    const names = [...new Set(people.map((p) => p.trim()).filter(Boolean))];
    return this.store.write(async ({ db }) => {
      await this.settings.write(db, 'people', names);
      return names;
    });
  }
}
