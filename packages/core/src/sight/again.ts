import { greatestOf, toDeg } from '../units/index.js';
import { add, angleBetween, bearingAndElevation, distance, norm, scale, sub, unit, type Vec } from '../space/index.js';
import type { KeptSight } from '../tree/index.js';
import { cameraOf } from './kept.js';
import { placeLine, type FoundLine } from './lines.js';
import type { Sight } from './set.js';

/** A turn and a step of space: from one round of photos to another. */
export interface Shift {
  rows: readonly [Vec, Vec, Vec];
  step: Vec;
  /** How far the places that tell it are from each other afterwards, mm (root mean square). */
  rmsMm: number;
}

const dot = (a: Vec, b: Vec): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const turnedBy = (rows: Shift['rows'], v: Vec): Vec => [dot(rows[0], v), dot(rows[1], v), dot(rows[2], v)];
const middleOf = (points: readonly Vec[]): Vec =>
  scale(
    points.reduce((s, p) => add(s, p)),
    1 / points.length,
  );

/** Fewer places tell no turn of space. */
const FEWEST = 4;
const ROUNDS = 200;
/** Places that are less aside of one line than such a share of its length leave the turn about it open. */
const ASIDE = 0.05;

/** The turn and step that bring places nearest to others, least squares, nothing stretched (Horn's quaternion); null where they are too few or lie on one line. */
export function shiftBetween(pairs: readonly { from: Vec; to: Vec }[]): Shift | null {
  if (pairs.length < FEWEST) return null;
  const [a, b] = [middleOf(pairs.map((p) => p.from)), middleOf(pairs.map((p) => p.to))];
  const s = [0, 1, 2].map((i) => [0, 1, 2].map((j) => pairs.reduce((sum, p) => sum + (p.from[i]! - a[i]!) * (p.to[j]! - b[j]!), 0)));
  const [xx, xy, xz, yx, yy, yz, zx, zy, zz] = s.flat() as [number, number, number, number, number, number, number, number, number];
  const n = [
    [xx + yy + zz, yz - zy, zx - xz, xy - yx],
    [yz - zy, xx - yy - zz, xy + yx, zx + xz],
    [zx - xz, xy + yx, yy - xx - zz, yz + zy],
    [xy - yx, zx + xz, yz + zy, zz - xx - yy],
  ];
  // The greatest eigenvector, by going round; moved up, so that it is the greatest in size too.
  const up = n.reduce((sum, row) => sum + row.reduce((r, v) => r + Math.abs(v), 0), 0);
  if (!(up > 0)) return null;
  let q = [1, 0.01, 0.02, 0.03];
  for (let i = 0; i < ROUNDS; i++) {
    const next = n.map((row, r) => row.reduce((sum, v, c) => sum + v * q[c]!, up * q[r]!));
    const size = Math.hypot(...next);
    q = next.map((v) => v / size);
  }
  const [w, x, y, z] = q as [number, number, number, number];
  const rows: Shift['rows'] = [
    [w * w + x * x - y * y - z * z, 2 * (x * y - w * z), 2 * (x * z + w * y)],
    [2 * (x * y + w * z), w * w - x * x + y * y - z * z, 2 * (y * z - w * x)],
    [2 * (x * z - w * y), 2 * (y * z + w * x), w * w - x * x - y * y + z * z],
  ];
  // Places on one line leave the turn about it open.
  const spread = pairs.map((p) => sub(p.from, a));
  const along = unit(spread.reduce((s2, v) => (norm(v) > norm(s2) ? v : s2)));
  if (greatestOf(spread.map((v) => norm(sub(v, scale(along, dot(v, along)))))) < ASIDE * greatestOf(spread.map(norm))) return null;
  const step = sub(b, turnedBy(rows, a));
  const rmsMm = Math.sqrt(pairs.reduce((sum, p) => sum + distance(add(turnedBy(rows, p.from), step), p.to) ** 2, 0) / pairs.length);
  return { rows, step, rmsMm };
}

/** A set worked out, brought into another space. */
export function shifted(sight: Sight, { rows, step }: Shift): Sight {
  const turned = (v: Vec): Vec => turnedBy(rows, v);
  const placed = (v: Vec): Vec => add(turned(v), step);
  return {
    ...sight,
    cameras: sight.cameras.map((c) => {
      const at = placed(c.at);
      const { right, down, forward } = c.camera;
      return {
        ...c,
        at,
        bearing: bearingAndElevation([at[0], at[1], 0]).bearing,
        camera: { ...c.camera, at, right: turned(right), down: turned(down), forward: turned(forward) },
      };
    }),
    lines: sight.lines.map((l) => {
      const [start, end] = [placed(l.start), placed(l.end)];
      return { ...l, points: l.points.map(placed), start, end, ...bearingAndElevation(sub(end, start)) };
    }),
  };
}

/** What is farther from where it was than this, mm, and than so many times the usual, was moved meanwhile. */
const MOVED = { mm: 6, times: 2.5 };

/** The shift by the places that did not move against each other: what grows on a branch that was bent went with it. */
function steadyShift(pairs: readonly { from: Vec; to: Vec }[]): Shift | null {
  let [shift, kept] = [shiftBetween(pairs), pairs.length];
  for (let round = 0; shift && round < 6; round++) {
    const { rows, step } = shift;
    const offs = pairs.map((p) => distance(add(turnedBy(rows, p.from), step), p.to));
    const usual = [...offs].sort((a, b) => a - b)[offs.length >> 1]!;
    const still = pairs.filter((_, i) => offs[i]! <= Math.max(MOVED.mm, MOVED.times * usual));
    const next = shiftBetween(still);
    if (!next || still.length === kept) return next ?? shift;
    [shift, kept] = [next, still.length];
  }
  return shift;
}

/** What is drawn over an earlier round of photos, in the tree's space, by the cameras that are kept. */
function linesOf({ photos, drawn }: Pick<KeptSight, 'photos' | 'drawn'>): Map<string, FoundLine> {
  const cameras = new Map(photos.flatMap((p) => (p.camera ? [[p.photo, cameraOf(p.camera)] as const] : [])));
  return new Map(
    [...new Set(drawn.map((d) => d.line))].flatMap((line) => {
      const found = placeLine(line, drawn.filter((d) => d.line === line), cameras); // prettier-ignore
      return typeof found === 'string' ? [] : [[line, found] as const];
    }),
  );
}

/** What a line did from one round of photos to the next: how far it turned (degrees), and how much thicker it is (mm; null where one of them does not tell). */
export interface Since {
  line: string;
  turned: number;
  thicker: number | null;
}

/** A round of photos in the space of the one before, by the trunk's foot and the shoulders that are drawn in both; and what each branch did since. The sentence where they do not tell it. docs: Photographs. */
export function sinceBefore(sight: Sight, before: Pick<KeptSight, 'photos' | 'drawn'>): { sight: Sight; rmsMm: number; since: Since[] } | string {
  const then = linesOf(before);
  const both = sight.lines.filter((l) => then.has(l.line));
  const shift = steadyShift(both.map((l) => ({ from: l.start, to: then.get(l.line)!.start })));
  if (!shift)
    return 'Draw the trunk and three branches or more, not all above each other, that are drawn in the photos of before: by their shoulders the new ones are brought to them.';
  const now = shifted(sight, shift);
  const since = now.lines.flatMap((l): Since[] => {
    const was = then.get(l.line);
    if (!was || l.line === 'trunk') return [];
    const turned = toDeg(angleBetween(unit(sub(was.end, was.start)), unit(sub(l.end, l.start))));
    return [{ line: l.line, turned, thicker: l.d === null || was.d === null ? null : l.d - was.d }];
  });
  return { sight: now, rmsMm: shift.rmsMm, since };
}
