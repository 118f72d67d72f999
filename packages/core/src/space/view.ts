import { toDeg, toRad, wrapDeg } from '../units/index.js';
import { add, dot, norm, scale, type Vec } from './vec.js';

/** Front bearing and tilt of the whole tree, degrees: pitch leans it to the viewer, roll to the viewer's right. */
export interface View {
  bearing: number;
  pitch: number;
  roll: number;
}

/** Unit vector of a bearing (clockwise from the pot's mark, seen from above) and an elevation, degrees. */
export function direction(at: { bearingDeg: number; elevationDeg: number }): Vec {
  const b = toRad(at.bearingDeg);
  const e = toRad(at.elevationDeg);
  return [Math.cos(e) * Math.sin(b), Math.cos(e) * Math.cos(b), Math.sin(e)];
}

/** Bearing 0..360 and elevation −90..90 of a vector, degrees; the inverse of direction. */
export function bearingAndElevation(v: Vec): { bearing: number; elevation: number } {
  return {
    bearing: wrapDeg(toDeg(Math.atan2(v[0], v[1]))),
    elevation: toDeg(Math.atan2(v[2], Math.hypot(v[0], v[1]))),
  };
}

/** Screen axes for a viewer standing at a bearing: right, towards the viewer, up; unit vectors. */
export function screenAxes(bearing: number): { right: Vec; toward: Vec; up: Vec } {
  const f = toRad(bearing);
  return {
    right: [-Math.cos(f), Math.sin(f), 0],
    toward: [Math.sin(f), Math.cos(f), 0],
    up: [0, 0, 1],
  };
}

/** Rotations prepared once for many points: tree coordinates to (screen right, up, towards the viewer), after the tilt. */
export function viewer(view: View): (point: Vec) => Vec {
  const { right, toward } = screenAxes(view.bearing);
  const cp = Math.cos(toRad(view.pitch));
  const sp = Math.sin(toRad(view.pitch));
  const cr = Math.cos(toRad(view.roll));
  const sr = Math.sin(toRad(view.roll));
  return (point) => {
    const r = dot(point, right);
    const v = dot(point, toward);
    const pitchedToward = v * cp + point[2] * sp;
    const pitchedUp = point[2] * cp - v * sp;
    return [r * cr + pitchedUp * sr, pitchedUp * cr - r * sr, pitchedToward];
  };
}

/** A point of the tree after pitch about screen right, then roll about the line of sight; mm in, mm out. */
export function tilt(at: { point: Vec; frontDeg: number; pitchDeg: number; rollDeg: number }): Vec {
  const { right, toward, up } = screenAxes(at.frontDeg);
  const [r, u, v] = viewer({ bearing: at.frontDeg, pitch: at.pitchDeg, roll: at.rollDeg })(at.point);
  return add(add(scale(right, r), scale(up, u)), scale(toward, v));
}

/** The turn of a whole tree by its planting angle, from its own space into the world's and back; mm in, mm out. */
export function tilting({ bearing, pitch, roll }: View): { out: (point: Vec) => Vec; back: (point: Vec) => Vec } {
  const axis = (point: Vec): Vec => tilt({ point, frontDeg: bearing, pitchDeg: pitch, rollDeg: roll });
  const [x, y, z] = [axis([1, 0, 0]), axis([0, 1, 0]), axis([0, 0, 1])];
  return {
    out: (p) => add(scale(x, p[0]), add(scale(y, p[1]), scale(z, p[2]))),
    back: (p) => [dot(p, x), dot(p, y), dot(p, z)],
  };
}

/** How far the pot stands from level, and the wedge that makes it so under a pot of the given size (mm). */
export function wedge(view: View, pot: { width: number; depth: number }): { tiltDeg: number; height: number } {
  const axis = tilt({ point: [0, 0, 1], frontDeg: view.bearing, pitchDeg: view.pitch, rollDeg: view.roll });
  const sideways = norm([axis[0], axis[1], 0]);
  const tiltRad = Math.atan2(sideways, axis[2]);
  if (sideways < 1e-12) return { tiltDeg: 0, height: 0 };
  // Extent of an ellipse width × depth along the direction of the lean; width lies along bearing 90.
  const along = Math.hypot((pot.width * axis[0]) / sideways, (pot.depth * axis[1]) / sideways);
  return { tiltDeg: toDeg(tiltRad), height: along * Math.tan(tiltRad) };
}
