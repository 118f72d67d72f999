import { Injectable } from '@nestjs/common';
import type { PieceView } from '@ustle/contract';
import { KnownService } from '../known/known.service.js';
import { ComputeService } from '../plans/compute.service.js';
import { Clock } from '../store/clock.service.js';
import { TreesService } from '../trees/trees.service.js';

/** What the plans of trees cut from the rack. */
@Injectable()
export class PiecesService {
  constructor(
    private readonly trees: TreesService,
    private readonly compute: ComputeService,
    private readonly known: KnownService,
    private readonly clock: Clock,
  ) {}

  /** The pieces that the plan of a tree cuts, those that are on left out. It is given up when nobody waits for it any more. */
  async of(id: string, signal: AbortSignal): Promise<PieceView[]> {
    const { tree } = await this.trees.tree(id);
    const pieces = await this.compute.piecesOf(tree, this.clock.today(), await this.known.of(id), signal);
    return pieces.map((piece) => ({ ...piece, tree: id }));
  }
}
