/** Smooth value noise on a grid of seeded numbers, 0..1; `wrap` repeats it along x, so that bark closes round the trunk. */
export function noise2(x: number, y: number, seed: number, wrap = 0): number {
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const fx = ease(x - x0);
  const fy = ease(y - y0);
  const at = (i: number, j: number): number => hash(wrap > 0 ? ((i % wrap) + wrap) % wrap : i, j, seed);
  const low = at(x0, y0) + (at(x0 + 1, y0) - at(x0, y0)) * fx;
  const high = at(x0, y0 + 1) + (at(x0 + 1, y0 + 1) - at(x0, y0 + 1)) * fx;
  return low + (high - low) * fy;
}

const ease = (t: number): number => t * t * (3 - 2 * t);

export function hash(i: number, j: number, seed: number): number {
  let h = Math.imul(i | 0, 374761393) ^ Math.imul(j | 0, 668265263) ^ Math.imul(seed | 0, 2147483647);
  h = Math.imul(h ^ (h >>> 13), 1274126177);
  return ((h ^ (h >>> 16)) >>> 0) / 4294967296;
}
