import type { Vec } from './vec.js';

/** What a judgement saw, to be drawn on the tree: lines in space (mm) and words at points. */
export interface Evidence {
  lines: Vec[][];
  words: { at: Vec; text: string }[];
}

export const NO_EVIDENCE: Evidence = { lines: [], words: [] };

const RING_POINTS = 32;

/** A closed ring round a centre, spanned by two unit vectors square to each other; mm. */
export function ring(center: Vec, radius: number, [u, v]: readonly [Vec, Vec]): Vec[] {
  return Array.from({ length: RING_POINTS + 1 }, (_, i): Vec => {
    const a = (i / RING_POINTS) * 2 * Math.PI;
    const [c, s] = [Math.cos(a) * radius, Math.sin(a) * radius];
    return [center[0] + u[0] * c + v[0] * s, center[1] + u[1] * c + v[1] * s, center[2] + u[2] * c + v[2] * s];
  });
}
