import { Injectable, type OnModuleDestroy } from '@nestjs/common';
import type { PlanDocument, Tree } from '@ustle/core';
import { Piscina } from 'piscina';

const IDLE_MS = 60_000;

/** Computes plans beside the server's own thread: a tree of thousands of branches takes long, and others are saving meanwhile. */
@Injectable()
export class PlansService implements OnModuleDestroy {
  private readonly threads = new Piscina({ filename: new URL('./plan.worker.js', import.meta.url).href, maxThreads: 1, idleTimeout: IDLE_MS });

  /** The plan of a tree on a day (days, as dayOf gives them). */
  planOf(tree: Tree, on: number): Promise<PlanDocument> {
    return this.threads.run({ tree, on }) as Promise<PlanDocument>;
  }

  onModuleDestroy(): Promise<void> {
    return this.threads.destroy();
  }
}
