import { direction, lerp, scale, type Vec } from '../space/index.js';
import type { Device } from './plan-parts.js';
import type { Pot } from './measures.js';

/** A tie or a stay goes into the pot so high above its soil, mm. */
export const SOIL = 3;
/** A frame stands so far outside of what it draws, mm. */
const OUTSIDE = 40;

export const level = (bearing: number): Vec => direction({ bearingDeg: bearing, elevationDeg: 0 });

/** How far the rim is from the middle of a pot towards a bearing, mm. */
export function rimAt({ shape, width, depth }: Pot, bearing: number): number {
  const [x, y] = level(bearing);
  if (shape === 'rectangle') return Math.min(width / 2 / Math.max(1e-9, Math.abs(x)), depth / 2 / Math.max(1e-9, Math.abs(y)));
  return 1 / Math.hypot(x / (width / 2), y / (depth / 2));
}

/** Two stays go to the rim so far to either side of where they draw, degrees. */
const STAYS_APART = 35;

/** The two places on the rim that a pair of stays goes to. */
export const staysOn = (pot: Pot, bearing: number): [Vec, Vec] =>
  [-STAYS_APART, STAYS_APART].map((turn): Vec => {
    const at = (bearing + turn + 360) % 360;
    const [east, north] = scale(level(at), rimAt(pot, at));
    return [east, north, SOIL];
  }) as [Vec, Vec];

/** Where a jack that goes to the rim of a pot, a frame, or two stays between them, draw a place on wood from; null for any other device. */
export function drawnFrom({ kind, bearing, anchor }: Device, pot: Pot, [x, y, z]: Vec): Vec | null {
  if (kind === 'frame' && bearing !== undefined) {
    const [east, north] = scale(level(bearing), Math.max(rimAt(pot, bearing), Math.hypot(x, y) + OUTSIDE));
    return [east, north, z];
  }
  if (kind === 'stays' && bearing !== undefined) return lerp(...staysOn(pot, bearing), 0.5);
  if (anchor?.kind !== 'pot-rim' || anchor.bearing === undefined) return null;
  const [east, north] = scale(level(anchor.bearing), rimAt(pot, anchor.bearing));
  return [east, north, SOIL];
}
