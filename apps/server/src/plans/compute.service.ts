import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { PieceView, Side } from '@ustle/contract';
import type { Known, PlanDocument, Silhouette, Tree, TreeSays } from '@ustle/core';
import { Piscina } from 'piscina';
import { ProblemException } from '../problem.js';
import type { Sum } from './compute.worker.js';
import { TooHard } from './too-hard.js';
import { TooLong, Turns } from './turns.js';

const IDLE_MS = 60_000;
const THREAD = new URL('./compute.worker.js', import.meta.url).href;

/** So long a plan may take, and all that is smaller; then its thread is ended and another one takes its place. */
const seconds = (name: string, usual: number): number => Number(process.env[name]) || usual;
const PLAN_S = seconds('USTLE_PLAN_SECONDS', 20);
const OTHER_S = 8;
const PLAN_THREADS = 4;
const OTHER_THREADS = 2;

const INSTEAD = `Where its branches go and how it is wired could not be worked out within ${PLAN_S} seconds: what does not depend on that stands here. Look whether a branch is measured so that it runs through others.`;
const tooLong = (what: string): ProblemException =>
  new ProblemException(503, { code: 'too-long', message: `${what} could not be worked out within the time that others wait for theirs.` });

/** Computes beside the server's own thread: a tree of thousands of branches takes long, and others are saving meanwhile. */
@Injectable()
export class ComputeService implements OnModuleDestroy {
  private readonly pools = {
    plans: new Piscina({ filename: THREAD, maxThreads: PLAN_THREADS, idleTimeout: IDLE_MS }),
    others: new Piscina({ filename: THREAD, maxThreads: OTHER_THREADS, idleTimeout: IDLE_MS }),
  };
  /** Plans take longest, and have threads of their own. */
  private readonly plans = new Turns(this.pools.plans, PLAN_THREADS);
  private readonly others = new Turns(this.pools.others, OTHER_THREADS);
  private readonly hard = { plan: new TooHard(), due: new TooHard(), says: new TooHard(), silhouette: new TooHard() };

  /** Work on a tree within its time; where it lately took longer, it fails at once. */
  private async within<T>(of: keyof ComputeService['hard'], tree: Tree, work: (before: () => void) => Promise<T>): Promise<T> {
    const hard = this.hard[of];
    try {
      return await work(() => {
        if (hard.has(tree)) throw new TooLong();
      });
    } catch (error) {
      if (error instanceof TooLong) hard.add(tree);
      throw error;
    }
  }

  /** The plan of a tree on a day (days, as dayOf gives them), its wire with its places on the bark where they are asked for. It is given up when nobody waits for it any more; where it takes too long, what could be told without it. */
  async planOf(tree: Tree, on: number, known: Known, asked: AbortSignal, places = false): Promise<PlanDocument> {
    try {
      return await this.within('plan', tree, (before) => this.plans.take<PlanDocument>('plan', { tree, on, known, places }, PLAN_S, { asked, before }));
    } catch (error) {
      if (!(error instanceof TooLong)) throw error;
      return this.told('The plan', this.others.take<PlanDocument>('plan', { tree, on, known, instead: INSTEAD }, OTHER_S, { asked }));
    }
  }

  dueOn(tree: Tree, on: number, known: Known): Promise<Sum> {
    return this.told(
      'What is due',
      this.within('due', tree, (before) => this.others.take<Sum>('due', { tree, on, known }, OTHER_S, { before })),
    );
  }

  saysOf(tree: Tree, on: number): Promise<TreeSays> {
    return this.told(
      'What it teaches',
      this.within('says', tree, (before) => this.others.take<TreeSays>('says', { tree, on }, OTHER_S, { before })),
    );
  }

  piecesOf(tree: Tree, on: number, known: Known, asked: AbortSignal): Promise<Omit<PieceView, 'tree'>[]> {
    return this.told(
      'Its wire',
      this.within('plan', tree, (before) => this.plans.take<Omit<PieceView, 'tree'>[]>('pieces', { tree, on, known }, PLAN_S, { asked, before })),
    );
  }

  silhouetteOf(tree: Tree, on: number): Promise<Silhouette> {
    return this.told(
      'Its picture',
      this.within('silhouette', tree, (before) => this.others.take<Silhouette>('silhouette', { tree, on }, OTHER_S, { before })),
    );
  }

  /** Its picture from another side, with the outlines of some branches. */
  sideOf(tree: Tree, on: number, quarters: number, of: string[]): Promise<Side> {
    return this.told(
      'Its picture',
      this.within('silhouette', tree, (before) => this.others.take<Side>('side', { tree, on, quarters, of }, OTHER_S, { before })),
    );
  }

  private told<T>(what: string, work: Promise<T>): Promise<T> {
    return work.catch((error: unknown) => {
      throw error instanceof TooLong ? tooLong(what) : error;
    });
  }

  async onModuleDestroy(): Promise<void> {
    await Promise.all(Object.values(this.pools).map((pool) => pool.destroy()));
  }
}
