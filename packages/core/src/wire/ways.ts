import { greatestOf, leastOf, toRad } from '../units/index.js';
import type { FlatBark } from './flat-bark.js';
import { keepOut, MARGIN, type Knot } from './knots.js';

/** Samples of a way in one turn round a limb. */
export const TURN = 60;
export const turnOf = (k: number): number => (k * 2 * Math.PI) / TURN;
export const sampleOf = (turn: number): number => Math.round((turn * TURN) / (2 * Math.PI));

/**
 * A wire's way round a limb: how far along (mm) at each sample of the turn, from sample `first` on. What winds on counts on past a turn;
 * copies a whole turn on are the same wire.
 */
export interface Way {
  first: number;
  along: number[];
  /** Half the width of the wires that lie side by side on it, mm. */
  half: number;
}

export interface Course {
  first: number;
  /** Where it would lie best: mm along at each sample. */
  base: readonly number[];
  half: number;
  /** Whether its first and its last sample stay where they are. */
  fixed: readonly [boolean, boolean];
  /** Branches whose wood it starts or ends at: at that end it touches them. */
  at: readonly [string | null, string | null];
}

/** A way is not looked at farther than this beside where it would lie best, mm. */
const DETOUR = 20;

const ranges = new WeakMap<readonly number[], [number, number]>();
function rangeOf(values: readonly number[]): [number, number] {
  const before = ranges.get(values);
  if (before) return before;
  let [low, high] = [Infinity, -Infinity];
  for (const v of values) {
    if (v < low) low = v;
    if (v > high) high = v;
  }
  ranges.set(values, [low, high]);
  return [low, high];
}

/** How far over the ends of a wire others keep away, in samples. */
const BEYOND = 2;
const SMOOTHINGS = 60;

interface Room {
  low: Float64Array;
  high: Float64Array;
}

/** Where ways are worked out, one after another in the same place. */
const worked = { low: new Float64Array(0), high: new Float64Array(0), along: new Float64Array(0) };

/** Room for a way of so many samples, all of it free; to be read before the next one. */
function roomFor(count: number, from: number, to: number): typeof worked {
  if (worked.low.length < count) for (const key of ['low', 'high', 'along'] as const) worked[key] = new Float64Array(2 * count);
  worked.low.fill(from, 0, count);
  worked.high.fill(to, 0, count);
  return worked;
}

function keepOff(room: Room, i: number, above: boolean, limit: number): void {
  if (above) room.low[i] = Math.max(room.low[i]!, limit);
  else room.high[i] = Math.min(room.high[i]!, limit);
}

interface Outline {
  /** The sample of its first edge, and from there on how far along the limb it reaches at each. */
  first: number;
  top: Float64Array;
  bottom: Float64Array;
  low: number;
  high: number;
  centre: number;
  /** How far along the limb it reaches from its middle. */
  most: number;
}

/** Outlines of knots for wires of a width, found once: many courses are held against them. */
const outlines = new WeakMap<Knot, Map<number, Outline>>();

function outlineOf(knot: Knot, bark: FlatBark, half: number): Outline {
  const known = outlines.get(knot) ?? new Map<number, Outline>();
  outlines.set(knot, known);
  const before = known.get(half);
  if (before) return before;
  const perRadian = TURN / (2 * Math.PI);
  const radius = bark.radius(knot.s) + half;
  const spots = knot.spots.map((spot) => {
    const off = keepOut(spot, half);
    return { s: spot.s, k: spot.turn * perRadian, off: off / spot.stretch, reach: (off / radius) * perRadian };
  });
  const low = leastOf(spots.map((p) => p.k - p.reach));
  const high = greatestOf(spots.map((p) => p.k + p.reach));
  const first = Math.ceil(low);
  const count = Math.max(0, Math.floor(high) - first + 1);
  const [top, bottom] = [new Float64Array(count).fill(-Infinity), new Float64Array(count).fill(Infinity)];
  for (const spot of spots) {
    if (!spot.reach) continue;
    for (let k = Math.ceil(spot.k - spot.reach); k <= Math.floor(spot.k + spot.reach); k++) {
      const far = (k - spot.k) / spot.reach;
      const edge = spot.off * Math.sqrt(Math.max(0, 1 - far * far));
      top[k - first] = Math.max(top[k - first]!, spot.s + edge);
      bottom[k - first] = Math.min(bottom[k - first]!, spot.s - edge);
    }
  }
  const found = { first, top, bottom, low, high, centre: knot.turn * perRadian, most: greatestOf(spots.map((p) => Math.abs(p.s - knot.s) + p.off)) };
  known.set(half, found);
  return found;
}

const reaches = new WeakMap<readonly Knot[], Map<number, Float64Array>>();

/** From where to where along the limb each of some knots reaches, for wires of a width: two values each. */
function reachesOf(knots: readonly Knot[], bark: FlatBark, half: number): Float64Array {
  const known = reaches.get(knots) ?? new Map<number, Float64Array>();
  reaches.set(knots, known);
  const before = known.get(half);
  if (before) return before;
  const found = Float64Array.from(
    knots.flatMap((knot) => {
      const { most } = outlineOf(knot, bark, half);
      return [knot.s - most, knot.s + most];
    }),
  );
  known.set(half, found);
  return found;
}

/** Of the knots on a limb those that a course may come near. */
export function knotsNear(course: Course, bark: FlatBark, knots: readonly Knot[]): Knot[] {
  const [lowest, highest] = rangeOf(course.base);
  const reach = reachesOf(knots, bark, course.half);
  return knots.filter((_, i) => reach[2 * i]! <= highest + DETOUR && reach[2 * i + 1]! >= lowest - DETOUR);
}

/** Wires keep to the side of a knot on which they would pass it. */
function roundKnots(room: Room, course: Course, bark: FlatBark, knots: readonly Knot[]): void {
  const last = course.first + course.base.length - 1;
  for (const knot of knots) {
    const { first, top, bottom, low, high, centre } = outlineOf(knot, bark, course.half);
    for (let copy = Math.ceil((course.first - high) / TURN); copy <= Math.floor((last - low) / TURN); copy++) {
      const k = centre + copy * TURN;
      const near = Math.max((high - low) / 2 + 2, TURN / 5);
      if (course.at[0] === knot.branch && Math.abs(course.first - k) < near) continue;
      if (course.at[1] === knot.branch && Math.abs(last - k) < near) continue;
      const nearest = Math.min(last, Math.max(course.first, Math.round(k))) - course.first;
      const above = course.base[nearest]! >= knot.s;
      const from = first + copy * TURN - course.first;
      for (let i = Math.max(0, from); i < Math.min(course.base.length, from + top.length); i++) {
        if (above) room.low[i] = Math.max(room.low[i]!, top[i - from]!);
        else room.high[i] = Math.min(room.high[i]!, bottom[i - from]!);
      }
    }
  }
}

const clampIndex = (way: Way, i: number): number => Math.min(way.along.length - 1, Math.max(0, i));

/** A limb's stretch by sample and centimetre, found once. */
const stretches = new WeakMap<FlatBark, Map<number, number>>();

function stretchOf(bark: FlatBark, s: number, k: number): number {
  const known = stretches.get(bark) ?? new Map<number, number>();
  stretches.set(bark, known);
  const place = Math.round(s / 10);
  const key = place * TURN + (((k % TURN) + TURN) % TURN);
  const before = known.get(key);
  if (before !== undefined) return before;
  const found = bark.stretch(place * 10, turnOf(k));
  known.set(key, found);
  return found;
}

const spacings = new WeakMap<Way, { bark: FlatBark; half: number; found: Float64Array }>();

/** Room that a way of some half width needs along the limb beside another one, at each sample of that: by how steep it lies there. */
function spacingsOf(bark: FlatBark, other: Way, half: number): Float64Array {
  const before = spacings.get(other);
  if (before?.bark === bark && before.half === half) return before.found;
  const found = new Float64Array(other.along.length);
  other.along.forEach((here, i) => {
    const [low, high] = [clampIndex(other, i - 1), clampIndex(other, i + 1)];
    const rise = (other.along[high]! - other.along[low]!) / (high - low || 1);
    const stretch = stretchOf(bark, here, other.first + i);
    const slope = (rise * stretch) / (((bark.radius(here) + half) * 2 * Math.PI) / TURN);
    found[i] = ((other.half + half + MARGIN) * Math.sqrt(1 + slope * slope)) / stretch;
  });
  spacings.set(other, { bark, half, found });
  return found;
}

/** Of other ways those that a course may come near. */
export function waysNear(course: Course, others: readonly Way[]): Way[] {
  const [lowest, highest] = rangeOf(course.base);
  return others.filter((other) => {
    const [from, to] = rangeOf(other.along);
    return from <= highest + DETOUR && to >= lowest - DETOUR;
  });
}

/** Wires keep to one side of each other one, copy by copy: the side on which most of the way lies. */
function besideWays(room: Room, course: Course, bark: FlatBark, others: readonly Way[]): void {
  const last = course.first + course.base.length - 1;
  for (const other of waysNear(course, others)) {
    const otherLast = other.first + other.along.length - 1;
    const spacing = spacingsOf(bark, other, course.half);
    for (let copy = Math.floor((course.first - otherLast - BEYOND) / TURN); copy <= Math.ceil((last - other.first + BEYOND) / TURN); copy++) {
      const from = Math.max(course.first, other.first + copy * TURN - BEYOND);
      const to = Math.min(last, otherLast + copy * TURN + BEYOND);
      if (from > to) continue;
      const otherAt = (k: number): number => clampIndex(other, k - copy * TURN - other.first);
      let balance = 0;
      for (let k = from; k <= to; k++) balance += course.base[k - course.first]! - other.along[otherAt(k)]!;
      for (let k = from; k <= to; k++) {
        const i = otherAt(k);
        const off = spacing[i]!;
        keepOff(room, k - course.first, balance >= 0, other.along[i]! + (balance >= 0 ? off : -off));
      }
    }
  }
}

/** Whether there is room everywhere; a wire side by side with another has nothing to spare. */
function hasRoom({ low, high }: Room, count: number): boolean {
  for (let i = 0; i < count; i++) if (low[i]! - high[i]! > MARGIN) return false;
  return true;
}

/** The way of a wire past knots and beside other wires, as short as these allow; null where there is no room. docs: Not crossing. */
export function findWay(course: Course, bark: FlatBark, knots: readonly Knot[], others: readonly Way[]): Way | null {
  const count = course.base.length;
  const room = roomFor(count, bark.clearFrom + course.half, bark.length - course.half);
  roundKnots(room, course, bark, knots);
  if (!hasRoom(room, count)) return null;
  besideWays(room, course, bark, others);
  if (!hasRoom(room, count)) return null;
  const { along } = room;
  for (let i = 0; i < count; i++) {
    along[i] = course.base[i]!;
    const tight = room.low[i]! - room.high[i]!;
    if (tight > 0) room.low[i] = room.high[i] = (room.low[i]! + room.high[i]!) / 2;
    const kept = Math.min(room.high[i]!, Math.max(room.low[i]!, along[i]!));
    // Where it lifts off the bark to its branch it may come over a wire: whether it lies across that is seen when it is laid.
    const isFixed = (i === 0 && course.fixed[0]) || (i === count - 1 && course.fixed[1]);
    if (!isFixed) along[i] = kept;
  }
  for (let round = 0; round < SMOOTHINGS; round++) {
    let moved = 0;
    for (let i = 1; i + 1 < count; i++) {
      const next = Math.min(room.high[i]!, Math.max(room.low[i]!, (along[i - 1]! + along[i + 1]!) / 2));
      moved = Math.max(moved, Math.abs(next - along[i]!));
      along[i] = next;
    }
    if (moved < 0.01) break;
  }
  return { first: course.first, along: Array.from(along.subarray(0, count)), half: course.half };
}

/** Length of a way on the bark, mm. */
export function lengthOfWay(way: Way, bark: FlatBark): number {
  let length = 0;
  for (let i = 1; i < way.along.length; i++) {
    const middle = (way.along[i]! + way.along[i - 1]!) / 2;
    length += Math.hypot(way.along[i]! - way.along[i - 1]!, (bark.radius(middle) + way.half) * turnOf(1));
  }
  return length;
}

/** Whether a way keeps clear of its own other rounds. */
export function clearOfItself(way: Way, bark: FlatBark): boolean {
  if (way.along.length <= TURN) return true;
  const spacing = spacingsOf(bark, way, way.half);
  for (let i = 0; i + TURN < way.along.length; i++) if (Math.abs(way.along[i + TURN]! - way.along[i]!) < spacing[i]!) return false;
  return true;
}

/** Length (mm) of a wire's even way round a limb, from one height to another. docs: Route. */
export const routeLength = (of: { parentDiameter: number; wireDiameter: number; heightGap: number; turnDeg: number }): number =>
  Math.sqrt((((of.parentDiameter + of.wireDiameter) / 2) * toRad(of.turnDeg)) ** 2 + of.heightGap ** 2);
