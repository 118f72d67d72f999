import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { PieceView } from '@ustle/contract';
import type { Known, PlanDocument, Silhouette, Tree, TreeSays } from '@ustle/core';
import { Piscina } from 'piscina';
import type { Sum } from './compute.worker.js';

const IDLE_MS = 60_000;
const THREAD = new URL('./compute.worker.js', import.meta.url).href;

/** Computes beside the server's own thread: a tree of thousands of branches takes long, and others are saving meanwhile. */
@Injectable()
export class ComputeService implements OnModuleDestroy {
  /** Plans take longest, and have threads of their own. */
  private readonly plans = new Piscina({ filename: THREAD, maxThreads: 2, idleTimeout: IDLE_MS });
  private readonly others = new Piscina({ filename: THREAD, maxThreads: 1, idleTimeout: IDLE_MS });

  /** The plan of a tree on a day (days, as dayOf gives them), its wire with its places on the bark where they are asked for. It is given up when nobody waits for it any more. */
  planOf(tree: Tree, on: number, known: Known, signal: AbortSignal, places = false): Promise<PlanDocument> {
    return this.plans.run({ tree, on, known, places }, { name: 'plan', signal }) as Promise<PlanDocument>;
  }

  dueOn(tree: Tree, on: number, known: Known): Promise<Sum> {
    return this.others.run({ tree, on, known }, { name: 'due' }) as Promise<Sum>;
  }

  saysOf(tree: Tree, on: number): Promise<TreeSays> {
    return this.others.run({ tree, on }, { name: 'says' }) as Promise<TreeSays>;
  }

  piecesOf(tree: Tree, on: number, known: Known, signal: AbortSignal): Promise<Omit<PieceView, 'tree'>[]> {
    return this.plans.run({ tree, on, known }, { name: 'pieces', signal }) as Promise<Omit<PieceView, 'tree'>[]>;
  }

  silhouetteOf(tree: Tree): Promise<Silhouette> {
    return this.others.run({ tree, on: 0 }, { name: 'silhouette' }) as Promise<Silhouette>;
  }

  async onModuleDestroy(): Promise<void> {
    await Promise.all([this.plans.destroy(), this.others.destroy()]);
  }
}
