import { Injectable } from '@nestjs/common';
import type { DueView, RaceBar, Silhouette, TreeSummary } from '@ustle/contract';
import { findSpecies, type Tree } from '@ustle/core';
import { dueOn, urgency } from '../season/due.js';
import { Clock } from '../store/clock.service.js';
import { silhouetteOf } from './silhouette.js';
import { TreesService } from './trees.service.js';

interface Summed {
  key: string;
  due: DueView[];
  race: RaceBar | null;
  coils: number;
  silhouette: Silhouette;
}

/** What the bench and the season show of every tree; forecasts are kept until the tree or the day changes. */
@Injectable()
export class SummaryService {
  private readonly kept = new Map<string, Summed>();

  constructor(
    private readonly trees: TreesService,
    private readonly clock: Clock,
  ) {}

  private summed(id: string, revision: number, tree: Tree): Summed {
    const today = this.clock.today();
    const key = `${revision}/${tree.record.length}/${today}`;
    const before = this.kept.get(id);
    if (before?.key === key) return before;
    const now = { key, ...dueOn(id, tree, today), silhouette: silhouetteOf(tree) };
    this.kept.set(id, now);
    return now;
  }

  async bench(): Promise<TreeSummary[]> {
    const all = (await this.trees.all()).map(({ id, revision, tree }): TreeSummary => {
      const { due, race, coils, silhouette } = this.summed(id, revision, tree);
      return { id, name: tree.name, species: findSpecies(tree.species)!.name, revision, silhouette, coils, race, next: due[0] ?? null };
    });
    // Dated work first, soonest on top; then open plans; then trees that rest.
    const rank = (t: TreeSummary): string => (t.next ? urgency(t.next) : 'z');
    return all.sort((a, b) => (rank(a) + a.name < rank(b) + b.name ? -1 : 1));
  }

  async due(): Promise<DueView[]> {
    const all = await this.trees.all();
    return all
      .flatMap(({ id, revision, tree }) => this.summed(id, revision, tree).due)
      .sort((a, b) => (urgency(a) + a.treeName < urgency(b) + b.treeName ? -1 : 1));
  }
}
