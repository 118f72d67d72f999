import { greatestOf, leastOf } from '../units/index.js';
import { add, alignedTo, distance, dot, lengthOf, lerp, limb, norm, pointAt, scale, stretch, sub, unit, type Limb, type Vec } from '../space/index.js';
import { LED_SEGMENTS, leadBoth, leadWood, type Led, type LedAsked } from '../rod/index.js';
import { bandOf, HEFT, safeBendRatio, type Band } from '../wood/index.js';
import { drawnFrom, level, rimAt, staysOn, type Device } from '../tree/index.js';
import { anchorAt, type AnchorPlace } from './anchors.js';
import { cushionFor, nearestWood, tieFor, type GuyCheck } from './checks.js';
import { checkDevice } from './device-checks.js';
import type { GuyWorld } from './world.js';

/** Wood that a device moves. */
export interface MovedWood {
  branch: string;
  /** Where, mm along it, and by how much, mm. */
  at: number;
  by: number;
  strain: number;
  /** Where the strain is greatest, mm along it, and how thick it is there. */
  strainAt: number;
  diameter: number;
  risk: number;
  band: Band;
  /** How it lies then, in the world. */
  line: Limb;
}

export interface DevicePart {
  look: 'rod' | 'stay';
  from: Vec;
  to: Vec;
}

/** A device worked out; points in the world. */
export interface DevicePlan {
  device: Device;
  /** N that it holds with. */
  force: number;
  moved: MovedWood[];
  /** Length of its bar or stay when it has done its work, mm; how thick a hardwood stick or a bar has to be for it. */
  length: number;
  stick: number | null;
  /** Turns of its screw in all. */
  turns: number | null;
  cushion: number;
  checks: GuyCheck[];
  parts: DevicePart[];
  cushions: { at: Vec; along: Vec; diameter: number; width: number }[];
}

/** Stiffness of a hardwood stick along the grain, MPa, and how many times its pressing load it has to bear before it bows out. */
const STICK = { modulus: 10_000, times: 3 };
/** Cosine of the angle to the wood from which on a pull is as good as along it. */
const ALONG = 0.94;
/** Below this two pieces of wood are one place, mm. */
const APART = 8;

/** Thickness (mm) of a round stick that presses with a force over a length without bowing out (Euler, both ends free to turn). */
export const stickFor = (force: number, length: number): number => ((64 * STICK.times * force * length ** 2) / (Math.PI ** 3 * STICK.modulus)) ** 0.25;

interface Place {
  branch: string;
  at: number;
  line: Limb;
  point: Vec;
  diameter: number;
  along: Vec;
}

function placeOn(world: GuyWorld, branch: string, at: number): Place | null {
  const line = world.lines.get(branch);
  if (!line || line.points.length < 2 || at > lengthOf(line)) return null;
  const { point, diameter, direction } = pointAt(line, at);
  return { branch, at, line, point, diameter, along: direction };
}

/** What goes to the pot rocks the tree in it; what goes to the tree's own wood does not. */
const inPot = ({ ref }: AnchorPlace): boolean => ref.kind === 'pot-rim' || ref.kind === 'pot-hole';

const bark = (p: Place, way: Vec): Vec => add(p.point, scale(unit(way), p.diameter / 2));

function movedBy(world: GuyWorld, place: Place, led: Led): MovedWood {
  const { diameter } = pointAt(place.line, led.strainAt);
  const risk = led.strain * 2 * safeBendRatio(world.bendRatio, diameter, 'none');
  return { branch: place.branch, at: place.at, by: led.by, strain: led.strain, strainAt: led.strainAt, diameter, risk, band: bandOf(risk), line: led.line };
}

const askOf = (world: GuyWorld, { line, at }: Pick<Place, 'line' | 'at'>, way: Vec): LedAsked => ({
  line,
  at,
  way,
  wood: world.wood,
  heft: HEFT,
  segments: LED_SEGMENTS,
});

/** Two pieces of wood that a device moves, worked out once for the same ones. */
const ledBoth = (world: GuyWorld, asked: readonly [LedAsked, LedAsked], by: number): [Led, Led] =>
  world.keep(`both ${JSON.stringify([asked, by])}`, () => leadBoth(...asked, by));

/** What a device does, worked out; a sentence where it cannot be. */
export function workOutDevice(world: GuyWorld, device: Device): DevicePlan | string {
  const { kind, by } = device;
  const place = placeOn(world, device.branch, device.at);
  if (!place) return 'There is no wood there: it ends before, or is not on the tree.';
  if (kind === 'clamp') return clamped(world, device, place);
  if (kind === 'stays') return stayed(world, device, place);
  if (kind === 'spreader' || kind === 'spacer' || kind === 'bar') {
    const other = device.other ? placeOn(world, device.other.branch, device.other.at) : null;
    if (!other) return 'Its other end has no wood to hold on to: choose a branch, and a place on it.';
    if (other.branch === place.branch) return 'Both ends are on one branch: it would hold nothing apart.';
    if (distance(other.point, place.point) < APART) return 'Its two ends are in one place.';
    return kind === 'bar' ? barred(world, device, [place, other]) : spread(world, device, [place, other]);
  }
  const anchor = kind === 'frame' ? frameAnchor(world, device, place) : device.anchor ? anchorAt(world, device.anchor, place.point) : null;
  if (!anchor) return kind === 'frame' ? 'Towards which side does it draw? Say its bearing.' : 'It stands on nothing: choose what it goes to.';
  const toward = sub(anchor.point, place.point);
  if (norm(toward) < APART) return 'Its two ends are in one place.';
  const way = kind === 'prop' ? scale(toward, -1) : toward;
  if (Math.abs(dot(unit(way), place.along)) > ALONG) return 'It would pull or push along the wood, which does not give that way: choose another place or side.';
  const led = world.keep(`led ${JSON.stringify([askOf(world, place, way), by])}`, () => leadWood(askOf(world, place, way), by));
  const from = bark(place, kind === 'prop' ? toward : scale(toward, -1));
  const length = distance(from, anchor.point) + (kind === 'prop' ? by : -by);
  return finished(world, device, {
    force: led.force,
    woods: [{ place, led }],
    length,
    stick: kind === 'prop' ? stickFor(led.force, length) : null,
    parts: [{ look: kind === 'prop' ? 'rod' : 'stay', from, to: anchor.point }, ...(kind === 'frame' ? frameParts(world, device, anchor.point) : [])],
    anchor,
    contacts: [place],
    rocks: inPot(anchor) ? led.force * place.point[2] : null,
  });
}

/** Two stays from one place, each with half of the pull and of what would turn it aside. */
function stayed(world: GuyWorld, device: Device, place: Place): DevicePlan | string {
  const between = drawnFrom(device, world.pot, place.point);
  if (!between) return 'Towards which side do they draw? Say their bearing.';
  const ends = staysOn(world.pot, device.bearing!);
  const way = sub(between, place.point);
  if (Math.abs(dot(unit(way), place.along)) > ALONG) return 'They would pull along the wood, which does not give that way: choose another place or side.';
  const led = world.keep(`led ${JSON.stringify([askOf(world, place, way), device.by])}`, () => leadWood(askOf(world, place, way), device.by));
  const from = bark(place, scale(way, -1));
  const stays = ends.map((to) => sub(to, place.point));
  // Both pull alike; what they pull along the way together is the force.
  const share = 1 / stays.reduce((sum, stay) => sum + dot(unit(stay), unit(way)), 0);
  const tension = share * led.force;
  const anchors = ends.map((to) => anchorAt(world, { kind: 'pot-rim', bearing: (Math.atan2(to[0], to[1]) * 180) / Math.PI }, place.point)!);
  const length = distance(from, ends[0]);
  return finished(world, device, {
    force: led.force,
    woods: [{ place, led }],
    length: length - device.by,
    stick: null,
    tie: { tension, wire: tieFor(tension) },
    parts: ends.map((to): DevicePart => ({ look: 'stay', from, to })),
    anchor: { ...anchors[0]!, capacity: leastOf(anchors.map((a) => a.capacity)) / share },
    contacts: [place],
    rocks: led.force * place.point[2],
  });
}

function spread(world: GuyWorld, device: Device, [a, b]: [Place, Place]): DevicePlan {
  const apart = sub(b.point, a.point);
  const asked = [askOf(world, a, scale(apart, -1)), askOf(world, b, apart)] as const;
  const [one, other] = ledBoth(world, asked, device.by);
  const [from, to] = [bark(a, apart), bark(b, scale(apart, -1))];
  const length = distance(from, to) + device.by;
  return finished(world, device, {
    force: one.force,
    woods: [
      { place: a, led: one },
      { place: b, led: other },
    ],
    length,
    stick: stickFor(one.force, length),
    parts: [{ look: 'rod', from, to }],
    anchor: null,
    contacts: [a, b],
    rocks: null,
  });
}

function barred(world: GuyWorld, device: Device, [a, b]: [Place, Place]): DevicePlan | string {
  const middle = lerp(a.point, b.point, 0.5);
  const anchor = device.anchor ? anchorAt(world, device.anchor, middle) : null;
  if (!anchor) return 'It is tied to nothing: choose what it goes to.';
  const [wayA, wayB] = [sub(anchor.point, a.point), sub(anchor.point, b.point)];
  const asked = [askOf(world, a, wayA), askOf(world, b, wayB)] as const;
  const [one, other] = ledBoth(world, asked, 2 * device.by);
  const up = scale(unit(sub(middle, anchor.point)), Math.max(a.diameter, b.diameter) / 2);
  const over = (p: Place, q: Place): Vec => add(add(p.point, up), scale(unit(sub(p.point, q.point)), p.diameter));
  return finished(world, device, {
    force: one.force + other.force,
    woods: [
      { place: a, led: one },
      { place: b, led: other },
    ],
    length: distance(over(a, b), over(b, a)),
    stick: null,
    parts: [
      { look: 'rod', from: over(a, b), to: over(b, a) },
      { look: 'stay', from: add(middle, up), to: anchor.point },
    ],
    anchor,
    contacts: [a, b],
    rocks: inPot(anchor) ? (one.force + other.force) * middle[2] : null,
  });
}

/** A clamp: the wood to either side of its screw bends as a cantilever that its hook draws back. */
function clamped(world: GuyWorld, device: Device, place: Place): DevicePlan | string {
  if (device.bearing === undefined) return 'Which way does its screw press? Say its bearing.';
  if (device.span === undefined) return 'How far is it from hook to hook? Say its span.';
  const half = device.span / 2;
  const total = lengthOf(place.line);
  if (place.at < half || place.at + half > total)
    return `From hook to hook it needs ${half.toFixed(0)} mm to either side of its screw: move it, or make it shorter.`;
  const asked = level(device.bearing);
  const way = sub(asked, scale(place.along, dot(asked, place.along)));
  if (norm(way) < 0.2) return 'It would press along the wood: choose another bearing.';
  const outer = stretch(place.line, place.at, place.at + half);
  const inner = stretch(place.line, place.at - half, place.at);
  const turned = limb([...inner.points].reverse(), [...inner.diameters].reverse());
  const back = scale(unit(way), -1);
  const halves = [outer, turned].map((line): LedAsked => ({ ...askOf(world, { line, at: half }, back), heft: 0 })) as [LedAsked, LedAsked];
  const [one, other] = ledBoth(world, halves, 2 * device.by);
  const hooks = [placeOn(world, device.branch, place.at - half)!, placeOn(world, device.branch, place.at + half)!] as const;
  const off = place.diameter * 1.6;
  const bar = (p: Place): Vec => add(p.point, scale(back, off));
  const worse = one.strain > other.strain ? { led: one, sign: 1 } : { led: other, sign: -1 };
  const line = arched(place.line, [place.at - half, place.at + half], [one.line, other.line]);
  const led: Led = { ...worse.led, line, strainAt: place.at + worse.sign * worse.led.strainAt };
  return finished(world, device, {
    force: one.force + other.force,
    woods: [{ place, led: { ...led, by: device.by } }],
    length: device.span,
    stick: null,
    parts: [
      { look: 'rod', from: bar(hooks[0]), to: bar(hooks[1]) },
      ...hooks.map((h): DevicePart => ({ look: 'stay', from: add(h.point, scale(unit(way), h.diameter / 2)), to: bar(h) })),
      { look: 'rod', from: bar(place), to: bark(place, back) },
    ],
    anchor: null,
    contacts: [place, ...hooks],
    rocks: null,
  });
}

/** A line bent between two places: both halves of the arch lie from its middle outward; what is beyond goes on as the arch ends. */
function arched(line: Limb, [from, to]: readonly [number, number], [outer, inner]: readonly [Limb, Limb]): Limb {
  const [base, tail] = [stretch(line, 0, from), stretch(line, to, lengthOf(line))];
  const arch = [...[...inner.points].reverse(), ...outer.points.slice(1)];
  const thick = [...[...inner.diameters].reverse(), ...outer.diameters.slice(1)];
  const last = (of: readonly Vec[]): Vec => of[of.length - 1]!;
  const end = (of: readonly Vec[]): Vec => unit(sub(last(of), of[of.length - 2]!));
  const goingOn = (points: readonly Vec[], after: readonly Vec[]): Vec[] => {
    const turned = alignedTo(unit(sub(points[1]!, points[0]!)), end(after));
    return points.slice(1).map((p) => add(last(after), turned(sub(p, points[0]!))));
  };
  const bent = [...base.points, ...goingOn(arch, base.points)];
  return limb([...bent, ...goingOn(tail.points, bent)], [...base.diameters, ...thick.slice(1), ...tail.diameters.slice(1)]);
}

/** The rods of a frame carry what it draws: the place on them at the height of the wood. */
function frameAnchor(world: GuyWorld, device: Device, place: Place): AnchorPlace | null {
  const point = drawnFrom(device, world.pot, place.point);
  return point && device.bearing !== undefined ? { ref: { kind: 'pot-rim', bearing: device.bearing }, point, capacity: Infinity, onBark: false } : null;
}

/** Uprights to either side of where it draws, and the bar between them. */
function frameParts(world: GuyWorld, device: Device, at: Vec): DevicePart[] {
  const sides = [-25, 25].map((turn) => (device.bearing! + turn + 360) % 360);
  const tops = sides.map((b): Vec => {
    const out = scale(level(b), Math.hypot(at[0], at[1]));
    return [out[0], out[1], at[2]];
  });
  return [
    ...sides.map((b, i): DevicePart => ({ look: 'rod', from: scale(level(b), rimAt(world.pot, b)), to: tops[i]! })),
    { look: 'rod', from: tops[0]!, to: at },
    { look: 'rod', from: at, to: tops[1]! },
  ];
}

interface Worked {
  force: number;
  woods: { place: Place; led: Led }[];
  length: number;
  stick: number | null;
  parts: DevicePart[];
  anchor: AnchorPlace | null;
  /** The ties it is made of. */
  tie?: { tension: number; wire: number };
  contacts: Place[];
  /** How much it rocks the tree in its pot, N·mm; null where it does not. */
  rocks: number | null;
}

/** A device with its checks, its wood and its cushions. */
function finished(world: GuyWorld, device: Device, worked: Worked): DevicePlan {
  const { force, woods, parts, anchor, contacts, rocks } = worked;
  // Of a clamp's three places the screw carries all, of a bar's two each one half.
  const at = (i: number): number => (device.kind === 'bar' || (device.kind === 'clamp' && i > 0) ? force / 2 : force);
  const cushion = greatestOf(contacts.map((c, i) => cushionFor(at(i), c.diameter, world.bark)));
  const pressure = greatestOf(contacts.map((c, i) => at(i) / (cushion * c.diameter)));
  const own = [device.branch, device.other?.branch, anchor?.ref.branch, ...(anchor?.onBark ? ['trunk'] : [])].filter((id) => id !== undefined);
  const near = parts
    .filter((p) => distance(p.from, p.to) > APART)
    .flatMap((p) => nearestWood(world, p, 2, own) ?? [])
    .sort((a, b) => a.gap - b.gap)[0];
  const moved = woods.map(({ place, led }) => movedBy(world, place, led));
  const worst = moved.reduce((a, b) => (b.risk > a.risk ? b : a));
  const checks = checkDevice(world, {
    kind: device.kind,
    screw: device.pitch !== undefined,
    tie: worked.tie ?? null,
    worst,
    force,
    pressure,
    cushion,
    gap: near?.gap ?? null,
    anchor,
    rocks,
  });
  return {
    device,
    force,
    moved,
    length: worked.length,
    stick: worked.stick,
    turns: device.pitch ? device.by / device.pitch : null,
    cushion,
    checks,
    parts,
    cushions: contacts.map((c) => ({ at: c.point, along: c.along, diameter: c.diameter, width: cushion })),
  };
}
