import { Injectable } from '@nestjs/common';
import { inNameOrder, type DueView, type TreeSummary, type WalkStop, type WalkView } from '@ustle/contract';
import { findSpecies, urgency, walksOf, type Known } from '@ustle/core';
import { KnownService } from '../known/known.service.js';
import { ComputeService } from '../plans/compute.service.js';
import type { Sum } from '../plans/compute.worker.js';
import { ProblemException } from '../problem.js';
import { Clock } from '../store/clock.service.js';
import { Store } from '../store/store.service.js';
import { UnreadableTree } from '../trees/tree-rows.js';
import { TreesService } from '../trees/trees.service.js';
import { BenchesService } from '../walk/benches.service.js';

type Listed = Awaited<ReturnType<TreesService['listed']>>[number];

const inTurn = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);

const ON_BARK = new Set<DueView['leadsTo']>(['watch', 'guy']);

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
    private readonly known: KnownService,
    private readonly benches: BenchesService,
  ) {}

  /** Every tree with what is due on it. */
  private async sums(): Promise<{ row: Listed; sum: Sum }[]> {
    const rows = await this.trees.listed();
    return Promise.all(rows.map(async (row) => ({ row, sum: await this.sumOf(row, await this.known.among(rows, row.species, row.id)) })));
  }

  private sumOf({ id, revision, recorded }: Listed, known: Known): Promise<Sum> {
    const today = this.clock.today();
    const key = `${revision}/${recorded}/${today}/${JSON.stringify(known)}`;
    const before = this.kept.get(id);
    if (before?.key === key) return before.sum;
    // A tree that cannot be read, or takes too long, is no reason to say nothing of the others.
    const sum = this.trees
      .tree(id)
      .then(({ tree }) => this.compute.dueOn(tree, today, known))
      .catch((error: unknown): Sum => {
        if (!(error instanceof ProblemException)) throw error;
        return {
          due: [],
          race: null,
          coils: 0,
          items: [],
          hemisphere: 'north',
          trouble: error instanceof UnreadableTree ? 'What is kept of it cannot be read. Open it: it can be saved and put aside.' : error.problem.message,
        };
      });
    this.kept.set(id, { key, sum });
    // What could not be told now may be told the next time.
    const forget = (): void => {
      if (this.kept.get(id)?.sum === sum) this.kept.delete(id);
    };
    sum.then(({ trouble }) => trouble && forget(), forget);
    return sum;
  }

  /** All trees with what is next on each; the same answer, the very same value, for as long as nothing is written and the day lasts. */
  bench(): Promise<TreeSummary[]> {
    const key = `${this.store.writes}/${this.clock.today()}`;
    if (this.told?.key === key) return this.told.trees;
    const trees = this.inOrder();
    this.told = { key, trees };
    const forget = (): void => {
      if (this.told?.trees === trees) this.told = null;
    };
    trees.then((all) => all.some((t) => t.trouble) && forget(), forget);
    return trees;
  }

  /** Dated work first, soonest on top; then open plans; then trees that rest. */
  private async inOrder(): Promise<TreeSummary[]> {
    const stands = await this.benches.stands();
    const all = (await this.sums()).map(({ row, sum: { due, race, coils, hemisphere, trouble } }): TreeSummary => {
      const { id, name, revision, recorded, asideOn } = row;
      return {
        id,
        name,
        asideOn,
        species: findSpecies(row.species)?.name ?? row.species,
        revision,
        recorded,
        coils,
        race,
        next: due[0] ?? null,
        bench: stands.get(id)?.bench ?? null,
        place: stands.get(id)?.place ?? null,
        hemisphere,
        trouble,
      };
    });
    const rank = (t: TreeSummary): string => (t.trouble ? ' ' : t.next ? urgency(t.next) : 'z');
    return all.sort((a, b) => inTurn(rank(a), rank(b)) || inNameOrder(a.name, b.name));
  }

  async due(): Promise<DueView[]> {
    // Of a tree put aside only its wire, ties and devices are due: bark that grows round them does not wait.
    const all = (await this.sums()).flatMap(({ row, sum }) =>
      sum.due.filter((d) => !row.asideOn || ON_BARK.has(d.leadsTo)).map((d): DueView => ({ ...d, tree: row.id, treeName: row.name })),
    );
    return all.sort((a, b) => inTurn(urgency(a), urgency(b)) || inNameOrder(a.treeName, b.treeName));
  }

  /** All that wants looks, bench by bench in walking order, with the walk that takes it along. */
  async walk(): Promise<WalkView> {
    const [sums, benches, stands] = [await this.sums(), await this.benches.list(), await this.benches.stands()];
    const items = sums.flatMap(({ row: { id, name, species, revision, recorded }, sum }) =>
      sum.items.map((item) => ({
        ...item,
        tree: id,
        treeName: name,
        species: findSpecies(species)!.name,
        revision,
        recorded,
        bench: stands.get(id)?.bench ?? null,
      })),
    );
    const place = new Map(benches.map((b, i) => [b.id, i]));
    const order = (s: WalkStop): number => (s.bench === null ? benches.length : place.get(s.bench)!);
    const along = (s: WalkStop): number => stands.get(s.tree)?.place ?? 0;
    const stops = walksOf(items, this.clock.today()).flatMap(({ day, items: taken }) => taken.map((i): WalkStop => ({ ...i, walk: day })));
    stops.sort((a, b) => order(a) - order(b) || along(a) - along(b) || inNameOrder(a.treeName, b.treeName) || inTurn(a.tree, b.tree));
    return { on: this.clock.todayIso(), benches, stops };
  }
}
