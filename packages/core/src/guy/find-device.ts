import { closestBetween, distance, lengthOf, pointAt, stretch, type Limb, type Vec } from '../space/index.js';
import { DEVICE_KINDS, TRUNK_LEADS, type Device, type DeviceKind } from '../tree/index.js';
import type { AnchorRef } from './anchors.js';
import { DEVICE_WORDS } from './device-words.js';
import { workOutDevice, type DevicePlan } from './devices.js';
import type { GuyWorld } from './world.js';

/** A block is set between branches that come so near each other, mm. */
const NEAR = 60;
/** What stands close at its foot needs no block there: beyond this share of its length. */
const OUTER = 0.3;
/** How far a device of a kind moves its wood where that bears it, mm; less than the least is not worth setting. */
const TRAVEL: Record<DeviceKind, number> = { spreader: 8, spacer: 2, prop: 10, bar: 10, stays: 8, jack: 8, clamp: 4, frame: 10 };
const LEAST_TRAVEL = 1;
/** A place that bears so much of the usual travel is taken; other places are tried where none does. */
const ENOUGH = 0.5;
/** Halvings on the way to the farthest travel that all checks bear. */
const HALVINGS = 7;
/** Places along the wood, as shares of it, and turns away from the usual side, degrees, in the order in which they are tried. */
const PLACES = [0.6, 0.5, 0.7, 0.4, 0.8, 0.3];
const MIDDLES = [0.4, 0.5, 0.3, 0.6];
const SIDES = [0, 30, -30, 60, -60, 90, -90];
/** From hook to hook of a clamp, in thicknesses of the wood, and at least so many mm. */
const SPANS = [10, 14, 18];
const LEAST_SPAN = 60;
/** So many other branches are tried for the far end, and so many sides for the tie of a bar. */
const MOST_OTHERS = 4;
const BAR_SIDES = 3;

type Placed = Omit<Device, 'id' | 'by'>;

/** A device that bears all its checks, as far as that does; where there is none, what speaks against the usual one. */
export type FoundDevice = { device: Omit<Device, 'id'>; found: DevicePlan } | { why: string };

/** The places, anchors and far ends at which a device of a kind may be set, the usual first. */
function placesFor(world: GuyWorld, kind: DeviceKind, branch: string): Placed[] {
  const line = world.lines.get(branch)!;
  const total = lengthOf(line);
  const around = (bearing: number): number[] => SIDES.map((by) => (bearing + by + 360) % 360);
  // Wood that runs out level is drawn to its side, the rest to where it stands already.
  const sideOf = ({ direction, point }: { direction: Vec; point: Vec }): number =>
    Math.hypot(direction[0], direction[1]) > 0.5 ? bearingOf(direction) + 90 : bearingOf(point);
  const near = kind === 'spacer' ? touching(world, branch) : null;
  if (near) return [{ kind, branch, ...near }];
  return (kind === 'clamp' ? MIDDLES : PLACES).flatMap((share): Placed[] => {
    const at = Math.round(share * total);
    const here = pointAt(line, at);
    const base = { kind, branch, at };
    const rim = around(bearingOf(here.point)).map((bearing): AnchorRef => ({ kind: 'pot-rim', bearing }));
    const others = (): Device['other'][] => besides(world, branch, here).slice(0, MOST_OTHERS);
    switch (kind) {
      case 'clamp': {
        const room = Math.floor(2 * Math.min(at, total - at));
        const spans = new Set(SPANS.map((times) => Math.round(Math.min(room, Math.max(LEAST_SPAN, times * here.diameter)))));
        return [...spans].flatMap((span) => around(sideOf(here)).map((bearing) => ({ ...base, bearing, span, pitch: 1 })));
      }
      case 'stays':
        return around(sideOf(here)).map((bearing) => ({ ...base, bearing }));
      case 'frame':
        return around(sideOf(here)).map((bearing) => ({ ...base, bearing, pitch: 1 }));
      case 'jack':
        return rim.map((anchor) => ({ ...base, anchor, pitch: 1 }));
      case 'prop':
        return rim.map((anchor) => ({ ...base, anchor }));
      case 'bar':
        return others().flatMap((other) => rim.slice(0, BAR_SIDES).map((anchor) => ({ ...base, other, anchor })));
      case 'spreader':
      case 'spacer':
        return others().map((other) => ({ ...base, other }));
    }
  });
}

/** What speaks against a device; nothing where it bears all its checks. */
const against = (found: DevicePlan | string): string[] => (typeof found === 'string' ? [found] : found.checks.flatMap((c) => (c.ok ? [] : c.said)));

/** The farthest that a placed device may move its wood, the travel from small up; what speaks against the least where not even that may be. */
function farthest(
  world: GuyWorld,
  placed: Placed,
  most: number,
  notTooFar: (found: DevicePlan) => boolean = () => true,
): { by: number; found: DevicePlan } | string[] {
  const at = (by: number): DevicePlan | string => workOutDevice(world, { ...placed, id: '', by });
  const borne = (found: DevicePlan | string): found is DevicePlan => typeof found !== 'string' && !against(found).length && notTooFar(found);
  const least = at(LEAST_TRAVEL);
  if (!borne(least)) return against(least);
  const whole = at(most);
  if (borne(whole)) return { by: most, found: whole };
  let [low, high, best] = [LEAST_TRAVEL, most, least];
  for (let i = 0; i < HALVINGS; i++) {
    const by = Math.round(5 * (low + high)) / 10;
    const found = at(by);
    if (borne(found)) [low, best] = [by, found];
    else high = by;
  }
  return { by: low, found: best };
}

/** Looks for the place, the anchor and the travel (mm) at which a device bears all its checks, the usual ones first. docs: Devices. */
export function findDevice(world: GuyWorld, kind: DeviceKind, branch: string, most = TRAVEL[kind]): FoundDevice {
  let best: { device: Omit<Device, 'id'>; found: DevicePlan } | null = null;
  let why: string[] | null = null;
  for (const placed of placesFor(world, kind, branch)) {
    const far = farthest(world, placed, most);
    if (Array.isArray(far)) why ??= far;
    else if (!best || far.by > best.device.by) best = { device: { ...placed, by: far.by }, found: far.found };
    if (best && best.device.by >= ENOUGH * most) break;
  }
  return best ?? { why: why?.join(' ') ?? `There is no other wood that a ${DEVICE_WORDS[kind].name} would go to.` };
}

/** What leads the trunk, how far that comes, and whether it is as far as was asked. */
export interface LedTo {
  device: Omit<Device, 'id'>;
  found: DevicePlan;
  reached: number;
}

/** Places along the trunk at which it is drawn, and turns to either side of the way it shall go, degrees. */
const DRAWN_AT = [0.65, 0.8, 0.5];
const DRAWN_TURNED = [0, 30, -30];
/** A trunk is drawn by no more than so much of its length. */
const MOST_DRAWN = 0.8;
const MOST_TRAVEL = 300;

/** The stays, the jack or the frame that bring the trunk, towards a bearing, to where a measure of its line is as wanted; else the one that brings it farthest. Null where none bears its checks at all. docs: The trunk. */
export function leadTo(world: GuyWorld, bearing: number, wanted: number, measure: (trunk: Limb) => number): LedTo | null {
  const total = lengthOf(world.trunk);
  const most = Math.min(MOST_TRAVEL, MOST_DRAWN * total);
  let best: LedTo | null = null;
  for (const kind of TRUNK_LEADS)
    for (const share of DRAWN_AT)
      for (const turn of DRAWN_TURNED) {
        const toward = Math.round(bearing + turn + 360) % 360;
        const where = kind === 'jack' ? { anchor: { kind: 'pot-rim', bearing: toward } } : { bearing: toward };
        const placed: Placed = { kind, branch: 'trunk', at: Math.round(share * total), ...(kind === 'stays' ? {} : { pitch: 1 }), ...where };
        const far = farthest(world, placed, most, (found) => measure(found.moved[0]!.line) <= wanted);
        if (Array.isArray(far)) continue;
        const reached = measure(far.found.moved[0]!.line);
        if (!best || reached > best.reached) best = { device: { ...placed, by: far.by }, found: far.found, reached };
        if (best.reached >= wanted - NEAR_ENOUGH) return best;
      }
  return best;
}

/** So near to what is wanted is there. */
const NEAR_ENOUGH = 2;

const TWO_ENDED: ReadonlySet<DeviceKind> = new Set(['spreader', 'spacer', 'bar']);

/** The kinds of device that a branch or the trunk can have at all: those with two ends need other wood beside it. */
export function deviceKindsOn(world: GuyWorld, branch: string): DeviceKind[] {
  const alone = ![...world.lines.keys()].some((id) => id !== branch && !isAlong(world, id, branch));
  return DEVICE_KINDS.filter((kind) => !alone || !TWO_ENDED.has(kind));
}

/** Places on other wood to which a bar goes, the likest and nearest first: between a stem and a twig it would move but the twig. */
const besides = (world: GuyWorld, branch: string, { point, diameter }: { point: Vec; diameter: number }): { branch: string; at: number }[] =>
  [...world.lines]
    .filter(([id]) => id !== branch && !isAlong(world, id, branch))
    .map(([id, other]) => {
      const at = Math.round(levelWith(other, point[2]));
      const { point: there, diameter: d } = pointAt(other, at);
      return { branch: id, at, far: distance(there, point) * (1 + 3 * Math.abs(Math.log(d / diameter))) };
    })
    .sort((a, b) => a.far - b.far)
    .map(({ branch: id, at }) => ({ branch: id, at }));

/** Where on a line (mm along it) its outer part is at a height, or nearest to that: a bar lies level. */
function levelWith(line: Limb, z: number): number {
  const places = Array.from({ length: 13 }, (_, i) => (OUTER + 0.05 * i) * lengthOf(line));
  const off = (at: number): number => Math.abs(pointAt(line, at).point[2] - z);
  return places.reduce((best, at) => (off(at) < off(best) ? at : best));
}

const bearingOf = ([x, y]: Vec): number => Math.round(((Math.atan2(x, y) * 180) / Math.PI + 360) % 360);

/** Where a branch comes nearest to another that it neither grows on nor carries. */
function touching(world: GuyWorld, branch: string): { at: number; other: { branch: string; at: number } } | null {
  const outer = (line: Limb): Limb => stretch(line, OUTER * lengthOf(line), lengthOf(line));
  const line = world.lines.get(branch)!;
  let best: { gap: number; at: number; other: { branch: string; at: number } } | null = null;
  for (const [id, other] of world.lines) {
    if (id === branch || isAlong(world, id, branch)) continue;
    const found = closestBetween(outer(line), outer(other), best?.gap ?? NEAR);
    if (!found) continue;
    const [at, there] = [OUTER * lengthOf(line) + found.alongA, OUTER * lengthOf(other) + found.alongB];
    best = { gap: found.gap, at: Math.floor(at), other: { branch: id, at: Math.floor(there) } };
  }
  return best;
}

/** A stem of several leaves the trunk this low: share of its length. */
const STEM_BELOW = 0.2;

/** Whether one grows on the other, at whatever remove; stems of one tree stand beside each other. */
function isAlong({ branches, trunk }: GuyWorld, a: string, b: string): boolean {
  const grows = (id: string, on: string): boolean => {
    for (let own = branches.get(id); own; own = branches.get(own.parent)) {
      const stem = own.parent === 'trunk' && own.at < STEM_BELOW * lengthOf(trunk);
      if (own.parent === on && !stem) return true;
    }
    return false;
  };
  return grows(a, b) || grows(b, a);
}
