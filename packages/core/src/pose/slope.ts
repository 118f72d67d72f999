import { toDeg } from '../units/index.js';
import { angleBetween, bearingAndElevation, direction, sub, type Limb } from '../space/index.js';
import type { PlacedBranch, PoseSource } from '../tree/index.js';

export interface Slope {
  bearing: number;
  elevation: number;
}

/** Where a branch shall go, and why. */
export interface Target extends Slope {
  from: PoseSource;
  because: string[];
}

/** A branch of the trunk, or of a stem, with where it shall go. */
export interface Main {
  id: string;
  b: PlacedBranch;
  line: Limb;
  /** Share of the height where it leaves. */
  share: number;
  target: Target;
}

/** From shoulder to tip. */
export const slopeOfLine = ({ points }: Limb): Slope => bearingAndElevation(sub(points[points.length - 1]!, points[0]!));

/** Degrees from one way to another. */
export const turnBetween = (a: Slope, b: Slope): number =>
  toDeg(angleBetween(direction({ bearingDeg: a.bearing, elevationDeg: a.elevation }), direction({ bearingDeg: b.bearing, elevationDeg: b.elevation })));
