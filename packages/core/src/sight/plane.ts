import { add, cross, norm, scale, unit, type Vec } from '../space/index.js';
import type { Px } from '../tree/index.js';
import type { Camera } from './camera.js';
import { solveSymmetric } from './least-squares.js';

/** Moves points so that they lie round nothing at a mean distance of √2: what is solved from them is then well conditioned. */
function evened(points: readonly Px[]): { of: (p: Px) => Px; scale: number; middle: Px } {
  const middle: Px = [points.reduce((s, p) => s + p[0], 0) / points.length, points.reduce((s, p) => s + p[1], 0) / points.length];
  const far = points.reduce((s, p) => s + Math.hypot(p[0] - middle[0], p[1] - middle[1]), 0) / points.length;
  const k = Math.SQRT2 / Math.max(1e-9, far);
  return { of: (p) => [(p[0] - middle[0]) * k, (p[1] - middle[1]) * k], scale: k, middle };
}

type Three = [number, number, number, number, number, number, number, number, number];

/** How a plane (mm) is seen in a picture (px), from four points or more: a homography by rows, least squares; null where they lie on one line. */
function homography(plane: readonly Px[], seen: readonly Px[]): Three | null {
  const [p, q] = [evened(plane), evened(seen)];
  const normal = Array.from({ length: 8 }, () => new Array<number>(8).fill(0));
  const right = new Array<number>(8).fill(0);
  plane.forEach((raw, i) => {
    const [x, y] = p.of(raw);
    const [u, v] = q.of(seen[i]!);
    for (const [row, value] of [
      [[x, y, 1, 0, 0, 0, -u * x, -u * y], u],
      [[0, 0, 0, x, y, 1, -v * x, -v * y], v],
    ] as const) {
      row.forEach((a, k) => {
        right[k]! += a * value;
        row.forEach((b, m) => (normal[k]![m]! += a * b));
      });
    }
  });
  for (let i = 0; i < 8; i++) normal[i]![i]! += 1e-12;
  const h = solveSymmetric(normal, right);
  if (!h) return null;
  const inner = [...h, 1];
  // Out of the evened spaces: T_seen⁻¹ · H · T_plane.
  const at = (r: number, c: number): number => inner[3 * r + c]!;
  const toPlane = (r: number): [number, number, number] => [
    at(r, 0) * p.scale,
    at(r, 1) * p.scale,
    at(r, 2) - p.scale * (at(r, 0) * p.middle[0] + at(r, 1) * p.middle[1]),
  ];
  const [a, b, c] = [toPlane(0), toPlane(1), toPlane(2)];
  return [
    ...(a.map((v, i) => v / q.scale + q.middle[0] * c[i]!) as [number, number, number]),
    ...(b.map((v, i) => v / q.scale + q.middle[1] * c[i]!) as [number, number, number]),
    ...c,
  ];
}

/** The cameras that would see points of the plane z = 0 (mm) where they are in a picture, by a lens of a focal length: two, where the points are few and far, since a small plane can be tilted two ways. */
export function camerasFromPlane(plane: readonly Px[], seen: readonly Px[], lens: Pick<Camera, 'focal' | 'k1' | 'centre'>): Camera[] {
  const h = homography(
    plane,
    seen.map(([x, y]): Px => [(x - lens.centre[0]) / lens.focal, (y - lens.centre[1]) / lens.focal]),
  );
  if (!h) return [];
  const column = (i: number): Vec => [h[i]!, h[3 + i]!, h[6 + i]!];
  const [one, two] = [column(0), column(1)];
  const size = Math.sqrt(norm(one) * norm(two)) || 1;
  const sign = h[8] > 0 ? 1 : -1;
  const ex = unit(scale(one, sign));
  const rough = scale(two, sign);
  const ez = unit(cross(ex, rough));
  const ey = cross(ez, ex);
  const t = scale(column(2), sign / size);
  const cameras = [fromAxes(ex, ey, ez, t, lens)];
  // The other way of tilting: its normal mirrored at the line of sight to the middle of what is seen.
  const middle = plane.reduce<Vec>(
    (s, [x, y]) => add(s, add(add(scale(ex, x / plane.length), scale(ey, y / plane.length)), scale(t, 1 / plane.length))),
    [0, 0, 0],
  );
  const sight = unit(middle);
  const mirrored = (v: Vec): Vec => add(v, scale(sight, -2 * (v[0] * sight[0] + v[1] * sight[1] + v[2] * sight[2])));
  const otherZ = scale(mirrored(ez), -1);
  const otherX = unit(cross(ey, otherZ));
  const otherY = cross(otherZ, otherX);
  const [mx, my] = [plane.reduce((s, p) => s + p[0], 0) / plane.length, plane.reduce((s, p) => s + p[1], 0) / plane.length];
  const otherT = add(middle, add(scale(otherX, -mx), scale(otherY, -my)));
  cameras.push(fromAxes(otherX, otherY, otherZ, otherT, lens));
  return cameras.filter((c) => c.at[2] > 0);
}

/** A camera from the plane's axes as it sees them (x right, y down, z forward) and where the plane's origin is. */
function fromAxes(ex: Vec, ey: Vec, ez: Vec, t: Vec, lens: Pick<Camera, 'focal' | 'k1' | 'centre'>): Camera {
  // The rows of the turn from the world into the camera are the camera's axes in the world.
  const row = (i: 0 | 1 | 2): Vec => [ex[i], ey[i], ez[i]];
  const [right, down, forward] = [row(0), row(1), row(2)];
  const at = scale(add(add(scale(right, t[0]), scale(down, t[1])), scale(forward, t[2])), -1);
  return { ...lens, at, right, down, forward };
}
