import { turnDeg, type View } from '@ustle/core';
import type { TreeDesk } from '../tree-context';

export const LETTERS = 'ABCDE';

export const sameView = (a: View, b: View): boolean => a.bearing === b.bearing && a.pitch === b.pitch && a.roll === b.roll;

/** The rose and its lettered flags; the one looked at is filled; what the score part in question saw. */
export function frontOverlay({ fronts, bearing, judged, part }: TreeDesk) {
  return {
    rose: fronts.rose,
    flags: fronts.candidates.map((f, i) => ({ letter: LETTERS[i]!, bearing: f.bearing, filled: Math.abs(turnDeg(f.bearing, bearing)) < 1 })),
    evidence: part && judged ? judged.evidence[part] : undefined,
    foliage: part ? 0.45 : 0.8,
  };
}
