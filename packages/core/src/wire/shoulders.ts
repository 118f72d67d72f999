import { add, cross, dot, norm, scale, sub, unit, type Vec } from '../space/index.js';
import type { Hand, Start } from '../tree/index.js';
import type { FlatBark, BarkPlace } from './flat-bark.js';

/** What a branch's bend asks of its wire; null: either will do. */
export interface Wish {
  hand: Hand | null;
  start: Start | null;
  /** The hand is not for its bend, but so that its wire can go on along a shoot. */
  forShoot?: boolean;
  /** Which of the two must be served: that of the greater movement, or both where they are fixed. */
  must: 'hand' | 'start' | 'both' | 'neither';
}

/** A branch where it leaves its limb, with the wire that goes on it. */
export interface Shoulder {
  branch: string;
  /** The limb that it leaves, and its own bark. */
  limb: FlatBark;
  own: FlatBark;
  /** Where its axis comes out of the limb's bark, and which way it goes there. */
  foot: BarkPlace;
  axis: Vec;
}

const STEP = 0.75;
/** Steps along a branch in looking for its first clear place, mm. */
const SEARCH = 2;

/** A branch's shoulder on the bark of its limb. */
export function shoulderOf(branch: string, limb: FlatBark, own: FlatBark): Shoulder {
  let out = 0;
  while (out < own.length * 0.8 && limb.liftOf(own.frame(out).axis) < 0) out += STEP;
  const { axis: exit, along: axis } = own.frame(out);
  return { branch, limb, own, foot: limb.placeOf(exit), axis };
}

/** The shorter way from one turn to another, −π..π. */
export const turnBetween = (from: number, to: number): number => to - from - Math.round((to - from) / (2 * Math.PI)) * 2 * Math.PI;

/** The way that a wire takes on the limb at a shoulder: rising along it (mm a mm round it), clockwise or against. */
export function wayAt({ limb, foot }: Shoulder, rise: number, sense: 1 | -1): Vec {
  const { along } = limb.frame(foot.s);
  const round = cross(along, limb.outward(foot.s, foot.turn));
  return unit(add(scale(round, sense), scale(along, rise)));
}

/** Where a wire first touches its branch: seen across the branch, and as a place on the branch and on its limb. */
export interface Touch {
  hand: Hand;
  start: Start;
  /** How far over or under it is: 1 is straight above or beneath, 0 beside. */
  clear: number;
  onBranch: BarkPlace;
  onLimb: BarkPlace;
}

/** Ways that differ by less than such a share touch alike. */
const WAY_STEP = 1 / 6;

const touched = new WeakMap<Shoulder, Map<string, Touch | null>>();

/** Below this a wire comes to the branch beside it rather than over or under: it is told by which of them it winds on to. */
const BESIDE = 0.2;

/** How a wire that arrives along `way` goes on winding by a hand; null where it runs straight into the branch, or could not wind on for its limb. docs: Hand and start. */
export function touchOf(shoulder: Shoulder, way: Vec, hand: Hand, lift: number): Touch | null {
  const known = touched.get(shoulder) ?? new Map<string, Touch | null>();
  touched.set(shoulder, known);
  const step = (x: number): number => Math.round(x / WAY_STEP);
  const rough: Vec = [step(way[0]), step(way[1]), step(way[2])];
  const key = `${hand}${lift}${rough.join()}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  const found = findTouch(shoulder, unit(rough), hand, lift);
  known.set(key, found);
  return found;
}

function findTouch({ limb, own, axis }: Shoulder, way: Vec, hand: Hand, lift: number): Touch | null {
  const side = hand === 'cw' ? cross(way, axis) : cross(axis, way);
  if (norm(side) < 0.3) return null;
  const first = unit(side);
  const up = sub([0, 0, 1], scale(axis, axis[2]));
  const clear = norm(up) > 0.05 ? dot(first, unit(up)) : 1;
  const turn = own.turnTo(0, first);
  const at = (s: number): Vec => own.point({ s, turn, lift });
  let s = 0;
  while (limb.liftOf(at(s)) < lift) if ((s += SEARCH) > own.length * 0.5) return null;
  let before = Math.max(0, s - SEARCH);
  for (let i = 0; i < 4; i++) {
    const middle = (before + s) / 2;
    if (limb.liftOf(at(middle)) < lift) before = middle;
    else s = middle;
  }
  const onBranch = { s, turn, lift };
  if (!firstTurnIsClear(limb, own, onBranch, hand)) return null;
  // Beside the branch it winds on to one of the two.
  const onward = dot(cross(axis, first), up) * (hand === 'cw' ? 1 : -1);
  const isOver = Math.abs(clear) < BESIDE ? onward >= 0 : clear >= 0;
  return { hand, start: isOver ? 'over' : 'under', clear: Math.abs(clear), onBranch, onLimb: limb.placeOf(at(s)) };
}

/** How far a coil's first turn may be pressed into the crotch, mm; drawn tight, it gives by that. */
const GIVES = 2.5;

/** Whether a coil of the usual pitch clears the limb that its branch grows on from the first touch on. */
function firstTurnIsClear(limb: FlatBark, own: FlatBark, from: BarkPlace, hand: Hand): boolean {
  const sense = hand === 'cw' ? 1 : -1;
  for (let i = 1; i <= 10; i++) {
    const turn = (i * Math.PI) / 6;
    const s = from.s + turn * (own.radius(from.s) + from.lift);
    if (s > own.length) return true;
    if (limb.liftOf(own.point({ s, turn: from.turn + sense * turn, lift: from.lift })) < from.lift - GIVES) return false;
  }
  return true;
}

/** Which of a branch's wishes a touch serves. */
export function served({ hand, start }: Touch, wish: Wish): { hand: boolean; start: boolean } {
  return { hand: wish.hand === null || wish.hand === hand, start: wish.start === null || wish.start === start };
}

/** Whether a touch serves what must be served. */
export function serves(touch: Touch, wish: Wish): boolean {
  const { hand, start } = served(touch, wish);
  return (hand || wish.must === 'start' || wish.must === 'neither') && (start || wish.must === 'hand' || wish.must === 'neither');
}
