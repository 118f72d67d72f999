import { clamp, toDeg, toRad } from '../units/index.js';
import {
  angleBetween,
  bearingAndElevation,
  cross,
  direction,
  lengthOf,
  norm,
  pointAt,
  rotateAbout,
  scale,
  sub,
  unit,
  type Limb,
  type Vec,
} from '../space/index.js';
import { DROP_ENDS, type BendInSpace, type BendKind, type PoseMovement, type WoundWire } from '../tree/index.js';
import { BY_HAND, CALM, ladderFor, leastLength, MOST_DEG, mostAngle, type Bending, type Rung } from './bend-load.js';
import { Bender, bentLine, type Bent } from './bent.js';
import { arcsFor, mostOff } from './arcs.js';
import { meetingPlace, type Meeting } from './meeting.js';
import type { Frame } from '../rod/index.js';

/** How many bends of how many degrees a branch has on its way. */
const WAVES: Record<PoseMovement, { count: number; angle: number }> = {
  calm: { count: 2, angle: 14 },
  moderate: { count: 3, angle: 22 },
  lively: { count: 4, angle: 32 },
};

/** The drop begins so many thicknesses from the shoulder's middle, clear of its collar and of what it grows on; it takes at most such a share of the branch. */
const CLEAR = 0.6;
const DROP_SHARE = 0.4;
/** Where the tip's bend begins and ends, as shares of the branch; one that is moved ends beyond a share of it still. */
const TIP = { from: 0.8, to: 0.97, within: 0.9 };
/** A bend of less nobody would see. */
const LEAST_DEG = 8;
const LEAST_DROP_DEG = 3;
const LEAST_TIP_DEG = 8;
/** No bend is shorter than this many thicknesses: shorter is a kink. */
const LEAST_LENGTH = 1.5;

/** How a drop is made on a rung: how far it goes there, and the length of branch that it takes. */
function dropOn({ risk, protection }: Rung, of: { diameter: number; k0: number; room: number }): { most: number; lengthOf: (angle: number) => number } {
  const { diameter, k0, room } = of;
  const shortest = Math.min(LEAST_LENGTH * diameter, room);
  const lengthOf = (angle: number): number => clamp(leastLength(diameter, k0, angle, risk / BY_HAND, protection), shortest, room);
  return { most: Math.min(MOST_DEG, mostAngle(diameter, k0, room, risk / BY_HAND, protection)), lengthOf };
}

/** A bend still to be laid: where, how far, and which way as seen along the branch (degrees from its right, counted upwards). */
interface Wave {
  kind: Exclude<BendKind, 'arc'>;
  from: number;
  to: number;
  angle: number;
  way: number;
}

/** Where the branch points as a bend of an arc is made: so far off its way, and to which side of it as seen along it (degrees from its right, counted upwards); and so many bends that are left of its arc. */
export interface ArcBend {
  kind: 'arc';
  from: number;
  to: number;
  off: number;
  side: number;
  left: number;
}

const UP: Vec = [0, 0, 1];

/** The two directions square to a tangent: level to its right, and upwards. */
function squareTo(tangent: Vec, ahead: Vec): { right: Vec; up: Vec } {
  const level = cross(tangent, UP);
  const right = norm(level) > 0.02 ? unit(level) : unit(cross(ahead, UP));
  return { right, up: cross(right, tangent) };
}

/** Degrees that a line turns by itself, wavering aside. */
function ownTurning(line: Limb): number {
  let sum = 0;
  for (let i = 1; i + 1 < line.points.length; i++) {
    const turn = toDeg(angleBetween(sub(line.points[i]!, line.points[i - 1]!), sub(line.points[i + 1]!, line.points[i]!)));
    if (turn > 2 * LEAST_DEG) sum += turn;
  }
  return sum;
}

/** What is wanted of a branch, besides its direction. */
export interface Manner {
  movement: PoseMovement;
  /** A side branch: flatter, with less of its own. */
  secondary: boolean;
  /** Which side the first bend of the way goes to, seen along the branch: 1 right, −1 left. */
  side: 1 | -1;
  /** Least rise of the tip, degrees; null: it is left as it comes. */
  tipRise: number | null;
  /** So many degrees short of where it should lie are nothing that one sees, where that leaves its bend gentle. */
  give?: number;
  /** Made shorter: so many equal arcs, in one plane or two, so that it reaches so far (mm). */
  compact?: { reach: number; arcs: number; planes: 1 | 2 };
}

/** The waves between the drop and the tip, as far as the wood bears them bare. */
function wavesFor({ line, k0 }: Bending, manner: Manner, from: number): Wave[] {
  const total = lengthOf(line);
  const base = WAVES[manner.movement];
  const count = Math.max(1, base.count - (manner.secondary ? 1 : 0));
  // What it turns by itself is movement already.
  const has = Math.min(1, ownTurning(line) / (base.count * base.angle));
  const to = manner.tipRise === null ? total * TIP.to : total * TIP.from;
  const slot = (to - from) / count;
  return Array.from({ length: count }, (_, i): Wave => {
    const begin = Math.round(from + i * slot + slot * 0.15);
    const end = Math.max(begin + 1, Math.round(from + (i + 1) * slot - slot * 0.15));
    const most = mostAngle(pointAt(line, begin).diameter, k0, end - begin, CALM.risk / BY_HAND, 'none');
    const turn = i % 2 ? -manner.side : manner.side;
    // Aside and up, then aside and down: movement in two planes. The first turns half, so that the branch keeps its way.
    const way = turn > 0 ? (i % 2 ? -25 : 25) : i % 2 ? 205 : 155;
    return { kind: 'movement', from: begin, to: end, angle: Math.min(most, base.angle * (1 - 0.6 * has) * (i ? 1 : 0.6)), way };
  }).filter((w) => w.angle >= LEAST_DEG && w.to > w.from);
}

interface Drop {
  /** Direction of the tangent after it. */
  to: Vec;
  angle: number;
  at: number;
  length: number;
}

/** Lays a drop, the waves and the tip one after the other. */
function lay(
  { line, k0 }: Bending,
  drop: Drop,
  waves: readonly (Wave | ArcBend)[],
  ahead: Vec,
  manner: Manner,
  meeting: Meeting | null,
  carried?: { turn: Frame; point: Vec },
): { bends: (BendInSpace & { kind: BendKind })[]; bent: Bent } {
  const total = lengthOf(line);
  const bender = new Bender(line, carried);
  const bends: (BendInSpace & { kind: BendKind })[] = [];
  const add = (kind: BendKind, at: number, length: number, angle: number, to: Vec): void => {
    const { bearing, elevation } = bearingAndElevation(to);
    const bend = { kind, at, length, angle, toward: { bearing, elevation } };
    bender.bend(bend);
    bends.push(bend);
  };
  const turnedTo = (angle: number, wayDeg: number, tangent = bender.tangent): Vec => {
    const { right, up } = squareTo(tangent, ahead);
    const way = toRad(wayDeg);
    const across: Vec = [0, 1, 2].map((k) => Math.cos(way) * right[k]! + Math.sin(way) * up[k]!) as unknown as Vec;
    return rotateAbout(tangent, unit(cross(tangent, across)), toRad(angle));
  };
  bender.to(drop.at);
  if (drop.angle >= LEAST_DROP_DEG) add('drop', drop.at, drop.length, drop.angle, drop.to);
  let end = drop.at + drop.length;
  /** Where the bend of a number begins: no farther than up to a place, and not before the one before it ends. */
  const placeOf = (i: number, at: number, length: number, to: number, toward: (tangent: Vec) => Vec): number => {
    if (!meeting) return at;
    if (!meeting.settled) meeting.moved[i] = meetingPlace(bender, meeting.wound, { at, length, from: end, to }, toward) - at;
    const place = Math.max(end, at + (meeting.moved[i] ?? 0));
    end = place + length;
    return place;
  };
  /** Whether its wire reaches beyond the middle of a bend. */
  const isWired = (at: number, length: number): boolean => !meeting || at + length / 2 <= meeting.wound.until;
  const tipFrom = Math.round(TIP.from * total);
  waves.forEach((wave, i) => {
    const length = wave.to - wave.from;
    if (wave.kind === 'arc') {
      bender.to(wave.from);
      // About the way that the drop leads: what corrects that corrects them all.
      const target = turnedTo(wave.off, wave.side, unit(drop.to));
      const angle = toDeg(angleBetween(bender.tangent, target)) / wave.left;
      if (angle > 0) add('arc', wave.from, length, angle, target);
      return;
    }
    const to = waves[i + 1]?.from ?? (manner.tipRise === null ? total * TIP.to : tipFrom);
    const toward = (tangent: Vec): Vec => turnedTo(Math.min(wave.angle, 150), wave.way, tangent);
    const at = placeOf(i, wave.from, length, to, toward);
    if (!isWired(at, length)) return;
    bender.to(at);
    add(wave.kind, at, length, wave.angle, toward(bender.tangent));
  });
  if (manner.tipRise !== null) {
    const length = Math.max(1, Math.round(TIP.to * total) - tipFrom);
    end = Math.max(end, Math.ceil(TIP.within * total - length));
    const begin = placeOf(waves.length, tipFrom, length, total, (tangent) => turnedTo(LEAST_TIP_DEG, 90, tangent));
    bender.to(begin);
    const most = mostAngle(pointAt(line, begin).diameter, k0, length, CALM.risk / BY_HAND, 'none');
    const rise = Math.min(most, 55, manner.tipRise - bearingAndElevation(bender.tangent).elevation);
    if (rise >= LEAST_TIP_DEG && isWired(begin, length)) add('tip', begin, length, rise, turnedTo(rise, 90));
  }
  return { bends, bent: bender.finish() };
}

/** The turn that brings one direction onto another, or a share of it. */
function turnOnto(from: Vec, to: Vec, share: number): (v: Vec) => Vec {
  const axis = cross(from, to);
  const sine = norm(axis);
  if (sine < 1e-9) return (v) => v;
  return (v) => rotateAbout(v, scale(axis, 1 / sine), share * angleBetween(from, to));
}

export interface FoundBends {
  bends: (BendInSpace & { kind: BendKind })[];
  bent: Bent;
  /** Degrees between where the branch points and where it should. */
  missDeg: number;
}

const ROUNDS = 20;
/** In so many of them bends are moved to meet their wire. */
const MEETING_ROUNDS = 3;
const CLOSE_DEG = 0.1;

/** Where a drop begins at the nearest, mm along; whole millimetres, as they are told: a hair further on the branch may go another way. */
const dropBegins = ({ line, clear }: Bending): number => Math.ceil(Math.max(clear ?? 0, Math.min(CLEAR * line.diameters[0]!, 0.05 * lengthOf(line))));

/** What the wood may be asked where the drop is, and how far along it is still as stout. */
const laddersOf = (of: Bending): readonly Rung[] => ladderFor(pointAt(of.line, dropBegins(of)).diameter);
function stoutUpTo(of: Bending): number {
  const rungs = laddersOf(of).length;
  let to = dropBegins(of);
  while (to < lengthOf(of.line) && ladderFor(pointAt(of.line, to + 1).diameter).length === rungs) to++;
  return to;
}

/** Bends that lead a branch in a direction (bearing, elevation), its drop no sharper than a rung allows, with a given half-angle of arcs where it is made shorter. */
function bendsTo(
  of: Bending,
  to: { bearing: number; elevation: number },
  manner: Manner,
  { halfDeg = 0, rung = laddersOf(of).at(-1)! }: { halfDeg?: number; rung?: Rung },
  carried?: { turn: Frame; point: Vec },
  wound?: WoundWire,
): FoundBends {
  const { line, k0 } = of;
  const total = lengthOf(line);
  const wanted = direction({ bearingDeg: to.bearing, elevationDeg: to.elevation });
  const nearest = dropBegins(of);
  const room = DROP_SHARE * total;
  const diameter = line.diameters[0]!;
  const start = new Bender(line, carried);
  const meeting: Meeting | null = wound && !manner.compact ? { wound, settled: false, moved: [] } : null;
  let at = nearest;
  const made = dropOn(rung, { diameter, k0, room });
  let aim = wanted;
  let best: FoundBends | null = null;
  // Where a correction goes too far the next ones go less far.
  let share = 1;
  for (let round = 0; round < ROUNDS; round++) {
    if (meeting) meeting.settled = round >= MEETING_ROUNDS;
    const angleFrom = (place: number): { grown: Vec; full: number; length: number } => {
      const grown = start.ahead(place);
      const full = toDeg(angleBetween(grown, aim));
      return { grown, full, length: Math.max(1, Math.round(made.lengthOf(Math.min(full, made.most)))) };
    };
    if (meeting && !meeting.settled) {
      const { length } = angleFrom(nearest);
      at = meetingPlace(start, meeting.wound, { at: nearest, length, from: nearest, to: Math.min(DROP_ENDS * total, stoutUpTo(of) + length) }, () => aim);
    }
    const { grown, full, length } = angleFrom(at);
    const angle = Math.min(full, made.most);
    const dropTo = angle < full ? rotateAbout(grown, unit(cross(grown, aim)), toRad(angle)) : aim;
    const drop: Drop = { to: dropTo, angle, at, length };
    const from = angle >= LEAST_DROP_DEG ? at + length : at;
    const waves = manner.compact ? arcsFor(lengthOf(of.line), manner.compact, manner.side, halfDeg, from) : wavesFor(of, manner, from);
    const laid = lay(of, drop, waves, wanted, manner, meeting, carried);
    const missDeg = toDeg(angleBetween(laid.bent.chord, wanted));
    if (best && missDeg > best.missDeg) share *= 0.6;
    if (!best || missDeg < best.missDeg) best = { ...laid, missDeg };
    if (missDeg < CLOSE_DEG) break;
    aim = turnOnto(laid.bent.chord, wanted, share)(aim);
  }
  return best!;
}

/** A bend in the figures that a plan tells: tenths of a degree. */
function inFigures<B extends BendInSpace>(bend: B): B {
  const tenth = (x: number): number => Math.round(x * 10) / 10;
  const { bearing, elevation } = bend.toward;
  return { ...bend, angle: tenth(bend.angle), toward: { bearing: tenth(bearing) % 360, elevation: tenth(elevation) } };
}

/** Bends as they were found, as the plan tells them: what is shown is what is computed on. */
function told({ line }: Bending, to: { bearing: number; elevation: number }, found: FoundBends, carried?: { turn: Frame; point: Vec }): FoundBends {
  const bends = found.bends.map(inFigures);
  const bent = bentLine(line, bends, 1, carried);
  return { bends, bent, missDeg: toDeg(angleBetween(bent.chord, direction({ bearingDeg: to.bearing, elevationDeg: to.elevation }))) };
}

/** Bends are moved to meet their wire where the branch then lies as it would, within so many degrees. */
const SAME_LINE_DEG = 4;

/** So far off its aim a branch looks as it was meant, degrees. */
const UNSEEN_DEG = 3;

/** As gentle as the picture allows: on the first rung on which what is missing is nothing that one sees. */
function gentlest(...[of, to, manner, carried, wound]: Parameters<typeof findBends>): FoundBends {
  let best: FoundBends | null = null;
  for (const rung of laddersOf(of)) {
    const found = bendsTo(of, to, manner, { rung }, carried, wound);
    if (!best || found.missDeg < best.missDeg - UNSEEN_DEG) best = found;
    if (best.missDeg <= Math.max(UNSEEN_DEG, manner.give ?? 0)) break;
  }
  return best!;
}

/** The bends that bring a branch into a pose: a drop at the shoulder, movement on the way, the tip up; where it shall be shorter, arcs instead. docs: Bends of a pose. */
export function findBends(
  of: Bending,
  to: { bearing: number; elevation: number },
  manner: Manner,
  carried?: { turn: Frame; point: Vec },
  wound?: WoundWire,
): FoundBends {
  if (!manner.compact) {
    const free = gentlest(of, to, manner, carried);
    const met = wound && gentlest(of, to, manner, carried, wound);
    // Without the bends that have no wire it may lie elsewhere: there nothing would hold it.
    const stays = !met || (met.bends.length === free.bends.length && toDeg(angleBetween(met.bent.chord, free.bent.chord)) > SAME_LINE_DEG);
    return told(of, to, stays ? free : met, carried);
  }
  const { reach } = manner.compact;
  let low = 0;
  let high = mostOff(manner.compact);
  let found = bendsTo(of, to, manner, { halfDeg: low }, carried);
  for (let i = 0; i < 24 && Math.abs(norm(found.bent.chord) - reach) > 0.2; i++) {
    const middle = (low + high) / 2;
    found = bendsTo(of, to, manner, { halfDeg: middle }, carried);
    if (norm(found.bent.chord) > reach) low = middle;
    else high = middle;
  }
  return told(of, to, found, carried);
}

/** A pose whose bends are given: where they lead. */
export const leadsTo = (
  line: Limb,
  bends: readonly BendInSpace[],
  carried?: { turn: Frame; point: Vec },
): { bent: Bent; bearing: number; elevation: number } => {
  const bent = bentLine(line, bends, 1, carried);
  return { bent, ...bearingAndElevation(bent.chord) };
};
