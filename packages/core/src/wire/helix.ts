import { toRad } from '../units/index.js';
import { add, anySquare, cross, dot, lengthOf, pointAt, rotateAbout, scale, sub, unit, type Limb, type Vec } from '../space/index.js';
import type { Hand, Start } from '../tree/index.js';

export interface Winding {
  size: number;
  angleDeg: number;
  hand: Hand;
  start: Start;
  strands: number;
  /** The stretch of the branch that is wound, mm from its shoulder. */
  from: number;
  to: number;
}

/** Share of a branch that is wound: wire stops before the tip. */
export const WOUND_SHARE = 0.9;

/**
 * Centre lines of a coil's strands round a branch, mm. The wire touches the bark: its centre runs at (d + d_w)/2 from the axis,
 * at the given angle to it. Clockwise as seen from the parent along the branch is a right-handed turn about the direction of growth.
 */
export function helix(line: Limb, winding: Winding): Vec[][] {
  const { size, from, to } = winding;
  const sense = winding.hand === 'cw' ? 1 : -1;
  const slopeOf = Math.tan(toRad(winding.angleDeg));
  const strands: Vec[][] = Array.from({ length: winding.strands }, () => []);
  let tangent = pointAt(line, from).direction;
  let across = startAcross(tangent, winding.start);
  let turned = 0;
  let s = from;
  const end = Math.min(to, lengthOf(line));
  while (s <= end) {
    const here = pointAt(line, s);
    across = carried(across, tangent, here.direction);
    tangent = here.direction;
    const radius = (here.diameter + size) / 2;
    strands.forEach((points, k) => {
      // Parallel strands lie side by side: one wire's width apart, measured across the wire.
      const beside = (k * size) / (radius * Math.cos(toRad(winding.angleDeg)));
      points.push(add(here.point, scale(rotateAbout(across, tangent, sense * (turned - beside)), radius)));
    });
    if (s === end) break;
    const step = Math.min(end - s, (radius / slopeOf) * 0.3);
    turned += (step * slopeOf) / radius;
    s += step;
  }
  return strands;
}

/** The first touch: on top of the shoulder to lower the branch, beneath to raise it. */
function startAcross(tangent: Vec, start: Start): Vec {
  const up: Vec = start === 'over' ? [0, 0, 1] : [0, 0, -1];
  const square = sub(up, scale(tangent, dot(up, tangent)));
  return Math.hypot(...square) > 0.05 ? unit(square) : anySquare(tangent);
}

/** The vector carried along a bend without twisting. */
function carried(across: Vec, from: Vec, to: Vec): Vec {
  const axis = cross(from, to);
  const sine = Math.hypot(...axis);
  const moved = sine > 1e-9 ? rotateAbout(across, unit(axis), Math.atan2(sine, dot(from, to))) : across;
  return unit(sub(moved, scale(to, dot(moved, to))));
}
