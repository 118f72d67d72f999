import { toRad } from '../units/index.js';
import { add, bearingAndElevation, cross, direction, dot, norm, scale, sub, type Vec } from '../space/index.js';
import type { Pot } from '../tree/index.js';
import { rayAt, type Camera } from './camera.js';
import type { SeenPhoto } from './cards.js';
import { lengthAlong, placeAt } from './curve.js';
import { thicknessOf, type DrawnLine, type FoundLine } from './lines.js';

/** The line that says how wide the pot is in a photo: from its left rim to its right. */
export const POT_LINE = 'pot';

/** How wide a pot is as it is seen from a bearing, mm: an oval's outline, a rectangle's corners. */
export function seenWidth({ shape, width, depth }: Pick<Pot, 'shape' | 'width' | 'depth'>, bearing: number): number {
  const [c, s] = [Math.abs(Math.cos(toRad(bearing))), Math.abs(Math.sin(toRad(bearing)))];
  return shape === 'rectangle' ? width * c + depth * s : Math.hypot(width * c, depth * s);
}

/** Where photos without cards were taken from: held level, at the bearing that each is told to have (0 where none is), as far off as the pot's width says. Those in which it is not marked are left out. docs: Photographs. */
export function camerasByPot(photos: readonly (SeenPhoto & { bearing?: number })[], drawn: readonly DrawnLine[], pot: Pot): Map<string, Camera> {
  const marked = new Map(drawn.filter((d) => d.line === POT_LINE).map((d) => [d.photo, [d.points[0]!, d.points[d.points.length - 1]!] as const]));
  return new Map(
    photos.flatMap((photo): [string, Camera][] => {
      const rims = marked.get(photo.photo);
      const px = rims ? Math.hypot(rims[1][0] - rims[0][0], rims[1][1] - rims[0][1]) : 0;
      if (!rims || px < LEAST_PX) return [];
      const bearing = photo.bearing ?? 0;
      const focal = photo.focalGuess;
      const away = (focal * seenWidth(pot, bearing)) / px;
      const centre: [number, number] = [photo.width / 2, photo.height / 2];
      const middle = [(rims[0][0] + rims[1][0]) / 2 - centre[0], (rims[0][1] + rims[1][1]) / 2 - centre[1]] as const;
      const out = direction({ bearingDeg: bearing, elevationDeg: 0 });
      const forward = scale(out, -1);
      const right = cross(forward, [0, 0, 1]);
      // The pot's middle stands on the axis: the camera is as far aside of it, and above its rim, as it is seen off the picture's middle.
      const at = add(add(scale(out, away), scale(right, (-middle[0] * away) / focal)), [0, 0, (middle[1] * away) / focal]);
      return [[photo.photo, { at, right, down: [0, 0, -1], forward, focal, k1: 0, centre }]];
    }),
  );
}
const LEAST_PX = 20;

/** How well a line of one photo is known: towards the viewer and away from them not at all. */
const FLAT = { deg: 10, length: 0.1, d: 0.12 };

/** A line of one photo in the plane that faces it through the pot's middle; docs: Photographs. */
export function placeInPlane(line: string, { points, widths = [] }: DrawnLine, camera: Camera, photo: string): FoundLine | string {
  const flat: Vec = [camera.forward[0], camera.forward[1], 0];
  const facing = scale(flat, 1 / Math.max(1e-6, norm(flat)));
  const placed = points.map((px): Vec | null => {
    const way = rayAt(camera, px);
    const along = dot(way, facing);
    return along > 0.1 ? add(camera.at, scale(way, -dot(camera.at, facing) / along)) : null;
  });
  if (placed.some((p) => p === null)) return 'It lies beside what the photo shows of the tree.';
  const seen = placed as Vec[];
  const even = Array.from({ length: 25 }, (_, i) => placeAt(seen, i / 24));
  const [start, end] = [even[0]!, even[24]!];
  const length = lengthAlong(even);
  const thick = thicknessOf(even, [{ camera, photo, points, widths }]);
  return {
    line,
    points: even,
    start,
    end,
    length,
    ...bearingAndElevation(sub(end, start)),
    d: thick?.d ?? null,
    tipD: thick?.tipD ?? null,
    sd: { angleDeg: FLAT.deg, length: FLAT.length * length, d: FLAT.d * (thick?.d ?? 0) },
    rmsPx: 0,
    perPhoto: [{ photo, rmsPx: 0, mm: 0 }],
    flat: true,
    notes: [],
  };
}
