import { greatestOf, leastOf, type Px } from '@ustle/core';
import type { Picture } from '../vision.js';

/** A colour: red, green, blue, 0 to 255. */
export type Colour = readonly [number, number, number];

export const shaded = ([r, g, b]: Colour, light: number): Colour => [r * light, g * light, b * light];

/** A picture that is painted from far to near, its edges soft by one pixel. */
export class Canvas {
  readonly data: Float32Array;
  constructor(
    readonly width: number,
    readonly height: number,
  ) {
    this.data = new Float32Array(3 * width * height);
  }

  /** Lays a colour over a pixel, as much as it covers. */
  over(x: number, y: number, [r, g, b]: Colour, share: number): void {
    const at = 3 * (y * this.width + x);
    this.data[at] = this.data[at]! + (r - this.data[at]!) * share;
    this.data[at + 1] = this.data[at + 1]! + (g - this.data[at + 1]!) * share;
    this.data[at + 2] = this.data[at + 2]! + (b - this.data[at + 2]!) * share;
  }

  private box(points: readonly Px[], margin: number): { x0: number; x1: number; y0: number; y1: number } {
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    return {
      x0: Math.max(0, Math.floor(leastOf(xs) - margin)),
      x1: Math.min(this.width - 1, Math.ceil(greatestOf(xs) + margin)),
      y0: Math.max(0, Math.floor(leastOf(ys) - margin)),
      y1: Math.min(this.height - 1, Math.ceil(greatestOf(ys) + margin)),
    };
  }

  /** A round piece of wood from one place to another, its radii in px; told how far across it each pixel is (−1 to 1), it says the colour there. */
  rod(a: Px, b: Px, ra: number, rb: number, colour: (across: number, along: number) => Colour): void {
    const { x0, x1, y0, y1 } = this.box([a, b], Math.max(ra, rb) + 1);
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const length = Math.hypot(dx, dy) || 1;
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        const [px, py] = [x + 0.5 - a[0], y + 0.5 - a[1]];
        const along = Math.min(1, Math.max(0, (px * dx + py * dy) / (length * length)));
        const radius = ra + (rb - ra) * along;
        const off = Math.hypot(px - along * dx, py - along * dy);
        if (off > radius + 0.5) continue;
        const side = (dx * py - dy * px) / length / Math.max(0.5, radius);
        this.over(x, y, colour(Math.min(1, Math.max(-1, side)), along), Math.min(1, radius + 0.5 - off) * Math.min(1, 2 * radius));
      }
  }

  /** A leaf: an ellipse with its middle, its half length and half width in px, turned by an angle. */
  leaf([cx, cy]: Px, half: number, narrow: number, turn: number, colour: Colour): void {
    const { x0, x1, y0, y1 } = this.box([[cx, cy]], half + 1);
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        const [px, py] = [x + 0.5 - cx, y + 0.5 - cy];
        const [u, v] = [(px * c + py * s) / half, (py * c - px * s) / narrow];
        const off = u * u + v * v;
        if (off < 1) this.over(x, y, colour, off < 0.7 ? 1 : (1 - off) / 0.3);
      }
  }

  /** A filled shape with corners outward all round (convex). */
  shape(corners: readonly Px[], colour: (x: number, y: number) => Colour): void {
    const { x0, x1, y0, y1 } = this.box(corners, 1);
    const turn =
      Math.sign(corners.reduce((sum, [x, y], i) => sum + x * corners[(i + 1) % corners.length]![1] - y * corners[(i + 1) % corners.length]![0], 0)) || 1;
    const edges = corners.map((a, i) => {
      const b = corners[(i + 1) % corners.length]!;
      const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
      const [nx, ny] = [(-turn * (b[1] - a[1])) / length, (turn * (b[0] - a[0])) / length];
      return { nx, ny, c: -(nx * a[0] + ny * a[1]) };
    });
    for (let y = y0; y <= y1; y++)
      for (let x = x0; x <= x1; x++) {
        let inside = 1;
        for (const { nx, ny, c } of edges) {
          const off = nx * (x + 0.5) + ny * (y + 0.5) + c + 0.5;
          if (off <= 0) {
            inside = 0;
            break;
          }
          if (off < inside) inside = off;
        }
        if (inside > 0) this.over(x, y, colour(x, y), inside);
      }
  }

  /** As a lens and a chip see it: a little soft, darker at the corners, with noise (one part of it for each pixel, from 0 to 1). */
  developed(soft: number, noise: number, random: () => number): Picture {
    const { width, height, data } = this;
    const out = new Uint8Array(4 * width * height).fill(255);
    const row = 3 * width;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const at = 3 * (y * width + x);
        const [left, right] = [x ? 3 : 0, x < width - 1 ? 3 : 0];
        const [up, down] = [y ? row : 0, y < height - 1 ? row : 0];
        const corner = 1 - 0.22 * (((x / width - 0.5) * 2) ** 2 + ((y / height - 0.5) * 2) ** 2) * 0.5;
        const grain = noise * (random() + random() + random() - 1.5);
        for (let k = 0; k < 3; k++) {
          const beside = (data[at - left + k]! + data[at + right + k]! + data[at - up + k]! + data[at + down + k]!) / 4;
          const v = (data[at + k]! * (1 - soft) + beside * soft) * corner + grain;
          out[4 * (y * width + x) + k] = v < 0 ? 0 : v > 255 ? 255 : v;
        }
      }
    return { width, height, data: out };
  }
}
