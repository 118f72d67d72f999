import { sayDeg, toRad, turnDeg } from '../units/index.js';
import { angleBetween, direction, dot, scale, sub, type Vec } from '../space/index.js';
import { slopeOfLine, standingOf, type AsGrown, type Posing, type Slope } from '../pose/index.js';
import { heldShapeOf, type HeldShape, type MadeBend, type PlacedTree, type PlannedBend, type PlannedPose, type Pose } from '../tree/index.js';

/** A bend that was made begins and turns where a planned one does: within so many mm and degrees. */
const SAME_PLACE_MM = 1.5;
const SAME_WAY_DEG = 10;
/** A pose that was asked for is the same within so many degrees. */
const SAME_POSE_DEG = 1;
/** Less than this of a bend is done with. */
const LEAST_REST_DEG = 1;

const wayOf = (of: { bearing: number; elevation: number }): Vec => direction({ bearingDeg: of.bearing, elevationDeg: of.elevation });

/** What is left of a pose: nothing, as it was placed; each bend by what was made of it; or other bends than those that were made. */
type Rest = { kind: 'done'; because: string } | { kind: 'rest'; made: readonly number[] } | { kind: 'anew' };

const asked = (placed: NonNullable<HeldShape['placed']>, own: Pick<Pose, 'bearing' | 'elevation'>): boolean =>
  placed.bearing === null ||
  placed.elevation === null ||
  (Math.abs(turnDeg(placed.bearing, own.bearing)) <= SAME_POSE_DEG && Math.abs(placed.elevation - own.elevation) <= SAME_POSE_DEG);

/**
 * What is left of a planned pose, its bends told from where the branch lay before its wire went on, once some were made.
 * `own` is the pose that its artist has settled; `out` brings a direction of the tree into the world; `now` is how it points.
 */
function restOf(pose: PlannedPose, held: HeldShape, own: Pose | undefined, now: Slope, out: (way: Vec) => Vec): Rest {
  if (held.placed && (!own || asked(held.placed, own))) return { kind: 'done', because: sayDone(now) };
  const made = madeOf(pose.bends, held, out);
  if (!made) return { kind: 'anew' };
  // All of it bent, it is placed by eye still, where that was settled.
  const bent = pose.bends.every((b, i) => b.angle - made[i]! < LEAST_REST_DEG);
  return bent && !own ? { kind: 'done', because: sayDone(now) } : { kind: 'rest', made };
}

/** How many degrees of each planned bend were made; null where others were made than are planned. */
export function madeOf(bends: readonly PlannedBend[], { made, further }: HeldShape, out: (way: Vec) => Vec): number[] | null {
  if (further) return null;
  const left = [...made];
  const found = bends.map((bend) => {
    const i = left.findIndex((m) => isOf(m, bend, out));
    return i < 0 ? 0 : left.splice(i, 1)[0]!.angle;
  });
  return left.length ? null : found;
}

const sayDone = (now: Slope): string => `It was bent and placed as it was to be: under its wire it lies at ${sayDeg(now.elevation)}.`;

/** Whether a bend that was made is one of those planned: both turn the same way there. */
function isOf(made: MadeBend, { at, toward, start }: PlannedBend, out: (way: Vec) => Vec): boolean {
  if (Math.abs(made.at - at) > SAME_PLACE_MM) return false;
  const before = wayOf(start);
  const square = (way: Vec): Vec => sub(way, scale(before, dot(way, before)));
  return angleBetween(square(out(wayOf(made.toward))), square(wayOf(toward))) <= toRad(SAME_WAY_DEG);
}

/** Brings a direction from a tree's own space into the world's. */
export function intoWorld(stands: PlacedTree): (way: Vec) => Vec {
  const { out } = standingOf(stands);
  const origin = out([0, 0, 0]);
  return (way) => sub(out(way), origin);
}

/** A planned pose, and how many degrees of each of its bends were made. */
export interface PoseToGo {
  pose: PlannedPose;
  made: readonly number[];
}

/**
 * What is left of planned poses (told on the lines that branches lay on before their wire went on) where the tree stands now.
 * `anew` are poses told on the lines as they stand: for branches that were bent otherwise than is planned.
 */
export function posesToGo({ poses, asGrown }: Posing, stands: PlacedTree, anew: () => Posing): { poses: PoseToGo[]; asGrown: AsGrown[] } {
  const { tree } = stands;
  const { lineOf } = standingOf(stands);
  const turned = intoWorld(stands);
  const own = new Map(tree.plan.poses.map((p) => [p.branch, p]));
  const left: PoseToGo[] = [];
  const stays = [...asGrown];
  for (const pose of poses) {
    const held = heldShapeOf(tree, pose.branch);
    if (!held) {
      left.push({ pose, made: [] });
      continue;
    }
    const now = slopeOfLine(lineOf.get(pose.branch)!);
    const rest = restOf(pose, held, own.get(pose.branch), now, turned);
    if (rest.kind === 'rest') left.push({ pose: { ...pose, now }, made: rest.made });
    else if (rest.kind === 'done') stays.push({ branch: pose.branch, ...now, because: [rest.because], placed: true });
    else {
      const other = anew();
      left.push(...other.poses.filter((p) => p.branch === pose.branch).map((p) => ({ pose: p, made: [] })));
      stays.push(...other.asGrown.filter((p) => p.branch === pose.branch));
    }
  }
  return { poses: left, asGrown: stays };
}

/** The bends of a pose with what is left of each; those that are made are left out. */
export const bendsToGo = <B extends { angle: number }>(bends: readonly B[], made: readonly number[]): (B & { made: number })[] =>
  bends.flatMap((bend, i) => {
    const done = made[i] ?? 0;
    return bend.angle - done < LEAST_REST_DEG && done > 0 ? [] : [{ ...bend, angle: bend.angle - done, made: done }];
  });
