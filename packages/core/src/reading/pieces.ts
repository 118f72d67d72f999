import { inTheWay, type Tree } from '../tree/index.js';
import { ALL_WIRED, HEAVY_BEND, type Reading } from './budget.js';

/** What was wired and bent heavily within this session already. */
export interface Lately {
  wired: number;
  heavyBends: number;
}

/** What a tree bears of bends and wire in a session, in points: its capacity without what cuts use, and what was bent and wired lately. */
export function roomForWire(read: Pick<Reading, 'capacity' | 'uses'>, living: number, lately: Lately): number {
  const cut = read.uses.filter((u) => u.work === 'green' || u.work === 'deadwood').reduce((sum, u) => sum + u.points, 0);
  return read.capacity - cut - (ALL_WIRED * lately.wired) / living - HEAVY_BEND * lately.heavyBends;
}

/** A piece of wire with what it asks of its tree, as it goes on. */
export interface AskedPiece {
  branches: readonly string[];
  heavyBends: number;
}

/**
 * Takes pieces of wire one after the other as far as the tree bears them: one function for what is laid out and for what is
 * said of it. What is left keeps what goes on after it in its way.
 */
export class Bearing {
  /** Branches with work on them that comes first and is left. */
  readonly first: string[] = [];

  constructor(
    private readonly tree: Pick<Tree, 'branches'>,
    private room: number,
    private readonly living: number,
  ) {}

  private costOf({ branches, heavyBends }: AskedPiece): number {
    return (ALL_WIRED * branches.length) / this.living + HEAVY_BEND * heavyBends;
  }

  /** Why a piece is left: other work comes first there, or the tree bears no more; null where it can go on. */
  refuses(piece: AskedPiece): 'in the way' | 'too much' | null {
    if (inTheWay(this.tree, this.first, piece.branches)) return 'in the way';
    return this.costOf(piece) > this.room + 1e-9 ? 'too much' : null;
  }

  take(piece: AskedPiece): void {
    this.room -= this.costOf(piece);
  }

  leave(branches: readonly string[]): void {
    this.first.push(...branches);
  }
}
