import type { Keep } from '../units/index.js';
import type { Vec } from '../space/index.js';
import type { Hand, RouteSide } from '../tree/index.js';
import type { MetalName } from '../wood/index.js';
import type { FittedCoil, Outside } from './coil-fit.js';
import type { FlatBark } from './flat-bark.js';
import type { Knot } from './knots.js';
import { liesAcross, type LaidWire } from './laid.js';
import type { WirePath } from './path.js';
import type { Shoulder, Touch, Wish } from './shoulders.js';
import type { Way } from './ways.js';

/** What a branch needs of wire. */
export interface Need {
  branch: string;
  metal: MetalName;
  size: number;
  /** Round which side of the limb it shall go, where its artist has said. */
  side?: RouteSide;
  /** Place of its size among those to choose from. */
  gauge: number;
  strands: number;
  angle: number;
  diameter: number;
  wish: Wish;
  /** Wire on the branch alone, mm. */
  coilLength: number;
}

/** One end of a wire's way: the branch it goes on to, and how it gets there. */
export interface End {
  need: Need;
  touch: Touch;
}

/** A piece of wire on a limb: from one branch round to another, or from two turns round the limb to one. */
export interface Joined {
  /** Tells it from other ways for the same branches. */
  key: string;
  kind: 'pair' | 'single' | 'anchored';
  /** The end with the lower sample first; a free end is null. */
  ends: [End | null, End | null];
  way: Way;
  size: number;
  length: number;
  /** Share of the way that is hidden from the front; null where there is none. */
  hidden: number | null;
}

/** A limb with what is on it. */
export interface LimbWork {
  bark: FlatBark;
  shoulders: ReadonlyMap<string, Shoulder>;
  /** Wood that wires on it go round. */
  knots: readonly Knot[];
  /** The coil that is on the limb itself. */
  coil: { way: Way; hand: Hand } | null;
  /** Towards the viewer. */
  toward: Vec | null;
  /** The outsides of a branch's bends: the same object as long as they are the same. */
  outsidesOn: (branch: string) => readonly Outside[];
  /** Lays a piece with its coils; null where it would run into wood. */
  lay: (joined: Joined) => Laid | null;
  /** Touches from which no coil can go on: found while laying. */
  stuck: Set<Touch>;
  /** Wires of the rest of the tree. */
  wires: readonly LaidWire[];
  /** What was worked out from the same in the plan before. */
  keep: Keep;
}

/** A piece as it lies. */
export interface Laid {
  path: WirePath;
  coils: readonly (CoilOn | null)[];
  wire: LaidWire;
}

/** A coil with its places as points. */
export type CoilOn = FittedCoil & { points: readonly Vec[] };

/** What is on a limb so far: ways on its bark, and the wires as they lie. */
export class Placed {
  constructor(
    readonly ways: Way[],
    readonly wires: LaidWire[],
  ) {}

  copy(): Placed {
    return new Placed([...this.ways], [...this.wires]);
  }

  /** Adds a piece where it lies clear of wood and of the others; whether it did. */
  add(work: LimbWork, joined: Joined): Laid | null {
    const laid = work.lay(joined);
    if (!laid || liesAcross(laid.wire, this.wires)) return null;
    this.ways.push(joined.way);
    this.wires.push(laid.wire);
    return laid;
  }
}

export type LaidPiece = Joined & { laid: Laid; /** It was asked for, and lies across something. */ across?: boolean };

export interface OnLimb {
  joined: LaidPiece[];
  /** Branches for which there was no way round. */
  left: string[];
  /** What going round each other cost: worth of the pairs that would be best on paper, and of these. */
  worth: { best: number; had: number };
}
