import { add, cross, dot, norm, scale, sub, unit, type Vec } from '../space/index.js';
import { sectionState } from '../wood/index.js';
import { curvatureIn, energyOf, shapeOf, tieAt, type Bends, type Pull, type Rod, type Shape } from './rod.js';

/** Solves A·x = b for a symmetric positive definite A (n × n, row by row, its lower half) in place; false where it is not positive definite. */
export function solveCholesky(a: Float64Array, b: Float64Array): boolean {
  const n = b.length;
  for (let i = 0; i < n; i++) {
    const row = i * n;
    for (let j = 0; j <= i; j++) {
      const other = j * n;
      let sum = a[row + j]!;
      let k = 0;
      // Four at a time: this is where a rod's time goes.
      for (; k + 3 < j; k += 4)
        sum -= a[row + k]! * a[other + k]! + a[row + k + 1]! * a[other + k + 1]! + a[row + k + 2]! * a[other + k + 2]! + a[row + k + 3]! * a[other + k + 3]!;
      for (; k < j; k++) sum -= a[row + k]! * a[other + k]!;
      if (j < i) a[row + j] = sum / a[other + j]!;
      else if (sum > 0) a[row + j] = Math.sqrt(sum);
      else return false;
    }
  }
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) b[i]! -= a[i * n + k]! * b[k]!;
    b[i]! /= a[i * n + i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) b[i]! -= a[k * n + i]! * b[k]!;
    b[i]! /= a[i * n + i]!;
  }
  return true;
}

/** Below this a turn's own formulas lose their digits; radians. */
const SMALL_TURN = 0.02;

/** The two numbers in the left Jacobian of a rotation vector of some length, I + a·[t]× + b·[t]×², and how they change with it. */
function jacobianOf(angle: number): { a: number; b: number; da: number; db: number } {
  const square = angle * angle;
  if (angle < SMALL_TURN) return { a: 1 / 2 - square / 24, b: 1 / 6 - square / 120, da: -angle / 12, db: -angle / 60 };
  const [sine, cosine] = [Math.sin(angle), Math.cos(angle)];
  const cube = square * angle;
  return {
    a: (1 - cosine) / square,
    b: (angle - sine) / cube,
    da: (angle * sine - 2 * (1 - cosine)) / cube,
    db: (3 * sine - angle * (2 + cosine)) / (cube * angle),
  };
}

/** How the lever of one of a joint's bends changes with the other one, or with itself. */
function leverChange({ before, turns }: Shape, joint: number, which: 1 | 2, by: 1 | 2, { a, b, da, db }: ReturnType<typeof jacobianOf>): Vec {
  const [e, f] = [before[joint]![which], before[joint]![by]];
  const turn = turns[joint]!;
  const angle = norm(turn);
  const longer = angle > 0 ? dot(turn, f) / angle : 0;
  const [once, beside] = [cross(turn, e), cross(f, e)];
  const first = add(scale(once, da * longer), scale(beside, a));
  const second = add(scale(cross(turn, once), db * longer), scale(add(cross(f, once), cross(turn, beside)), b));
  return add(first, second);
}

/** By bend, how the whole rod beyond its joint turns in space (a rotation vector) for a small change of it. */
function leversOf({ before, turns }: Shape): Float64Array {
  const levers = new Float64Array(6 * turns.length);
  for (let k = 0; k < 2 * turns.length; k++) {
    const turn = turns[k >> 1]!;
    const e = before[k >> 1]![(1 + (k & 1)) as 1 | 2];
    const { a, b } = jacobianOf(norm(turn));
    const x = turn[1] * e[2] - turn[2] * e[1];
    const y = turn[2] * e[0] - turn[0] * e[2];
    const z = turn[0] * e[1] - turn[1] * e[0];
    levers[3 * k] = e[0] + (x * a + (turn[1] * z - turn[2] * y) * b);
    levers[3 * k + 1] = e[1] + (y * a + (turn[2] * x - turn[0] * z) * b);
    levers[3 * k + 2] = e[2] + (z * a + (turn[0] * y - turn[1] * x) * b);
  }
  return levers;
}

/** How a point of the rod moves for a small change of each bend before it; none of those beyond. */
function movesOf(levers: Float64Array, points: readonly Vec[], point: number): Float64Array {
  const moves = new Float64Array(levers.length);
  const to = points[point]!;
  for (let k = 0; k < 2 * point; k++) {
    const from = points[k >> 1]!;
    const x = to[0] - from[0];
    const y = to[1] - from[1];
    const z = to[2] - from[2];
    const i = 3 * k;
    moves[i] = levers[i + 1]! * z - levers[i + 2]! * y;
    moves[i + 1] = levers[i + 2]! * x - levers[i]! * z;
    moves[i + 2] = levers[i]! * y - levers[i + 1]! * x;
  }
  return moves;
}

/** How a joint moves for a small change of each bend: three numbers a bend. */
export const movesAt = (shape: Shape, joint: number): Float64Array => movesOf(leversOf(shape), shape.points, joint);

interface Slope {
  gradient: Float64Array;
  hessian: Float64Array;
}

/** Gradient and Hessian of the energy by the bends; of the Hessian the lower half, row by row. */
export function slopeOf(rod: Rod, bends: Bends, { tip, spring, ties = [] }: Pull, shape: Shape): Slope {
  const joints = rod.lengths.length;
  const n = 2 * joints;
  const { points } = shape;
  const end = points[joints]!;
  const atTip = add(tip ?? [0, 0, 0], spring ? scale(sub(spring.to, end), spring.stiffness) : [0, 0, 0]);

  // From the tip inwards: the force beyond each joint, and the sums of force ⊗ arm about it. Of the Hessian only the lower half is filled.
  const levers = leversOf(shape);
  const gradient = new Float64Array(n);
  const hessian = new Float64Array(n * n);
  let force: Vec = atTip;
  const s = new Float64Array(9);
  let about: Vec = end;
  for (let j = joints - 1; j >= 0; j--) {
    for (const tie of ties) {
      if (tie.joint !== j + 1) continue;
      const way = sub(tie.anchor, points[j + 1]!);
      force = add(force, scale(unit(way), tieAt(tie, norm(way)).tension));
    }
    const at = points[j]!;
    const arm = sub(about, at);
    const weight: Vec = [0, 0, -rod.weights[j]!];
    const middle = scale(sub(points[j + 1]!, at), 0.5);
    for (let a = 0; a < 3; a++) for (let b = 0; b < 3; b++) s[3 * a + b]! += force[a]! * arm[b]! + weight[a]! * middle[b]!;
    force = add(force, weight);
    about = at;
    const trace = s[0]! + s[4]! + s[8]!;
    const torque: Vec = [s[7]! - s[5]!, s[2]! - s[6]!, s[3]! - s[1]!];
    for (const k of [2 * j, 2 * j + 1]) {
      const e: Vec = [levers[3 * k]!, levers[3 * k + 1]!, levers[3 * k + 2]!];
      gradient[k] = -dot(torque, e);
      const x = trace * e[0] - (e[0] * s[0]! + e[1] * s[3]! + e[2] * s[6]!);
      const y = trace * e[1] - (e[0] * s[1]! + e[1] * s[4]! + e[2] * s[7]!);
      const z = trace * e[2] - (e[0] * s[2]! + e[1] * s[5]! + e[2] * s[8]!);
      for (let i = 0; i <= k; i++) hessian[k * n + i] = x * levers[3 * i]! + y * levers[3 * i + 1]! + z * levers[3 * i + 2]!;
    }
    // The bends of one joint are parts of one turn: each changes what the other one moves.
    const jacobian = jacobianOf(norm(shape.turns[j]!));
    hessian[2 * j * n + 2 * j]! -= dot(torque, leverChange(shape, j, 1, 1, jacobian));
    hessian[(2 * j + 1) * n + 2 * j]! -= dot(torque, leverChange(shape, j, 1, 2, jacobian));
    hessian[(2 * j + 1) * n + 2 * j + 1]! -= dot(torque, leverChange(shape, j, 2, 2, jacobian));
  }
  for (const tie of ties) {
    const { joint, anchor } = tie;
    // A tie turns with what it pulls at: its length curves square to itself.
    const moves = movesOf(levers, points, joint);
    const from = sub(points[joint]!, anchor);
    const way = unit(from);
    const { tension, along } = tieAt(tie, norm(from));
    const across = tension / norm(from);
    for (let i = 0; i < 2 * joint; i++) {
      const mx = moves[3 * i]!;
      const my = moves[3 * i + 1]!;
      const mz = moves[3 * i + 2]!;
      const more = (mx * way[0] + my * way[1] + mz * way[2]) * (along - across);
      const x = mx * across + way[0] * more;
      const y = my * across + way[1] * more;
      const z = mz * across + way[2] * more;
      for (let k = 0; k <= i; k++) hessian[i * n + k]! += x * moves[3 * k]! + y * moves[3 * k + 1]! + z * moves[3 * k + 2]!;
    }
  }
  if (spring) {
    const moves = movesOf(levers, points, joints);
    for (let i = 0; i < n; i++) {
      const x = moves[3 * i]! * spring.stiffness;
      const y = moves[3 * i + 1]! * spring.stiffness;
      const z = moves[3 * i + 2]! * spring.stiffness;
      for (let k = 0; k <= i; k++) hessian[i * n + k]! += x * moves[3 * k]! + y * moves[3 * k + 1]! + z * moves[3 * k + 2]!;
    }
  }
  for (let j = 0; j < joints; j++) {
    const curvature = curvatureIn(rod, bends, j);
    const { moment, stiffness } = sectionState({ diameter: rod.diameters[j]!, curvature, wood: rod.wood });
    const length = rod.lengths[j]!;
    const across = curvature > 0 ? moment / curvature / length : stiffness / length;
    const along = stiffness / length;
    const [y, z] = [bends[2 * j]!, bends[2 * j + 1]!];
    const angle = Math.hypot(y, z);
    const [uy, uz] = angle > 0 ? [y / angle, z / angle] : [1, 0];
    gradient[2 * j]! += moment * uy;
    gradient[2 * j + 1]! += moment * uz;
    const more = along - across;
    hessian[2 * j * n + 2 * j]! += across + more * uy * uy;
    hessian[(2 * j + 1) * n + 2 * j + 1]! += across + more * uz * uz;
    hessian[(2 * j + 1) * n + 2 * j]! += more * uy * uz;
  }
  return { gradient, hessian };
}

export interface Equilibrium {
  bends: Bends;
  /** Energy after each accepted step, N·mm; the first is that of the start. */
  energies: number[];
  /** Whether nothing is left that would move it. */
  atRest: boolean;
}

const MOST_STEPS = 120;
/** At rest: what is left of the moments beside the rod's own, and what a joint would still turn, radians. */
const SETTLED = 1e-9;
const STILL = 1e-10;
/** Two energies are told apart from such a share of them on. */
const TOLD_APART = 1e-12;
/** A joint may turn so far in one step, radians. */
const MOST_TURN = 0.25;

function sizeOf(v: Float64Array): number {
  let square = 0;
  for (let i = 0; i < v.length; i++) square += v[i]! * v[i]!;
  return Math.sqrt(square);
}

/** Damped by more than this it would not move at all. */
const MOST_DAMPING = 1e9;

/** Newton's step, and what of the damping it took: where the energy is not a bowl, it is made one; null where it cannot be. */
function newtonStep({ gradient, hessian }: Slope, damping: number): { move: Float64Array; damping: number } | null {
  const n = gradient.length;
  let biggest = 0;
  for (let i = 0; i < n; i++) biggest = Math.max(biggest, Math.abs(hessian[i * n + i]!));
  for (let damped = damping; damped < MOST_DAMPING; damped = Math.max(1e-6, damped * 8)) {
    const bowl = hessian.slice();
    for (let i = 0; i < n; i++) bowl[i * n + i]! += damped * biggest;
    const move = gradient.map((g) => -g);
    if (solveCholesky(bowl, move)) return { move, damping: damped };
  }
  return null;
}

/** The rest of a rod under its weight and a pull: Newton's steps, shortened until the energy falls; where that can no longer be told, until the moments do. */
export function equilibrium(rod: Rod, pull: Pull, from: Bends = new Float64Array(2 * rod.lengths.length), most = MOST_STEPS): Equilibrium {
  let bends = from;
  const start = shapeOf(rod, bends);
  let energy = energyOf(rod, bends, pull, start);
  let slope = slopeOf(rod, bends, pull, start);
  let size = sizeOf(slope.gradient);
  const energies = [energy];
  const least = SETTLED * sectionState({ diameter: rod.diameters[0]!, curvature: 1 / (rod.segment * rod.lengths.length), wood: rod.wood }).moment;
  let damping = 0;
  for (let step = 0; step < most; step++) {
    if (size < least) return { bends, energies, atRest: true };
    const newton = newtonStep(slope, damping);
    if (!newton) return { bends, energies, atRest: false };
    const { move } = newton;
    let longest = 0;
    for (let i = 0; i < move.length; i += 2) longest = Math.max(longest, Math.hypot(move[i]!, move[i + 1]!));
    if (longest < STILL && newton.damping === 0) return { bends, energies, atRest: true };
    const downhill = slope.gradient.reduce((sum, g, i) => sum + g * move[i]!, 0);
    const blind = -downhill < TOLD_APART * Math.abs(energy);
    let share = Math.min(1, MOST_TURN / longest);
    let accepted = false;
    for (let tries = 0; tries < (blind ? 1 : 40) && !accepted; tries++, share /= 2) {
      const next = bends.map((b, i) => b + share * move[i]!);
      const nextShape = shapeOf(rod, next);
      const nextEnergy = energyOf(rod, next, pull, nextShape);
      if (!blind && !(nextEnergy <= energy + 1e-4 * share * downhill)) continue;
      const nextSlope = slopeOf(rod, next, pull, nextShape);
      const nextSize = sizeOf(nextSlope.gradient);
      if (blind && !(nextSize < size)) break;
      [bends, energy, slope, size, accepted] = [next, nextEnergy, nextSlope, nextSize, true];
    }
    if (!accepted) return { bends, energies, atRest: size < 1e4 * least };
    energies.push(energy);
    damping = newton.damping > 1e-6 ? newton.damping / 64 : 0;
  }
  return { bends, energies, atRest: false };
}

export interface Reached {
  bends: Bends;
  /** How far the tip stays from where it is wanted, mm. */
  missed: number;
  /** What the hand pulls with at the end, N. */
  pull: Vec;
  /** Newton's steps that it took. */
  steps: number;
}

const CLOSE_MM = 0.05;
/** Rounds, and Newton's steps in each. A drag that goes on has little time for a step; what it leaves, the next one does. */
const WHOLE = { rounds: 12, steps: MOST_STEPS };
const GOING_ON = { rounds: 3, steps: 6 };

/** A rod whose tip is drawn to a place as a hand would: it bends and does not stretch; out of reach it stops at the nearest place. A drag goes on from where it was. */
export function drawTipTo(rod: Rod, to: Vec, from?: Pick<Reached, 'bends' | 'pull'>): Reached {
  const total = rod.segment * rod.lengths.length;
  const away = sub(to, rod.root);
  // Nothing reaches beyond its own length; just inside of it the hand need not pull without end.
  const wanted = norm(away) > 0.999 * total ? add(rod.root, scale(away, (0.999 * total) / norm(away))) : to;
  const { moment } = sectionState({ diameter: rod.diameters[0]!, curvature: 1 / total, wood: rod.wood });
  const stiffness = (200 * moment) / total ** 2;
  let pull: Vec = from?.pull ?? [0, 0, 0];
  let bends = from?.bends ?? sagging(rod);
  let steps = 0;
  const most = from ? GOING_ON : WHOLE;
  for (let round = 0; round < most.rounds; round++) {
    const rest = equilibrium(rod, { tip: pull, spring: { to: wanted, stiffness } }, bends, most.steps);
    bends = rest.bends;
    steps += rest.energies.length - 1;
    const miss = sub(wanted, endOf(rod, bends));
    pull = add(pull, scale(miss, stiffness));
    if (norm(miss) < CLOSE_MM) break;
  }
  return { bends, missed: norm(sub(to, endOf(rod, bends))), pull, steps };
}

const SAG = 1e-4;

/** A hair's bend downwards in every joint: no branch is so straight that a push along it would not make it give somewhere. */
function sagging(rod: Rod): Bends {
  const bends = new Float64Array(2 * rod.lengths.length);
  shapeOf(rod, bends).before.forEach((frame, j) => {
    const axis = cross(frame[0], [0, 0, -1]);
    bends[2 * j] = SAG * (norm(axis) > 1e-6 ? dot(axis, frame[1]) : 1);
    bends[2 * j + 1] = SAG * dot(axis, frame[2]);
  });
  return bends;
}

function endOf(rod: Rod, bends: Bends): Vec {
  const { points } = shapeOf(rod, bends);
  return points[points.length - 1]!;
}
