import { toRad, turnDeg } from '../units/index.js';
import { alignedTo, direction, lengthOf, scale, sub, unit, dot, type Vec } from '../space/index.js';
import { speciesOf, woodOf } from '../species/index.js';
import { HEFT, type MetalName } from '../wood/index.js';
import {
  howKnown,
  slope,
  woodIn,
  type Branch,
  type PlacedBranch,
  type PlacedTree,
  type PlannedBend,
  type PlannedPose,
  type WiringManner,
  type Tree,
  type WoundWire,
} from '../tree/index.js';
import type { FlatBark } from './flat-bark.js';
import type { BendToHold } from './choose.js';
import { WOUND_SHARE } from './coil-alone.js';
import { missOf, type FittedCoil, type Outside } from './coil-fit.js';
import type { Need } from './limb-work.js';
import { stiffnessOf, type Stiffness } from './press-test.js';
import type { Wish } from './shoulders.js';

/** Moment of a branch's weight about its shoulder, N·mm: a tapered cylinder whose leaves weigh half as much again. */
export function weightMoment(b: PlacedBranch): number {
  const { d, tipD } = b.branch;
  const length = lengthOf(b.line);
  const volume = (Math.PI / 12) * length * (d * d + d * tipD + tipD * tipD);
  const tip = b.line.points[b.line.points.length - 1]!;
  const base = b.line.points[0]!;
  const lever = 0.45 * Math.hypot(tip[0] - base[0], tip[1] - base[1]);
  return volume * HEFT * lever;
}

/** What is not known of a thickness, as a spread of the logarithm of its stiffness: that goes with the cube. What the ruler leaves open is in the usual spread. */
const thicknessSpread = (tree: Tree, { id, d, known }: Branch): number => (known ? 3 * (howKnown(tree, id).d / d) : 0);

function bendToHold(placed: PlacedTree, b: PlacedBranch, bend: PlannedBend, { meanLog, sd }: Stiffness, main = false): BendToHold {
  const species = speciesOf(placed.tree.species);
  const wood = woodOf(species);
  const raising = bend.kind === 'drop' && bend.toward.elevation > slope(b).elevation + 3;
  return {
    diameter: bend.diameter,
    angleDeg: bend.angle,
    length: bend.length,
    wood: { ...wood, strength: wood.strength * Math.exp(meanLog) },
    k0: species.bendRatio.value,
    protection: bend.protection,
    weightMoment: raising ? weightMoment(b) : 0,
    ...(main ? { beyond: WOUND_SHARE * lengthOf(b.line) - bend.at } : {}),
    sd: Math.hypot(sd, thicknessSpread(placed.tree, b.branch)),
  };
}

/** A bend of a branch, or of the trunk, as its wire has to hold it. */
export const bendHeld = (placed: PlacedTree, branch: string, bend: PlannedBend): BendToHold =>
  bendToHold(placed, woodIn(placed, branch)!, bend, stiffnessOf(placed.tree)(branch));

export type HeldBends = readonly [BendToHold, ...BendToHold[]];

/** The bends of a branch that its wire has to hold, from the shoulder; one that lies as it should has the smallest worth the name. */
export function bendsToHold(placed: PlacedTree, b: PlacedBranch, pose: { bends: readonly PlannedBend[] }, stiffness: Stiffness): HeldBends {
  const [first = stillBend(b), ...others] = pose.bends;
  return [bendToHold(placed, b, first, stiffness, true), ...others.map((bend) => bendToHold(placed, b, bend, stiffness))];
}

/** A coil on a branch that already lies where it should: it holds the smallest bend worth the name. */
function stillBend(b: PlacedBranch): PlannedBend {
  const length = lengthOf(b.line) / 2;
  const radius = length / 0.01745;
  return {
    kind: 'movement',
    at: 0,
    length,
    angle: 1,
    toward: slope(b),
    start: slope(b),
    diameter: b.branch.d,
    radius,
    strain: b.branch.d / (2 * radius),
    risk: 0,
    band: 'calm',
    stages: 1,
    protection: 'none',
    nearest: null,
  };
}

/** What its artist has said of how one branch is wired. */
export const ownManner = ({ tree }: PlacedTree, branch: string): WiringManner | undefined => tree.plan.wiring?.find((w) => w.branch === branch);

/** Metal as the artist wants it for the branch or the tree; else copper for conifers' structure, aluminium for the rest and for soft shoots. */
export function metalFor(placed: PlacedTree, b: PlacedBranch): MetalName {
  const asked = ownManner(placed, b.branch.id)?.metal ?? placed.tree.plan.metal;
  if (asked) return asked;
  return speciesOf(placed.tree.species).group.includes('conifer') && b.branch.stage === 'wood' && b.order <= 2 ? 'copper' : 'aluminium';
}

/** A green shoot thickens within weeks: its wire is wound so far off the bark, mm. */
const SHOOT_GAP = 0.5;
/** How far off the bark a branch's wire is wound, mm; 0 is snug. */
export const gapFor = ({ branch }: PlacedBranch): number => (branch.stage === 'shoot' ? SHOOT_GAP : 0);

/** Less than this to one side, or up or down, and the coil may wind either way; degrees. */
const EITHER_HAND = 8;
const EITHER_START = 5;

/** Hand and start that tighten the coil as the branch is bent: left counter-clockwise, right clockwise; over to lower, under to raise. docs: Hand and start. */
export function wishOf({ now, bearing, elevation }: PlannedPose): Wish {
  const turn = turnDeg(now.bearing, bearing);
  const rise = elevation - now.elevation;
  // Bearings run clockwise from above, so a falling bearing brings the tip to the left as seen from the parent.
  const hand = Math.abs(turn) < EITHER_HAND ? null : turn < 0 ? 'ccw' : 'cw';
  const start = Math.abs(rise) < EITHER_START ? null : rise < 0 ? 'over' : 'under';
  const must = hand && (!start || Math.abs(turn) > Math.abs(rise)) ? 'hand' : start ? 'start' : 'neither';
  return { hand, start, must };
}

/** A direction of the world as a vector of the tree's own space. */
type IntoTree = (way: Vec) => Vec;
/** A bend as it is held against a wire: where it begins, how long it is, which way its branch goes there, and which way it is brought. */
interface BendOfWay {
  at: number;
  length: number;
  start: Vec;
  toward: Vec;
  angle: number;
}

/** The outside of a bend, as a turn round its branch as that grows now. */
function outsideOf(bark: FlatBark, bend: BendOfWay, back: IntoTree): Outside {
  const [before, toward] = [back(bend.start), back(bend.toward)];
  const inside = sub(toward, scale(before, dot(toward, before)));
  // What was bent before this one is bent back: from the way it will go there to the way it goes now.
  const now = bark.frame(bend.at).along;
  const asItGrows = alignedTo(before, now)(scale(unit(inside), -1));
  return { from: bend.at, to: bend.at + bend.length, turn: bark.turnTo(bend.at, asItGrows), angleDeg: bend.angle };
}

/** The outsides of a branch's bends, as turns round it as it grows now. `back` brings directions of the world into the tree's own space. docs: Bends meet the wire. */
export function outsidesOf(bark: FlatBark, bends: readonly PlannedBend[], back: IntoTree): Outside[] {
  const vector = (of: { bearing: number; elevation: number }): Vec => direction({ bearingDeg: of.bearing, elevationDeg: of.elevation });
  return [...bends].sort((a, b) => a.at - b.at).map((bend) => outsideOf(bark, { ...bend, start: vector(bend.start), toward: vector(bend.toward) }, back));
}

/** A coil as its branch's bends are to meet it. docs: Bends meet the wire. */
export function woundOn(bark: FlatBark, { places }: Pick<FittedCoil, 'places'>, { size, angle }: Need, back: IntoTree): WoundWire {
  const radius = bark.radius(places[0]!.s) + size / 2;
  return {
    missDeg: (bend) => missOf(places, outsideOf(bark, { ...bend, angle: 0 }, back)),
    until: places[places.length - 1]!.s,
    halfPitch: (Math.PI * radius) / Math.tan(toRad(angle)),
  };
}
