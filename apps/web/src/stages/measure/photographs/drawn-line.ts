import type { Px } from '@ustle/core';

/** A drawn line is led through a press so near to it, px of the screen. */
export const LED = 40;

/** The place at a share of a drawn line's length, and its way there. */
export function along(points: readonly Px[], share: number): { at: Px; way: Px } {
  const steps = points.slice(1).map((p, i) => Math.hypot(p[0] - points[i]![0], p[1] - points[i]![1]));
  let rest = share * steps.reduce((s, v) => s + v, 0);
  let i = 0;
  while (i < steps.length - 1 && rest > steps[i]!) rest -= steps[i++]!;
  const [a, b, step] = [points[i]!, points[i + 1]!, steps[i] || 1];
  return { at: [a[0] + ((b[0] - a[0]) * rest) / step, a[1] + ((b[1] - a[1]) * rest) / step], way: [(b[0] - a[0]) / step, (b[1] - a[1]) / step] };
}

/** The part of a drawn line that a place is nearest to: before which of its points it would come, and how far off it is, px. */
export function nearestPart(points: readonly Px[], [x, y]: Px): { part: number; off: number } {
  let [best, least] = [1, Infinity];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const k = Math.min(1, Math.max(0, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy || 1)));
    const off = Math.hypot(x - a[0] - k * dx, y - a[1] - k * dy);
    if (off < least) [best, least] = [i, off];
  }
  return { part: best, off: least };
}

/** A stretch of a line that is so much longer than the straight way beside it strays. */
const STRAYS = 1.25;

/** How many points of a line stray from a place on: with them left out, no later one is reached by a way so much longer than the straight one. */
function straying(place: Px, points: readonly Px[]): number {
  const apart = (a: Px, b: Px): number => Math.hypot(b[0] - a[0], b[1] - a[1]);
  const goesOn = (from: number): boolean => {
    let gone = 0;
    return points.slice(from).every((p, i) => {
      gone += apart(i ? points[from + i - 1]! : place, p);
      return gone <= STRAYS * apart(place, p);
    });
  };
  const first = points.findIndex((_, i) => goesOn(i));
  return first < 0 ? points.length - 1 : first;
}

/** A drawn line led through a place beside it: what strays to either side of that goes; its ends stay. */
export function ledThrough(points: readonly Px[], place: Px): Px[] {
  const { part } = nearestPart(points, place);
  const [before, after] = [[...points.slice(0, part)].reverse(), points.slice(part)];
  return [...before.slice(straying(place, before)).reverse(), place, ...after.slice(straying(place, after))];
}
