import type { Vec } from '../space/index.js';

/** A branch that may close a gap. */
export interface GapFill {
  branch: string;
  reaches: boolean;
  /** How much too short it is, mm; 0 where it reaches. */
  shortBy: number;
  /** How far it would have to be led aside or up and down, degrees. */
  turnDeg: number;
  because: string;
}

/** A hole in the outline of the foliage: the largest empty circle there. */
export interface Gap {
  seen: 'front' | 'above';
  /** Its middle in space, in the plane through the trunk, and its radius; mm. */
  center: Vec;
  radius: number;
  /** It was not there, or much smaller, before the plan's cuts. */
  opened: boolean;
  fills: GapFill[];
}
