import { greatestOf } from '../units/index.js';
import { bearingAndElevation, direction, limb, tilting, type Limb, type Vec, type View } from '../space/index.js';
import { placeTree, type PlacedBranch, type PlacedTree, type Tree } from '../tree/index.js';

/** A tree as it stands on its table after the planting angle of its front: lines in the world's space, pads left out. */
export interface Standing {
  placed: PlacedTree;
  front: View | null;
  trunk: Limb;
  height: number;
  lineOf: ReadonlyMap<string, Limb>;
  /** From the tree's own space into the world's, and back. */
  out: (point: Vec) => Vec;
  back: (point: Vec) => Vec;
}

const remembered = new WeakMap<PlacedTree, { view: View | null | undefined; standing: Standing }>();

/** Stands a tree at the planting angle of its front. */
export function standingOf(placed: PlacedTree): Standing {
  const front = placed.tree.plan.front ?? null;
  const before = remembered.get(placed);
  if (before && before.view === front) return before.standing;
  const level = !front || (!front.pitch && !front.roll);
  const { out, back } = level ? { out: (p: Vec) => p, back: (p: Vec) => p } : tilting(front);
  const turned = (line: Limb): Limb => (level ? line : limb(line.points.map(out), line.diameters));
  const trunk = turned(placed.trunk);
  const standing: Standing = {
    placed,
    front,
    trunk,
    height: greatestOf(trunk.points.map((p) => p[2])),
    lineOf: new Map(placed.branches.map((b) => [b.branch.id, turned(b.line)])),
    out,
    back,
  };
  remembered.set(placed, { view: front, standing });
  return standing;
}

const tenth = (x: number): number => Math.round(x * 10) / 10;

/** A direction of the world in the tree's own space, in tenths of a degree: as it is kept in the record, whatever planting angle is chosen later. */
export function ownWay({ plan }: Tree, toward: { bearing: number; elevation: number }): { bearing: number; elevation: number } {
  const { front } = plan;
  const way = direction({ bearingDeg: toward.bearing, elevationDeg: toward.elevation });
  const { bearing, elevation } = front && (front.pitch || front.roll) ? bearingAndElevation(tilting(front).back(way)) : toward;
  return { bearing: tenth(bearing) % 360, elevation: tenth(elevation) };
}

export const standTree = (tree: Tree): Standing => standingOf(placeTree(tree));

/** Branches that grow on the trunk, or on a stem that is a trunk of its own. */
export const isMain = (b: PlacedBranch, stems: ReadonlySet<string>): boolean =>
  !stems.has(b.branch.id) && (b.branch.parent === 'trunk' || stems.has(b.branch.parent));
