import { toDeg, toRad } from '../units/index.js';
import type { ArcBend, Manner } from './bends.js';

type Compact = NonNullable<Manner['compact']>;

/** The hand makes no arc of more than so many degrees in one motion: what is more is made in two places, one behind the other. */
const MOST_MOTION_DEG = 38;
/** In one plane an arc turns at most so far to each side; in two the branch points at most so far off its way. */
const MOST_OFF = { 1: 75, 2: 100 } as const;
/** Arcs to each side in two planes: out above it, down, and back; so many to both, whatever is asked, or the pad would come to lie on its side. */
const A_LOOP = 3;
/** How far above and below its side the branch points, degrees. */
const TILT = 58;

export const mostOff = ({ planes }: Compact): number => MOST_OFF[planes];

/** An arc by where the branch points after it, off its way and to which side, and how far it turns for that, degrees. */
interface Arc {
  off: number;
  side: number;
  turns: number;
}

function arcsOf({ arcs, planes }: Compact, side: number, off: number): Arc[] {
  if (planes === 1)
    // A half arc at each end, so that the branch keeps its way.
    return Array.from({ length: arcs + 1 }, (_, i): Arc => {
      const isEnd = i === 0 || i === arcs;
      return { off: i < arcs ? off : 0, side: (i % 2 ? -side : side) > 0 ? 0 : 180, turns: isEnd ? off : 2 * off };
    });
  const over = 2 * toDeg(Math.asin(Math.sin(toRad(off)) * Math.sin(toRad(TILT))));
  return Array.from({ length: 2 * A_LOOP }, (_, i): Arc => {
    const way = Math.floor(i / A_LOOP) % 2 ? -side : side;
    const tilt = [TILT, -TILT, 0][i % A_LOOP]!;
    return { off: i % A_LOOP === A_LOOP - 1 ? 0 : off, side: way > 0 ? tilt : 180 - tilt, turns: i % A_LOOP === 1 ? over : off };
  });
}

/**
 * Arcs that make a branch of a length (mm) shorter from a place on, each as long as it turns far: side to side in one plane; or in two, a loop to one side
 * and its mirror image to the other. The two turn the branch about itself by as much one way as the other (the area that its direction goes round on the
 * sphere), so that its pad comes back level. docs: Compaction.
 */
export function arcsFor(length: number, compact: Compact, side: 1 | -1, offDeg: number, from: number): ArcBend[] {
  const arcs = arcsOf(compact, side, offDeg);
  const all = arcs.reduce((sum, a) => sum + a.turns, 0);
  if (all === 0) return [];
  const perDeg = (length * 0.99 - from) / all;
  let at = from;
  return arcs.flatMap(({ off, side: way, turns }) => {
    const parts = Math.max(1, Math.ceil(turns / MOST_MOTION_DEG));
    return Array.from({ length: parts }, (_, k): ArcBend => {
      const begin = Math.round(at);
      at += (turns * perDeg) / parts;
      return { kind: 'arc', from: begin, to: Math.max(begin + 1, Math.round(at)), off, side: way, left: parts - k };
    });
  });
}
