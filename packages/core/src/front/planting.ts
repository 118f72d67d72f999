import { bearingAndElevation, direction, tilt, wedge, type View } from '../space/index.js';
import { slope, slopeProfile, standsAt, stemsOf, type PlacedTree } from '../tree/index.js';

export interface TiltedBranch {
  branch: string;
  before: { bearing: number; elevation: number };
  after: { bearing: number; elevation: number };
  /** Elevation it is meant to have, by its pose or the slopes of its tree. */
  meant: number;
  /** After the tilt it rises above or falls below that by more than 8°. */
  astray: 'rises' | 'falls' | null;
}

export interface Planting {
  tiltDeg: number;
  /** Height of the wedge under the pot, mm. */
  wedge: number;
  /** How high the raised edge of the root ball will stand above the rim when it is planted so, mm. */
  rootBallRise: number;
  branches: TiltedBranch[];
}

const ASTRAY_DEG = 8;
/** The root ball fills the pot but for this share of its width. */
const BALL_SHARE = 0.9;

/** What a planting angle does: to the pot, to the root ball at the next repot, and to each kept branch. */
export function plantingAngle(placed: PlacedTree, view: View): Planting {
  const { tree } = placed;
  const under = wedge(view, tree.pot);
  const poses = new Map(tree.plan.poses.map((p) => [p.branch, p.elevation]));
  const profile = slopeProfile(tree);
  const stems = stemsOf(tree);
  const branches = placed.branches
    .filter((b) => b.order === 1 && b.branch.state !== 'dead')
    .map((b): TiltedBranch => {
      const before = slope(b);
      const pointing = direction({ bearingDeg: before.bearing, elevationDeg: before.elevation });
      const after = bearingAndElevation(tilt({ point: pointing, frontDeg: view.bearing, pitchDeg: view.pitch, rollDeg: view.roll }));
      const meant =
        poses.get(b.branch.id) ?? (stems.has(b.branch.id) ? before.elevation : profile.at(standsAt(placed, b, b.line.points[0]![2], placed.height).share));
      const off = after.elevation - meant;
      const was = before.elevation - meant;
      // Only what the tilt itself leads astray, or farther astray.
      const worse = Math.abs(off) > ASTRAY_DEG && Math.abs(off) > Math.abs(was) + 0.5;
      return { branch: b.branch.id, before, after, meant, astray: worse ? (off > 0 ? 'rises' : 'falls') : null };
    });
  const ball = (under.tiltDeg > 0 ? under.height / Math.tan((under.tiltDeg * Math.PI) / 180) : 0) * BALL_SHARE;
  return { tiltDeg: under.tiltDeg, wedge: under.height, rootBallRise: (ball / 2) * Math.sin((under.tiltDeg * Math.PI) / 180), branches };
}
