import { angleBetween, anySquare, bearingAndElevation, cross, dot, norm, pointAt, scale, sub, unit, type Limb, type Vec } from '../space/index.js';
import { toDeg } from '../units/index.js';
import type { BendInSpace } from '../tree/index.js';
import { Bender, turnedBy } from './bent.js';

/** Less of a turn, degrees, is none. */
const LEAST_DEG = 0.5;

/** So many even bends over a stretch of a line, from its shoulder to a place, that lead it nearly where another line of the same length goes. */
export function bendsBetween(before: Limb, after: Limb, to: number, count: number): BendInSpace[] {
  const bender = new Bender(before);
  const bends: BendInSpace[] = [];
  const length = to / count;
  for (let i = 0; i < count; i++) {
    const at = i * length;
    const end = at + length * 0.999;
    bender.to(at);
    const natural = turnedBy(bender.turn, pointAt(before, end).direction);
    const wanted = pointAt(after, end).direction;
    const angle = toDeg(angleBetween(natural, wanted));
    if (angle < LEAST_DEG) continue;
    const turn = cross(natural, wanted);
    const bend = { at, length, angle, toward: bearingAndElevation(squareAhead(norm(turn) > 1e-9 ? unit(turn) : anySquare(natural), bender.tangent)) };
    bender.bend(bend);
    bends.push(bend);
  }
  return bends;
}

/** The direction to which a tangent is turned by a quarter about an axis. */
function squareAhead(axis: Vec, tangent: Vec): Vec {
  const flat = sub(tangent, scale(axis, dot(tangent, axis)));
  return norm(flat) > 1e-6 ? cross(axis, unit(flat)) : anySquare(axis);
}
