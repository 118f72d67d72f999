import { greatestOf, leastOf } from '../units/index.js';
/** A point on a plane, such as the picture or the ground. */
export type Point = readonly [number, number];

const turnOf = (o: Point, a: Point, b: Point): number => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);

/** Convex hull, counter-clockwise (monotone chain). */
export function hull(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: readonly Point[]): Point[] => {
    const chain: Point[] = [];
    for (const p of list) {
      while (chain.length >= 2 && turnOf(chain[chain.length - 2]!, chain[chain.length - 1]!, p) <= 0) chain.pop();
      chain.push(p);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

/** Square cells over a part of a plane. */
export interface Grid {
  columns: number;
  rows: number;
  cell: number;
  at: (column: number, row: number) => Point;
}

/** Distance of every cell to the nearest one that is not empty, in cells: exact, by columns and then rows (Felzenszwalb and Huttenlocher, 2012). */
export function distances(empty: Uint8Array, { columns, rows }: Grid): Float64Array {
  const far = (columns + rows) ** 2;
  const square = Float64Array.from(empty, (e) => (e ? far : 0));
  const most = Math.max(columns, rows);
  const f = new Float64Array(most);
  const hills = new Int32Array(most);
  const borders = new Float64Array(most + 1);
  const along = (length: number, start: number, step: number): void => {
    for (let i = 0; i < length; i++) f[i] = square[start + i * step]!;
    hills[0] = 0;
    borders[0] = -Infinity;
    borders[1] = Infinity;
    let k = 0;
    for (let q = 1; q < length; q++) {
      let border: number;
      do {
        const v = hills[k]!;
        border = (f[q]! + q * q - f[v]! - v * v) / (2 * (q - v));
      } while (border <= borders[k]! && k-- > 0);
      k++;
      hills[k] = q;
      borders[k] = border;
      borders[k + 1] = Infinity;
    }
    for (let q = 0, i = 0; q < length; q++) {
      while (borders[i + 1]! < q) i++;
      square[start + q * step] = (q - hills[i]!) ** 2 + f[hills[i]!]!;
    }
  };
  for (let c = 0; c < columns; c++) along(rows, c, columns);
  for (let r = 0; r < rows; r++) along(columns, r * columns, 1);
  return square.map(Math.sqrt);
}

/** Marks the cells whose middles convex polygons cover, row by row. */
export function paint(shapes: readonly (readonly Point[])[], { columns, rows, cell }: Grid, left: number, bottom: number): Uint8Array {
  const covered = new Uint8Array(columns * rows);
  for (const shape of shapes) {
    const ys = shape.map((p) => p[1]);
    const last = Math.min(rows - 1, Math.floor((greatestOf(ys) - bottom) / cell - 0.5));
    for (let r = Math.max(0, Math.ceil((leastOf(ys) - bottom) / cell - 0.5)); r <= last; r++) {
      const y = bottom + (r + 0.5) * cell;
      let [from, to] = [Infinity, -Infinity];
      for (let i = 0; i < shape.length; i++) {
        const [x0, y0] = shape[i]!;
        const [x1, y1] = shape[i + 1 < shape.length ? i + 1 : 0]!;
        if (y0 > y === y1 > y) continue;
        const x = x0 + ((y - y0) / (y1 - y0)) * (x1 - x0);
        if (x < from) from = x;
        if (x > to) to = x;
      }
      const first = Math.max(0, Math.ceil((from - left) / cell - 0.5));
      const end = Math.min(columns - 1, Math.floor((to - left) / cell - 0.5));
      if (end >= first) covered.fill(1, r * columns + first, r * columns + end + 1);
    }
  }
  return covered;
}
