import { greatestOf } from '../units/index.js';
import { add, bearingAndElevation, dot, lengthOf, limb, norm, scale, sub, unit, type Limb, type Vec } from '../space/index.js';
import { speciesOf, woodOf } from '../species/index.js';
import { bandOf, HEFT, safeBendRatio, type Band, type Wood } from '../wood/index.js';
import type { BendInSpace, PlacedTree } from '../tree/index.js';
import { archOf, curvatureIn, drawTipTo, lineOf, rodOf, type Reached, type Rod } from '../rod/index.js';
import { bentLine } from './bent.js';
import { carriedIn, linesInWorld } from './propose.js';
import { bendRatioOf } from './wood-state.js';
import { standingOf } from './world.js';

/** What a branch does when its tip is only pulled: an even arch, with its strain greatest where it is thick and stiff. */
export interface Arch {
  line: Limb;
  /** How far it stands from the straight line between its ends at most, mm. */
  arch: number;
  /** Greatest strain, and where, mm from the shoulder. */
  strain: number;
  strainAt: number;
  /** What the tip is pulled with, N. */
  pullN: number;
  /** How far the tip stays from where it is wanted, mm. */
  missed: number;
}

const describe = (rod: Rod, { bends, pull, missed }: Reached): Arch => {
  const line = lineOf(rod, bends);
  const strains = rod.diameters.map((d, j) => (d / 2) * curvatureIn(rod, bends, j));
  const worst = strains.indexOf(greatestOf(strains));
  return { line, arch: archOf(line), strain: strains[worst]!, strainAt: worst * rod.segment, pullN: norm(pull), missed };
};

const PULLS = 7;

/**
 * A branch drawn towards a direction by a pull square to it, at its tip alone: how far its tip then reaches is found by halving,
 * since a pull along the branch would only stretch what cannot be stretched. docs: Arch.
 */
export function archTo(line: Limb, wood: Wood, toward: Vec): Arch {
  const rod = rodOf(line, wood, { heft: HEFT });
  const total = lengthOf(line);
  const way = unit(toward);
  let [low, high] = [0.6 * total, 0.998 * total];
  const drawn = (reach: number): Reached => drawTipTo(rod, add(rod.root, scale(way, reach)));
  for (let i = 0; i < PULLS; i++) {
    const reach = (low + high) / 2;
    if (dot(drawn(reach).pull, way) > 0) high = reach;
    else low = reach;
  }
  return describe(rod, drawn((low + high) / 2));
}

const tipOf = ({ points }: Limb): Vec => points[points.length - 1]!;
type Poses = readonly { branch: string; bends: readonly BendInSpace[] }[];

/** A branch as it lies when only what it grows on is posed; in the world's space. */
export const presentLine = (placed: PlacedTree, poses: Poses, branch: string): Limb =>
  bentLine(standingOf(placed).lineOf.get(branch)!, [], 1, carriedIn(placed, poses, branch)).line;

/** A posed branch, led the same way by pulling alone; its line in the tree's own space. How far the wired line stands from its chord beside it. */
export function pulledAlone(placed: PlacedTree, poses: Poses, branch: string): Arch & { wired: number } {
  const wired = linesInWorld(placed, poses).get(branch)!;
  const arch = archTo(presentLine(placed, poses, branch), woodOf(speciesOf(placed.tree.species)), sub(tipOf(wired), wired.points[0]!));
  return { ...arch, line: limb(arch.line.points.map(standingOf(placed).back), arch.line.diameters), wired: archOf(wired) };
}

/** Where a dragged branch has come to. */
export interface Drag extends Arch {
  /** Of the straight line from shoulder to tip, in the world. */
  bearing: number;
  elevation: number;
  reach: number;
  /** Of the greatest strain, bare. */
  risk: number;
  band: Band;
}

/** A branch whose tip is dragged, as its wood lets it: each step goes on from the one before. Places and lines are in the tree's own space. */
export class TipDrag {
  private readonly rod: Rod;
  private last: Reached | undefined;

  constructor(
    private readonly placed: PlacedTree,
    poses: Poses,
    private readonly branch: string,
  ) {
    this.rod = rodOf(presentLine(placed, poses, branch), woodOf(speciesOf(placed.tree.species)), { heft: HEFT });
  }

  /** Draws the tip to a place as far as it goes; `whole` takes the time to come to rest. */
  to(place: Vec, whole = false): Drag {
    const { out, back } = standingOf(this.placed);
    this.last = drawTipTo(this.rod, out(place), whole ? undefined : this.last);
    const arch = describe(this.rod, this.last);
    const chord = sub(tipOf(arch.line), arch.line.points[0]!);
    const diameter = this.rod.diameters[Math.round(arch.strainAt / this.rod.segment)]!;
    const risk = arch.strain * 2 * safeBendRatio(bendRatioOf(this.placed.tree, this.branch), diameter, 'none');
    return {
      ...arch,
      ...bearingAndElevation(chord),
      reach: norm(chord),
      risk,
      band: bandOf(risk),
      line: limb(arch.line.points.map(back), arch.line.diameters),
    };
  }
}
