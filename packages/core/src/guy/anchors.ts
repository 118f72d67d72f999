import { add, distance, dot, lengthOf, pointAt, scale, screenAxes, sub, unit, type Vec } from '../space/index.js';
import { yieldMoment } from '../wood/index.js';
import { level, rimAt, SOIL } from '../tree/index.js';
import type { GuyWorld } from './world.js';

export const ANCHOR_KINDS = ['jin', 'pot-hole', 'pot-rim', 'root', 'trunk', 'branch', 'screw'] as const;
/** What a tie can hold on to, the best first. */
export type AnchorKind = (typeof ANCHOR_KINDS)[number];

/** An anchor as a plan names it: which hole or root, which branch, where along it or the trunk (mm), on which side (bearing). */
export interface AnchorRef {
  kind: string;
  index?: number;
  branch?: string;
  at?: number;
  bearing?: number;
}

/** A place that a tie can go to. */
export interface AnchorPlace {
  ref: AnchorRef & { kind: AnchorKind };
  point: Vec;
  /** What it holds, N, by an estimate of ours. */
  capacity: number;
  /** Bark under a cushion there. */
  onBark: boolean;
}

/** Dead wood is brittle: of what green wood of its thickness yields at, so much. */
const DEAD = 0.4;
/** A living limb shall not give itself: so much of what it yields at. */
const STEADY = 0.25;
/** A hidden screw in sound wood, and most of a surface root, N. */
const SCREW = 80;
const ROOT_SHARE = 0.08;
const MOST_ROOT = 400;
/** A wire through a hole or round a pot, N. */
const POT_HOLDS = 250;
/** A pot full of soil, g for each mm³. */
const POT_DENSITY = 1.5e-3;
const G = 9.81;

/** Weight of the pot with its soil, N. */
export const potWeight = ({ width, depth, height, shape }: GuyWorld['pot']): number =>
  ((shape === 'rectangle' ? 1 : Math.PI / 4) * width * depth * height * POT_DENSITY * G) / 1000;

/** A tree that is tied into its pot stands so many times what its weight alone would hold; own estimate. */
const TIED_IN = 3;

/** What rocks the tree in its pot is borne up to so much, N·mm. */
export const potStands = ({ pot }: GuyWorld): number => TIED_IN * potWeight(pot) * (Math.min(pot.width, pot.depth) / 2);

/** Two wires over the roots and through the holes hold a tree in its pot besides, so far from where it turns as a share of the pot. */
const TIE_INS = 2;
const TIE_IN_LEVER = 0.4;

/** The same once it was tied fast into its pot, as it is before any device is set, N·mm. */
export const potStandsFast = (world: GuyWorld): number => potStands(world) + TIE_INS * POT_HOLDS * TIE_IN_LEVER * Math.min(world.pot.width, world.pot.depth);

/** Where an anchor is and what it bears; null where there is none such. */
export function anchorAt(world: GuyWorld, ref: AnchorRef, from: Vec): AnchorPlace | null {
  const { pot, roots, wood } = world;
  const made = (point: Vec, capacity: number, onBark = false): AnchorPlace => ({ ref: { ...ref, kind: ref.kind as AnchorKind }, point, capacity, onBark });
  const inPot = (bearing: number, radius: number, z: number): AnchorPlace => made(add(scale(level(bearing), radius), [0, 0, z]), POT_HOLDS);
  switch (ref.kind) {
    case 'pot-hole': {
      const hole = pot.holes?.[ref.index ?? 0];
      return hole ? inPot(hole.bearing, hole.radius, SOIL) : null;
    }
    case 'pot-rim':
      return ref.bearing === undefined ? null : inPot(ref.bearing, rimAt(pot, ref.bearing), SOIL);
    case 'root': {
      const root = roots[ref.index ?? 0];
      if (!root) return null;
      const out = world.trunk.diameters[0]! / 2 + root.length / 2;
      return made(
        add(scale(level(root.bearing), out), [0, 0, root.d / 2]),
        Math.min(MOST_ROOT, ROOT_SHARE * wood.strength * Math.PI * (root.d / 2) ** 2),
        true,
      );
    }
    case 'trunk':
    case 'screw': {
      if (ref.at === undefined || ref.at > lengthOf(world.trunk)) return null;
      const { point, diameter, direction: along } = pointAt(world.trunk, ref.at);
      const toward = ref.bearing === undefined ? sub(from, point) : level(ref.bearing);
      const side = unit(sub(toward, scale(along, dot(toward, along))));
      const bark = add(point, scale(side, diameter / 2));
      return ref.kind === 'screw'
        ? made(bark, SCREW)
        : made(bark, (STEADY * yieldMoment(world.trunk.diameters[0]!, wood.strength)) / Math.max(50, ref.at), true);
    }
    case 'jin':
    case 'branch': {
      const line = ref.branch === undefined ? undefined : world.lines.get(ref.branch);
      const branch = ref.branch === undefined ? undefined : world.branches.get(ref.branch);
      if (!line || !branch || (branch.state === 'dead') !== (ref.kind === 'jin')) return null;
      const at = Math.min(ref.at ?? lengthOf(line) / 3, lengthOf(line));
      const { point } = pointAt(line, at);
      const share = ref.kind === 'jin' ? DEAD : STEADY;
      return made(point, (share * yieldMoment(line.diameters[0]!, wood.strength)) / Math.max(10, at), ref.kind === 'branch');
    }
    default:
      return null;
  }
}

const RIM_STEP = 30;
const TRUNK_STEP = 40;
/** Where branches are tied to: shares of their length. */
const ON_BRANCH = [0.15, 0.35];
/** A living branch that holds another is thicker than it by so much. */
const THICKER = 1.3;

/** Every anchor within reach of a tie point that pulls towards where that shall go. */
export function anchorsFor(world: GuyWorld, tied: { branch: string; point: Vec; to: Vec; diameter: number }, reach: number): AnchorPlace[] {
  const { pot, roots, branches, lines, trunk, features, front } = world;
  const refs: AnchorRef[] = [
    ...(pot.holes ?? []).map((_, index) => ({ kind: 'pot-hole', index })),
    ...Array.from({ length: 360 / RIM_STEP }, (_, i) => ({ kind: 'pot-rim', bearing: i * RIM_STEP })),
    ...roots.map((_, index) => ({ kind: 'root', index })),
    ...Array.from({ length: Math.floor(lengthOf(trunk) / TRUNK_STEP) }, (_, i) => ({ kind: 'trunk', at: TRUNK_STEP / 2 + i * TRUNK_STEP })),
    ...features.filter((f) => /shari|dead/i.test(f.kind)).map((f) => ({ kind: 'screw', at: Math.max(10, (f.z[0] + f.z[1]) / 2), bearing: f.bearing })),
    ...(front ? [{ kind: 'screw', at: lengthOf(trunk) / 4, bearing: (front.bearing + 180) % 360 }] : []),
    ...[...branches.values()].flatMap((b) =>
      b.id !== tied.branch && lines.has(b.id) && !isOn(branches, b.id, tied.branch) && (b.state === 'dead' ? b.d >= 4 : b.d >= THICKER * tied.diameter)
        ? ON_BRANCH.map((share) => ({ kind: b.state === 'dead' ? 'jin' : 'branch', branch: b.id, at: Math.round(share * b.length) }))
        : [],
    ),
  ];
  const wanted = sub(tied.to, tied.point);
  return refs.flatMap((ref) => {
    const place = anchorAt(world, ref, tied.point);
    if (!place) return [];
    const pull = sub(place.point, tied.point);
    return distance(place.point, tied.point) <= reach && distance(place.point, tied.point) > 15 && dot(unit(pull), unit(wanted)) > 0.2 ? [place] : [];
  });
}

/** Whether a branch grows on another, at whatever remove. */
function isOn(branches: GuyWorld['branches'], id: string, other: string): boolean {
  for (let at = branches.get(id)?.parent; at && at !== 'trunk'; at = branches.get(at)?.parent) if (at === other) return true;
  return false;
}

/** Whether a place is behind the trunk, or behind the middle of the tree, as the front sees it. */
export function isBehind({ front }: GuyWorld, point: Vec): boolean | null {
  return front ? dot(point, screenAxes(front.bearing).toward) < 0 : null;
}
