import type { Pad, Pot } from '../tree/index.js';
import { BUFFER_HEIGHT, BUFFER_WIDTH, firstColumn, firstRow, lastColumn, lastRow, type Screen } from './screen.js';

/** What is nearest in each cell of the screen: its depth, and a mark that says what it is. */
export interface Layer {
  depth: Float32Array;
  mark: Float32Array;
}

export const newLayer = (): Layer => ({ depth: new Float32Array(BUFFER_WIDTH * BUFFER_HEIGHT), mark: new Float32Array(BUFFER_WIDTH * BUFFER_HEIGHT) });

export const clear = ({ depth }: Layer, { rows }: Screen): void => void depth.fill(-Infinity, 0, rows * BUFFER_WIDTH);

function put({ depth, mark }: Layer, column: number, row: number, z: number, as: number): void {
  const at = row * BUFFER_WIDTH + column;
  if (z <= depth[at]!) return;
  depth[at] = z;
  mark[at] = as;
}

/** Draws one tapering segment of `from`, which begins at index i; kept of it are a mark at its beginning and how much that grows over its length. */
export function drawSegment(screen: Screen, layer: Layer, from: Float64Array, i: number, mark: number, perLength: number): void {
  const { left, bottom, cell } = screen;
  const x0 = from[i]!,
    y0 = from[i + 1]!,
    z0 = from[i + 2]!,
    r0 = from[i + 3]!;
  const dx = from[i + 4]! - x0,
    dy = from[i + 5]! - y0,
    dz = from[i + 6]! - z0,
    dr = from[i + 7]! - r0;
  const reach = Math.max(r0, r0 + dr);
  const square = dx * dx + dy * dy;
  // Seen end-on there is no line to measure along on the screen: the nearer end stands for all of it.
  const endOn = square < 1e-6;
  const r1 = lastRow(screen, Math.max(y0, y0 + dy) + reach);
  // How much of the segment's length comes within its reach of a row, and where: a slanting one lies in few cells of its box.
  const spread = Math.abs(dy) > 1e-9 ? reach / Math.abs(dy) : Infinity;
  for (let row = firstRow(screen, Math.min(y0, y0 + dy) - reach); row <= r1; row++) {
    const y = bottom + (row + 0.5) * cell - y0;
    const middle = spread < Infinity ? y / dy : 0.5;
    const ta = middle - spread < 0 ? 0 : middle - spread > 1 ? 1 : middle - spread,
      tb = middle + spread > 1 ? 1 : middle + spread < 0 ? 0 : middle + spread;
    const xa = x0 + ta * dx,
      xb = x0 + tb * dx;
    const c1 = lastColumn(screen, (xa > xb ? xa : xb) + reach);
    for (let column = firstColumn(screen, (xa < xb ? xa : xb) - reach); column <= c1; column++) {
      const x = left + (column + 0.5) * cell - x0;
      let t = endOn ? (dz > 0 ? 1 : 0) : (x * dx + y * dy) / square;
      t = t < 0 ? 0 : t > 1 ? 1 : t;
      const ox = x - t * dx,
        oy = y - t * dy,
        r = r0 + t * dr;
      const rest = r * r - ox * ox - oy * oy;
      if (rest >= 0) put(layer, column, row, z0 + t * dz + Math.sqrt(rest), mark + perLength * t);
    }
  }
}

/** Draws a pad of foliage, an ellipsoid, seen through the rotation m. */
export function drawPad(screen: Screen, layer: Layer, { center, axes, half }: Pad, m: Float64Array, mark: number): void {
  const { left, bottom, cell, back } = screen;
  // Rows of the ellipsoid's matrix on the screen: what one unit along each of its axes does to x, y and depth.
  let xx = 0,
    xy = 0,
    yy = 0,
    xz = 0,
    yz = 0,
    zz = 0;
  for (let k = 0; k < 3; k++) {
    const a = axes[k]!,
      h = half[k]!;
    const ax = h * (m[0]! * a[0] + m[1]! * a[1] + m[2]! * a[2]);
    const ay = h * (m[3]! * a[0] + m[4]! * a[1] + m[5]! * a[2]);
    const az = h * (m[6]! * a[0] + m[7]! * a[1] + m[8]! * a[2]);
    xx += ax * ax;
    xy += ax * ay;
    yy += ay * ay;
    xz += ax * az;
    yz += ay * az;
    zz += az * az;
  }
  const det = xx * yy - xy * xy;
  if (det < 1e-9) return;
  const cx = m[0]! * center[0] + m[1]! * center[1] + m[2]! * center[2];
  const cy = m[3]! * center[0] + m[4]! * center[1] + m[5]! * center[2];
  const cz = m[6]! * center[0] + m[7]! * center[1] + m[8]! * center[2];
  const kx = (yy * xz - xy * yz) / det,
    ky = (xx * yz - xy * xz) / det;
  const bulge = Math.sqrt(Math.max(0, zz - kx * xz - ky * yz));
  if (cz + Math.sqrt(zz) <= back) return;
  const wide = Math.sqrt(xx),
    tall = Math.sqrt(yy);
  const c1 = lastColumn(screen, cx + wide),
    r1 = lastRow(screen, cy + tall);
  for (let row = firstRow(screen, cy - tall); row <= r1; row++) {
    const y = bottom + (row + 0.5) * cell - cy;
    for (let column = firstColumn(screen, cx - wide); column <= c1; column++) {
      const x = left + (column + 0.5) * cell - cx;
      const inside = 1 - (yy * x * x - 2 * xy * x * y + xx * y * y) / det;
      if (inside >= 0) put(layer, column, row, cz + kx * x + ky * y + bulge * Math.sqrt(inside), mark);
    }
  }
}

/** Depth at which a line of sight first meets the pot, an upright elliptic cylinder from the soil down; -Infinity where it passes it. */
function potDepth({ width, depth, height }: Pot, m: Float64Array, x: number, y: number): number {
  const [a, b] = [width / 2, depth / 2];
  // The line in the tree's own axes: where depth is 0, and its way towards the viewer.
  const [px, py, pz] = [x * m[0]! + y * m[3]!, x * m[1]! + y * m[4]!, x * m[2]! + y * m[5]!];
  const [tx, ty, tz] = [m[6]!, m[7]!, m[8]!];
  const square = (tx / a) ** 2 + (ty / b) ** 2;
  const half = (px * tx) / a ** 2 + (py * ty) / b ** 2;
  const root = half ** 2 - square * ((px / a) ** 2 + (py / b) ** 2 - 1);
  if (square < 1e-12 || root < 0) return -Infinity;
  const [near, far] = [(-half + Math.sqrt(root)) / square, (-half - Math.sqrt(root)) / square];
  const on = pz + near * tz;
  if (on <= 0 && on >= -height) return near;
  // Over the rim, or from beneath, the line comes in by the soil or the foot.
  const by = ((on > 0 ? 0 : -height) - pz) / tz;
  return by <= near && by >= far ? by : -Infinity;
}

/** Draws the pot over the whole screen, seen through the rotation m. */
export function drawPot({ left, bottom, cell, rows, columns }: Screen, layer: Layer, pot: Pot, m: Float64Array, mark: number): void {
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) put(layer, column, row, potDepth(pot, m, left + (column + 0.5) * cell, bottom + (row + 0.5) * cell), mark);
}
