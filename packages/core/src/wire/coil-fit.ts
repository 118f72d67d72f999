import { leastOf, toDeg, toRad } from '../units/index.js';
import { DROP_ENDS, type Hand } from '../tree/index.js';
import type { FlatBark, BarkPlace } from './flat-bark.js';
import { turnBetween } from './shoulders.js';
import { keepOut, MARGIN, type Knot } from './knots.js';

/** A bend of the branch that the wire shall lie outside of: its stretch along the branch, mm, and the turn that its outside has. */
export interface Outside {
  from: number;
  to: number;
  turn: number;
  angleDeg: number;
}

export interface CoilAsked {
  bark: FlatBark;
  hand: Hand;
  angleDeg: number;
  /** Half the width of the wires that lie side by side, mm. */
  half: number;
  /** Where it touches its branch first. */
  start: BarkPlace;
  /** Where it ends, mm along. */
  end: number;
  knots: readonly Knot[];
  outsides: readonly Outside[];
}

export interface FittedCoil {
  /** The wire's centre line from the shoulder on, at most 4 mm of wire apart. */
  places: BarkPlace[];
  /** For each bend, by how many degrees the wire misses its outside. */
  missDeg: number[];
  /** The first wood that it could not be led round, and the place where it would run into it. */
  blocked: { by: string; index: number } | null;
}

const MOST_TURN = 0.4;
const MOST_ALONG = 2.6;
/** How far from its even course a coil may drift, radians. */
const MOST_DRIFT = 2.2;
const BLOCKED = 1e6;
/** A coil that costs less lies in no knot: at the edge of one a place costs a twentieth of what it does in its middle, and all bends missed cost less. */
const CLEAR = 0.05 * BLOCKED;
/** What a fifth of a step's turn off the even pitch costs, beside a miss of one radian on a bend of one degree. */
const UNEVEN = 0.016;

/** Even steps of turning along the branch. */
function stepsOf({ bark, half, angleDeg, start, end }: CoilAsked): { turn: number; s: number[] } {
  const slope = Math.tan(toRad(angleDeg));
  let turn = MOST_TURN;
  for (let s = start.s; s < end; s += MOST_ALONG) turn = Math.min(turn, (MOST_ALONG * slope) / (bark.radius(s) + half));
  const s = [start.s];
  for (;;) {
    const next = s[s.length - 1]! + (turn * (bark.radius(s[s.length - 1]!) + half)) / slope;
    if (next > end) return { turn, s };
    s.push(next);
  }
}

/** The turns that a coil may have at a step, in cells: its even course, and how far it may have drifted from that. */
interface Cells {
  turn: number;
  cell: number;
  reach: number;
  width: number;
  at: (i: number, drift: number) => number;
}

/** The first of rising values that is not below one. */
function firstFrom(rising: readonly number[], value: number): number {
  let [low, high] = [0, rising.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (rising[middle]! < value) low = middle + 1;
    else high = middle;
  }
  return low;
}

type Spot = Knot['spots'][number] & { by: string };
const spotsKept = new WeakMap<readonly Knot[], Spot[]>();

/** All spots of some knots; those on one limb are asked for again with each coil on it. */
function spotsOf(knots: readonly Knot[]): Spot[] {
  const before = spotsKept.get(knots);
  if (before) return before;
  const made = knots.flatMap((k) => k.spots.map((spot) => ({ ...spot, by: k.branch })));
  spotsKept.set(knots, made);
  return made;
}

/** Where the costs and the courses of a coil are worked out, again and again in the same place: only the next coil needs more room. */
const room = { cost: new Float64Array(0), cameFrom: new Int8Array(0) };

function roomFor(cells: number): typeof room {
  if (room.cost.length < cells) {
    room.cost = new Float64Array(2 * cells);
    room.cameFrom = new Int8Array(2 * cells);
  }
  return room;
}

/** What it costs to lie in a cell at each step, step by step: much within a knot, more the farther from the outside of a bend. To be read before the next coil. */
function costs(asked: CoilAsked, s: readonly number[], { turn, cell, reach, width, at }: Cells): Float64Array {
  const { bark, half, knots, outsides, start, hand } = asked;
  const { cost } = roomFor(s.length * width);
  cost.fill(0, 0, s.length * width);
  const sense = hand === 'cw' ? 1 : -1;
  const round = (2 * Math.PI) / cell;
  for (const spot of spotsOf(knots)) {
    const off = keepOut(spot, half);
    const reachAlong = off / spot.stretch;
    for (let i = firstFrom(s, spot.s - reachAlong); i < s.length && s[i]! < spot.s + reachAlong; i++) {
      const along = (s[i]! - spot.s) * spot.stretch;
      if (Math.abs(along) >= off) continue;
      const radius = bark.radius(s[i]!) + half;
      const across = Math.sqrt(off * off - along * along) / radius / cell;
      const centre = reach + (sense * (spot.turn - start.turn) - i * turn) / cell;
      const row = i * width;
      for (let copy = Math.ceil((-across - centre) / round); copy <= Math.floor((width - 1 + across - centre) / round); copy++) {
        const middle = centre + copy * round;
        const to = Math.min(width - 1, Math.floor(middle + across));
        for (let d = Math.max(0, Math.ceil(middle - across)); d <= to; d++) {
          const aside = (d - middle) * cell * radius;
          cost[row + d] = cost[row + d]! + BLOCKED * (1.05 - Math.sqrt(along * along + aside * aside) / off);
        }
      }
    }
  }
  for (const bend of outsides) {
    const i = meetingStep(bend, s, (k) => Math.abs(turnBetween(bend.turn, at(k, reach))));
    if (i === null) continue;
    for (let d = 0; d < width; d++) cost[i * width + d]! += Math.max(5, bend.angleDeg) * turnBetween(bend.turn, at(i, d)) ** 2;
  }
  return cost;
}

/** The step at which a coil shall lie outside a bend: of those in its middle half that where it does the soonest by itself; null where it ends before. */
function meetingStep({ from, to }: Outside, s: readonly number[], off: (step: number) => number): number | null {
  const quarter = (to - from) / 4;
  const middle = firstFrom(s, (from + to) / 2);
  if (middle >= s.length) return null;
  let best = middle;
  for (let i = firstFrom(s, from + quarter); i < s.length && s[i]! <= to - quarter; i++) if (off(i) < off(best)) best = i;
  return best;
}

/** Of all courses, each step a cell to either side at most, the one that costs least: its drift at each step, in cells. */
function cheapest(cost: Float64Array, steps: number, reach: number, width: number): { drift: number[]; least: number } {
  // One more cell at either edge, which nothing comes from.
  let now = new Float64Array(width + 2).fill(Infinity);
  let next = new Float64Array(width + 2).fill(Infinity);
  now[reach + 1] = cost[reach]!;
  const { cameFrom } = roomFor(steps * width);
  for (let i = 1; i < steps; i++) {
    const to = Math.min(width - 1, reach + i);
    const row = i * width;
    for (let d = Math.max(0, reach - i); d <= to; d++) {
      let best = now[d + 2]! + UNEVEN;
      let step = -1;
      if (now[d + 1]! < best) {
        best = now[d + 1]!;
        step = 0;
      }
      if (now[d]! + UNEVEN < best) {
        best = now[d]! + UNEVEN;
        step = 1;
      }
      cameFrom[row + d] = step;
      next[d + 1] = best + cost[row + d]!;
    }
    [now, next] = [next, now];
  }
  let last = reach;
  for (let d = 0; d < width; d++) if (now[d + 1]! < now[last + 1]!) last = d;
  const least = now[last + 1]!;
  const drift: number[] = [];
  for (let i = steps - 1; i >= 0; i--) {
    drift[i] = last;
    last -= cameFrom[i * width + last]!;
  }
  return { drift, least };
}

/** A coil led between the side shoots and over the outsides of the bends: its turn by dynamic programming over steps along the branch. docs: Bends meet the wire. */
export function fitCoil(asked: CoilAsked): FittedCoil {
  const { hand, start } = asked;
  const sense = hand === 'cw' ? 1 : -1;
  const { turn, s } = stepsOf(asked);
  // Pitch may be a fifth wider or closer than asked: a step drifts by one cell at most.
  const cell = turn / 5;
  const reach = Math.ceil(MOST_DRIFT / cell);
  const width = 2 * reach + 1;
  const turnAt = (i: number, drift: number): number => start.turn + sense * (i * turn + (drift - reach) * cell);
  const { drift, least } = cheapest(costs(asked, s, { turn, cell, reach, width, at: turnAt }), s.length, reach, width);
  const places = s.map((at, i): BarkPlace => ({ s: at, turn: turnAt(i, drift[i]!), lift: start.lift }));
  return { places, missDeg: asked.outsides.map((o) => missOf(places, o)), blocked: least < CLEAR ? null : blockedBy(asked, places) };
}

/** Wood that lies on the coil's way all the same, the first along the branch: which, and from which place on. */
function blockedBy({ bark, knots, half }: CoilAsked, places: readonly BarkPlace[]): FittedCoil['blocked'] {
  const spots = spotsOf(knots);
  const offs = spots.map((p) => keepOut(p, half) - MARGIN);
  for (const [index, { s, turn }] of places.entries())
    for (let k = 0; k < spots.length; k++) {
      const [spot, off] = [spots[k]!, offs[k]!];
      const along = (s - spot.s) * spot.stretch;
      if (Math.abs(along) < off && Math.hypot(along, turnBetween(spot.turn, turn) * (bark.radius(s) + half)) < off) return { by: spot.by, index };
    }
  return null;
}

/** By how many degrees a coil that is wound evenly from a place on misses the outside of a bend that may begin up to half a pitch farther on. */
export function missAhead(
  { bark, half, angleDeg, hand, start }: Pick<CoilAsked, 'bark' | 'half' | 'angleDeg' | 'hand' | 'start'>,
  { from, to, turn }: Outside,
): number {
  const quarter = (to - from) / 4;
  const radius = bark.radius((from + to) / 2) + half;
  const perMm = ((hand === 'cw' ? 1 : -1) * Math.tan(toRad(angleDeg))) / radius;
  const first = turnBetween(turn, start.turn + perMm * (from + quarter - start.s));
  const further = Math.min(Math.PI, Math.max(0, DROP_ENDS * bark.length - to) * Math.abs(perMm));
  const along = (perMm * (to - from)) / 2 + Math.sign(perMm) * further;
  // On the way the turn grows by that: where it passes the outside nothing is missed.
  const passed = Math.sign(along) * -first;
  const ahead = passed < 0 ? passed + 2 * Math.PI : passed;
  return ahead <= Math.abs(along) ? 0 : toDeg(Math.min(Math.abs(first), ahead - Math.abs(along)));
}

/** How near a wire comes to the outside of a bend in its middle half, degrees. */
export function missOf(places: readonly BarkPlace[], { from, to, turn }: Outside): number {
  const quarter = (to - from) / 4;
  const within = places.filter((p) => p.s >= from + quarter && p.s <= to - quarter);
  const middle = (from + to) / 2;
  const nearest = places.reduce((best, p) => (Math.abs(p.s - middle) < Math.abs(best.s - middle) ? p : best), places[0]!);
  return toDeg(leastOf([...within, nearest].map((p) => Math.abs(turnBetween(p.turn, turn)))));
}
