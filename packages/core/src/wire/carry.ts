import { greatestOf, leastOf, toRad } from '../units/index.js';
import { distance, type Vec } from '../space/index.js';
import type { Hand, PlacedTree } from '../tree/index.js';
import type { BarkPlace } from './flat-bark.js';
import { nearTurn } from './knots.js';
import { alike } from './join-ways.js';
import { laidWire, liesAcross, type LaidWire } from './laid.js';
import type { CoilOn, End, Laid, LimbWork, Need } from './limb-work.js';
import { keptWay } from './kept-way.js';
import { reversed, type WirePath, type WirePlace } from './path.js';
import { wayAt, type Shoulder, type Touch } from './shoulders.js';
import { HANDS, hiddenShare, touchesFor } from './touching.js';
import { wayOfCoil } from './way-of-coil.js';
import type { Wanted } from './wanted.js';
import { lengthOfWay, sampleOf, TURN, turnOf, type Course, type Way } from './ways.js';

/** A coil that may be led on along a shoot of its branch. */
export interface Carrier {
  need: Need;
  hand: Hand;
  coil: CoilOn;
  way: Way;
  /** The whole piece as it lies. */
  path: WirePath;
  wire: LaidWire;
}

/** A piece led on from its branch along a shoot. */
export interface LedOn {
  need: Need;
  touch: Touch;
  coil: CoilOn;
  /** What is left of the coil on the branch, up to the shoot. */
  upTo: CoilOn;
  way: Way;
  path: WirePath;
  wire: LaidWire;
}

/** It is led over to the shoot's shoulder in so many turns, at least and at most. */
const LEAST_OVER = 0.75;
const MOST_OVER = 2;

/** Of a branch's shoots that are wired the one along which its wire goes on: as its artist settled it, else the thickest where that grows beyond all bends. docs: Carried on. */
export function shootToCarryOn({ byId }: PlacedTree, on: Wanted, piece: Need, shoots: readonly Wanted[]): Wanted | null {
  if (on.run) return shoots.find((s) => s.run === on.run) ?? null;
  if (on.tie) return null;
  const [thickest] = [...shoots].sort((a, b) => b.need.diameter - a.need.diameter || (a.need.branch < b.need.branch ? -1 : 1));
  if (!thickest || thickest.run || thickest.tie || !alike(piece, thickest.need) || thickest.need.size > piece.size) return null;
  return byId.get(thickest.need.branch)!.branch.at >= bentUpTo(on) + on.need.diameter ? thickest : null;
}

/** Of a branch that may wind either way the hand by which alone its wire comes round a shoot's shoulder as that one needs it; null where either does, or none. */
export function handOnto(shoulder: Shoulder, piece: Need, shoot: Need): Hand | null {
  const able = HANDS.filter((hand) => touchesFor(shoulder, shoot, piece.size / 2, arrivingOn(shoulder, hand, piece.angle)).length > 0);
  return able.length === 1 ? able[0]! : null;
}

/** How far along a branch its bends go, mm. */
export const bentUpTo = ({ pose, holds }: Pick<Wanted, 'pose' | 'holds'>): number =>
  greatestOf(
    (pose?.bends ?? holds).map((b) => b.at + b.length),
    0,
  );

/** The way in which a wire that winds along a branch arrives at the shoulder of a shoot. */
export const arrivingOn = (shoulder: Shoulder, hand: Hand, angleDeg: number): Vec => wayAt(shoulder, 1 / Math.tan(toRad(angleDeg)), hand === 'cw' ? 1 : -1);

/** The ways from a branch's coil over to the shoulder of a shoot, the one that serves it best first. */
function coursesOver(work: LimbWork, { need, hand, way }: Carrier, shoot: Need, from: number): { touch: Touch; course: Course; leaves: number }[] {
  const sense = hand === 'cw' ? 1 : -1;
  const shoulder = work.shoulders.get(shoot.branch)!;
  const last = way.first + way.along.length - 1;
  const at = (k: number): number => way.along[k - way.first]!;
  return touchesFor(shoulder, shoot, need.size / 2, arrivingOn(shoulder, hand, need.angle)).flatMap((touch) => {
    // Of the coil's rounds the one that passes next to the shoulder.
    let stop: number | null = null;
    const { s, turn } = touch.onLimb;
    for (let k = sampleOf(turn) + Math.ceil((way.first - sampleOf(turn)) / TURN) * TURN; k <= last; k += TURN)
      if (stop === null || Math.abs(at(k) - s) < Math.abs(at(stop) - s)) stop = k;
    if (stop === null) return [];
    let count = 0;
    while (count < MOST_OVER * TURN && (at(stop - sense * (count + 1)) ?? -Infinity) >= from) count++;
    if (count < LEAST_OVER * TURN) return [];
    const start = stop - sense * count;
    const aside = s - at(stop);
    const base = Array.from({ length: count + 1 }, (_, i) => at(start + sense * i) + (aside * i) / count);
    const ends = { half: way.half, fixed: [true, true] } as const;
    const course: Course =
      sense > 0 ? { first: start, base, at: [null, shoot.branch], ...ends } : { first: stop, base: base.reverse(), at: [shoot.branch, null], ...ends };
    return [{ touch, course, leaves: at(start) }];
  });
}

/** Leads a piece on from its coil along a shoot, where there is a way clear of wood and of other wire; null where there is none. `from`: where its bends end, mm along. docs: Carried on. */
export function leadOn(work: LimbWork, carrier: Carrier, shoot: Need, from: number): LedOn | null {
  const { bark } = work;
  const { branch, size } = carrier.need;
  const clear = leastOf(lyingOn(carrier.path, branch).map((p) => p.s));
  for (const { touch, course, leaves } of coursesOver(work, carrier, shoot, Math.max(from, clear))) {
    const end: End = { need: { ...shoot, size }, touch };
    const cw = carrier.hand === 'cw';
    const piece = keptWay(work, course, [], (way) => ({
      key: `on ${shoot.branch}`,
      kind: 'single',
      ends: cw ? [null, end] : [end, null],
      way,
      size,
      length: lengthOfWay(way, bark),
      hidden: hiddenShare(bark, way, work.toward),
    }));
    const laid = piece && work.lay(piece);
    if (!laid) continue;
    const path = joinedOn(carrier.path, branch, leaves, cw ? laid.path : reversed(laid.path), shoot.branch);
    const wire = laidWire(path, carrier.wire.half, carrier.wire.lift);
    if (liesAcross(laid.wire, work.wires) || crossesItself(path, shoot.branch, carrier.wire)) continue;
    const upTo = coilUpTo(carrier.coil, leaves, piece.way, cw, bark.point.bind(bark));
    return { need: end.need, touch, coil: coilOf(laid), upTo, way: wayOfCoil(upTo, carrier.way.half), path, wire };
  }
  return null;
}

/** The places of a piece that lie as a coil on one of its branches. */
function lyingOn({ places, on }: WirePath, branch: string): WirePlace[] {
  const { from, to } = on.get(branch)!;
  return places.filter((p) => p.limb === branch && p.along >= from && p.along <= to);
}

const coilOf = ({ coils }: Laid): CoilOn => coils.find((c) => c !== null)!;

/** A coil as far as it stays one, and then the way over to the shoot. */
function coilUpTo(coil: CoilOn, leaves: number, { first, along }: Way, cw: boolean, point: (place: BarkPlace) => Vec): CoilOn {
  const stays = coil.places.filter((p) => p.s < leaves);
  const lift = coil.places[0]!.lift;
  const over = along.map((s, i): BarkPlace => ({ s, turn: turnOf(first + i), lift }));
  const places = [...stays, ...(cw ? over : over.reverse())];
  return { ...coil, blocked: null, places, points: places.map(point) };
}

/** A piece's path with what lies beyond a place of one of its branches given up for another way on; that branch comes last, or with its shoot. */
function joinedOn(whole: WirePath, branch: string, leaves: number, over: WirePath, shoot: string): WirePath {
  const outwards = whole.on.get(branch)!.to > whole.length - 1 ? whole : reversed(whole);
  const own = outwards.places.findIndex((p) => p.limb === branch && p.along >= outwards.on.get(branch)!.from && p.s >= leaves);
  const kept = outwards.places.slice(0, own);
  const points = [...outwards.points.slice(0, own), ...over.points];
  const places: WirePlace[] = [...kept, ...over.places];
  let along = 0;
  let before = kept[kept.length - 1]!;
  const laid = places.map((place, i): WirePlace => {
    if (i) along += distance(points[i - 1]!, points[i]!);
    if (i < own || place.limb !== branch) return { ...place, along };
    // What was drawn off its course counts its turns anew.
    before = { ...place, turn: nearTurn(place.turn, before.turn), along };
    return before;
  });
  const on = new Map([...outwards.on].map(([id, { from, to }]) => [id, { from, to: Math.min(to, along) }] as const));
  const begins = over.on.get(shoot)!.from + laid[own]!.along;
  // On its branch it lies as far as it was not drawn off to the shoulder.
  const { lift } = kept[kept.length - 1]!;
  let lies = own;
  while (lies + 1 < laid.length && laid[lies + 1]!.limb === branch && laid[lies + 1]!.along < begins && Math.abs(laid[lies + 1]!.lift - lift) < 0.05) lies++;
  on.set(branch, { from: on.get(branch)!.from, to: laid[lies]!.along });
  on.set(shoot, { from: begins, to: along });
  return { places: laid, points, length: along, on };
}

/** So near its shoulder a wire is beside itself, mm. */
const BESIDE = 15;

/** Whether a piece lies on a shoot across what went before. */
function crossesItself({ points, places, on }: WirePath, shoot: string, { half, lift }: LaidWire): boolean {
  const { from } = on.get(shoot)!;
  const part = (within: (along: number) => boolean): LaidWire => laidWire({ points: points.filter((_, i) => within(places[i]!.along)) }, half, lift);
  return liesAcross(
    part((along) => along > from + BESIDE),
    [part((along) => along < from - BESIDE)],
  );
}
