import { greatestOf } from '../units/index.js';
import {
  add,
  angleBetween,
  anySquare,
  bearingAndElevation,
  cross,
  direction,
  lengthOf,
  limb,
  norm,
  pointAt,
  rotateAbout,
  scale,
  stretch,
  sub,
  unit,
  type Limb,
  type Vec,
} from '../space/index.js';
import type { Branch } from './measures.js';
import type { Tree } from './types.js';

/** A flat layer of foliage: an ellipsoid with unit axes (along, across, up) and half-sizes in mm. */
export interface Pad {
  branch: string;
  center: Vec;
  axes: readonly [Vec, Vec, Vec];
  half: readonly [number, number, number];
}

export interface PlacedBranch {
  branch: Branch;
  order: number;
  line: Limb;
  pad: Pad | null;
  parentDiameter: number;
}

/** A tree laid out in space: coordinates in mm, z up, origin at the soil in the trunk's centre. */
export interface PlacedTree {
  tree: Tree;
  trunk: Limb;
  height: number;
  branches: PlacedBranch[];
  byId: ReadonlyMap<string, PlacedBranch>;
  /** Green not on any listed branch, at the apex. */
  apexPad: Pad | null;
}

/** A trunk is as thick as it is there: at its foot it flares. */
const TRUNK_MEASURED = 0.2;

/** A branch, or the trunk as if it were one: wood that wire can lie on. */
export function woodIn(placed: PlacedTree, id: string): PlacedBranch | undefined {
  if (id !== 'trunk') return placed.byId.get(id);
  const { trunk } = placed;
  const length = lengthOf(trunk);
  const d = pointAt(trunk, TRUNK_MEASURED * length).diameter;
  const { bearing, elevation } = bearingAndElevation(sub(trunk.points[trunk.points.length - 1]!, trunk.points[0]!));
  return {
    branch: {
      id,
      parent: 'pot',
      at: 0,
      bearing,
      elevation,
      length,
      d,
      tipD: trunk.diameters[trunk.diameters.length - 1]!,
      bareTo: 0,
      green: 0,
      state: 'strong',
      stage: 'wood',
      backBuds: false,
    },
    order: 0,
    line: trunk,
    pad: null,
    parentDiameter: d,
  };
}

/** Trees are values that never change, so what a list of branches is like is found once. */
interface Lineage {
  byId: ReadonlyMap<string, Branch>;
  childrenOf: ReadonlyMap<string, readonly Branch[]>;
  parentsFirst: readonly Branch[];
}
const remembered = new WeakMap<readonly Branch[], Lineage>();

function lineage(branches: readonly Branch[]): Lineage {
  const before = remembered.get(branches);
  if (before) return before;
  const childrenOf = new Map<string, Branch[]>();
  for (const b of branches) {
    const siblings = childrenOf.get(b.parent);
    if (siblings) siblings.push(b);
    else childrenOf.set(b.parent, [b]);
  }
  const out = [...(childrenOf.get('trunk') ?? [])];
  for (let i = 0; i < out.length; i++) out.push(...(childrenOf.get(out[i]!.id) ?? []));
  if (out.length < branches.length) throw new Error('A branch has no way back to the trunk.');
  const found = { byId: new Map(branches.map((b) => [b.id, b])), childrenOf, parentsFirst: out };
  remembered.set(branches, found);
  return found;
}

/** The branches with parents before their children; file order otherwise. Assumes no cycle (checked on reading). */
export const parentsFirst = (branches: readonly Branch[]): readonly Branch[] => lineage(branches).parentsFirst;

export const branchOf = (tree: { readonly branches: readonly Branch[] }, id: string): Branch | undefined => lineage(tree.branches).byId.get(id);

/** The branches that grow on one, or on the trunk; in file order. */
export const childrenOf = (tree: Tree, parent: string): readonly Branch[] => lineage(tree.branches).childrenOf.get(parent) ?? [];

/** Two shares together; rounded, so that a sum of many does not depend on their order. */
export const addShares = (a: number, b: number): number => Math.round((a + b) * 1e9) / 1e9;

/** Share of the green on each branch and on all that grows on it. */
export function greenWithChildren(tree: Tree): Map<string, number> {
  const green = new Map(tree.branches.map((b) => [b.id, b.green]));
  for (const b of [...parentsFirst(tree.branches)].reverse()) {
    if (b.parent !== 'trunk') green.set(b.parent, addShares(green.get(b.parent)!, green.get(b.id)!));
  }
  return green;
}

function branchLine(branch: Branch, shoulder: Vec): Limb {
  const points: Vec[] = branch.path?.length
    ? branch.path.map((p) => add(shoulder, p))
    : [shoulder, add(shoulder, scale(direction({ bearingDeg: branch.bearing, elevationDeg: branch.elevation }), branch.length))];
  const bare = limb(
    points,
    points.map(() => 0),
  );
  const total = bare.along[bare.along.length - 1]!;
  return limb(
    points,
    bare.along.map((s) => branch.d + (branch.tipD - branch.d) * (total ? s / total : 0)),
  );
}

/** Flat ellipsoid round the leafy part of a line. Its width follows the length: pads are fanned, a third as thick as wide. */
function padOn(id: string, line: Limb, bareTo: number): Pad {
  const total = line.along[line.along.length - 1]!;
  const from = pointAt(line, Math.min(0.95, bareTo) * total).point;
  const to = pointAt(line, total).point;
  const reach = sub(to, from);
  const flat: Vec = [reach[0], reach[1], 0];
  // The steeper it stands, the rounder its foliage lies.
  const outward = norm(reach) > 0 ? norm(flat) / norm(reach) : 0;
  const long: Vec = outward > 1e-6 ? unit(flat) : [1, 0, 0];
  const length = Math.max(norm(reach), 12);
  return {
    branch: id,
    center: add(add(from, scale(reach, 0.5)), [0, 0, length * 0.08]),
    axes: [long, unit(cross([0, 0, 1], long)), [0, 0, 1]],
    half: [length * (0.42 + 0.16 * outward), Math.min(length * 0.42, 70), Math.min(Math.max(length * 0.15, 6), 30)],
  };
}

/** A branch begins so far out from its parent's middle line, as a share of the parent's thickness there. */
const OUT = 0.3;

/** Where a branch begins that leaves a place of its parent the way its tip lies. */
export const shoulderAt = (on: { point: Vec; diameter: number }, to: Pick<Branch, 'bearing' | 'elevation'>): Vec =>
  add(on.point, scale(direction({ bearingDeg: to.bearing, elevationDeg: to.elevation }), OUT * on.diameter));

/** Lays a tree out in space. */
export function placeTree(tree: Tree): PlacedTree {
  const trunk = limb(
    tree.trunk.map((s): Vec => [s.x, s.y, s.z]),
    tree.trunk.map((s) => s.d),
  );
  const byId = new Map<string, PlacedBranch>();
  for (const branch of parentsFirst(tree.branches)) {
    const parent = byId.get(branch.parent);
    const on = pointAt(parent?.line ?? trunk, branch.at);
    const shoulder = shoulderAt(on, branch);
    const line = branchLine(branch, shoulder);
    byId.set(branch.id, {
      branch,
      order: (parent?.order ?? 0) + 1,
      line,
      pad: branch.state !== 'dead' && branch.green > 0 ? padOn(branch.id, line, branch.bareTo) : null,
      parentDiameter: on.diameter,
    });
  }
  const rest = 1 - tree.branches.reduce((sum, b) => addShares(sum, b.green), 0);
  const total = trunk.along[trunk.along.length - 1]!;
  const crown = stretch(trunk, total * 0.86, total);
  return {
    tree,
    trunk,
    height: greatestOf(trunk.points.map((p) => p[2])),
    branches: tree.branches.map((b) => byId.get(b.id)!),
    byId,
    apexPad: rest > 0.01 ? apexPad(crown, total) : null,
  };
}

function apexPad(crown: Limb, trunkLength: number): Pad {
  const tip = crown.points[crown.points.length - 1]!;
  // A growing end that hangs is lit from its side and carries less.
  const hangs = tip[2] < crown.points[0]![2];
  const size = trunkLength * (hangs ? 0.075 : 0.13);
  return {
    branch: 'trunk',
    center: hangs ? pointAt(crown, lengthOf(crown) / 2).point : add(tip, [0, 0, -size * 0.15]),
    axes: [
      [1, 0, 0],
      [0, 1, 0],
      [0, 0, 1],
    ],
    // Round from above: it belongs to no bearing.
    half: [size * 0.95, size * 0.95, size * 0.5],
  };
}

/** A tree laid out on other lines: bent, say. Foliage goes along. */
export function withLines(placed: PlacedTree, lines: ReadonlyMap<string, Limb>): PlacedTree {
  const branches = placed.branches.map((b) => {
    const line = lines.get(b.branch.id) ?? b.line;
    return line === b.line ? b : { ...b, line, pad: b.pad && padOn(b.branch.id, line, b.branch.bareTo) };
  });
  const trunk = lines.get('trunk') ?? placed.trunk;
  const total = lengthOf(trunk);
  return {
    ...placed,
    trunk,
    branches,
    byId: new Map(branches.map((b) => [b.branch.id, b])),
    apexPad: placed.apexPad && apexPad(stretch(trunk, total * 0.86, total), total),
  };
}

/** Ids of a branch and of everything that grows on it. */
export function withChildren(tree: Tree, id: string): Set<string> {
  const found = new Set([id]);
  for (const each of found) for (const child of childrenOf(tree, each)) found.add(child.id);
  return found;
}

/** Direction of a branch from shoulder to tip, as bearing and elevation in degrees. */
export function slope(placed: PlacedBranch): { bearing: number; elevation: number } {
  const { points } = placed.line;
  return bearingAndElevation(sub(points[points.length - 1]!, points[0]!));
}

/** The line turned about its shoulder, so that it points (shoulder to tip) along a bearing and elevation. */
export function posed(line: Limb, to: { bearing: number; elevation: number }): Limb {
  const shoulder = line.points[0]!;
  const now = unit(sub(line.points[line.points.length - 1]!, shoulder));
  const wanted = direction({ bearingDeg: to.bearing, elevationDeg: to.elevation });
  const turn = cross(now, wanted);
  const axis = norm(turn) > 1e-9 ? unit(turn) : anySquare(now);
  const angle = angleBetween(now, wanted);
  return limb(
    line.points.map((p) => add(shoulder, rotateAbout(sub(p, shoulder), axis, angle))),
    line.diameters,
  );
}
