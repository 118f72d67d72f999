import type { Band, Protection } from '../wood/index.js';

/** One bend as planned, with what it does to the wood. */
export interface PlannedBend {
  /** mm from the shoulder where the bend begins, and the length it is spread over. */
  at: number;
  length: number;
  angle: number;
  toward: { bearing: number; elevation: number };
  diameter: number;
  radius: number;
  risk: number;
  band: Band;
  stages: number | null;
  protection: Protection;
}

/** Where a branch shall go, and by which bends. */
export interface PlannedPose {
  branch: string;
  bearing: number;
  elevation: number;
  bends: PlannedBend[];
  from: 'plan' | 'habit';
  because: string[];
}
