import type { Vec } from '../space/index.js';
import type { Hand } from '../tree/index.js';
import type { FlatBark } from './flat-bark.js';
import type { Need } from './limb-work.js';
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

/** A sample near another one, whole turns aside. */
export const nearTo = (k: number, to: number): number => k + Math.round((to - k) / TURN) * TURN;

/** Share of a way's points that face away from the viewer. */
export function hiddenShare(bark: FlatBark, way: Way, toward: Vec | null): number | null {
  if (!toward) return null;
  const behind = way.along.filter((s, i) => bark.facing(s, turnOf(way.first + i), toward) < 0).length;
  return behind / way.along.length;
}
