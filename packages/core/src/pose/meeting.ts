import type { Vec } from '../space/index.js';
import type { WoundWire } from '../tree/index.js';
import type { Bender } from './bent.js';

/** So near its outside a wire may pass a bend, degrees; half a pitch farther on it must pass nearer by so many for the bend to be moved there. */
const MEETS_DEG = 12;
const WORTH_DEG = 12;

/** Where a bend meets the wire: as near to where it would be as it does, between two places; whole millimetres. docs: Bends meet the wire. */
export function meetingPlace(
  bender: Bender,
  wound: WoundWire,
  { at, length, from, to }: { at: number; length: number; from: number; to: number },
  toward: (tangent: Vec) => Vec,
): number {
  const cost = (place: number): number => {
    const start = bender.ahead(place);
    const missed = wound.missDeg({ at: place, length, start, toward: toward(start) });
    return Math.max(MEETS_DEG, missed) + (WORTH_DEG * Math.abs(place - at)) / wound.halfPitch;
  };
  const step = Math.max(1, Math.round(wound.halfPitch / 12));
  let best = { place: at, cost: cost(at) };
  for (let off = step; off <= wound.halfPitch && best.cost > MEETS_DEG + (WORTH_DEG * off) / wound.halfPitch; off += step)
    for (const place of [at + off, at - off]) {
      if (place < from || place + length > to) continue;
      const here = cost(place);
      if (here < best.cost) best = { place, cost: here };
    }
  return best.place;
}

/** How bends find their wire: moved along in the first rounds of the search, and then left where they are. */
export interface Meeting {
  wound: WoundWire;
  settled: boolean;
  /** By how much each wave, and last the tip, was moved, mm. */
  moved: number[];
}
