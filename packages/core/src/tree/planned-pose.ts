import type { Vec } from '../space/index.js';
import type { Band, Protection } from '../wood/index.js';

/** What a bend of a pose is there for: the drop at the shoulder, movement along the branch, an arc that makes it shorter, the tip brought up. */
export type BendKind = 'drop' | 'movement' | 'arc' | 'tip';

/** A bend in space: the tangent where it begins turns by an angle towards a direction of the world, evenly over a length of branch. */
export interface BendInSpace {
  /** mm from the shoulder where the bend begins, and the length it is spread over. */
  at: number;
  length: number;
  /** Degrees. */
  angle: number;
  toward: { bearing: number; elevation: number };
}

/** One bend as planned, with what it does to the wood. */
export interface PlannedBend extends BendInSpace {
  kind: BendKind;
  /** Which way the branch goes where the bend begins. */
  start: { bearing: number; elevation: number };
  diameter: number;
  radius: number;
  /** Strain of the outermost fibre, and that over what the wood takes with this protection. */
  strain: number;
  risk: number;
  band: Band;
  /** Of the bend by hand, which goes farther than what stays. */
  stages: number | null;
  protection: Protection;
  /** What would do in place of a bend that is more than the wood takes in one season. */
  nearest: string | null;
}

/** A bend at the shoulder ends before such a share of its branch, wherever its wire lies. */
export const DROP_ENDS = 0.55;

/** A wire as it is wound on a branch, for the bends that shall meet it. */
export interface WoundWire {
  /** By how many degrees it misses the outside of a bend that begins so far along (mm): where that begins the branch goes `start`, and it brings it `toward`; directions in the world. */
  missDeg: (bend: { at: number; length: number; start: Vec; toward: Vec }) => number;
  /** Half of its pitch, mm: no bend need be moved farther to meet it. */
  halfPitch: number;
  /** Where it ends, mm along the branch: what bends beyond has no wire. */
  until: number;
}

/** Why a branch shall go where it does. */
export type PoseSource = 'plan' | 'habit' | 'curve' | 'first' | 'back' | 'eye' | 'gap' | 'layer' | 'fan' | 'trunk';

/** Where a branch shall go, and by which bends; bearings and elevations in the world, after the planting angle. */
export interface PlannedPose {
  branch: string;
  bearing: number;
  elevation: number;
  /** Length of the straight line from shoulder to tip once it is bent, mm. */
  reach: number;
  /** How it points now, or once the branch that it grows on is bent. */
  now: { bearing: number; elevation: number };
  bends: PlannedBend[];
  from: PoseSource;
  because: string[];
}
