import { serialsOf, series } from '../units/index.js';
import type { RouteSide } from '../tree/index.js';
import type { MetalName } from '../wood/index.js';
import { canBeWoundOn } from './choose.js';
import type { End, Joined, LimbWork, Need } from './limb-work.js';
import { wayAt, type Touch } from './shoulders.js';
import { hiddenShare, missesFirst, nearTo, touchesFor, wishesServed } from './touching.js';
import { clearOfItself, findWay, lengthOfWay, routeLength, sampleOf, TURN, turnOf, type Course, type Way } from './ways.js';

const MOST_TURNS = 2.5;
const LEAST_TURNS = 0.5;
/** A route is at most so long, mm, or such a share of the run, or so many turns round the limb: what anchoring one of the two by itself would take. */
const LONGEST = 120;
const LONGEST_SHARE = 0.25;
const LONGEST_TURNS = 1.5;

/** So many samples nearer to each other than the feet of two branches their wire may touch them, both ends together. */
const TOUCHES_OFF = 20;

/** How much steeper than straight a wire may come to a shoulder: rise along the limb a mm round it. */
const SLOPES = [0, 0.5, -0.5, 1, -1, 1.5, -1.5];

const distinct = <T extends { touch: Touch }>(all: readonly T[]): T[] =>
  all.filter(({ touch }, i) => all.findIndex((o) => o.touch.hand === touch.hand && Math.abs(o.touch.onBranch.turn - touch.onBranch.turn) < 0.2) === i);

/** From one place along to another in so many samples, so much steeper than straight at its ends (mm a sample). */
function led(from: number, to: number, count: number, first: number, last: number): number[] {
  const n = count - 1 || 1;
  return series(count, (i) => {
    const t = i / n;
    return from + (to - from) * t + n * (first * t * (1 - t) ** 2 - last * t * t * (1 - t));
  });
}

/** A way that one piece could take from one branch to another, before anything else is on the limb. */
export interface Candidate {
  key: string;
  /** Which two branches it joins. */
  pair: string;
  a: Need;
  b: Need;
  course: Course;
  ends: readonly [End, End];
  size: number;
  worth: number;
}

/** Between which of a coil's rounds a place lies, counted along the limb. */
function laneOf({ first, along }: Way, k: number, s: number): number {
  const last = along.length - 1;
  let lane = -Infinity;
  for (let copy = Math.ceil((k - first - last) / TURN); copy <= Math.floor((k - first) / TURN); copy++)
    if (along[k - copy * TURN - first]! < s) lane = Math.max(lane, along[last]! > along[0]! ? -copy : copy);
  return lane;
}

/** Whether a wire would have to cross a coil on its way; before and behind the coil's ends there is nothing to cross. */
function crosses(coil: Way, from: readonly [number, number], to: readonly [number, number]): boolean {
  const [a, b] = [laneOf(coil, ...from), laneOf(coil, ...to)];
  return Number.isFinite(a) && Number.isFinite(b) && a !== b;
}

export const pairOf = (a: Need, b: Need): string => `${a.branch} ${b.branch}`;

/** All ways from one branch to another that serve both: either sense, up to two turns and a half; those worth most first. */
export function candidates(work: LimbWork, a: Need, b: Need): Candidate[] {
  const { bark, shoulders, coil, toward } = work;
  const from = [
    a,
    b,
    bark,
    shoulders.get(a.branch)!,
    shoulders.get(b.branch)!,
    work.outsidesOn(a.branch),
    work.outsidesOn(b.branch),
    ...(coil ? [coil.way] : []),
  ];
  return work.keep(`ways ${serialsOf(from)} ${toward?.join() ?? ''}`, () => findCandidates(work, a, b));
}

function findCandidates(work: LimbWork, a: Need, b: Need): Candidate[] {
  const { bark, shoulders, coil } = work;
  const [from, to] = [shoulders.get(a.branch)!, shoulders.get(b.branch)!];
  const size = Math.max(a.size, b.size);
  const half = (size * a.strands) / 2;
  const [ka, kb] = [sampleOf(from.foot.turn), sampleOf(to.foot.turn)];
  const round = bark.radius((from.foot.s + to.foot.s) / 2) + size / 2;
  const pair = pairOf(a, b);
  // Of a run that is as long as it may be, a route is such a share.
  const longest = Math.max(LONGEST, LONGEST_TURNS * 2 * Math.PI * round, ((a.coilLength + b.coilLength) * LONGEST_SHARE) / (1 - LONGEST_SHARE));
  const found: Candidate[] = [];
  for (const sense of [1, -1] as const) {
    // Beside a coil a way can but go along with it.
    if (coil && Math.sign(to.foot.s - from.foot.s) * sense !== (coil.hand === 'cw' ? 1 : -1)) continue;
    const first = (((sense * (kb - ka)) % TURN) + TURN) % TURN;
    for (let steps = first; steps <= MOST_TURNS * TURN; steps += TURN) {
      if (steps < LEAST_TURNS * TURN) continue;
      // More turns are longer still.
      if (round * turnOf(steps - TOUCHES_OFF) > longest) break;
      const rise = (to.foot.s - from.foot.s) / (round * turnOf(steps));
      const atA = distinct(
        SLOPES.flatMap((more) => {
          const away = wayAt(from, rise + more, sense);
          return touchesFor(from, a, size / 2, [-away[0], -away[1], -away[2]]).map((touch) => ({ touch, more }));
        }),
      );
      const atB = distinct(SLOPES.flatMap((more) => touchesFor(to, b, size / 2, wayAt(to, rise + more, sense)).map((touch) => ({ touch, more }))));
      for (const { touch: ta, more: ma } of atA)
        for (const { touch: tb, more: mb } of atB) {
          const start = nearTo(sampleOf(ta.onLimb.turn), ka);
          const stop = nearTo(sampleOf(tb.onLimb.turn), ka + sense * steps);
          const count = sense * (stop - start) + 1;
          if (count <= LEAST_TURNS * TURN * 0.8) continue;
          if (coil && crosses(coil.way, [start, ta.onLimb.s], [stop, tb.onLimb.s])) continue;
          const length = routeLength({
            parentDiameter: 2 * round - size,
            wireDiameter: size,
            heightGap: ta.onLimb.s - tb.onLimb.s,
            turnDeg: (360 * (count - 1)) / TURN,
          });
          if (length > longest) continue;
          const base = led(ta.onLimb.s, tb.onLimb.s, count, round * turnOf(1) * ma, round * turnOf(1) * mb);
          const course: Course =
            sense > 0
              ? { first: start, base, half, fixed: [true, true], at: [a.branch, b.branch] }
              : { first: stop, base: base.reverse(), half, fixed: [true, true], at: [b.branch, a.branch] };
          const ends: [End, End] = [
            { need: a, touch: ta },
            { need: b, touch: tb },
          ];
          const hidden = hiddenShare(bark, { first: course.first, along: [...course.base], half }, work.toward) ?? 0;
          const likeness = 1 - Math.min(1, Math.abs(Math.log(a.diameter / b.diameter)) / Math.log(MOST_UNLIKE));
          const worth = Math.round(
            1000 +
              200 * likeness +
              320 * (1 - length / longest) +
              100 * hidden +
              (a.gauge === b.gauge ? 50 : 0) +
              160 * (wishesServed(ta, a) + wishesServed(tb, b)) -
              5 * (missesFirst(work, a, ta) + missesFirst(work, b, tb)),
          );
          found.push({
            key: `${pair} ${sense} ${steps} ${ta.hand} ${tb.hand} ${ma} ${mb}`,
            pair,
            a,
            b,
            course,
            ends: sense > 0 ? ends : [ends[1], ends[0]],
            size,
            worth,
          });
        }
    }
  }
  return found.sort((p, q) => q.worth - p.worth);
}

/** Whether there is any way for one piece round a limb to two branches, whatever else is on it. */
export const canJoin = (work: LimbWork, a: Need, b: Need): boolean =>
  candidates(work, a, b).some((c) => {
    const way = findWay(c.course, work.bark, work.knots, work.coil ? [work.coil.way] : []);
    return way !== null && clearOfItself(way, work.bark) && goesRound(a.side, hiddenShare(work.bark, way, work.toward), PUSHED);
  });

/** By so much of its length other wires may push a way to the other side. */
const PUSHED = 0.2;

/** Whether a way with so much of it hidden goes round the side that its artist asked for; without a front there are no sides. */
export const goesRound = (side: RouteSide | undefined, hidden: number | null, pushed = 0): boolean =>
  !side || hidden === null || sideOf(hidden + (side === 'behind' ? pushed : -pushed)) === side;

/** The side that a way goes round, by how much of it is hidden from the front. */
export const sideOf = (hidden: number | null): RouteSide => ((hidden ?? 0) > 0.5 ? 'behind' : 'front');

/** The thin sizes of aluminium stand between its whole steps. */
const ALUMINIUM_STEP = 0.5;
/** A wire of such a share of its branch is still one that an artist puts on it, where it is for a thicker branch as well. */
const SERVES: Record<MetalName, number> = { aluminium: 0.55, copper: 0.43 };
/** Branches that differ more than that in thickness are no pair. */
const MOST_UNLIKE = 1.6;

const isNext = (a: Need, b: Need): boolean =>
  Math.abs(a.gauge - b.gauge) <= 1 || (a.metal === 'aluminium' && Math.abs(a.size - b.size) <= ALUMINIUM_STEP + 1e-9);

/** Whether the thicker one's wire serves the thinner one as well. */
function suitsBoth(a: Need, b: Need): boolean {
  const [thin, thick] = [Math.min(a.diameter, b.diameter), Math.max(a.diameter, b.diameter)];
  return thick <= MOST_UNLIKE * thin && Math.max(a.size, b.size) <= SERVES[a.metal] * thin;
}

/** Whether two branches can share a piece of wire: one metal, angle and number, sizes a step apart or what suits both, and not too thick for the thinner one. */
export const alike = (a: Need, b: Need): boolean =>
  a.metal === b.metal &&
  a.strands === b.strands &&
  a.angle === b.angle &&
  (isNext(a, b) || suitsBoth(a, b)) &&
  canBeWoundOn(Math.max(a.size, b.size), Math.min(a.diameter, b.diameter));

/** A candidate with the way that was found for it. */
export function joinedBy(work: LimbWork, candidate: Candidate, way: Way): Joined {
  return {
    key: candidate.key,
    kind: 'pair',
    ends: [...candidate.ends],
    way,
    size: candidate.size,
    length: lengthOfWay(way, work.bark),
    hidden: hiddenShare(work.bark, way, work.toward),
  };
}
