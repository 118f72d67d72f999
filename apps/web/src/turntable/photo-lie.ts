import { greatestOf, leastOf, project, type Camera, type Px, type Vec } from '@ustle/core';

/** How a photo lies in a picture: so many px of the screen for each of its own, its upper left corner there. */
export interface Lie {
  scale: number;
  x: number;
  y: number;
}

/** A part of a photo, px. */
export interface Box {
  middle: Px;
  width: number;
  height: number;
}

/** Room left round the tree, as a share of it; and how much nearer than the whole photo it is shown at most. */
const ROOM = 1.35;
const MOST_NEARER = 3;

/** The box round points of space in a photo. */
export function boxOf(points: readonly Vec[], camera: Camera): Box {
  const seen = points.map((p) => project(camera, p)).filter((p) => p !== null);
  const [xs, ys] = [seen.map((p) => p[0]), seen.map((p) => p[1])];
  const [left, right, top, bottom] = [leastOf(xs), greatestOf(xs), leastOf(ys), greatestOf(ys)];
  return { middle: [(left + right) / 2, (top + bottom) / 2], width: right - left, height: bottom - top };
}

/** A photo so that its tree fills a place of the screen, or as much nearer as was asked for; it never leaves it empty where it could fill it. */
export function lieOf(photo: { width: number; height: number }, box: Box | null, width: number, height: number, zoom: number): Lie {
  const fit = Math.min(width / photo.width, height / photo.height);
  const toTree = box ? Math.min(width / (ROOM * box.width), height / (ROOM * box.height)) : fit;
  const scale = Math.max(fit, Math.min(toTree, MOST_NEARER * fit)) * zoom;
  const place = (whole: number, size: number, middle: number): number => {
    const over = whole - size * scale;
    // What is smaller than its place stands in its middle; what is larger covers it.
    return over > 0 ? over / 2 : Math.min(0, Math.max(over, whole / 2 - middle * scale));
  };
  return { scale, x: place(width, photo.width, box?.middle[0] ?? photo.width / 2), y: place(height, photo.height, box?.middle[1] ?? photo.height / 2) };
}
