import { greatestOf, leastOf, type Px } from '@ustle/core';
import type { Picture } from './vision.js';

/** A part of a picture, made smaller: its pixels, and how its places lie in the whole. */
export interface Cutout {
  picture: Picture;
  x: number;
  y: number;
  /** Pixels of the whole for each of its own. */
  step: number;
}

/** What is looked at round two places: so far about them, as a share of their distance, and at least so many px. */
const ABOUT = 0.35;
const LEAST_ABOUT = 40;
/** Its longer side has at most so many pixels: a line along wood needs no more. */
const MOST_SIDE = 420;

/** The part of a picture round two places, smaller where it is large. */
export function cutoutOf({ width, height, data }: Picture, a: Px, b: Px): Cutout {
  const about = Math.max(LEAST_ABOUT, ABOUT * Math.hypot(b[0] - a[0], b[1] - a[1]));
  const clamp = (v: number, most: number): number => Math.max(0, Math.min(most, v));
  const [x, y] = [Math.floor(clamp(Math.min(a[0], b[0]) - about, width - 2)), Math.floor(clamp(Math.min(a[1], b[1]) - about, height - 2))];
  const [right, bottom] = [Math.ceil(clamp(Math.max(a[0], b[0]) + about, width)), Math.ceil(clamp(Math.max(a[1], b[1]) + about, height))];
  const step = Math.max(1, Math.ceil(Math.max(right - x, bottom - y) / MOST_SIDE));
  const [w, h] = [Math.max(1, Math.floor((right - x) / step)), Math.max(1, Math.floor((bottom - y) / step))];
  const out = new Uint8Array(4 * w * h);
  for (let v = 0; v < h; v++)
    for (let u = 0; u < w; u++)
      for (let k = 0; k < 4; k++) {
        let sum = 0;
        for (let dy = 0; dy < step; dy++) for (let dx = 0; dx < step; dx++) sum += data[4 * ((y + v * step + dy) * width + x + u * step + dx) + k]!;
        out[4 * (v * w + u) + k] = sum / (step * step);
      }
  return { picture: { width: w, height: h, data: out }, x, y, step };
}

type Colour = [number, number, number];

/** The colour at a place: the middle one of those round it. */
function colourAt({ width, height, data }: Picture, [x, y]: Px, reach: number): Colour {
  const of: [number[], number[], number[]] = [[], [], []];
  for (let v = Math.max(0, Math.round(y) - reach); v <= Math.min(height - 1, Math.round(y) + reach); v++)
    for (let u = Math.max(0, Math.round(x) - reach); u <= Math.min(width - 1, Math.round(x) + reach); u++)
      for (const k of [0, 1, 2] as const) of[k].push(data[4 * (v * width + u) + k]!);
  return of.map((values) => values.sort((a, b) => a - b)[values.length >> 1] ?? 0) as Colour;
}

/** Colours that differ by so much (of 255, root of the sum of squares) are of two things. Shade counts less than hue. */
const ALIKE = 34;
const BY_LIGHT = 0.45;

const unlike = (r: number, g: number, b: number, [wr, wg, wb]: Colour): number => {
  const [dr, dg, db] = [r - wr, g - wg, b - wb];
  const light = (dr + dg + db) / 3;
  return Math.hypot(BY_LIGHT * light, dr - light, dg - light, db - light);
};

/** How far each pixel is from looking as the wood at two places does, 0 (as it) to 1 (something else). */
export function unlikeWood(picture: Picture, a: Px, b: Px): Float32Array {
  const woods = [colourAt(picture, a, 1), colourAt(picture, b, 1)];
  const { width, height, data } = picture;
  return Float32Array.from({ length: width * height }, (_, i) =>
    Math.min(1, leastOf(woods.map((w) => unlike(data[4 * i]!, data[4 * i + 1]!, data[4 * i + 2]!, w))) / ALIKE),
  );
}

/** A line of many points as few: those that keep it within so many px (Ramer, Douglas, Peucker). */
export function fewer(points: readonly Px[], within: number): Px[] {
  if (points.length < 3) return [...points];
  const [a, b] = [points[0]!, points[points.length - 1]!];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const length = Math.hypot(dx, dy) || 1;
  let [worst, at] = [0, 0];
  for (let i = 1; i < points.length - 1; i++) {
    const off = Math.abs(dx * (points[i]![1] - a[1]) - dy * (points[i]![0] - a[0])) / length;
    if (off > worst) [worst, at] = [off, i];
  }
  if (worst <= within) return [a, b];
  return [...fewer(points.slice(0, at + 1), within), ...fewer(points.slice(at), within).slice(1)];
}

/** Points of a line evened over their neighbours; its ends stay. */
export function smoothed(points: readonly Px[], reach: number): Px[] {
  return points.map((p, i): Px => {
    const half = Math.min(reach, i, points.length - 1 - i);
    if (!half) return p;
    const near = points.slice(i - half, i + half + 1);
    return [near.reduce((s, q) => s + q[0], 0) / near.length, near.reduce((s, q) => s + q[1], 0) / near.length];
  });
}

/** A line moved so that it runs from one place to another: what it is off at its ends fades along it. */
export const drawnTo = (line: readonly Px[], from: Px, to: Px): Px[] => {
  const [first, last] = [line[0]!, line[line.length - 1]!];
  return line.map(([x, y], i): Px => {
    const k = i / (line.length - 1);
    return [x + (1 - k) * (from[0] - first[0]) + k * (to[0] - last[0]), y + (1 - k) * (from[1] - first[1]) + k * (to[1] - last[1])];
  });
};

export const lengthOf = (points: readonly Px[]): number =>
  points.slice(1).reduce((sum, p, i) => sum + Math.hypot(p[0] - points[i]![0], p[1] - points[i]![1]), 0);

const pointAlong = (points: readonly Px[], share: number): { at: Px; way: Px } => {
  const steps = points.slice(1).map((p, i) => Math.hypot(p[0] - points[i]![0], p[1] - points[i]![1]));
  let left = share * steps.reduce((s, v) => s + v, 0);
  const i = Math.max(
    0,
    steps.findIndex((s) => (left -= s) <= 0),
  );
  const [a, b] = [points[i]!, points[i + 1]!];
  const k = steps[i] ? 1 + left / steps[i]! : 0;
  const length = steps[i] || 1;
  return { at: [a[0] + k * (b[0] - a[0]), a[1] + k * (b[1] - a[1])], way: [(b[0] - a[0]) / length, (b[1] - a[1]) / length] };
};

/** How far to either side of a line an edge is looked for, px, and in what steps; over how much of its length. */
const FINE = 0.5;
const OVER = [-4, -2, 0, 2, 4];

/** Wood across a drawn line: how wide it is, px, and how far its middle is aside of the line, along a way. */
export interface Across {
  width: number;
  aside: number;
  across: Px;
}

/** Wood across a drawn line at a share of it, from its edges; null where it has none to be seen. `most` is the greatest width looked for, px. */
function acrossAt({ width, height, data }: Picture, points: readonly Px[], share: number, most: number, wood: Colour): Across | null {
  const { at, way } = pointAlong(points, share);
  const across: Px = [-way[1], way[0]];
  const colour = (u: number, v: number, k: number): number => {
    const [x, y] = [Math.min(width - 2, Math.max(0, u - 0.5)), Math.min(height - 2, Math.max(0, v - 0.5))];
    const [x0, y0] = [Math.floor(x), Math.floor(y)];
    const [fx, fy] = [x - x0, y - y0];
    const of = (dx: number, dy: number): number => data[4 * ((y0 + dy) * width + x0 + dx) + k]!;
    return (of(0, 0) * (1 - fx) + of(1, 0) * fx) * (1 - fy) + (of(0, 1) * (1 - fx) + of(1, 1) * fx) * fy;
  };
  const reach = Math.ceil(most / 2 / FINE);
  const profile = Array.from({ length: 2 * reach + 1 }, (_, i): Colour => {
    const off = (i - reach) * FINE;
    const sum: Colour = [0, 0, 0];
    for (const along of OVER)
      for (const k of [0, 1, 2] as const) sum[k] += colour(at[0] + across[0] * off + way[0] * along, at[1] + across[1] * off + way[1] * along, k) / OVER.length;
    return sum;
  });
  const other = profile.map(([r, g, b]) => unlike(r, g, b, wood) / ALIKE);
  // Behind leaves, or beside the wood, nothing is to be seen of it.
  if (other[reach]! >= ELSE) return null;
  // An edge is where the colour changes fastest about where it is no longer the wood's.
  const GAP = 2;
  const change = profile.map((_, i) => {
    const [a, b] = [profile[Math.max(0, i - GAP)]!, profile[Math.min(profile.length - 1, i + GAP)]!];
    return Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
  });
  const side = (sign: 1 | -1): number | null => {
    let out = 1;
    while (out <= reach - GAP && other[reach + sign * out]! < ELSE) out++;
    if (out > reach - GAP) return null;
    let edge = out;
    for (let n = Math.max(1, out - EDGE_IN); n <= Math.min(reach - GAP, out + EDGE_OUT); n++)
      if (change[reach + sign * n]! > change[reach + sign * edge]!) edge = n;
    const [l, m, r] = [-1, 0, 1].map((k) => change[reach + sign * (edge + k)]!) as Colour;
    const bend = l - 2 * m + r;
    return (edge + (bend < 0 ? Math.max(-0.5, Math.min(0.5, (l - r) / (2 * bend))) : 0)) * FINE;
  };
  const [left, right] = [side(-1), side(1)];
  return left === null || right === null ? null : { width: left + right, aside: (right - left) / 2, across };
}
/** Beyond so much unlikeness it is something else; its edge is so many steps farther in or out. */
const ELSE = 0.7;
const EDGE_IN = 6;
const EDGE_OUT = 3;

/** Wood tapers evenly: a width fits a taper within such a share, and px; a taper is believed where so many fit, and its thin end is so thin. */
const FITS = { share: 0.12, px: 1 };
const FEWEST = 6;
const NEARLY = 0.7;
/** Wood is not thicker than such a share of its length. */
const STOUT = 0.22;
const TAPERS = { least: 0.2, most: 1.05 };

/** Wood is bare at its base: there its colour is to be had. */
const BARE = { from: 0.04, to: 0.4, places: 15 };

/** The middle one of the colours that a line has near its base. */
function woodColour(picture: Picture, points: readonly Px[]): Colour {
  const seen = Array.from({ length: BARE.places }, (_, i) =>
    colourAt(picture, pointAlong(points, BARE.from + ((BARE.to - BARE.from) * i) / (BARE.places - 1)).at, 1),
  );
  return [0, 1, 2].map((k) => seen.map((c) => c[k]!).sort((a, b) => a - b)[seen.length >> 1]!) as Colour;
}

interface Seen extends Across {
  share: number;
  at: Px;
}

/** Wood along a drawn line: the even taper that most of its widths fit (leaves, and what crosses, do not), and where they do; null where there is none. */
function taperAlong(picture: Picture, points: readonly Px[], most: number): { at: (share: number) => number; fits: Seen[] } | null {
  const stoutest = STOUT * lengthOf(points);
  const wood = woodColour(picture, points);
  const seen = Array.from({ length: PLACES - 1 }, (_, i) => (i + 1) / PLACES).flatMap((share): Seen[] => {
    const found = acrossAt(picture, points, share, most, wood);
    return found ? [{ share, at: pointAlong(points, share).at, ...found }] : [];
  });
  const tapers: { at: (share: number) => number; fits: Seen[] }[] = [];
  for (const a of seen)
    for (const b of seen) {
      if (b.share - a.share < 0.2) continue;
      const slope = (b.width - a.width) / (b.share - a.share);
      const at = (share: number): number => a.width + slope * (share - a.share);
      const taper = at(1) / at(0);
      if (at(0) <= 0 || at(0) > stoutest || taper < TAPERS.least || taper > TAPERS.most) continue;
      tapers.push({ at, fits: seen.filter((s) => Math.abs(s.width - at(s.share)) < FITS.px + FITS.share * at(s.share)) });
    }
  const enough = Math.max(FEWEST, NEARLY * greatestOf(tapers.map((t) => t.fits.length)));
  // Of those that about as many fit the thinnest is wood: what is in its way makes it only thicker.
  const [best] = tapers.filter((t) => t.fits.length >= enough).sort((x, y) => x.at(0.5) - y.at(0.5));
  return best ?? null;
}

/** Two widths of wood along a drawn line, px, from its edges all along; empty where it has none to be seen. */
export function widthsAlong(picture: Picture, points: readonly Px[], most: number): [share: number, px: number][] {
  const found = taperAlong(picture, points, most);
  if (!found) return [];
  const [first, last] = [found.fits[0]!.share, found.fits[found.fits.length - 1]!.share];
  return [first, last].map((share) => [Math.round(100 * share) / 100, Math.round(10 * found.at(share)) / 10]);
}

/** At so many places less one a line is looked at. */
const PLACES = 24;

/** A line brought to the middle of the wood between its ends, by the places where its edges are seen on both sides. */
export function centred(picture: Picture, points: readonly Px[], most: number): Px[] {
  const found = taperAlong(picture, points, most);
  if (!found) return [...points];
  const known = [{ share: 0, aside: 0 }, ...found.fits, { share: 1, aside: 0 }];
  const inner = Array.from({ length: PLACES - 1 }, (_, i): Px => {
    const share = (i + 1) / PLACES;
    const after = known.findIndex((k) => k.share >= share);
    const [a, b] = [known[after - 1]!, known[after]!];
    const k = (share - a.share) / (b.share - a.share || 1);
    const { at, way } = pointAlong(points, share);
    const aside = a.aside + k * (b.aside - a.aside);
    return [at[0] - way[1] * aside, at[1] + way[0] * aside];
  });
  return smoothed([points[0]!, ...inner, points[points.length - 1]!], 1);
}
