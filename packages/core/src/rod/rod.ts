import { greatestOf } from '../units/index.js';
import { recoverable, sectionState, type Wood } from '../wood/index.js';
import { add, anySquare, cross, dot, lengthOf, limb, norm, pointAt, rotateAbout, scale, sub, unit, type Limb, type Vec } from '../space/index.js';

/** Three unit vectors square to each other; the first runs along a segment. */
export type Frame = readonly [Vec, Vec, Vec];

/**
 * A branch as a chain of stiff segments of one length, with elastic–plastic joints between them and a clamp at the shoulder.
 * A bend is a rotation square to the segment before it: the chain neither stretches nor twists.
 */
export interface Rod {
  /** Length of a segment, mm. */
  segment: number;
  wood: Wood;
  /** Where it is clamped, and its frames as it grew; the first stands for the clamp as well. */
  root: Vec;
  grown: Frame[];
  /** Each segment's frame as it grew, in parts along the frame of the one before. */
  onwards: Frame[];
  /** Thickness at each joint, mm, and the length of branch that bends in it: the clamp's joint stands for half a segment. */
  diameters: number[];
  lengths: number[];
  /** Weight of each segment, N. */
  weights: number[];
}

/** Bend of each joint: a rotation vector (radians) in the two directions square to the segment before. */
export type Bends = Float64Array;

/** A frame carried along so that its first vector lies in a direction, by the shortest turn. */
function carried(frame: Frame, to: Vec): Frame {
  const axis = cross(frame[0], to);
  const sine = norm(axis);
  if (sine < 1e-12) return [to, frame[1], frame[2]];
  const turn = (v: Vec): Vec => rotateAbout(v, scale(axis, 1 / sine), Math.atan2(sine, dot(frame[0], to)));
  return [to, turn(frame[1]), turn(frame[2])];
}

/** A branch's measured line cut into segments of one length along it; `heft` is its wet weight, N for each mm³. */
export function rodOf(line: Limb, wood: Wood, { segments = 40, heft = 0 }: { segments?: number; heft?: number } = {}): Rod {
  const total = lengthOf(line);
  const points = Array.from({ length: segments + 1 }, (_, i) => pointAt(line, (total * i) / segments).point);
  const ways = points.slice(1).map((p, i) => unit(sub(p, points[i]!)));
  const square = anySquare(ways[0]!);
  let frame: Frame = [ways[0]!, square, cross(ways[0]!, square)];
  const grown = ways.map((way) => (frame = carried(frame, way)));
  const onwards = grown.map((own, i): Frame => {
    const last = grown[Math.max(0, i - 1)]!;
    return [partsIn(last, own[0]), partsIn(last, own[1]), partsIn(last, own[2])];
  });
  const segment = total / segments;
  const thick = (i: number): number => pointAt(line, (total * i) / segments).diameter;
  return {
    segment,
    wood,
    root: points[0]!,
    grown,
    onwards,
    diameters: ways.map((_, i) => thick(i)),
    lengths: ways.map((_, i) => (i ? segment : segment / 2)),
    weights: ways.map((_, i) => (Math.PI / 4) * thick(i + 0.5) ** 2 * segment * heft),
  };
}

const inFrame = (f: Frame, y: number, z: number): Vec => add(scale(f[1], y), scale(f[2], z));
/** A vector given by its parts along one frame, in space. */
function outOf(frame: Frame, parts: Vec): Vec {
  const [a, b, c] = frame;
  const x = parts[0];
  const y = parts[1];
  const z = parts[2];
  return [x * a[0] + y * b[0] + z * c[0], x * a[1] + y * b[1] + z * c[1], x * a[2] + y * b[2] + z * c[2]];
}
const partsIn = (f: Frame, v: Vec): Vec => [dot(v, f[0]), dot(v, f[1]), dot(v, f[2])];

/** Where a rod lies with its joints bent: the joints and the tip, and for each joint the frame before it and the bend as a vector in space. */
export interface Shape {
  points: Vec[];
  before: Frame[];
  turns: Vec[];
}

/** A frame turned by a rotation vector (Rodrigues). */
function turnedBy(frame: Frame, turn: Vec): Frame {
  const angle = norm(turn);
  if (angle === 0) return frame;
  const once = Math.sin(angle) / angle;
  const twice = (1 - Math.cos(angle)) / angle ** 2;
  const turned = (v: Vec): Vec => {
    const x = turn[1] * v[2] - turn[2] * v[1];
    const y = turn[2] * v[0] - turn[0] * v[2];
    const z = turn[0] * v[1] - turn[1] * v[0];
    return [
      v[0] + once * x + twice * (turn[1] * z - turn[2] * y),
      v[1] + once * y + twice * (turn[2] * x - turn[0] * z),
      v[2] + once * z + twice * (turn[0] * y - turn[1] * x),
    ];
  };
  return [turned(frame[0]), turned(frame[1]), turned(frame[2])];
}

export function shapeOf(rod: Rod, bends: Bends): Shape {
  const points: Vec[] = [rod.root];
  const before: Frame[] = [];
  const turns: Vec[] = [];
  let frame: Frame = rod.grown[0]!;
  rod.onwards.forEach((own, i) => {
    const turn = inFrame(frame, bends[2 * i]!, bends[2 * i + 1]!);
    before.push(frame);
    turns.push(turn);
    // As it grew onwards from the segment before, then turned by the bend.
    frame = turnedBy([outOf(frame, own[0]), outOf(frame, own[1]), outOf(frame, own[2])], turn);
    points.push(add(points[i]!, scale(frame[0], rod.segment)));
  });
  return { points, before, turns };
}

/** The rod's line as it lies, with its thickness. */
export const lineOf = (rod: Rod, bends: Bends): Limb => limb(shapeOf(rod, bends).points, [...rod.diameters, rod.diameters[rod.diameters.length - 1]!]);

/** Curvature in a joint, 1/mm. */
export const curvatureIn = (rod: Rod, bends: Bends, joint: number): number => Math.hypot(bends[2 * joint]!, bends[2 * joint + 1]!) / rod.lengths[joint]!;

/** The bends that stay when nothing holds the rod any more: what is elastic comes back at once, a share of the rest within days. */
export const letGo = (rod: Rod, bends: Bends): Bends =>
  bends.map((bend, k) => {
    const curvature = curvatureIn(rod, bends, k >> 1);
    return curvature > 0 ? bend * (1 - recoverable({ diameter: rod.diameters[k >> 1]!, curvature, wood: rod.wood }) / curvature) : 0;
  });

/** What pulls at a rod besides its weight: a dead pull at its tip (N), a spring (N/mm) that draws the tip to a place, and ties. */
export interface Pull {
  tip?: Vec;
  spring?: { to: Vec; stiffness: number };
  /** Ties from a joint (0 the clamp, the last the tip) to places. */
  ties?: readonly Tie[];
}

/** A tie pulls with one tension (N) however short it gets; or it has a length (mm) and a stiffness (N/mm), and pulls as far as it is longer. */
export type Tie = { joint: number; anchor: Vec } & ({ tension: number } | { length: number; stiffness: number });

/** What a tie stores and pulls with at a length, and how much more it pulls for each mm. */
export function tieAt(tie: Tie, distance: number): { energy: number; tension: number; along: number } {
  if ('tension' in tie) return { energy: tie.tension * distance, tension: tie.tension, along: 0 };
  const over = distance - tie.length;
  return over > 0 ? { energy: (tie.stiffness / 2) * over ** 2, tension: tie.stiffness * over, along: tie.stiffness } : { energy: 0, tension: 0, along: 0 };
}

const DOWN: Vec = [0, 0, -1];

/** Energy of a bent rod, N·mm: what its joints have taken up, less what weight and pulls have given. */
export function energyOf(rod: Rod, bends: Bends, { tip, spring, ties = [] }: Pull, shape = shapeOf(rod, bends)): number {
  const { points } = shape;
  const end = points[points.length - 1]!;
  let energy = 0;
  rod.lengths.forEach((length, i) => {
    energy += length * sectionState({ diameter: rod.diameters[i]!, curvature: curvatureIn(rod, bends, i), wood: rod.wood }).work;
    energy -= rod.weights[i]! * dot(DOWN, scale(add(points[i]!, points[i + 1]!), 0.5));
  });
  if (tip) energy -= dot(tip, end);
  if (spring) energy += (spring.stiffness / 2) * dot(sub(end, spring.to), sub(end, spring.to));
  for (const tie of ties) energy += tieAt(tie, norm(sub(points[tie.joint]!, tie.anchor))).energy;
  return energy;
}

/** Greatest distance of a line from its chord, mm. */
export function archOf({ points }: Limb): number {
  const from = points[0]!;
  const along = unit(sub(points[points.length - 1]!, from));
  return greatestOf(points.map((p) => norm(cross(sub(p, from), along))));
}
