import { toDeg } from '../units/index.js';

/** sin φ / φ of the half-angle φ (radians) of equal arcs laid in a row: reach over length. */
const reachOf = (half: number): number => (half > 0 ? Math.sin(half) / half : 1);

/**
 * A branch of a length (mm) laid as so many equal arcs in one plane, so that it reaches so far (mm): the half-angle of each
 * arc (degrees) and its radius (mm). Reach 0 is a row of full circles. docs: Compaction.
 */
export function compaction({ length, reach, arcs }: { length: number; reach: number; arcs: number }): { halfAngleDeg: number; radius: number } {
  let low = 0;
  let high = Math.PI;
  for (let i = 0; i < 80; i++) {
    const middle = (low + high) / 2;
    if (reachOf(middle) * length > reach) low = middle;
    else high = middle;
  }
  const half = (low + high) / 2;
  return { halfAngleDeg: toDeg(half), radius: length / (2 * arcs * half) };
}
