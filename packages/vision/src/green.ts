import type { GreenMask } from '@ustle/core';
import type { Picture } from './vision.js';

/** Squares of so many px are looked at together, as a share of the picture's longer side. */
const SQUARES = 1 / 240;
/** Foliage is greener than it is red or blue by so much (of 255), and than it is red by such a share. */
const GREENER = 14;
const THAN_RED = 1.08;
/** A square is green where such a share of it is: foliage has gaps. */
const FULL = 0.3;

/** Where a picture is green. */
export function greenIn({ width, height, data }: Picture): GreenMask {
  const step = Math.max(2, Math.round(Math.max(width, height) * SQUARES));
  const [columns, rows] = [Math.ceil(width / step), Math.ceil(height / step)];
  const counts = new Uint16Array(columns * rows);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = 4 * (y * width + x);
      const [r, g, b] = [data[at]!, data[at + 1]!, data[at + 2]!];
      if (2 * g - r - b > GREENER && g > THAN_RED * r) counts[Math.floor(y / step) * columns + Math.floor(x / step)]!++;
    }
  return { step, columns, rows, green: Uint8Array.from(counts, (n) => (n > FULL * step * step ? 1 : 0)) };
}
