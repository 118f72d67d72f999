import { greatestOf, leastOf, serialsOf, series } from '../units/index.js';
import { keptWay } from './kept-way.js';
import type { End, LaidPiece, LimbWork, Need, Placed } from './limb-work.js';
import { serves, touchOf, wayAt, type Touch } from './shoulders.js';
import { HANDS, hiddenShare, missesFirst, nearTo, wishesServed } from './touching.js';
import { lengthOfWay, sampleOf, TURN, turnOf, type Course } from './ways.js';

/** A turn and a half anchors a wire, or one: where no more lead up to its branch as its bend asks, or where more would be so great a share of what is wound on the branch. */
const ANCHOR_TURNS = [1.5, 1];
const MOST_ANCHOR_SHARE = 0.3;
/** What the longer anchor is worth beside a wish served, which is worth 3. */
const LONGER = 1.5;
/** What it costs to miss the outside of the first bend by a right angle. */
const MISSED = 6;

/** Steepness of an anchor's turns on a limb without a coil, the widest first: rise along it for each mm round it. */
const ANCHOR_RISES = [0.35, 0.15];

/** Where two turns from a shoulder would lie: along the limb's own coil where there is one. */
function anchorBase(work: LimbWork, from: { k: number; s: number }, sense: 1 | -1, rise: number, count: number): number[] {
  const { coil, bark } = work;
  const step = turnOf(1) * rise * (bark.radius(from.s) + 1);
  if (!coil) return series(count, (i) => from.s + i * step);
  const { way } = coil;
  const last = way.along.length - 1;
  const at = (k: number): number => {
    const i = k - way.first;
    if (i < 0) return way.along[0]! + i * (way.along[1]! - way.along[0]!);
    if (i > last) return way.along[last]! + (i - last) * (way.along[last]! - way.along[last - 1]!);
    return way.along[i]!;
  };
  // Of the coil's rounds the one that passes next to the shoulder.
  let k = nearTo(from.k, way.first);
  const up = way.along[last]! > way.along[0]! ? TURN : -TURN;
  while (k + up >= way.first && k + up <= way.first + last && at(k + up) <= from.s) k += up;
  return series(count, (i) => from.s + at(k + sense * i) - at(k));
}

interface AnchorTry {
  key: string;
  sense: 1 | -1;
  touch: Touch;
  course: Course;
}

/** The ways in which an anchor's turns can lead up to a branch, the best first: as its bend asks, of enough turns, from its limb's foot, in wide turns. */
function anchorTries(work: LimbWork, need: Need): AnchorTry[] {
  const { coil } = work;
  const shoulder = work.shoulders.get(need.branch)!;
  const half = (need.size * need.strands) / 2;
  const round = 2 * Math.PI * (work.bark.radius(shoulder.foot.s) + half);
  const tries: (AnchorTry & { rank: number })[] = [];
  for (const turns of ANCHOR_TURNS)
    for (const sense of [1, -1] as const) {
      const count = Math.round(turns * TURN) + 1;
      const long = turns > 1 && turns * round <= MOST_ANCHOR_SHARE * need.coilLength;
      for (const rise of coil ? [sense * (coil.hand === 'cw' ? 1 : -1)] : ANCHOR_RISES.flatMap((r) => [-r, r])) {
        const away = wayAt(shoulder, rise, sense);
        for (const hand of HANDS) {
          const touch = touchOf(shoulder, [-away[0], -away[1], -away[2]], hand, need.size / 2);
          if (!touch) continue;
          const missed = missesFirst(work, need, touch);
          const asked = serves(touch, need.wish) ? 10 : 0;
          const rank =
            asked +
            3 * wishesServed(touch, need) +
            touch.clear +
            (rise < 0 ? 0.3 : 0) +
            Math.abs(rise) -
            MISSED * Math.min(1, missed / 90) +
            (long ? LONGER : turns > 1 ? -LONGER : 0);
          const k = nearTo(sampleOf(touch.onLimb.turn), sampleOf(shoulder.foot.turn));
          const base = anchorBase(work, { k, s: touch.onLimb.s }, sense, rise, count);
          const course: Course =
            sense > 0
              ? { first: k, base, half, fixed: [true, false], at: [need.branch, null] }
              : { first: k - count + 1, base: base.reverse(), half, fixed: [false, true], at: [null, need.branch] };
          tries.push({ key: `${need.branch} ${sense} ${rise} ${hand} ${turns}`, sense, touch, course, rank });
        }
      }
    }
  return tries.sort((a, b) => b.rank - a.rank);
}

/** Turns that anchor a branch's wire, with the best way up to it that there is room for; null where there is none. docs: Anchors. */
export function anchor(work: LimbWork, need: Need, placed: Placed, asAsked = false): LaidPiece | null {
  const { bark, coil } = work;
  const shoulder = work.shoulders.get(need.branch)!;
  const tries = work.keep(`turns ${serialsOf([need, shoulder, work.outsidesOn(need.branch), ...(coil ? [coil.way] : [])])}`, () => anchorTries(work, need));
  for (const { key, sense, touch, course } of tries) {
    if ((asAsked && !serves(touch, need.wish)) || work.stuck.has(touch)) continue;
    const end: End = { need, touch };
    const piece = keptWay(work, course, placed.ways, (way) => ({
      key,
      // Beyond where the limb's own coil ends it has nothing to lie beside.
      kind: coil && leastOf(way.along) < greatestOf(coil.way.along) ? 'anchored' : 'single',
      ends: sense > 0 ? [end, null] : [null, end],
      way,
      size: need.size,
      length: lengthOfWay(way, bark),
      hidden: hiddenShare(bark, way, work.toward),
    }));
    const laid = piece && placed.add(work, piece);
    if (laid) return { ...piece, laid };
  }
  return null;
}
