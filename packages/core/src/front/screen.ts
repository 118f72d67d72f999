import { toRad } from '../units/index.js';
import type { Limb } from '../space/index.js';

export const BUFFER_WIDTH = 96;
export const BUFFER_HEIGHT = 128;

/** Flat arrays, so that a thousand views of three hundred branches stay within a second. */
export interface Segments {
  /** x0 y0 z0 r0 x1 y1 z1 r1 per segment. */
  data: Float64Array;
  owner: Int32Array;
}

export function segmentsOf(lines: readonly { line: Limb; owner: number }[]): Segments {
  const count = lines.reduce((sum, { line }) => sum + line.points.length - 1, 0);
  const data = new Float64Array(count * 8);
  const owner = new Int32Array(count);
  let n = 0;
  for (const { line, owner: id } of lines) {
    for (let i = 0; i + 1 < line.points.length; i++, n++) {
      data.set([...line.points[i]!, line.diameters[i]! / 2, ...line.points[i + 1]!, line.diameters[i + 1]! / 2], n * 8);
      owner[n] = id;
    }
  }
  return { data, owner };
}

/** Rows of the rotation into (right, up, toward) for a bearing and a pitch, degrees. */
export function rotation(bearing: number, pitch: number): Float64Array {
  const f = toRad(bearing),
    p = toRad(pitch);
  const cf = Math.cos(f),
    sf = Math.sin(f),
    cp = Math.cos(p),
    sp = Math.sin(p);
  return Float64Array.of(-cf, sf, 0, -sf * sp, -cf * sp, cp, sf * cp, cf * cp, sp);
}

/** Segments turned into (right, up, toward), into an array of the same length. */
export function turn(from: Float64Array, to: Float64Array, m: Float64Array): void {
  for (let i = 0; i < from.length; i += 4) {
    const x = from[i]!,
      y = from[i + 1]!,
      z = from[i + 2]!;
    to[i] = m[0]! * x + m[1]! * y + m[2]! * z;
    to[i + 1] = m[3]! * x + m[4]! * y + m[5]! * z;
    to[i + 2] = m[6]! * x + m[7]! * y + m[8]! * z;
    to[i + 3] = from[i + 3]!;
  }
}

/** The box of what is looked at, in cells: its left and lower edge and a cell's side in mm, and the least depth in it. */
export interface Screen {
  left: number;
  bottom: number;
  cell: number;
  columns: number;
  rows: number;
  back: number;
}

/** The box round segments that were turned towards the viewer. */
export function screenOf(turned: Float64Array): Screen {
  let left = Infinity,
    right = -Infinity,
    bottom = Infinity,
    top = -Infinity,
    back = Infinity;
  for (let i = 0; i < turned.length; i += 4) {
    const r = turned[i + 3]!;
    left = Math.min(left, turned[i]! - r);
    right = Math.max(right, turned[i]! + r);
    bottom = Math.min(bottom, turned[i + 1]! - r);
    top = Math.max(top, turned[i + 1]! + r);
    back = Math.min(back, turned[i + 2]!);
  }
  const cell = Math.max((right - left) / BUFFER_WIDTH, (top - bottom) / BUFFER_HEIGHT);
  const columns = Math.min(BUFFER_WIDTH, Math.ceil((right - left) / cell));
  const rows = Math.min(BUFFER_HEIGHT, Math.ceil((top - bottom) / cell));
  return { left, bottom, cell, columns, rows, back };
}

/** First and last column and row whose middle lies within a length (mm) on the screen. */
export const firstColumn = ({ left, cell }: Screen, x: number): number => Math.max(0, Math.ceil((x - left) / cell - 0.5));
export const lastColumn = ({ left, cell, columns }: Screen, x: number): number => Math.min(columns - 1, Math.floor((x - left) / cell - 0.5));
export const firstRow = ({ bottom, cell }: Screen, y: number): number => Math.max(0, Math.ceil((y - bottom) / cell - 0.5));
export const lastRow = ({ bottom, cell, rows }: Screen, y: number): number => Math.min(rows - 1, Math.floor((y - bottom) / cell - 0.5));
