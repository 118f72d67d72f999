import type { Px } from '../tree/index.js';
import { greatestOf, toDeg } from '../units/index.js';
import { add, bearingAndElevation, norm, scale, sub, unit, type Vec } from '../space/index.js';
import { depthOf, meetingOf, project, projectionSlopes, rayAt, type Camera } from './camera.js';
import { curveThrough, curveWeights, lengthAlong, placeAt } from './curve.js';
import { fit, inverseSymmetric, type Block } from './least-squares.js';

/** A line drawn over a photo, from its shoulder to its tip, px; and how wide the wood is there, at shares of it. */
export interface DrawnLine {
  line: string;
  photo: string;
  points: readonly Px[];
  widths?: readonly (readonly [share: number, px: number])[];
}

/** A line as it runs in space, from its drawings. */
export interface FoundLine {
  line: string;
  points: Vec[];
  start: Vec;
  end: Vec;
  length: number;
  bearing: number;
  elevation: number;
  /** Thickness at its shoulder and tip, mm; null where no width was drawn. */
  d: number | null;
  tipD: number | null;
  /** How well direction (degrees), length and thickness (mm) are known. */
  sd: { angleDeg: number; length: number; d: number };
  /** How far its drawings are from it, px; and in which photo the most. */
  rmsPx: number;
  perPhoto: { photo: string; rmsPx: number; mm: number }[];
  /** Of one photo, in its plane: as good as drawn by eye. */
  flat?: true;
  notes: string[];
}

/** How well a line is drawn along the wood, and its ends set, px; how evenly four control points lie, as a share of its length. */
const DRAWN_SD = 2;
const END_SD = 4;
const EVEN_SD = 0.25;
const FEWEST = 4;
const MOST = 7;
/** More control points are worth it where they bring the drawings nearer by so much. */
const BETTER = 0.8;
/** Drawings that are off by more than this, px, are told; one photo that spoils all others, where it alone is off by so many times. */
const OFF_PX = 6;
const SPOILS = 2.5;
/** What edges drawn at the bark are off together, as a share. */
const SYSTEMATIC = 0.02;

export interface Drawing {
  camera: Camera;
  photo: string;
  points: readonly Px[];
  widths: readonly (readonly [number, number])[];
}

/** Where a curve as a photo shows it is nearest to a drawn place: after which of its points, how far on to the next, how far off (px, to its right positive), and which way that is. */
interface Nearest {
  index: number;
  on: number;
  off: number;
  way: Px;
}

function nearestTo(seen: readonly (Px | null)[], [x, y]: Px): Nearest | null {
  let best: Nearest | null = null;
  let least = Infinity;
  for (let i = 1; i < seen.length; i++) {
    const [a, b] = [seen[i - 1], seen[i]];
    if (!a || !b) continue;
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const k = Math.min(1, Math.max(0, ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy || 1)));
    const [ox, oy] = [x - a[0] - k * dx, y - a[1] - k * dy];
    const off = Math.sqrt(ox * ox + oy * oy);
    if (off >= least) continue;
    least = off;
    const sign = dx * (y - a[1]) - dy * (x - a[0]) >= 0 ? 1 : -1;
    best = { index: i - 1, on: k, off: sign * off, way: off > 1e-9 ? [(sign * ox) / off, (sign * oy) / off] : [0, 0] };
  }
  return best;
}

/** How far a drawn place is from a curve as a photo shows it, px; to its right positive, so that it can be fitted. */
const offTo = (seen: readonly (Px | null)[], drawn: Px): number => nearestTo(seen, drawn)?.off ?? 1000;

const endsOf = ({ points }: Drawing): [Px, Px] => [points[0]!, points[points.length - 1]!];

function fitCurve(drawings: readonly Drawing[], count: number, from: readonly Vec[]): { control: Vec[]; normal: number[][]; rms: number } {
  const size = Math.max(1, norm(sub(from[from.length - 1]!, from[0]!)));
  const controlOf = (x: ArrayLike<number>): Vec[] =>
    Array.from({ length: count }, (_, i): Vec => [x[3 * i]! * size, x[3 * i + 1]! * size, x[3 * i + 2]! * size]);
  const all = Array.from({ length: 3 * count }, (_, i) => i);
  const weights = curveWeights(count);
  /** Slopes of a place of the curve (its weights) in a photo, for each unknown, along a way in the picture (px, divided by a spread). */
  const slopesAt = (camera: Camera, point: Vec, of: (c: number) => number, [wx, wy]: Px): number[] => {
    const [dx, dy] = projectionSlopes(camera, point);
    return all.map((i) => {
      const [c, k] = [Math.floor(i / 3), (i % 3) as 0 | 1 | 2];
      return of(c) * size * (wx * dx[k] + wy * dy[k]);
    });
  };
  const slopesOf = (drawing: Drawing, x: ArrayLike<number>): number[][] => {
    const curve = curveThrough(controlOf(x));
    const seen = curve.map((p) => project(drawing.camera, p));
    const last = curve.length - 1;
    const byResidual = drawing.points.slice(1, -1).map((p): number[] => {
      const near = nearestTo(seen, p);
      if (!near) return all.map(() => 0);
      const { index, on, way } = near;
      const place = add(scale(curve[index]!, 1 - on), scale(curve[index + 1]!, on));
      return slopesAt(drawing.camera, place, (c) => weights[index]![c]! * (1 - on) + weights[index + 1]![c]! * on, [-way[0] / DRAWN_SD, -way[1] / DRAWN_SD]);
    });
    for (const end of [0, last])
      for (const way of [
        [1 / END_SD, 0],
        [0, 1 / END_SD],
      ] as const)
        // prettier-ignore
        byResidual.push(seen[end] ? slopesAt(drawing.camera, curve[end]!, (c) => weights[end]![c]!, way) : all.map(() => 0));
    return all.map((i) => byResidual.map((row) => row[i]!));
  };
  const blocks: Block[] = drawings.map((drawing): Block => ({
    on: all,
    slopes: (x) => slopesOf(drawing, x),
    residuals: (x) => {
      const seen = curveThrough(controlOf(x)).map((p) => project(drawing.camera, p));
      const [first, last] = endsOf(drawing);
      const off = (at: Px | null | undefined, drawn: Px): number[] => (at ? [(at[0] - drawn[0]) / END_SD, (at[1] - drawn[1]) / END_SD] : [100, 100]);
      return [...drawing.points.slice(1, -1).map((p) => offTo(seen, p) / DRAWN_SD), ...off(seen[0], first), ...off(seen[seen.length - 1], last)];
    },
  }));
  // The more of them there are, the nearer they lie, and the less each bends the line.
  const even = EVEN_SD * ((FEWEST - 1) / (count - 1)) ** 2;
  for (let i = 1; i < count - 1; i++)
    blocks.push({
      on: [...[0, 1, 2].map((k) => 3 * (i - 1) + k), ...[0, 1, 2].map((k) => 3 * i + k), ...[0, 1, 2].map((k) => 3 * (i + 1) + k)],
      residuals: (x) => [0, 1, 2].map((k) => (x[3 * i + k]! - (x[3 * (i - 1) + k]! + x[3 * (i + 1) + k]!) / 2) / even),
      slopes: () => [-0.5, 1, -0.5].flatMap((by) => [0, 1, 2].map((k) => [0, 1, 2].map((r) => (r === k ? by / even : 0)))),
    });
  const start = Array.from({ length: count }, (_, i) => placeAt(from, i / (count - 1))).flatMap((p) => p.map((v) => v / size));
  const { x, normal } = fit(start, blocks, { rounds: 30, scale: new Array<number>(3 * count).fill(1) });
  const control = controlOf(x);
  return { control, normal: normal.map((row) => row.map((v) => v / size ** 2)), rms: rmsOver(control, drawings) };
}

/** How far drawings are from a curve, px; their ends, which are set with half the care, count half. */
function rmsOver(control: readonly Vec[], drawings: readonly Drawing[]): number {
  const curve = curveThrough(control);
  const offs = drawings.flatMap((drawing) => {
    const seen = curve.map((p) => project(drawing.camera, p));
    const ends = endsOf(drawing).map((drawn, i) => {
      const at = seen[i ? seen.length - 1 : 0];
      return at ? (Math.hypot(at[0] - drawn[0], at[1] - drawn[1]) * DRAWN_SD) / END_SD : 1000;
    });
    return [...drawing.points.slice(1, -1).map((p) => Math.abs(offTo(seen, p))), ...ends];
  });
  return Math.sqrt(offs.reduce((sum, v) => sum + v * v, 0) / Math.max(1, offs.length));
}

function fitBest(drawings: readonly Drawing[]): { control: Vec[]; normal: number[][]; rms: number } | null {
  const end = (which: 0 | 1): Vec | null => meetingOf(drawings.map((d) => ({ at: d.camera.at, way: rayAt(d.camera, endsOf(d)[which]) })));
  const [first, last] = [end(0), end(1)];
  if (!first || !last) return null;
  let best = fitCurve(drawings, FEWEST, [first, last]);
  for (let count = FEWEST + 1; count <= MOST; count++) {
    const next = fitCurve(drawings, count, curveThrough(best.control));
    if (next.rms > BETTER * best.rms) break;
    best = next;
  }
  return best;
}

/** Most branches are so thin at their tip, as a share of their shoulder; and how well that is known. */
const TAPER = { share: 0.4, sd: 0.35 };
/** How well a width is drawn, px. */
const WIDTH_PX = 1.2;
/** So many times as wide as the others have it, a leaf or another branch was taken for its edge. */
const TOO_WIDE = 1.8;

/** Thickness (mm) along a line from the widths drawn over it, as a straight taper, near photos counting more; null where there are none. */
export function thicknessOf(points: readonly Vec[], drawings: readonly Drawing[]): { d: number; tipD: number; sd: number } | null {
  const told = drawings.flatMap(({ camera, widths }) =>
    widths.map(([share, px]) => {
      const perPx = depthOf(camera, placeAt(points, share)) / camera.focal;
      return { share, mm: px * perPx, sd: WIDTH_PX * perPx };
    }),
  );
  if (!told.length) return null;
  // Thickness at share s is d·(1 − s) + tip·s: two unknowns, and what is usual of their ratio. A leaf or another branch makes a width too large: it begins from the thinner ones, and what is far too wide does not count.
  const inOrder = told.map((t) => t.mm).sort((a, b) => a - b);
  const rough = inOrder[Math.floor(inOrder.length * 0.4)]!;
  let [d, tip, spread] = [1.4 * rough, 0.6 * rough, rough];
  for (let round = 0; round < 3; round++) {
    const rows = [
      ...told.map((t) => {
        const tooWide = t.mm > TOO_WIDE * (d * (1 - t.share) + tip * t.share) + 3 * t.sd;
        return { a: 1 - t.share, b: t.share, of: t.mm, weight: tooWide ? 0 : 1 / t.sd ** 2 };
      }),
      { a: -TAPER.share, b: 1, of: 0, weight: 1 / (TAPER.sd * Math.max(d, rough)) ** 2 },
    ];
    const sum = (of: (r: (typeof rows)[number]) => number): number => rows.reduce((s, r) => s + of(r) * r.weight, 0);
    const [aa, ab, bb, ac, bc] = [sum((r) => r.a * r.a), sum((r) => r.a * r.b), sum((r) => r.b * r.b), sum((r) => r.a * r.of), sum((r) => r.b * r.of)];
    const det = aa * bb - ab * ab;
    [d, tip, spread] = [(ac * bb - bc * ab) / det, (bc * aa - ac * ab) / det, Math.sqrt(bb / det)];
  }
  return { d: Math.max(0.3, d), tipD: Math.max(0.1, Math.min(d, tip)), sd: Math.hypot(spread, SYSTEMATIC * d) };
}

/** An end is taken for another place of the wood in all photos alike, by so much, mm: its middle is not seen, nor just where it leaves its parent. */
const END_MM = 2;

/** How well the chord of a curve is known, from what its fit leaves open. */
function spreadOf(control: readonly Vec[], normal: readonly number[][]): { angleDeg: number; length: number } {
  const known = inverseSymmetric(normal.map((row, i) => row.map((v, j) => (i === j ? v + 1e-12 : v))));
  const last = 3 * (control.length - 1);
  const chord = sub(control[control.length - 1]!, control[0]!);
  const along = unit(chord);
  if (!known) return { angleDeg: 90, length: norm(chord) };
  const cov = (i: number, j: number): number => known[last + i]![last + j]! + known[i]![j]! - known[last + i]![j]! - known[i]![last + j]!;
  let [total, own] = [0, 0];
  for (let i = 0; i < 3; i++) {
    total += cov(i, i);
    for (let j = 0; j < 3; j++) own += along[i]! * cov(i, j) * along[j]!;
  }
  return {
    angleDeg: toDeg(Math.sqrt(Math.max(0, total - own) + 2 * END_MM ** 2) / Math.max(1, norm(chord))),
    length: Math.sqrt(Math.max(0, own) + 2 * END_MM ** 2),
  };
}

/** A line in space from what was drawn over photos whose cameras are known; a sentence where it cannot be had. docs: Photographs. */
export function placeLine(line: string, drawn: readonly DrawnLine[], cameras: ReadonlyMap<string, Camera>): FoundLine | string {
  const drawings = drawn.flatMap((d): Drawing[] => {
    const camera = cameras.get(d.photo);
    return camera && d.points.length >= 2 ? [{ camera, photo: d.photo, points: d.points, widths: d.widths ?? [] }] : [];
  });
  if (drawings.length < 2) return drawings.length ? 'It is drawn in one photo that is used: draw it in a second one.' : 'It is drawn in no photo that is used.';
  let fitted = fitBest(drawings);
  if (!fitted) return 'The photos it is drawn in look from the same side: draw it in one from another.';
  const notes: string[] = [];
  let kept = drawings;
  if (drawings.length > 2 && fitted.rms > OFF_PX) {
    // One photo may be of something else, or the line in it of another branch.
    const without = drawings.map((d) => ({ d, found: fitBest(drawings.filter((o) => o !== d)) }));
    const best = without.reduce((a, b) => ((b.found?.rms ?? Infinity) < (a.found?.rms ?? Infinity) ? b : a));
    if (best.found && SPOILS * best.found.rms < fitted.rms) {
      notes.push(`In ${best.d.photo} it does not lie where the other photos have it: it is left out there. Another branch?`);
      fitted = best.found;
      kept = drawings.filter((d) => d !== best.d);
    }
  }
  const points = curveThrough(fitted.control);
  const perPhoto = drawings.map((d) => {
    const rmsPx = rmsOver(fitted.control, [d]);
    return { photo: d.photo, rmsPx, mm: (rmsPx * depthOf(d.camera, points[points.length >> 1]!)) / d.camera.focal };
  });
  const worst = perPhoto.reduce((a, b) => (b.rmsPx > a.rmsPx ? b : a));
  if (!notes.length && worst.rmsPx > OFF_PX) notes.push(`In ${worst.photo} it lies ${worst.mm.toFixed(0)} mm off: look at its ends.`);
  if (!points.every((p) => p.every(Number.isFinite)) || greatestOf(points.map((p) => norm(p))) > FARTHEST)
    return 'Its drawings do not meet in one place: is it the same branch in all of them?';
  const thick = thicknessOf(points, kept);
  const spread = spreadOf(fitted.control, fitted.normal);
  const [start, end] = [points[0]!, points[points.length - 1]!];
  return {
    line,
    points,
    start,
    end,
    length: lengthAlong(points),
    ...bearingAndElevation(sub(end, start)),
    d: thick?.d ?? null,
    tipD: thick?.tipD ?? null,
    sd: { ...spread, d: thick?.sd ?? 0 },
    rmsPx: fitted.rms,
    perPhoto,
    notes,
  };
}

/** Farther from the cards than this, mm, is no tree. */
const FARTHEST = 10_000;
