import { keepNothing, sayDeg, serialOf, type Keep } from '../units/index.js';
import { bearingAndElevation, cross, direction, lengthOf, limb, norm, pointAt, sub, type Limb } from '../space/index.js';
import {
  childrenOf,
  guysOn,
  parentsFirst,
  stemsOf,
  type Bend,
  type BendInSpace,
  type BendKind,
  type Gap,
  type PlacedBranch,
  type PlacedTree,
  type PlannedBend,
  type PlannedPose,
  type Pose,
  type WoundWire,
} from '../tree/index.js';
import { Bender, bentLine, type Bent } from './bent.js';
import { carriedOn, type Carried, type LaidLine } from './carried.js';
import { describeBends, isHeavy, type Bending } from './bend-load.js';
import { findBends, leadsTo, type Manner } from './bends.js';
import { slopeOfLine, turnBetween, type Slope, type Target } from './slope.js';
import { fanTargets, mainTargets, nearestToGaps, sayPlanned } from './targets.js';
import { trunkBends } from './trunk.js';
import { bendRatioOf, worseWood } from './wood-state.js';
import { isMain, standingOf } from './world.js';

/** Closer than this to where it should be, a branch is left as it grows. */
export const LEAST_BEND_DEG = 10;
/** What the artist asks for is bent to be closer. */
const LEAST_OWN_DEG = 2;
/** Shorter than this, or than so many thicknesses, a shoot is cut into shape, not bent; mm. */
const SHORT = { mm: 22, thicknesses: 5 };
/** What would have to turn farther than this is taken off sooner than bent. */
const MOST_TURN_DEG = 100;
/** So much short of where it should lie nobody sees, of a branch and of a side shoot, degrees. */
const GIVE_DEG = { main: 10, side: 16 };
/** Bends that lead farther than this past where the plan has the branch are said so. */
const ASTRAY_DEG = 3;

/** A branch that stays as it grows, and why. */
export interface AsGrown {
  branch: string;
  bearing: number;
  elevation: number;
  because: string[];
  /** It does not stay as it grows: it was bent and placed. */
  placed?: true;
}

export interface Posing {
  poses: PlannedPose[];
  asGrown: AsGrown[];
}

const rideAlong = (line: Limb, carried: Carried | undefined): Limb => (carried ? new Bender(line, carried).finish().line : line);

export type BentBranch = { branch: string; bends: readonly BendInSpace[] };

/** A branch bent by a share, carried by what it grows on; worked out once for the same. */
function bentOn(keep: Keep, grown: Limb, bends: readonly BendInSpace[], share: number, carried: Carried | undefined): Bent {
  const turns = bends.map(({ at, length, angle, toward }) => [at, length, angle, toward]);
  return keep(`bent ${JSON.stringify([grown.points, grown.diameters, turns, share, carried])}`, () => bentLine(grown, bends, share, carried));
}

/** Lines of all branches, and of the trunk under its own name, each bend by a share of its angle: 0 as it grows, 1 as posed. In the world's space. */
export function linesInWorld(placed: PlacedTree, poses: readonly BentBranch[], share = 1, keep: Keep = keepNothing): Map<string, Limb> {
  const standing = standingOf(placed);
  const bendsOf = new Map(poses.map((p) => [p.branch, p.bends]));
  const laid = new Map<string, LaidLine>([['trunk', { grown: standing.trunk, bent: bentLine(standing.trunk, trunkBends(standing), share) }]]);
  for (const { id, parent, at } of parentsFirst(placed.tree.branches)) {
    const grown = standing.lineOf.get(id)!;
    laid.set(id, { grown, bent: bentOn(keep, grown, bendsOf.get(id) ?? [], share, carriedOn(laid.get(parent), grown, at)) });
  }
  return new Map([...laid].map(([id, { bent }]) => [id, bent.line]));
}

/** How a branch's shoulder is carried by what it grows on, as posed; undefined where that is the trunk as it stands. */
export function carriedIn(placed: PlacedTree, poses: readonly BentBranch[], branch: string): Carried | undefined {
  const standing = standingOf(placed);
  const bendsOf = new Map(poses.map((p) => [p.branch, p.bends]));
  const laidOf = (id: string): LaidLine => {
    if (id === 'trunk') return { grown: standing.trunk, bent: bentLine(standing.trunk, trunkBends(standing)) };
    const grown = standing.lineOf.get(id)!;
    return { grown, bent: bentLine(grown, bendsOf.get(id) ?? [], 1, carriedIn(placed, poses, id)) };
  };
  const { parent, at } = placed.byId.get(branch)!.branch;
  return carriedOn(laidOf(parent), standing.lineOf.get(branch)!, at);
}

/** The same lines in the tree's own space. */
export function posedLines(placed: PlacedTree, poses: readonly BentBranch[], share = 1): Map<string, Limb> {
  const { back } = standingOf(placed);
  return new Map([...linesInWorld(placed, poses, share)].map(([id, line]) => [id, limb(line.points.map(back), line.diameters)]));
}

/** A first bend is one at the shoulder as long as it begins within so many thicknesses of its limb's bark: so far one is moved to meet its wire. */
const AT_SHOULDER = 2.5;

/** A pose's bends as the plan gives them, with what they do to the wood. */
function ownPose(of: Bending, own: Pose, now: Slope, carried: Carried | undefined, cautions: string[]): PlannedPose {
  const kindOf = (bend: Bend, i: number): BendKind => {
    if (i === 0 && bend.at <= (of.clear ?? 0) + AT_SHOULDER * of.line.diameters[0]!) return 'drop';
    return own.reach ? 'arc' : bend.at + bend.over >= 0.9 * lengthOf(of.line) ? 'tip' : 'movement';
  };
  const given = own.bends.map(({ over, ...bend }, i) => ({ ...bend, length: over, kind: kindOf({ ...bend, over }, i) }));
  const bends = describeBends(of, given, carried);
  const leads = leadsTo(of.line, bends, carried);
  const off = turnBetween(own, leads);
  const said =
    off > ASTRAY_DEG ? [`Its bends lead ${off.toFixed(0)}° away from that, to ${leads.bearing.toFixed(0)}° and ${leads.elevation.toFixed(0)}°.`] : [];
  return {
    branch: own.branch,
    bearing: own.bearing,
    elevation: own.elevation,
    reach: norm(leads.bent.chord),
    now,
    bends,
    from: 'plan',
    because: [sayPlanned(own), ...said, ...cautions],
  };
}

/** At most such a share of a branch is told to lie in what it grows on. */
const MOST_CLEAR = 0.3;
const STEP_MM = 0.5;

/** Where a branch's line leaves the bark of its parent, mm along it. */
function clearOf({ branch, parentDiameter }: PlacedBranch, line: Limb, parent: Limb): number {
  const axis = pointAt(parent, Math.min(branch.at, lengthOf(parent))).direction;
  const from = line.points[0]!;
  const most = MOST_CLEAR * lengthOf(line);
  for (let s = 0; s < most; s += STEP_MM) if (norm(cross(sub(pointAt(line, s).point, from), axis)) >= parentDiameter / 2) return s;
  return most;
}

/** That a pose does not lead all the way: a twig is bent at once and bare; other wood takes only so much. */
const sayMissed = (missed: number, bends: readonly PlannedBend[]): string =>
  !bends.some(isHeavy)
    ? `${missed.toFixed(0)}° are missing: so thin it is bent at once and bare, and no sharper than that bears.`
    : `Its wood takes it only so far: ${missed.toFixed(0)}° are missing, for a later season or a guy.`;

/** What the wood of a branch bears, on its line in the world. */
export function bendingFor(placed: PlacedTree, id: string): Bending {
  const standing = standingOf(placed);
  const b = placed.byId.get(id)!;
  const line = standing.lineOf.get(id)!;
  const { parent } = b.branch;
  return { line, k0: bendRatioOf(placed.tree, id), clear: clearOf(b, line, parent === 'trunk' ? standing.trunk : standing.lineOf.get(parent)!) };
}

/** What of the poses is borne by nothing, with why, and what only a share of the way. */
export interface Borne {
  unheld: ReadonlyMap<string, readonly string[]>;
  lowered: ReadonlyMap<string, number>;
  /** Wire that branches' bends are to meet: they are moved along until they do. */
  wound: ReadonlyMap<string, WoundWire>;
  /** Which branches stay as they grow, and why, where that is decided: all others are posed. */
  stays: ReadonlyMap<string, readonly string[]> | null;
}
const ALL_BORNE: Borne = { unheld: new Map(), lowered: new Map(), wound: new Map(), stays: null };

/** Poses of all kept, living branches; of what nothing would hold, why it stays as it grows. Gaps are those that the plan's cuts opened. docs: Poses. */
export function proposePoses(placed: PlacedTree, gaps: readonly Gap[] = [], keep: Keep = keepNothing, borne: Partial<Borne> = {}): Posing {
  const { unheld, lowered, wound, stays: decided } = { ...ALL_BORNE, ...borne };
  const { tree } = placed;
  const standing = standingOf(placed);
  const stems = stemsOf(tree);
  const own = new Map(tree.plan.poses.map((p) => [p.branch, p]));
  const tied = new Set(guysOn(tree, Infinity).flatMap((g) => (g.device === null ? [g.branch] : [])));
  const movement = tree.plan.posing?.movement ?? 'moderate';
  const trunk: LaidLine = { grown: standing.trunk, bent: bentLine(standing.trunk, trunkBends(standing)) };
  const laid = new Map<string, LaidLine>([['trunk', trunk]]);
  const poses: PlannedPose[] = [];
  const asGrown: AsGrown[] = [];

  const lineNow = (id: string): Limb => {
    const { parent, at } = placed.byId.get(id)!.branch;
    const grown = standing.lineOf.get(id)!;
    return rideAlong(grown, carriedOn(parent === 'trunk' ? trunk : undefined, grown, at));
  };
  const main = mainTargets(standing, lineNow, own, gaps);
  const shoots = placed.branches
    .filter((b) => !isMain(b, stems) && !stems.has(b.branch.id))
    .map((b) => ({ id: b.branch.id, line: standing.lineOf.get(b.branch.id)! }));
  const holes = nearestToGaps(standing, shoots, main.left);
  const fans = new Map<string, Target>();

  for (const { id, parent } of parentsFirst(tree.branches)) {
    const b = placed.byId.get(id)!;
    const grown = standing.lineOf.get(id)!;
    const carried = carriedOn(laid.get(parent), grown, b.branch.at);
    const line = rideAlong(grown, carried);
    const now = slopeOfLine(line);
    const found = poseOf(b, grown, carried, now);
    const posed = 'bends' in found;
    if (posed) poses.push(found);
    else asGrown.push(found);
    const here: LaidLine = { grown, bent: bentOn(keep, grown, posed ? found.bends : [], 1, carried) };
    laid.set(id, here);
    if (stems.has(id)) continue;
    const growing = childrenOf(tree, id).map((c) => {
      const line = standing.lineOf.get(c.id)!;
      return { b: placed.byId.get(c.id)!, line: rideAlong(line, carriedOn(here, line, c.at)) };
    });
    for (const [shoot, target] of fanTargets({ way: here.bent.chord, length: lengthOf(grown) }, growing, holes)) fans.set(shoot, target);
  }

  function poseOf(b: PlacedBranch, grown: Limb, carried: Carried | undefined, now: Slope): PlannedPose | AsGrown {
    const { id } = b.branch;
    const stays = (...because: string[]): AsGrown => ({ branch: id, ...now, because });
    const fixed = own.get(id);
    const of = bendingFor(placed, id);
    const worse = worseWood(tree, id);
    if (fixed?.stays) return stays(`It is left as it grows, at ${sayDeg(now.elevation)}.`);
    if (fixed?.bends.length) return ownPose(of, fixed, now, carried, worse.because);
    const loose = unheld.get(id);
    if (loose) return stays(...loose);
    if (b.branch.state === 'dead') return stays('Dead wood: it stays as it is, or becomes a jin.');
    // Measured as it is held: to pose it anew would be to let the tie go.
    if (tied.has(id) && !fixed) return stays('A tie holds it: it lies where it was drawn.');
    // A stem of a clump is a trunk: no habit lays it down.
    if (stems.has(id) && !fixed) return stays('A stem of its own: it is led by hand where you pose it.');
    const decidedly = decided?.get(id);
    if (decidedly) return stays(...decidedly);
    const isSide = !main.of.has(id);
    const target: Target | undefined = fixed ? { ...fixed, from: 'plan', because: [sayPlanned(fixed)] } : isSide ? fans.get(id) : main.of.get(id);
    if (!target) return stays('It rides along with its branch.');
    const total = lengthOf(grown);
    const open = !fixed && !decided;
    if (open && (total < SHORT.mm || total < SHORT.thicknesses * b.branch.d)) return stays('Too short to bend: cut into shape as it grows.');
    if (open && b.branch.state === 'weak') return stays('Weak: let it grow stronger before it is bent.');
    const off = turnBetween(now, target);
    const compact = fixed?.reach ? { reach: Math.min(fixed.reach, total), arcs: fixed.arcs ?? 3, planes: (fixed.planes ?? 1) as 1 | 2 } : undefined;
    const least = fixed && !fixed.reached ? LEAST_OWN_DEG : LEAST_BEND_DEG;
    if (!decided && off < least && (!compact || fixed?.reached)) return stays(`It lies within ${least}° of where it should.`);
    if (open && off > MOST_TURN_DEG) return stays(`It would have to turn ${sayDeg(off)}, which looks forced: take it off, or pose it by hand.`);
    const manner: Manner = {
      movement,
      secondary: isSide,
      side: sideFirst(now, standing.front?.bearing ?? 0),
      ...(fixed ? {} : { give: isSide ? GIVE_DEG.side : GIVE_DEG.main }),
      tipRise: compact ? null : isSide ? 8 : Math.max(18, target.elevation + 16),
      ...(compact ? { compact } : {}),
    };
    const share = lowered.get(id) ?? 1;
    const wire = wound.get(id);
    const asked = [grown.points, grown.diameters, of.k0, of.clear, target.bearing, target.elevation, manner, carried, share, wire ? serialOf(wire) : 0];
    const { bends, bent } = keep(`posing ${JSON.stringify(asked)}`, () => {
      const led = findBends(of, target, manner, carried, wire);
      if (share === 1) return { bends: describeBends(of, led.bends, carried), bent: led.bent };
      const part = led.bends.map((b) => ({ ...b, angle: b.angle * share }));
      return { bends: describeBends(of, part, carried), bent: bentLine(grown, part, 1, carried) };
    });
    const reached = bearingAndElevation(bent.chord);
    const missed = turnBetween(target, reached);
    const pose: PlannedPose = {
      branch: id,
      ...(fixed && share === 1 ? { bearing: fixed.bearing, elevation: fixed.elevation } : reached),
      reach: norm(bent.chord),
      now,
      bends,
      from: target.from,
      because: [
        ...target.because,
        ...(isSide || fixed ? [] : [`It grows at ${sayDeg(now.elevation)}.`]),
        ...(share < 1 ? [`Comes by ${turnBetween(now, reached).toFixed(0)}° this season: for more no tie can be made by hand.`] : []),
        ...(share === 1 && missed > (manner.give ?? 0) + ASTRAY_DEG ? [sayMissed(missed, bends)] : []),
        ...(compact && norm(bent.chord) < compact.reach - 2 ? [`Its turn at the shoulder brings it to ${norm(bent.chord).toFixed(0)} mm by itself.`] : []),
        ...(compact && norm(bent.chord) > compact.reach + 2
          ? [`So many arcs bring it to ${norm(bent.chord).toFixed(0)} mm, not to ${compact.reach.toFixed(0)}.`]
          : []),
        ...worse.because,
      ],
    };
    return pose;
  }

  return { poses, asGrown };
}

/** The first bend of a branch goes towards the viewer, so that the tree takes him in. */
export function sideFirst(now: Slope, front: number): 1 | -1 {
  const ahead = direction({ bearingDeg: now.bearing, elevationDeg: 0 });
  const viewer = direction({ bearingDeg: front, elevationDeg: 0 });
  // Seen along the branch the viewer is to the right where the bearing grows towards him.
  return ahead[1] * viewer[0] - ahead[0] * viewer[1] >= 0 ? 1 : -1;
}
