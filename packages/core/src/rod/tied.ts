import { greatestOf } from '../units/index.js';
import { add, dot, lengthOf, norm, scale, sub, unit, anySquare, cross, type Limb, type Vec } from '../space/index.js';
import { yieldMoment, type Wood } from '../wood/index.js';
import { equilibrium, movesAt, slopeOf, solveCholesky } from './equilibrium.js';
import { lineOf, rodOf, shapeOf, tieAt, type Bends, type Rod, type Tie } from './rod.js';

/** A branch held by ties from one point of it. */
export interface TiedAsked {
  line: Limb;
  wood: Wood;
  /** Wet weight, N for each mm³. */
  heft: number;
  /** Where it is tied, mm along it. */
  at: number;
  anchors: readonly Vec[];
  /** Which way the tie point shall lie from the shoulder. */
  toward: Vec;
  segments?: number;
  /** Of what would bring it there, only so much of the shortening is made. */
  share?: number;
  /** For comparing many: all but at rest. */
  rough?: boolean;
}

export interface Tied {
  /** N in each tie, and what each was shortened by, mm. */
  tensions: number[];
  shortened: number[];
  line: Limb;
  /** The tie point before any pull, and under it. */
  before: Vec;
  point: Vec;
  /** By how many degrees the tie point misses where it shall lie, seen from the shoulder. */
  missDeg: number;
  /** Greatest strain, and where, mm from the shoulder. */
  strain: number;
  strainAt: number;
  /** What is left of the moments, as a share of the greatest tension over the length: 0 at rest. */
  residual: number;
}

const MOST_ROUNDS = 40;
/** The tie point moves at most so far in one step, as a share of its distance from the shoulder. */
const STEP = 0.2;
const CLOSE = 1e-4;
/** A step that brings it nearer by less than this, in radians, is the last. */
const STILL = 3e-4;
/** Where many are compared, a tenth of a degree is near enough. */
const ROUGH = { close: 2e-3, still: 3e-4 };
/** Newton's steps in each round but the last: what is not at rest by then, the next round brings there. */
const ON_THE_WAY = 25;
/** A tie gives so little: beside the branch it is as good as stiff. */
export const STIFF = 400;
/** No tie pulls harder than so many times what makes the branch yield at its shoulder when pulled square to it. */
const MOST_PULL = 4;

interface State {
  /** What each tie has been shortened by, mm. */
  shortened: number[];
  ties: Tie[];
  bends: Bends;
  point: Vec;
  /** What is wanted less what is, as two parts square to the wanted way. */
  off: [number, number];
}

/** The tie point's direction beside the wanted one, in two parts square to it; behind it grows on. */
function offOf(root: Vec, point: Vec, [way, e, f]: readonly [Vec, Vec, Vec]): [number, number] {
  const now = unit(sub(point, root));
  const behind = dot(now, way);
  const side: [number, number] = [dot(now, e), dot(now, f)];
  const sine = Math.hypot(...side);
  const angle = Math.atan2(sine, behind);
  return sine > 1e-12 ? [(-side[0] * angle) / sine, (-side[1] * angle) / sine] : [0, 0];
}

/** What a tie does for each mm that it is shortened: how the tie point moves, and how each joint turns. */
interface Followed {
  moved: Vec;
  turns: Bends;
}

/** How the rod follows each tie: from its own stiffness under what pulls it. */
function followed(rod: Rod, { bends, ties }: Pick<State, 'bends' | 'ties'>, stiffness: number): Followed[] {
  const shape = shapeOf(rod, bends);
  const { joint } = ties[0]!;
  const { hessian } = slopeOf(rod, bends, { ties }, shape);
  const moves = movesAt(shape, joint);
  return ties.map(({ anchor }) => {
    const way = scale(unit(sub(anchor, shape.points[joint]!)), stiffness);
    const push = new Float64Array(moves.length / 3);
    for (let k = 0; k < push.length; k++) push[k] = moves[3 * k]! * way[0] + moves[3 * k + 1]! * way[1] + moves[3 * k + 2]! * way[2];
    if (!solveCholesky(hessian.slice(), push)) return { moved: [0, 0, 0], turns: new Float64Array(push.length) };
    const moved: [number, number, number] = [0, 0, 0];
    for (let k = 0; k < push.length; k++) for (let a = 0; a < 3; a++) moved[a]! += moves[3 * k + a]! * push[k]!;
    return { moved, turns: push };
  });
}

/** Least squares of two rows with one or two columns, nothing shortened by less than nothing. */
function stepFor(columns: readonly [number, number][], off: readonly [number, number], shortened: readonly number[]): number[] {
  const solve = (use: readonly number[]): number[] => {
    const step = columns.map(() => 0);
    if (use.length === 1) {
      const c = columns[use[0]!]!;
      const square = c[0] ** 2 + c[1] ** 2;
      step[use[0]!] = square > 0 ? (c[0] * off[0] + c[1] * off[1]) / square : 0;
    } else if (use.length === 2) {
      const [a, b] = [columns[use[0]!]!, columns[use[1]!]!];
      const determinant = a[0] * b[1] - a[1] * b[0];
      const scaleOf = Math.hypot(...a) * Math.hypot(...b);
      if (Math.abs(determinant) < 1e-6 * scaleOf) return solve([use[0]!]);
      step[use[0]!] = (off[0] * b[1] - off[1] * b[0]) / determinant;
      step[use[1]!] = (a[0] * off[1] - a[1] * off[0]) / determinant;
    }
    return step;
  };
  const all = columns.map((_, i) => i);
  const free = solve(all);
  const slack = all.filter((i) => shortened[i]! + free[i]! < 0);
  if (!slack.length) return free;
  // A tie does not push: one that would is let go, the other pulls alone.
  const pulling = all.filter((i) => !slack.includes(i));
  const step = solve(pulling);
  slack.forEach((i) => (step[i] = -shortened[i]!));
  pulling.forEach((i) => (step[i] = Math.max(step[i]!, -shortened[i]!)));
  return step;
}

/** Strain of the outermost fibre from a joint on, over a thickness of branch: a hinge of green wood is no shorter than that. */
function strainFrom(rod: Rod, bends: Bends, joint: number): number {
  const d = rod.diameters[joint]!;
  let [turn, length] = [0, 0];
  for (let j = joint; j < rod.lengths.length && length < d; j++) {
    turn += Math.hypot(bends[2 * j]!, bends[2 * j + 1]!);
    length += rod.lengths[j]!;
  }
  return (d / 2) * (turn / Math.max(length, d));
}

/** Strain of the outermost fibre from each joint on. */
export const strainsOf = (rod: Rod, bends: Bends): number[] => rod.diameters.map((_, j) => strainFrom(rod, bends, j));

/**
 * A branch drawn by one tie or two, each shortened until its tie point is nearest to where it shall lie. It is the length that is led, as a
 * windlass does: wood that yields gives way under a pull that stays, and no pull would tell where it stops. docs: Ties.
 */
export function tieDown({ line, wood, heft, at, anchors, toward, segments = 40, share = 1, rough = false }: TiedAsked): Tied {
  const rod = rodOf(line, wood, { segments, heft });
  const total = lengthOf(line);
  const joint = Math.min(segments, Math.max(1, Math.round((at / total) * segments)));
  const way = unit(toward);
  const e = anySquare(way);
  const axes = [way, e, cross(way, e)] as const;
  const rest = equilibrium(rod, {}).bends;
  const before = shapeOf(rod, rest).points[joint]!;
  const reach = norm(sub(before, rod.root));
  const yields = yieldMoment(rod.diameters[0]!, wood.strength);
  const stiffness = (STIFF * yields) / reach ** 2;
  const lengths = anchors.map((anchor) => norm(sub(before, anchor)));
  const under = (shortened: number[], from: Bends, steps?: number): State => {
    const ties = anchors.map((anchor, i): Tie => ({ joint, anchor, length: lengths[i]! - shortened[i]!, stiffness }));
    const { bends } = equilibrium(rod, { ties }, from, steps);
    const point = shapeOf(rod, bends).points[joint]!;
    return { shortened, ties, bends, point, off: offOf(rod.root, point, axes) };
  };
  const tensionsOf = ({ ties, point }: State): number[] => ties.map((tie) => tieAt(tie, norm(sub(point, tie.anchor))).tension);
  const { close, still } = rough ? ROUGH : { close: CLOSE, still: STILL };
  let now = under(
    anchors.map(() => 0),
    rest,
  );
  for (let round = 0; round < MOST_ROUNDS && anchors.length > 0 && Math.hypot(...now.off) > close; round++) {
    const by = followed(rod, now, stiffness);
    const columns = by.map(({ moved }): [number, number] => [dot(moved, axes[1]) / reach, dot(moved, axes[2]) / reach]);
    const step = stepFor(columns, now.off, now.shortened);
    const far = norm(step.reduce<Vec>((sum, s, i) => add(sum, scale(by[i]!.moved, s)), [0, 0, 0])) / reach;
    let next: State | null = null;
    for (let share = far > STEP ? STEP / far : 1; share > 0.05 && !next; share /= 3) {
      const shortened = now.shortened.map((t, i) => Math.max(0, t + share * step[i]!));
      // Where it will about be is nearer to its rest than where it is.
      const about = now.bends.map((b, k) => by.reduce((sum, { turns }, i) => sum + (shortened[i]! - now.shortened[i]!) * turns[k]!, b));
      const tried = under(shortened, about, ON_THE_WAY);
      if (Math.hypot(...tried.off) < Math.hypot(...now.off)) next = tried;
    }
    if (!next || greatestOf(tensionsOf(next)) > (MOST_PULL * yields) / reach) break;
    const gained = Math.hypot(...now.off) - Math.hypot(...next.off);
    now = next;
    if (gained < still) break;
  }
  now =
    share === 1
      ? under(now.shortened, now.bends, rough ? ON_THE_WAY : undefined)
      : under(
          now.shortened.map((s) => s * share),
          rest,
        );
  const tensions = tensionsOf(now);
  const strains = strainsOf(rod, now.bends);
  const worst = strains.indexOf(greatestOf(strains));
  const { gradient } = slopeOf(rod, now.bends, { ties: now.ties }, shapeOf(rod, now.bends));
  return {
    tensions,
    shortened: now.shortened,
    line: lineOf(rod, now.bends),
    before,
    point: now.point,
    missDeg: (Math.hypot(...now.off) * 180) / Math.PI,
    strain: strains[worst]!,
    strainAt: worst * rod.segment,
    residual: Math.hypot(...gradient) / (greatestOf(tensions, 1) * total),
  };
}
