import type { Px } from '../tree/index.js';
import { add, cross, dot, norm, scale, sub, unit, type Vec } from '../space/index.js';

/** Where a camera stood, and how it saw: its axes in the world (right, down, forward), its lens in px. docs: Photographs. */
export interface Camera {
  at: Vec;
  right: Vec;
  down: Vec;
  forward: Vec;
  focal: number;
  /** One radial term, of the squared distance from the middle in focal lengths. */
  k1: number;
  centre: Px;
}

/** Where a point of the world is in the picture; null where it is behind the camera. */
export function project(camera: Camera, point: Vec): Px | null {
  const off = sub(point, camera.at);
  const depth = dot(off, camera.forward);
  if (depth < 1) return null;
  const [x, y] = [dot(off, camera.right) / depth, dot(off, camera.down) / depth];
  const lens = camera.focal * (1 + camera.k1 * (x * x + y * y));
  return [camera.centre[0] + lens * x, camera.centre[1] + lens * y];
}

/** How fast a point's place in the picture moves as the point does: px for each mm, x and y of the picture each by x, y, z of the world. */
export function projectionSlopes(camera: Camera, point: Vec): readonly [Vec, Vec] {
  const off = sub(point, camera.at);
  const depth = Math.max(1, dot(off, camera.forward));
  const [x, y] = [dot(off, camera.right) / depth, dot(off, camera.down) / depth];
  const lens = camera.focal * (1 + camera.k1 * (x * x + y * y));
  const bend = 2 * camera.focal * camera.k1;
  // Of the place before the lens, in focal lengths, by the point; then the lens.
  const [dx, dy] = [sub(camera.right, scale(camera.forward, x)), sub(camera.down, scale(camera.forward, y))];
  const along = (a: number, b: number): Vec => scale(add(scale(dx, a), scale(dy, b)), 1 / depth);
  return [along(lens + bend * x * x, bend * x * y), along(bend * x * y, lens + bend * y * y)];
}

/** How far before the camera a point is, mm along its line of sight. */
export const depthOf = (camera: Camera, point: Vec): number => dot(sub(point, camera.at), camera.forward);

/** The direction in the world of what is seen at a place in the picture. */
export function rayAt({ right, down, forward, focal, k1, centre }: Camera, [px, py]: Px): Vec {
  const [bentX, bentY] = [(px - centre[0]) / focal, (py - centre[1]) / focal];
  let [x, y] = [bentX, bentY];
  // The lens undone by going round a few times: it bends little.
  for (let i = 0; i < 8; i++) {
    const lens = 1 + k1 * (x * x + y * y);
    [x, y] = [bentX / lens, bentY / lens];
  }
  return unit(add(add(scale(right, x), scale(down, y)), forward));
}

/** The point nearest to some lines of sight; null where they are all but parallel. */
export function meetingOf(rays: readonly { at: Vec; way: Vec }[]): Vec | null {
  const m = [0, 0, 0, 0, 0, 0];
  const b: [number, number, number] = [0, 0, 0];
  for (const { at, way } of rays) {
    const [x, y, z] = way;
    const own = [1 - x * x, -x * y, -x * z, 1 - y * y, -y * z, 1 - z * z];
    own.forEach((v, i) => (m[i]! += v));
    const k = dot(at, way);
    for (const i of [0, 1, 2] as const) b[i] += at[i] - k * way[i];
  }
  const [xx, xy, xz, yy, yz, zz] = m as [number, number, number, number, number, number];
  const rows: [Vec, Vec, Vec] = [
    [xx, xy, xz],
    [xy, yy, yz],
    [xz, yz, zz],
  ];
  const det = dot(rows[0], cross(rows[1], rows[2]));
  if (Math.abs(det) < 1e-4 * rays.length) return null;
  const solved = [cross(rows[1], rows[2]), cross(rows[2], rows[0]), cross(rows[0], rows[1])] as const;
  return [0, 1, 2].map((i) => (solved[0][i]! * b[0] + solved[1][i]! * b[1] + solved[2][i]! * b[2]) / det) as unknown as Vec;
}

/** A turn of space as its axis times its angle (radians), applied to a vector (Rodrigues). */
export function turnedBy(turn: Vec, v: Vec): Vec {
  const angle = norm(turn);
  if (angle < 1e-12) return add(v, cross(turn, v));
  const axis = scale(turn, 1 / angle);
  return add(add(scale(v, Math.cos(angle)), scale(cross(axis, v), Math.sin(angle))), scale(axis, dot(axis, v) * (1 - Math.cos(angle))));
}

/** A camera moved by a step and turned by an axis times an angle. */
export const moved = (camera: Camera, step: Vec, turn: Vec): Camera => ({
  ...camera,
  at: add(camera.at, step),
  right: turnedBy(turn, camera.right),
  down: turnedBy(turn, camera.down),
  forward: turnedBy(turn, camera.forward),
});
