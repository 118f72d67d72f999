import { add, dot, norm, scale, sub, unit, type Vec } from '../space/index.js';
import type { KeptLine, Px } from '../tree/index.js';
import { depthOf, project, rayAt, type Camera } from './camera.js';
import type { FoundLine } from './lines.js';

/** A tree is not nearer to a camera, nor farther from it, than these shares of the camera's distance from its foot. */
const NEAR = 0.45;
const FAR = 1.7;
const STEPS = 24;

/** Where a place seen in one photo can be in another: the line of sight to it, as the other camera sees it, px. */
export function sightIn(camera: Camera, [x, y]: Px, other: Camera): Px[] {
  const way = rayAt(camera, [x, y]);
  const away = norm(camera.at);
  return Array.from({ length: STEPS + 1 }, (_, i) => NEAR + ((FAR - NEAR) * i) / STEPS).flatMap((share): Px[] => {
    const seen = project(other, add(camera.at, scale(way, share * away)));
    return seen ? [seen] : [];
  });
}

/** A shoulder lies within so much of the bark it leaves, mm. */
const AT_THE_BARK = 6;
/** A shoulder is where a branch's own line leaves the wood: not on the bark but within it, at such a share of its radius. */
const SUNK = 0.6;

/** Where a shoulder pressed in one photo is in another, px: at the wood known in space that the line of sight to it meets; null where it meets none. */
export function shoulderIn(camera: Camera, px: Px, wood: readonly Pick<FoundLine, 'points' | 'd' | 'tipD'>[], other: Camera): Px | null {
  const way = rayAt(camera, px);
  let best: { off: number; at: Vec } | null = null;
  for (const { points, d, tipD } of wood)
    for (const [i, point] of points.entries()) {
      const nearest = add(camera.at, scale(way, dot(sub(point, camera.at), way)));
      const share = i / (points.length - 1);
      const radius = ((d ?? 0) * (1 - share) + (tipD ?? d ?? 0) * share) / 2;
      const aside = norm(sub(point, nearest));
      const off = aside - radius;
      // What is pressed on the wood and not at its edge is nearer to the camera than its middle.
      const at = add(nearest, scale(way, -Math.sqrt(Math.max(0, (SUNK * radius) ** 2 - aside ** 2))));
      if (off < Math.min(AT_THE_BARK, best?.off ?? Infinity)) best = { off, at };
    }
  return best && project(other, best.at);
}

type Three = [Vec, Vec, Vec];
/** How well a place is known by what is told of it: one over the sum of its variances (mm²) in three ways square to each other. */
function known([[a, b, c], [, e, f], [, , i]]: Three): number {
  const [ei, ai, ae] = [e * i - f * f, a * i - c * c, a * e - b * b];
  return (a * ei - b * (b * i - f * c) + c * (b * f - e * c)) / (ei + ai + ae);
}

/** What a camera tells of a place (inverse variances, 1/mm²): all across its line of sight, nothing along it. */
function tells(camera: Camera, point: Vec): Three {
  const way = unit(sub(point, camera.at));
  const each = (camera.focal / Math.max(1, depthOf(camera, point))) ** 2;
  return [0, 1, 2].map((r) => [0, 1, 2].map((c) => each * ((r === c ? 1 : 0) - way[r]! * way[c]!))) as unknown as Three;
}

/** The photo in which a line is best drawn next: the one that leaves least open of where it ends; null where all have it or none is used. */
export function nextPhoto(line: string, drawn: readonly KeptLine[], cameras: ReadonlyMap<string, Camera>, about: Vec): string | null {
  const has = new Set(drawn.filter((d) => d.line === line && cameras.has(d.photo)).map((d) => d.photo));
  const told = [...has].map((photo) => tells(cameras.get(photo)!, about));
  let best: { photo: string; worth: number } | null = null;
  for (const [photo, camera] of cameras) {
    if (has.has(photo)) continue;
    const sum = [...told, tells(camera, about)].reduce((a, b) => a.map((row, r) => row.map((v, c) => v + b[r]![c]!)) as unknown as Three);
    // Where it is drawn nowhere yet, any photo leaves its depth open: the nearest one shows most.
    const worth = told.length ? known(sum) : sum[0][0] + sum[1][1] + sum[2][2];
    if (!best || worth > best.worth) best = { photo, worth };
  }
  return best?.photo ?? null;
}
