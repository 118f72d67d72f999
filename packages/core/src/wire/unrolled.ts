import { greatestOf, leastOf, clamp } from '../units/index.js';
import { childrenOf, type PlannedBend, type Tree } from '../tree/index.js';
import type { WirePlace } from './path.js';

/** A mark on a piece laid out straight: where along it, mm from its first end. */
export interface PieceMark {
  kind: 'end' | 'shoulder' | 'bend' | 'shoot';
  at: number;
  /** How much of the piece it takes up, mm. */
  length: number;
  branch: string | null;
  /** Of a bend: which of its branch's. */
  bend: number | null;
}

/** A piece of wire laid out straight. */
export interface Unrolled {
  /** Of the whole piece, the loops at its ends and what is spare included. */
  length: number;
  loop: number;
  /** Where it goes round the limb, from the first shoulder to the last. */
  route: { from: number; to: number };
  marks: PieceMark[];
}

interface Piece {
  length: number;
  size: number;
  branches: readonly { branch: string; from: number; to: number; onFrom: string | null }[];
  places: readonly WirePlace[];
  anchor?: { soil?: number } | null;
}

/** How many of a piece's branches it winds on before it goes round their limb, from their tips inwards. */
function headsOf(branches: Piece['branches'], fromSoil: boolean): number {
  const [first, second] = branches.flatMap((b, i) => (b.onFrom === null ? [i] : []));
  if (second !== undefined) return first! + 1;
  return branches[0]!.from === 0 && !fromSoil && branches.length === 1 ? 1 : 0;
}

/** Where everything is along a piece of wire: what one needs to see to wind it. `bendsOf` gives a branch's bends. docs: The unrolled piece. */
export function unrolled(tree: Tree, piece: Piece, bendsOf: (branch: string) => readonly Pick<PlannedBend, 'at' | 'length'>[]): Unrolled {
  const loop = 10 * piece.size;
  // The trunk's wire begins with what is pushed into the soil.
  const soil = piece.anchor?.soil ?? null;
  const before = loop + (soil ?? 0);
  /** Wire up to a place of a branch, from where its coil begins to where it ends. */
  const at = (branch: string, s: number): number => {
    const own = piece.places.filter((p) => p.limb === branch);
    return before + own.reduce((best, p) => (Math.abs(p.s - s) < Math.abs(best.s - s) ? p : best), own[0]!).along;
  };
  const last = piece.places[piece.places.length - 1]!.along;
  const heads = headsOf(piece.branches, soil !== null);
  const [head, tail] = [piece.branches[heads - 1], piece.branches[heads]];
  const route = { from: head ? before + head.to : loop, to: tail ? before + tail.from : loop + last };
  const marks: PieceMark[] = [{ kind: 'end', at: 0, length: loop, branch: null, bend: null }];
  for (const own of piece.branches) {
    const coil = piece.places.filter((p) => p.limb === own.branch);
    const [low, high] = [leastOf(coil.map((p) => p.s)), greatestOf(coil.map((p) => p.s))];
    marks.push({ kind: 'shoulder', at: before + (piece.branches.indexOf(own) < heads ? own.to : own.from), length: 0, branch: own.branch, bend: null });
    bendsOf(own.branch).forEach((bend, i) => {
      const ends = [at(own.branch, clamp(bend.at, low, high)), at(own.branch, clamp(bend.at + bend.length, low, high))].sort((a, b) => a - b);
      marks.push({ kind: 'bend', at: ends[0]!, length: ends[1]! - ends[0]!, branch: own.branch, bend: i });
    });
    for (const shoot of childrenOf(tree, own.branch).filter((c) => !piece.branches.some((b) => b.branch === c.id)))
      if (shoot.at >= low && shoot.at <= high) marks.push({ kind: 'shoot', at: at(own.branch, shoot.at), length: 0, branch: shoot.id, bend: null });
  }
  marks.push({ kind: 'end', at: piece.length - loop, length: loop, branch: null, bend: null });
  return { length: piece.length, loop, route, marks: marks.sort((a, b) => a.at - b.at) };
}
