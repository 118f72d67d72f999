import { Injectable } from '@nestjs/common';
import type { DueView, TreeSummary } from '@ustle/contract';
import { findSpecies, urgency, type dueOn } from '@ustle/core';
import { ComputeService } from '../plans/compute.service.js';
import { Clock } from '../store/clock.service.js';
import { Store } from '../store/store.service.js';
import { TreesService } from '../trees/trees.service.js';

type Listed = Awaited<ReturnType<TreesService['listed']>>[number];
type Sum = ReturnType<typeof dueOn>;

/** What the bench and the season show of every tree; forecasts are kept until the tree or the day changes. */
@Injectable()
export class BenchService {
  private readonly kept = new Map<string, { key: string; sum: Promise<Sum> }>();
  private told: { key: string; trees: Promise<TreeSummary[]> } | null = null;

  constructor(
    private readonly trees: TreesService,
    private readonly compute: ComputeService,
    private readonly clock: Clock,
    private readonly store: Store,
  ) {}

  private sumOf({ id, revision, recorded }: Listed): Promise<Sum> {
    const today = this.clock.today();
    const key = `${revision}/${recorded}/${today}`;
    const before = this.kept.get(id);
    if (before?.key === key) return before.sum;
    const sum = this.trees.tree(id).then(({ tree }) => this.compute.dueOn(tree, today));
    sum.catch(() => this.kept.delete(id));
    this.kept.set(id, { key, sum });
    return sum;
  }

  /** All trees with what is next on each; the same answer, the very same value, for as long as nothing is written and the day lasts. */
  bench(): Promise<TreeSummary[]> {
    const key = `${this.store.writes}/${this.clock.today()}`;
    if (this.told?.key === key) return this.told.trees;
    const trees = this.inOrder();
    trees.catch(() => (this.told = null));
    this.told = { key, trees };
    return trees;
  }

  /** Dated work first, soonest on top; then open plans; then trees that rest. */
  private async inOrder(): Promise<TreeSummary[]> {
    const all = await Promise.all(
      (await this.trees.listed()).map(async (row): Promise<TreeSummary> => {
        const { due, race, coils } = await this.sumOf(row);
        const { id, name, revision, asideOn } = row;
        return { id, name, asideOn, species: findSpecies(row.species)!.name, revision, coils, race, next: due[0] ?? null };
      }),
    );
    const rank = (t: TreeSummary): string => (t.next ? urgency(t.next) : 'z');
    return all.sort((a, b) => (rank(a) + a.name < rank(b) + b.name ? -1 : 1));
  }

  async due(): Promise<DueView[]> {
    const rows = await this.trees.listed();
    const all = await Promise.all(
      rows.map(async (row) =>
        // Of a tree put aside only its wire is due: that does not wait.
        (await this.sumOf(row)).due.filter((d) => !row.asideOn || d.leadsTo === 'watch').map((d): DueView => ({ ...d, tree: row.id, treeName: row.name })),
      ),
    );
    return all.flat().sort((a, b) => (urgency(a) + a.treeName < urgency(b) + b.treeName ? -1 : 1));
  }
}
