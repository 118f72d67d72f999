import { toRad } from '../units/index.js';
import type { Hand, Start } from '../tree/index.js';
import type { FlatBark } from './flat-bark.js';
import type { WirePlace } from './path.js';

/** Share of a branch that is wound: wire stops before the tip. */
export const WOUND_SHARE = 0.9;
const STEP = 2.5;

/** An even coil from a branch's shoulder to near its tip, where no more is known of it than how it was wound. */
export function coilAlone(branch: string, bark: FlatBark, of: { hand: Hand; start: Start; angle: number; size: number }): WirePlace[] {
  const sense = of.hand === 'cw' ? 1 : -1;
  const lift = of.size / 2;
  const places: WirePlace[] = [];
  let turn = of.start === 'over' ? 0 : Math.PI;
  for (let s = bark.radius(0) * 1.5; s <= bark.length * WOUND_SHARE; s += STEP) {
    places.push({ limb: branch, s, turn, lift, along: (s - bark.radius(0) * 1.5) / Math.cos(toRad(of.angle)) });
    turn += (sense * STEP * Math.tan(toRad(of.angle))) / (bark.radius(s) + lift);
  }
  return places;
}

/** The part of a piece that belongs to one of its branches: its coil, and with the first of them that grows on its limb the way round that. */
export function placesFor(places: readonly WirePlace[], branches: readonly string[], branch: string): readonly WirePlace[] {
  const isOther = (p: WirePlace): boolean => p.limb !== branch && branches.includes(p.limb);
  const own = places.findIndex((p) => p.limb === branch);
  if (own < 0) return [];
  const limb = branches.find((b) => places.some((p, i) => p.limb === b && places[i + 1] !== undefined && !branches.includes(places[i + 1]!.limb)));
  // From the last place before it on, so that the wire is whole.
  let from = own;
  while (from > 0 && !isOther(places[from - 1]!)) from--;
  let to = own;
  while (to < places.length && !isOther(places[to]!)) to++;
  return places.slice(limb === undefined || limb === branch ? Math.min(from, Math.max(0, own - 1)) : Math.max(0, own - 1), to);
}
