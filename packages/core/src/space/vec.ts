export type Vec = readonly [number, number, number];

export const add = (a: Vec, b: Vec): Vec => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const sub = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vec, k: number): Vec => [a[0] * k, a[1] * k, a[2] * k];
export const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec, b: Vec): Vec => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
export const norm = (a: Vec): number => Math.sqrt(dot(a, a));
export const distance = (a: Vec, b: Vec): number => norm(sub(a, b));
export const lerp = (a: Vec, b: Vec, t: number): Vec => add(a, scale(sub(b, a), t));

/** Unit vector; a zero vector stays zero. */
export function unit(a: Vec): Vec {
  const length = norm(a);
  return length > 0 ? scale(a, 1 / length) : a;
}

/** Angle between two vectors, radians in [0, π]. */
export const angleBetween = (a: Vec, b: Vec): number => Math.atan2(norm(cross(a, b)), dot(a, b));

/** Rotation of v about a unit axis by an angle in radians (Rodrigues). */
export function rotateAbout(v: Vec, axis: Vec, angleRad: number): Vec {
  const c = Math.cos(angleRad);
  const s = Math.sin(angleRad);
  return add(add(scale(v, c), scale(cross(axis, v), s)), scale(axis, dot(axis, v) * (1 - c)));
}

/** Some unit vector square to the given one. */
export function anySquare(a: Vec): Vec {
  const helper: Vec = Math.abs(a[2]) < 0.9 * norm(a) ? [0, 0, 1] : [1, 0, 0];
  return unit(cross(helper, a));
}

/** The shortest turn that brings one direction to lie along another; directions that are one are left as they are. */
export function alignedTo(from: Vec, to: Vec): (v: Vec) => Vec {
  const axis = cross(from, to);
  if (norm(axis) < 1e-9) return dot(from, to) < 0 ? (v) => rotateAbout(v, anySquare(from), Math.PI) : (v) => v;
  const [square, angle] = [unit(axis), angleBetween(from, to)];
  return (v) => rotateAbout(v, square, angle);
}
