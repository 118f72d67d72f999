import { toRad } from '../units/index.js';
import { lengthOf, type Limb } from '../space/index.js';
import { seenTrunk, type Pad, type PlacedTree, type Pot } from '../tree/index.js';

export const BUFFER_WIDTH = 96;
export const BUFFER_HEIGHT = 128;

export interface Hiding {
  /** Share 0..1 of the lower trunk's outline that something stands in front of. */
  hidden: number;
  /** Share of the outline each branch hides, by id ("trunk" for the foliage of the apex, "pot" for the pot); largest first. */
  by: () => HiddenBy[];
}

/** What one branch hides of the lower trunk: its share of the outline, and between which parts of its line (0 base, 1 top). */
export interface HiddenBy {
  branch: string;
  share: number;
  from: number;
  to: number;
}

/** Flat arrays, so that a thousand views of three hundred branches stay within a second. */
interface Segments {
  /** x0 y0 z0 r0 x1 y1 z1 r1 per segment. */
  data: Float64Array;
  owner: Int32Array;
}

function segmentsOf(lines: readonly { line: Limb; owner: number }[]): Segments {
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
function rotation(bearing: number, pitch: number): Float64Array {
  const f = toRad(bearing),
    p = toRad(pitch);
  const cf = Math.cos(f),
    sf = Math.sin(f),
    cp = Math.cos(p),
    sp = Math.sin(p);
  return Float64Array.of(-cf, sf, 0, -sf * sp, -cf * sp, cp, sf * cp, cf * cp, sp);
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

/** A depth buffer over the lower trunk's box on the screen. Roll turns the picture and hides nothing new, so it is not asked for. */
export function hidingOf(placed: PlacedTree): (bearing: number, pitch: number) => Hiding {
  const names = [...placed.branches.map((b) => b.branch.id), 'trunk', 'pot'];
  const wood = segmentsOf(placed.branches.map(({ line }, owner) => ({ line, owner })));
  const low = seenTrunk(placed);
  const trunk = segmentsOf([{ line: low, owner: -1 }]);
  const shareAt = low.along.map((s) => s / lengthOf(low));
  const pads: { pad: Pad; owner: number }[] = placed.branches.flatMap(({ pad }, owner) => (pad ? [{ pad, owner }] : []));
  if (placed.apexPad) pads.push({ pad: placed.apexPad, owner: names.indexOf('trunk') });
  // An upright tree stands on its pot and never behind it.
  const pot = low.points.some((p) => p[2] < 0) ? placed.tree.pot : null;

  const depthOfTrunk = new Float32Array(BUFFER_WIDTH * BUFFER_HEIGHT);
  const alongTrunk = new Float32Array(BUFFER_WIDTH * BUFFER_HEIGHT);
  const depth = new Float32Array(BUFFER_WIDTH * BUFFER_HEIGHT);
  const holder = new Int32Array(BUFFER_WIDTH * BUFFER_HEIGHT);
  const turned = new Float64Array(wood.data.length);
  const turnedTrunk = new Float64Array(trunk.data.length);

  const turn = (from: Float64Array, to: Float64Array, m: Float64Array): void => {
    for (let i = 0; i < from.length; i += 4) {
      const x = from[i]!,
        y = from[i + 1]!,
        z = from[i + 2]!;
      to[i] = m[0]! * x + m[1]! * y + m[2]! * z;
      to[i + 1] = m[3]! * x + m[4]! * y + m[5]! * z;
      to[i + 2] = m[6]! * x + m[7]! * y + m[8]! * z;
      to[i + 3] = from[i + 3]!;
    }
  };

  return (bearing, pitch) => {
    const m = rotation(bearing, pitch);
    turn(trunk.data, turnedTrunk, m);
    turn(wood.data, turned, m);
    let left = Infinity,
      right = -Infinity,
      bottom = Infinity,
      top = -Infinity,
      back = Infinity;
    for (let i = 0; i < turnedTrunk.length; i += 4) {
      const r = turnedTrunk[i + 3]!;
      left = Math.min(left, turnedTrunk[i]! - r);
      right = Math.max(right, turnedTrunk[i]! + r);
      bottom = Math.min(bottom, turnedTrunk[i + 1]! - r);
      top = Math.max(top, turnedTrunk[i + 1]! + r);
      back = Math.min(back, turnedTrunk[i + 2]!);
    }
    const cell = Math.max((right - left) / BUFFER_WIDTH, (top - bottom) / BUFFER_HEIGHT);
    const columns = Math.min(BUFFER_WIDTH, Math.ceil((right - left) / cell));
    const rows = Math.min(BUFFER_HEIGHT, Math.ceil((top - bottom) / cell));
    depthOfTrunk.fill(-Infinity, 0, rows * BUFFER_WIDTH);
    depth.fill(-Infinity, 0, rows * BUFFER_WIDTH);
    holder.fill(-1, 0, rows * BUFFER_WIDTH);

    /** `along` is where on the trunk's line this is; of no matter for the others. */
    const put = (column: number, row: number, z: number, into: Float32Array, owner: number, along = 0): void => {
      const at = row * BUFFER_WIDTH + column;
      if (z <= into[at]!) return;
      into[at] = z;
      if (owner >= 0) holder[at] = owner;
      else alongTrunk[at] = along;
    };
    const firstColumn = (x: number): number => Math.max(0, Math.ceil((x - left) / cell - 0.5));
    const lastColumn = (x: number): number => Math.min(columns - 1, Math.floor((x - left) / cell - 0.5));
    const firstRow = (y: number): number => Math.max(0, Math.ceil((y - bottom) / cell - 0.5));
    const lastRow = (y: number): number => Math.min(rows - 1, Math.floor((y - bottom) / cell - 0.5));

    const drawSegment = (from: Float64Array, i: number, into: Float32Array, owner: number): void => {
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
      const r1 = lastRow(Math.max(y0, y0 + dy) + reach);
      // How much of the segment's length comes within its reach of a row, and where: a slanting one lies in few cells of its box.
      const spread = Math.abs(dy) > 1e-9 ? reach / Math.abs(dy) : Infinity;
      for (let row = firstRow(Math.min(y0, y0 + dy) - reach); row <= r1; row++) {
        const y = bottom + (row + 0.5) * cell - y0;
        const middle = spread < Infinity ? y / dy : 0.5;
        const ta = middle - spread < 0 ? 0 : middle - spread > 1 ? 1 : middle - spread,
          tb = middle + spread > 1 ? 1 : middle + spread < 0 ? 0 : middle + spread;
        const xa = x0 + ta * dx,
          xb = x0 + tb * dx;
        const c1 = lastColumn((xa > xb ? xa : xb) + reach);
        for (let column = firstColumn((xa < xb ? xa : xb) - reach); column <= c1; column++) {
          const x = left + (column + 0.5) * cell - x0;
          let t = endOn ? (dz > 0 ? 1 : 0) : (x * dx + y * dy) / square;
          t = t < 0 ? 0 : t > 1 ? 1 : t;
          const ox = x - t * dx,
            oy = y - t * dy,
            r = r0 + t * dr;
          const rest = r * r - ox * ox - oy * oy;
          if (rest >= 0) put(column, row, z0 + t * dz + Math.sqrt(rest), into, owner, owner < 0 ? i / 8 + t : 0);
        }
      }
    };

    const drawPad = ({ center, axes, half }: Pad, owner: number): void => {
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
      const c1 = lastColumn(cx + wide),
        r1 = lastRow(cy + tall);
      for (let row = firstRow(cy - tall); row <= r1; row++) {
        const y = bottom + (row + 0.5) * cell - cy;
        for (let column = firstColumn(cx - wide); column <= c1; column++) {
          const x = left + (column + 0.5) * cell - cx;
          const inside = 1 - (yy * x * x - 2 * xy * x * y + xx * y * y) / det;
          if (inside >= 0) put(column, row, cz + kx * x + ky * y + bulge * Math.sqrt(inside), depth, owner);
        }
      }
    };

    for (let i = 0; i < turnedTrunk.length; i += 8) drawSegment(turnedTrunk, i, depthOfTrunk, -1);
    for (let i = 0; i < turned.length; i += 8) {
      // What lies wholly behind the trunk hides none of it.
      const nearest = Math.max(turned[i + 2]!, turned[i + 6]!) + Math.max(turned[i + 3]!, turned[i + 7]!);
      if (nearest > back) drawSegment(turned, i, depth, wood.owner[i / 8]!);
    }
    for (const { pad, owner } of pads) drawPad(pad, owner);
    if (pot) {
      for (let row = 0; row < rows; row++)
        for (let column = 0; column < columns; column++)
          put(column, row, potDepth(pot, m, left + (column + 0.5) * cell, bottom + (row + 0.5) * cell), depth, names.length - 1);
    }

    let seen = 0,
      hidden = 0;
    const counts = new Int32Array(names.length);
    const lowest = new Float64Array(names.length).fill(1);
    const highest = new Float64Array(names.length);
    for (let at = 0; at < rows * BUFFER_WIDTH; at++) {
      if (depthOfTrunk[at] === -Infinity) continue;
      seen++;
      if (depth[at]! > depthOfTrunk[at]!) {
        const by = holder[at]!;
        const on = alongTrunk[at]!;
        const along = shareAt[Math.floor(on)]! + (shareAt[Math.ceil(on)]! - shareAt[Math.floor(on)]!) * (on % 1);
        hidden++;
        counts[by]!++;
        if (along < lowest[by]!) lowest[by] = along;
        if (along > highest[by]!) highest[by] = along;
      }
    }
    const by = (): HiddenBy[] =>
      names
        .map((branch, i) => ({ branch, share: seen ? counts[i]! / seen : 0, from: lowest[i]!, to: highest[i]! }))
        .filter(({ share }) => share > 0)
        .sort((a, b) => b.share - a.share || (a.branch < b.branch ? -1 : 1));
    return { hidden: seen ? hidden / seen : 0, by };
  };
}
