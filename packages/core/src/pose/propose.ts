import { toDeg, toRad } from '../units/index.js';
import { angleBetween, direction, lengthOf } from '../space/index.js';
import { habitElevation, speciesOf } from '../species/index.js';
import { bandOf, bendRisk, stagesFor, usualBendLength, type Protection } from '../wood/index.js';
import { slope, stemsOf, type PlacedBranch, type PlacedTree, type PlannedBend, type PlannedPose, type Pose } from '../tree/index.js';

/** Closer than this to where it should be, a branch is left as it grows. */
export const LEAST_BEND_DEG = 10;

const PROTECTIONS: readonly Protection[] = ['none', 'raffia', 'both'];

/** A bend over a given length, with the lightest protection that keeps it below heavy. */
function describeBend(diameter: number, bend: { at: number; angle: number; toward: PlannedBend['toward']; length: number }, k0: number): PlannedBend {
  const riskWith = (protection: Protection): number => bendRisk({ diameter, angleDeg: bend.angle, length: bend.length, k0, protection });
  const protection = PROTECTIONS.find((p) => riskWith(p) < 1) ?? 'both';
  const risk = riskWith(protection);
  return { ...bend, diameter, radius: bend.length / toRad(bend.angle), risk, band: bandOf(risk), stages: stagesFor(risk), protection };
}

function poseFor(placed: PlacedTree, b: PlacedBranch, own: Pose | undefined): PlannedPose | null {
  const species = speciesOf(placed.tree.species);
  const now = slope(b);
  const share = b.line.points[0]![2] / placed.height;
  const wanted = own ?? { bearing: now.bearing, elevation: habitElevation(species.habit, share) };
  const angle = toDeg(
    angleBetween(
      direction({ bearingDeg: now.bearing, elevationDeg: now.elevation }),
      direction({ bearingDeg: wanted.bearing, elevationDeg: wanted.elevation }),
    ),
  );
  if (angle < LEAST_BEND_DEG) return null;
  const toward = { bearing: wanted.bearing, elevation: wanted.elevation };
  const k0 = species.bendRatio.value;
  const bends = own?.bends.length
    ? own.bends.map(({ over, ...bend }) => describeBend(b.branch.d, { ...bend, length: over }, k0))
    : [
        describeBend(
          b.branch.d,
          { at: 0, angle, toward, length: usualBendLength({ diameter: b.branch.d, angleDeg: angle, k0, branchLength: lengthOf(b.line) }) },
          k0,
        ),
      ];
  const why = own
    ? `The plan has it at ${wanted.elevation.toFixed(0)}°.`
    : `${species.name} branches at ${(share * 100).toFixed(0)}% of the height lie near ${wanted.elevation.toFixed(0)}°; this one grows at ${now.elevation.toFixed(0)}°.`;
  return { branch: b.branch.id, ...toward, bends, from: own ? 'plan' : 'habit', because: [why] };
}

/** Where the kept, living branches should go: as the plan says, else as the species' habit has it. Branches near enough are not listed. */
export function proposePoses(placed: PlacedTree): PlannedPose[] {
  const own = new Map(placed.tree.plan.poses.map((p) => [p.branch, p]));
  const stems = stemsOf(placed.tree);
  return placed.branches.flatMap((b) => {
    // A stem of a clump is a trunk: no habit lays it down.
    if (b.branch.state === 'dead' || (stems.has(b.branch.id) && !own.has(b.branch.id))) return [];
    const pose = poseFor(placed, b, own.get(b.branch.id));
    return pose ? [pose] : [];
  });
}
