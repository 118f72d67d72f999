import { isoOf, keepNothing } from '../units/index.js';
import { lengthOf, limb, type Limb, type Vec } from '../space/index.js';
import { DEVICE_WORDS, deviceKindsOn, findDevice, workOutDevice, type DevicePart, type DevicePlan, type GuyWorld, type MovedWood } from '../guy/index.js';
import { restFor, rideAlong, standingOf, trunkDevice } from '../pose/index.js';
import { stagesFor, type Band } from '../wood/index.js';
import { type IfWired, watchGuys, type WatchedGuy } from '../growth/index.js';
import type { Device, DeviceKind, PlacedTree, PlannedPose } from '../tree/index.js';
import { digits } from './digits.js';
import { datesOfStages } from './stage-days.js';
import { drawnBends, guyWorld, type DrawnBend } from './guys.js';

type Poses = readonly Pick<PlannedPose, 'branch' | 'bends'>[];

/** A device as the plan tells it. Points are in the tree's own space. */
export interface PlanDevice extends Omit<DevicePlan, 'device' | 'moved'> {
  id: string;
  device: Device;
  /** What it moves, and how: as bends in the tree's own space, which the record keeps. */
  moved: (Omit<MovedWood, 'line'> & { bends: DrawnBend[] })[];
  /** Stages with rest between them, the rest in words, the days of those to come; null: more than the wood takes in one season. */
  stages: number | null;
  rest: string;
  dates: string[];
  /** N that it holds with after each of them. */
  stageForces: number[];
  /** What it is for, what it would leave, what can hurt. */
  does: string;
  marks: string;
  danger: string;
  on: { since: string; turns: number; force: number | null; look: string; marks: string | null } | null;
}

/** One that cannot be, and why. */
export interface FaultyDevice {
  id: string;
  device: Device;
  fault: string;
}

const rounded = (p: Vec): Vec => [digits(p[0], 1), digits(p[1], 1), digits(p[2], 1)];

/** Its parts and cushions in the tree's own space. */
const inPlace = ({ parts, cushions }: DevicePlan, back: (p: Vec) => Vec): Pick<DevicePlan, 'parts' | 'cushions'> => ({
  parts: parts.map((p): DevicePart => ({ ...p, from: rounded(back(p.from)), to: rounded(back(p.to)) })),
  cushions: cushions.map((c) => ({ ...c, at: rounded(back(c.at)), along: back(c.along), diameter: digits(c.diameter, 1) })),
});

/** The tree as a device finds it: what leads the trunk is set before any branch is posed, on the trunk as it stands without it. */
function worldFor(placed: PlacedTree, poses: Poses, device: Device, keep = keepNothing): GuyWorld {
  const { tree } = placed;
  if (trunkDevice(tree)?.id !== device.id) return guyWorld(placed, poses, keep);
  return guyWorld({ ...placed, tree: { ...tree, plan: { ...tree.plan, trunkWay: null } } }, [], keep);
}

/** What it holds with after each of its stages, N. */
const forcesOf = (world: GuyWorld, { device, force }: DevicePlan, stages: number): number[] =>
  Array.from({ length: stages }, (_, i) => {
    const then = i + 1 < stages ? workOutDevice(world, { ...device, by: (device.by * (i + 1)) / stages }) : null;
    return digits(then && typeof then !== 'string' ? then.force : force, 0);
  });

function told(placed: PlacedTree, world: GuyWorld, onDay: number, found: DevicePlan, on: WatchedGuy | undefined): PlanDevice {
  const { lines } = world;
  const { back } = standingOf(placed);
  const { device } = found;
  const worst = found.moved.reduce((a, b) => (b.risk > a.risk ? b : a));
  // A spacer only keeps what is there; the others are set as slowly as their wood is bent.
  const stages = stagesFor(worst.risk);
  const rest = restFor(worst.diameter, worst.risk);
  const { does, marks, danger } = DEVICE_WORDS[device.kind];
  return {
    ...found,
    id: device.id,
    force: digits(found.force, 0),
    length: digits(found.length, 0),
    stick: found.stick === null ? null : digits(found.stick, 1),
    turns: found.turns === null ? null : digits(found.turns, 1),
    moved: found.moved.map(({ line, ...m }) => ({
      ...m,
      bends: drawnBends(placed.tree, lines.get(m.branch)!, line, lengthOf(line)),
      by: digits(m.by, 1),
      strain: digits(m.strain, 3),
      strainAt: digits(m.strainAt, 0),
      diameter: digits(m.diameter, 1),
      risk: digits(m.risk, 2),
    })),
    checks: found.checks.map((c) => ({ ...c, value: digits(c.value, 2), limit: digits(c.limit, 2) })),
    ...inPlace(found, back),
    stages,
    rest: stages !== null && stages > 1 ? rest.text : '',
    dates: datesOfStages(placed.tree, { stages, restDays: rest.days, all: found.turns, on }, onDay),
    stageForces: forcesOf(world, found, stages ?? 1),
    does,
    marks,
    danger,
    on: on
      ? { since: isoOf(on.since), turns: on.twists, force: on.tension, look: isoOf(on.look), marks: on.marks.p10 === null ? null : isoOf(on.marks.p10) }
      : null,
  };
}

/** The devices that a plan has, worked out, or why they cannot be. */
export function planDevices(placed: PlacedTree, poses: Poses, onDay: number, { keep = keepNothing, known }: IfWired = {}): (PlanDevice | FaultyDevice)[] {
  const { devices = [] } = placed.tree.plan;
  if (!devices.length) return [];
  const on = new Map(watchGuys(placed, onDay, known).map((g) => [g.guy, g]));
  return devices.map((device) => {
    const world = worldFor(placed, poses, device, keep);
    const found = workOutDevice(world, device);
    return typeof found === 'string' ? { id: device.id, device, fault: found } : told(placed, world, onDay, found, on.get(device.id));
  });
}

/** A device of a kind that bears all its checks, with place and figures for its artist to change; or why there is none. */
export function deviceFor(placed: PlacedTree, poses: Poses, kind: DeviceKind, branch: string): Omit<Device, 'id'> | { why: string } {
  const found = findDevice(guyWorld(placed, poses), kind, branch);
  return 'why' in found ? found : found.device;
}

/** The kinds of device that can be set on a branch or the trunk at all. */
export const deviceKindsFor = (placed: PlacedTree, poses: Poses, branch: string): DeviceKind[] => deviceKindsOn(guyWorld(placed, poses), branch);

/** A device that has done a share of its work: the wood that it moved, by branch, what it then asks of it, and its parts where they are then; in the tree's own space. */
export interface DrawnDevice extends Pick<DevicePlan, 'force' | 'parts' | 'cushions'> {
  lines: [string, Limb][];
  worst: { strain: number; band: Band };
}

/** Less than this share of its way is none. */
const LEAST_SHARE = 0.02;

/** A device once it has done a share of its work; null where it cannot be. */
export function drawnDevice(placed: PlacedTree, poses: Poses, device: Device, share: number): DrawnDevice | null {
  const world = worldFor(placed, poses, device);
  const { back } = standingOf(placed);
  const found = workOutDevice(world, { ...device, by: device.by * Math.max(LEAST_SHARE, share) });
  if (typeof found === 'string') return null;
  const lines = rideAlong(placed.tree, world.lines, new Map(found.moved.map((m) => [m.branch, m.line])));
  const there = workOutDevice({ ...world, lines, trunk: lines.get('trunk')! }, device);
  const { strain, band } = found.moved.reduce((a, b) => (b.risk > a.risk ? b : a));
  return {
    force: found.force,
    ...inPlace(typeof there === 'string' ? found : there, back),
    lines: found.moved.map((m) => [m.branch, limb(m.line.points.map(back), m.line.diameters)]),
    worst: { strain, band },
  };
}
