import type { Vec } from '../space/index.js';
import type { Hand } from '../tree/index.js';
import type { FlatBark } from './flat-bark.js';
import { missAhead } from './coil-fit.js';
import type { LimbWork, Need } from './limb-work.js';
import { served, serves, touchOf, type Shoulder, type Touch } from './shoulders.js';
import { TURN, turnOf, type Way } from './ways.js';

export const HANDS: readonly Hand[] = ['cw', 'ccw'];

/** The touches that serve a branch's wish, the clearest first. */
export function touchesFor(shoulder: Shoulder, need: Need, lift: number, arriving: Vec): Touch[] {
  return HANDS.flatMap((hand) => {
    const touch = touchOf(shoulder, arriving, hand, lift);
    return touch && serves(touch, need.wish) ? [touch] : [];
  }).sort((a, b) => wishesServed(b, need) - wishesServed(a, need) || Number(b.start === 'over') - Number(a.start === 'over') || b.clear - a.clear);
}

/** Of a branch's two wishes, how many a touch serves. */
export function wishesServed(touch: Touch, need: Need): number {
  const { hand, start } = served(touch, need.wish);
  return Number(hand) + Number(start);
}

/** By how many degrees a coil from a touch on, wound evenly, will miss the outside of its branch's first bend, wherever that may still begin. */
export function missesFirst({ shoulders, outsidesOn }: LimbWork, { branch, size, strands, angle }: Need, { hand, onBranch }: Touch): number {
  const [first] = outsidesOn(branch);
  return first ? missAhead({ bark: shoulders.get(branch)!.own, half: (size * strands) / 2, angleDeg: angle, hand, start: onBranch }, first) : 0;
}

/** A sample near another one, whole turns aside. */
export const nearTo = (k: number, to: number): number => k + Math.round((to - k) / TURN) * TURN;

/** Share of a way's points that face away from the viewer. */
export function hiddenShare(bark: FlatBark, way: Way, toward: Vec | null): number | null {
  if (!toward) return null;
  const behind = way.along.filter((s, i) => bark.facing(s, turnOf(way.first + i), toward) < 0).length;
  return behind / way.along.length;
}
