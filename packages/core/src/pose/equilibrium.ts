import { add, cross, dot, norm, scale, sub, type Vec } from '../space/index.js';
import { sectionState } from '../wood/index.js';
import { curvatureIn, energyOf, shapeOf, type Bends, type Pull, type Rod, type Shape } from './rod.js';

/** Solves A·x = b for a symmetric positive definite A (n × n, row by row) in place; false where it is not positive definite. */
export function solveCholesky(a: Float64Array, b: Float64Array): boolean {
  const n = b.length;
  for (let j = 0; j < n; j++) {
    for (let i = j; i < n; i++) {
      let sum = a[i * n + j]!;
      for (let k = 0; k < j; k++) sum -= a[i * n + k]! * a[j * n + k]!;
      if (i === j) {
        if (!(sum > 0)) return false;
        a[j * n + j] = Math.sqrt(sum);
      } else a[i * n + j] = sum / a[j * n + j]!;
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

/** How the whole rod beyond a joint turns in space (a rotation vector) for a small change of one of the joint's two bends. */
function leverOf({ before, turns }: Shape, joint: number, which: 1 | 2): Vec {
  const e = before[joint]![which];
  const turn = turns[joint]!;
  const angle = norm(turn);
  if (angle < 1e-9) return e;
  // The left Jacobian of the rotation vector.
  const once = cross(turn, e);
  return add(e, add(scale(once, (1 - Math.cos(angle)) / angle ** 2), scale(cross(turn, once), (angle - Math.sin(angle)) / angle ** 3)));
}

interface Slope {
  gradient: Float64Array;
  hessian: Float64Array;
}

/** Gradient and (all but exact) Hessian of the energy by the bends. */
export function slopeOf(rod: Rod, bends: Bends, { tip, spring }: Pull, shape: Shape): Slope {
  const joints = rod.lengths.length;
  const n = 2 * joints;
  const { points } = shape;
  const end = points[joints]!;
  const atTip = add(tip ?? [0, 0, 0], spring ? scale(sub(spring.to, end), spring.stiffness) : [0, 0, 0]);

  // From the tip inwards: the force beyond each joint, and the sums of force ⊗ arm about it.
  const levers: Vec[] = Array.from({ length: n }, (_, k) => leverOf(shape, k >> 1, (1 + (k & 1)) as 1 | 2));
  const gradient = new Float64Array(n);
  const hessian = new Float64Array(n * n);
  let force: Vec = atTip;
  let s = [0, 1, 2].map((a) => [0, 1, 2].map((b) => atTip[a]! * (end[b]! - end[b]!)));
  let about: Vec = end;
  for (let j = joints - 1; j >= 0; j--) {
    const at = points[j]!;
    const arm = sub(about, at);
    const weight: Vec = [0, 0, -rod.weights[j]!];
    const middle = scale(sub(points[j + 1]!, at), 0.5);
    s = s.map((row, a) => row.map((v, b) => v + force[a]! * arm[b]! + weight[a]! * middle[b]!));
    force = add(force, weight);
    about = at;
    const trace = s[0]![0]! + s[1]![1]! + s[2]![2]!;
    const torque: Vec = [s[2]![1]! - s[1]![2]!, s[0]![2]! - s[2]![0]!, s[1]![0]! - s[0]![1]!];
    for (const k of [2 * j, 2 * j + 1]) {
      const e = levers[k]!;
      gradient[k] = -dot(torque, e);
      const se: Vec = [0, 1, 2].map((b) => e[0] * s[0]![b]! + e[1] * s[1]![b]! + e[2] * s[2]![b]!) as unknown as Vec;
      for (let i = 0; i <= 2 * j + 1; i++) {
        const value = trace * dot(levers[i]!, e) - dot(se, levers[i]!);
        hessian[k * n + i] = value;
        hessian[i * n + k] = value;
      }
    }
  }
  if (spring) {
    const moves = levers.map((e, k) => cross(e, sub(end, points[k >> 1]!)));
    for (let i = 0; i < n; i++) for (let k = 0; k < n; k++) hessian[i * n + k]! += spring.stiffness * dot(moves[i]!, moves[k]!);
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
    hessian[2 * j * n + 2 * j + 1]! += more * uy * uz;
    hessian[(2 * j + 1) * n + 2 * j]! += more * uy * uz;
  }
  return { gradient, hessian };
}

export interface Equilibrium {
  bends: Bends;
  /** Energy after each accepted step, N·mm; the first is that of the start. */
  energies: number[];
  /** Whether nothing is left that would move it. */
  settled: boolean;
}

const MOST_STEPS = 120;
/** At rest: what is left of the moments beside the rod's own, and what a joint would still turn, radians. */
const SETTLED = 1e-9;
const STILL = 1e-8;
/** A joint may turn so far in one step, radians. */
const MOST_TURN = 0.25;

/** The rest of a rod under its weight and a pull: Newton's steps, shortened until the energy falls. */
export function equilibrium(rod: Rod, pull: Pull, from: Bends = new Float64Array(2 * rod.lengths.length)): Equilibrium {
  let bends = from;
  let shape = shapeOf(rod, bends);
  let energy = energyOf(rod, bends, pull, shape);
  const energies = [energy];
  const scaleOf = sectionState({ diameter: rod.diameters[0]!, curvature: 1 / (rod.segment * rod.lengths.length), wood: rod.wood }).moment;
  let damping = 0;
  for (let step = 0; step < MOST_STEPS; step++) {
    const { gradient, hessian } = slopeOf(rod, bends, pull, shape);
    const size = Math.sqrt(gradient.reduce((sum, g) => sum + g * g, 0));
    if (size < SETTLED * scaleOf) return { bends, energies, settled: true };
    const n = gradient.length;
    const biggest = Math.max(...Array.from({ length: n }, (_, i) => Math.abs(hessian[i * n + i]!)));
    // Where the energy is not a bowl there, it is made one.
    let move: Float64Array;
    for (;;) {
      const bowl = hessian.slice();
      for (let i = 0; i < n; i++) bowl[i * n + i]! += damping * biggest;
      move = gradient.map((g) => -g);
      if (solveCholesky(bowl, move)) break;
      damping = Math.max(1e-6, damping * 8);
    }
    const longest = Math.max(...Array.from({ length: n / 2 }, (_, i) => Math.hypot(move[2 * i]!, move[2 * i + 1]!)));
    const downhill = gradient.reduce((sum, g, i) => sum + g * move[i]!, 0);
    // Finer than this an energy cannot be told from the next.
    if (longest < STILL) return { bends, energies, settled: true };
    let share = Math.min(1, MOST_TURN / longest);
    let accepted = false;
    for (let tries = 0; tries < 40 && !accepted; tries++, share /= 2) {
      const next = bends.map((b, i) => b + share * move[i]!);
      const nextShape = shapeOf(rod, next);
      const nextEnergy = energyOf(rod, next, pull, nextShape);
      if (nextEnergy > energy + 1e-4 * share * downhill) continue;
      [bends, shape, energy, accepted] = [next, nextShape, nextEnergy, true];
    }
    if (!accepted) return { bends, energies, settled: size < 1e4 * SETTLED * scaleOf };
    energies.push(energy);
    damping = damping > 1e-9 ? damping / 8 : 0;
  }
  return { bends, energies, settled: false };
}

export interface Reached {
  bends: Bends;
  /** How far the tip stays from where it is wanted, mm. */
  missed: number;
  /** What the hand pulls with at the end, N. */
  pull: Vec;
}

const CLOSE_MM = 0.05;
const MOST_ROUNDS = 12;

/** A rod whose tip is drawn to a place as a hand would: it bends and does not stretch; out of reach it stops at the nearest place. */
export function drawTipTo(rod: Rod, to: Vec, from?: Bends): Reached {
  const total = rod.segment * rod.lengths.length;
  const away = sub(to, rod.root);
  // Nothing reaches beyond its own length; just inside of it the hand need not pull without end.
  const wanted = norm(away) > 0.999 * total ? add(rod.root, scale(away, (0.999 * total) / norm(away))) : to;
  const { moment } = sectionState({ diameter: rod.diameters[0]!, curvature: 1 / total, wood: rod.wood });
  const stiffness = (200 * moment) / total ** 2;
  let pull: Vec = [0, 0, 0];
  let bends = from ?? sagging(rod);
  for (let round = 0; round < MOST_ROUNDS; round++) {
    ({ bends } = equilibrium(rod, { tip: pull, spring: { to: wanted, stiffness } }, bends));
    const miss = sub(wanted, endOf(rod, bends));
    pull = add(pull, scale(miss, stiffness));
    if (norm(miss) < CLOSE_MM) break;
  }
  return { bends, missed: norm(sub(to, endOf(rod, bends))), pull };
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
