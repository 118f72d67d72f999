import { greatestOf, leastOf } from '../units/index.js';
import { add, distance, lerp, scale, sub, type Vec } from './vec.js';
import type { Limb } from './polyline.js';

/** Where two tapered lines come closest: the gap between their surfaces (mm, negative where they meet) and how far along each. */
export interface Closest {
  gap: number;
  /** Middle of the shortest way between them. */
  at: Vec;
  alongA: number;
  alongB: number;
}

interface Segment {
  from: Vec;
  way: Vec;
  radius: number;
  taper: number;
  /** Ball round it: its middle, and how far its surface may be from there. */
  middle: Vec;
  reach: number;
}

/** Lines are values that never change: each is cut into segments once, however many others it is held against. */
const cutUp = new WeakMap<Limb, Segment[]>();

function segmentsOf(line: Limb): Segment[] {
  const before = cutUp.get(line);
  if (before) return before;
  const { points, diameters, along } = line;
  const segments = Array.from({ length: points.length - 1 }, (_, i): Segment => {
    const [r0, r1] = [diameters[i]! / 2, diameters[i + 1]! / 2];
    return {
      from: points[i]!,
      way: sub(points[i + 1]!, points[i]!),
      radius: r0,
      taper: r1 - r0,
      middle: lerp(points[i]!, points[i + 1]!, 0.5),
      reach: (along[i + 1]! - along[i]!) / 2 + Math.max(r0, r1),
    };
  });
  cutUp.set(line, segments);
  return segments;
}

const at = (s: Segment, t: number): Vec => add(s.from, scale(s.way, t));

/** How much of a segment's axis lies before the foot of the perpendicular from a point, and how far that is from it. Written out: this is where the time goes. */
function footOn(s: Segment, x: number, y: number, z: number): { foot: number; away: number; length: number } {
  const { from, way } = s;
  const square = way[0] * way[0] + way[1] * way[1] + way[2] * way[2];
  if (square < 1e-18) return { foot: 0, away: Math.hypot(x - from[0], y - from[1], z - from[2]), length: 0 };
  const foot = ((x - from[0]) * way[0] + (y - from[1]) * way[1] + (z - from[2]) * way[2]) / square;
  const [dx, dy, dz] = [x - from[0] - foot * way[0], y - from[1] - foot * way[1], z - from[2] - foot * way[2]];
  return { foot, away: Math.sqrt(dx * dx + dy * dy + dz * dz), length: Math.sqrt(square) };
}

/** Share t of a tapered segment whose surface is nearest to a point: the foot of the perpendicular, moved towards the thick end. */
function nearestShare(s: Segment, x: number, y: number, z: number): number {
  const { foot, away, length } = footOn(s, x, y, z);
  if (length === 0) return 0;
  const slope = s.taper / length;
  // A taper of more than its own length makes the thick end nearest everywhere.
  const moved = Math.abs(slope) < 1 ? foot + (away * slope) / (Math.sqrt(1 - slope * slope) * length) : slope > 0 ? 1 : 0;
  return Math.min(1, Math.max(0, moved));
}

/** A gap between two segments that none is smaller than: of the one's axis to the ball round the other. */
function leastGap(a: Segment, b: Segment): number {
  const [x, y, z] = b.middle;
  const { foot } = footOn(a, x, y, z);
  const t = Math.min(1, Math.max(0, foot));
  const [dx, dy, dz] = [x - a.from[0] - t * a.way[0], y - a.from[1] - t * a.way[1], z - a.from[2] - t * a.way[2]];
  return Math.sqrt(dx * dx + dy * dy + dz * dz) - b.reach - Math.max(a.radius, a.radius + a.taper);
}

const SHRINK = (Math.sqrt(5) - 1) / 2;
const STEPS = 30;

/** The gap is convex in both shares, so a golden-section search along one with the other solved in place finds its minimum. */
function closestShares(a: Segment, b: Segment): { s: number; t: number; gap: number } {
  const look = (s: number): { s: number; t: number; gap: number } => {
    const [x, y, z] = [a.from[0] + s * a.way[0], a.from[1] + s * a.way[1], a.from[2] + s * a.way[2]];
    const t = nearestShare(b, x, y, z);
    const [dx, dy, dz] = [x - b.from[0] - t * b.way[0], y - b.from[1] - t * b.way[1], z - b.from[2] - t * b.way[2]];
    return { s, t, gap: Math.sqrt(dx * dx + dy * dy + dz * dz) - (a.radius + s * a.taper) - (b.radius + t * b.taper) };
  };
  let [low, high] = [0, 1];
  let left = look(high - SHRINK);
  let right = look(low + SHRINK);
  for (let i = 0; i < STEPS; i++) {
    if (left.gap <= right.gap) {
      high = right.s;
      right = left;
      left = look(high - SHRINK * (high - low));
    } else {
      low = left.s;
      left = right;
      right = look(low + SHRINK * (high - low));
    }
  }
  return [look(0), look(1), left, right].reduce((best, x) => (x.gap < best.gap ? x : best));
}

/** Where two tapered polylines come closest; null when that is not nearer than `within` (mm). Segments farther apart than the best so far are passed over. */
export function closestBetween(a: Limb, b: Limb, within = Infinity): Closest | null {
  let best: Closest | null = null;
  let nearest = within;
  const others = segmentsOf(b);
  segmentsOf(a).forEach((own, i) =>
    others.forEach((other, k) => {
      // The balls round them are farther apart than the best so far.
      if (distance(own.middle, other.middle) - own.reach - other.reach >= nearest || leastGap(own, other) >= nearest) return;
      const { s, t, gap } = closestShares(own, other);
      if (gap >= nearest) return;
      nearest = gap;
      best = {
        gap,
        at: lerp(at(own, s), at(other, t), 0.5),
        alongA: a.along[i]! + s * (a.along[i + 1]! - a.along[i]!),
        alongB: b.along[k]! + t * (b.along[k + 1]! - b.along[k]!),
      };
    }),
  );
  return best;
}

/** The upright box round a tapered line: its low and its high corner, mm. */
export interface Box {
  low: Vec;
  high: Vec;
}

export function boxOf({ points, diameters }: Limb): Box {
  const edge = (k: 0 | 1 | 2, side: 1 | -1): number => side * greatestOf(points.map((p, i) => side * p[k] + diameters[i]! / 2));
  return { low: [edge(0, -1), edge(1, -1), edge(2, -1)], high: [edge(0, 1), edge(1, 1), edge(2, 1)] };
}

/** Whether all of one box is farther than a margin (mm) from the other along some axis. */
export const boxesApart = (a: Box, b: Box, margin: number): boolean =>
  a.low[0] > b.high[0] + margin ||
  b.low[0] > a.high[0] + margin ||
  a.low[1] > b.high[1] + margin ||
  b.low[1] > a.high[1] + margin ||
  a.low[2] > b.high[2] + margin ||
  b.low[2] > a.high[2] + margin;

/** The box round some boxes. */
export const boxAround = (boxes: readonly Box[]): Box => {
  const edge = (k: 0 | 1 | 2): [number, number] => [leastOf(boxes.map((b) => b.low[k])), greatestOf(boxes.map((b) => b.high[k]))];
  const [x, y, z] = [edge(0), edge(1), edge(2)];
  return { low: [x[0], y[0], z[0]], high: [x[1], y[1], z[1]] };
};

const boxes = new WeakMap<Limb, Box>();
/** The box of a line that does not change, found once. */
export function boxed(line: Limb): Box {
  const before = boxes.get(line);
  if (before) return before;
  const made = boxOf(line);
  boxes.set(line, made);
  return made;
}
