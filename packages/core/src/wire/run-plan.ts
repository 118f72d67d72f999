import type { Hand, PlannedBend, PlannedPose, RouteSide, Start, WoundWire } from '../tree/index.js';
import type { MetalName } from '../wood/index.js';
import type { BendToHold, WireToTry } from './choose.js';
import type { WirePath } from './path.js';

/** What a wire does with a bend, and by how much it misses its outside; degrees. */
export interface WiredBend {
  bendTo: number;
  settles: number;
  spread: number;
  missDeg: number;
}

/** What a piece is on one of its branches. */
export interface RunBranchPlan {
  branch: string;
  /** The branch whose coil goes on along this one; null: its wire comes from the limb. */
  onFrom: string | null;
  hand: Hand;
  start: Start;
  /** How far off the bark it is wound, mm; 0 is snug. */
  gap: number;
  /** The stretch of the piece that lies on it, mm from the first end. */
  from: number;
  to: number;
  turns: number;
  hold: number;
  springBack: number;
  /** Push test and overbend, as the choice rests on them. */
  firmness: { pushChance: number; overbend: number };
  /** By how many degrees the wire misses the outside of a bend, at worst. */
  phaseMissDeg: number | null;
  rule: { aluminium: number; copper: number };
  /** Angle to bend to by hand, the one it settles at under the wire, the target, and the length of the bend; degrees, mm. */
  bendTo: number;
  settles: number;
  target: number;
  bendLength: number;
  /** The same of every bend of its pose, from the shoulder, and by how much the wire misses its outside; null: a tie holds it, or the wire went on along a shoot before it. */
  bends: (WiredBend | null)[];
  /** Whether the wire holds its movement only, and a tie where it lies. */
  tied: boolean;
  because: string[];
}

export const RUN_KINDS = ['trunk', 'pair', 'single', 'anchored'] as const;
export type RunKind = (typeof RUN_KINDS)[number];

/** How a piece runs round the limb that its branches grow on. */
export interface Route {
  side: RouteSide;
  length: number;
  turnDeg: number;
  hidden: boolean;
}

export interface RunPlan {
  id: string;
  kind: RunKind;
  metal: MetalName;
  size: number;
  gauge: number | null;
  strands: number;
  angle: number;
  length: number;
  mass: number;
  order: number;
  route: Route | null;
  /** What holds its loose half: turns along another piece, beside its coil on a branch, or (run null) round the limb; the trunk's is pushed so deep into the soil, mm. */
  anchor: { run: string | null; turns: number; beside?: string; soil?: number } | null;
  branches: RunBranchPlan[];
  because: string[];
  path: WirePath;
}

/** A branch that goes without wire, and why; `guy`: no coil would hold it. */
export interface Unwired {
  branch: string;
  because: string[];
  guy?: boolean;
}

export interface WiringPlan {
  runs: RunPlan[];
  unwired: Unwired[];
  /** Branches that no coil holds and that no tie is planned for yet, the thickest first: they are given one. */
  toTie: string[];
  /** The coils by branch, as bends are to meet them. */
  wound: ReadonlyMap<string, WoundWire>;
  /** The same pieces, with what they do with bends that were moved to meet them. */
  met: (poses: readonly PlannedPose[]) => RunPlan[];
  /** What the pairs are worth beside the best that there would be if no piece were in another's way. */
  worth: { best: number; had: number };
}

/** How far past its target a bend is left under a wire: chosen by the window that it opens for taking the wire off. */
export type PastOf = (branch: string, bend: BendToHold, wire: WireToTry) => number;

/** Which branches shall move, and why the others stay as they grow. */
export interface PosedBranches {
  poses: readonly PlannedPose[];
  asGrown: readonly { branch: string; because: string[] }[];
  /** Bends of the trunk, where it is bent. */
  trunk?: readonly PlannedBend[];
}

/** Loops at both ends, and a twentieth for the hands. */
export const pieceLength = (path: number, size: number): number => (path + 2 * 10 * size) * 1.05;

/** Of what is said of each branch of a piece: its ends, which grow on the limb that it goes round, and the shoots that it goes on along. */
export function asWound<T>({ branches }: { branches: readonly Pick<RunBranchPlan, 'onFrom'>[] }, said: readonly T[]): { first: T; second?: T; along?: T[] } {
  const ends = said.filter((_, i) => branches[i]!.onFrom === null);
  const along = said.filter((_, i) => branches[i]!.onFrom !== null);
  return { first: ends[0]!, ...(ends[1] === undefined ? {} : { second: ends[1] }), ...(along.length ? { along } : {}) };
}
