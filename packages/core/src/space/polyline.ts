import { distance, lerp, sub, unit, type Vec } from './vec.js';

/** A line in space with a diameter at each point: a chain of tapered cylinders; mm. */
export interface Limb {
  points: Vec[];
  diameters: number[];
  /** Distance along the line of each point from the first, mm. */
  along: number[];
}

/** A limb from its points and diameters (same count, two or more). */
export function limb(points: Vec[], diameters: number[]): Limb {
  const along = [0];
  for (let i = 1; i < points.length; i++) along.push(along[i - 1]! + distance(points[i - 1]!, points[i]!));
  return { points, diameters, along };
}

export const lengthOf = (line: Limb): number => line.along[line.along.length - 1]!;

/** Index of the segment holding a distance along the line, and the share of it passed. */
function locate(line: Limb, at: number): { index: number; share: number } {
  let index = 0;
  // The first segment that ends at or beyond it; the last where none does.
  for (let high = line.points.length - 2; index < high;) {
    const middle = (index + high) >> 1;
    if (line.along[middle + 1]! < at) index = middle + 1;
    else high = middle;
  }
  const span = line.along[index + 1]! - line.along[index]!;
  return { index, share: span > 0 ? Math.min(1, Math.max(0, (at - line.along[index]!) / span)) : 0 };
}

/** Point, diameter and unit direction at a distance along the line (clamped to its ends). */
export function pointAt(line: Limb, at: number): { point: Vec; diameter: number; direction: Vec } {
  const { index, share } = locate(line, at);
  return { ...axisIn(line, index, share), direction: unit(sub(line.points[index + 1]!, line.points[index]!)) };
}

/** Point and diameter alone. */
export function axisAt(line: Limb, at: number): { point: Vec; diameter: number } {
  const { index, share } = locate(line, at);
  return axisIn(line, index, share);
}

function axisIn({ points, diameters }: Limb, index: number, share: number): { point: Vec; diameter: number } {
  return { point: lerp(points[index]!, points[index + 1]!, share), diameter: diameters[index]! + (diameters[index + 1]! - diameters[index]!) * share };
}

/** The same line smoothed for drawing: Catmull-Rom through its points, `pieces` per segment. */
export function smooth(line: Limb, pieces: number): Limb {
  const { points, diameters } = line;
  const out: Vec[] = [];
  const thick: number[] = [];
  for (let i = 0; i + 1 < points.length; i++) {
    const p1 = points[i]!;
    const p2 = points[i + 1]!;
    const p0 = points[i - 1] ?? lerp(p1, p2, -1);
    const p3 = points[i + 2] ?? lerp(p1, p2, 2);
    for (let k = 0; k < pieces; k++) {
      const t = k / pieces;
      const blend = (j: 0 | 1 | 2): number =>
        0.5 * (2 * p1[j] + (p2[j] - p0[j]) * t + (2 * p0[j] - 5 * p1[j] + 4 * p2[j] - p3[j]) * t * t + (3 * p1[j] - p0[j] - 3 * p2[j] + p3[j]) * t * t * t);
      out.push([blend(0), blend(1), blend(2)]);
      thick.push(diameters[i]! + (diameters[i + 1]! - diameters[i]!) * t);
    }
  }
  out.push(points[points.length - 1]!);
  thick.push(diameters[diameters.length - 1]!);
  return limb(out, thick);
}

/** The part of a line between two distances along it. */
export function stretch(line: Limb, from: number, to: number): Limb {
  const inner = line.along.map((s, i) => ({ s, i })).filter(({ s }) => s > from + 1e-6 && s < to - 1e-6);
  const first = pointAt(line, from);
  const last = pointAt(line, to);
  return limb(
    [first.point, ...inner.map(({ i }) => line.points[i]!), last.point],
    [first.diameter, ...inner.map(({ i }) => line.diameters[i]!), last.diameter],
  );
}
