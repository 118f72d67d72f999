import { greatestOf, leastOf } from '../units/index.js';
import { smooth, viewer, type Limb, type Point, type Vec } from '../space/index.js';
import { placeTree, withLines, type Pad, type PlacedTree } from './geometry.js';
import { outcomeOf } from './outcome.js';
import type { Tree } from './types.js';

/** Outline of a tree from its front, for small pictures: SVG path data in a box 100 × 100, standing on the bottom edge. */
export interface Silhouette {
  wood: string;
  foliage: string;
  pot: string;
}

/** A closed outline as path data: the first point, then steps from each to the next, which are shorter to write. */
export function outlinePath(points: readonly Point[]): string {
  const tenths = points.map(([x, y]): Point => [Math.round(x * 10), Math.round(y * 10)]);
  const steps = tenths.slice(1).map(([x, y], i) => `${(x - tenths[i]![0]) / 10} ${(y - tenths[i]![1]) / 10}`);
  return `M${tenths[0]![0] / 10} ${tenths[0]![1] / 10}l${steps.join(' ')}z`;
}

/** Outline of a tapered line on the screen. */
function strip(line: Limb, see: (p: Vec) => Vec): Point[] {
  const points = line.points.map(see);
  const sides = points.map((p, i): { left: Point; right: Point } => {
    const a = points[Math.max(0, i - 1)]!;
    const b = points[Math.min(points.length - 1, i + 1)]!;
    const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
    const r = line.diameters[i]! / 2;
    const [nx, ny] = [(-(b[1] - a[1]) / length) * r, ((b[0] - a[0]) / length) * r];
    return { left: [p[0] + nx, p[1] + ny], right: [p[0] - nx, p[1] - ny] };
  });
  return [...sides.map((s) => s.left), ...sides.map((s) => s.right).reverse()];
}

const PAD_POINTS = 10;

/** A pad as a polygon: the outline of its ellipsoid, near enough at this size. */
function padOutline(pad: Pad, see: (p: Vec) => Vec): Point[] {
  const center = see(pad.center);
  const reach = pad.axes.map((axis, k): Vec => {
    const tip = see([pad.center[0] + axis[0] * pad.half[k]!, pad.center[1] + axis[1] * pad.half[k]!, pad.center[2] + axis[2] * pad.half[k]!]);
    return [tip[0] - center[0], tip[1] - center[1], 0];
  });
  const wide = Math.hypot(...reach.map((v) => v[0]));
  const tall = Math.hypot(...reach.map((v) => v[1]));
  return Array.from({ length: PAD_POINTS }, (_, i): Point => {
    const a = (i / PAD_POINTS) * 2 * Math.PI;
    return [center[0] + wide * Math.cos(a), center[1] + tall * Math.sin(a)];
  });
}

/** Shapes of a tree as its front sees them, mm: x to the right, y up from the soil. */
export interface Shapes {
  wood: { id: string; points: Point[] }[];
  pads: { id: string; points: Point[] }[];
  pot: Point[];
}

/** The outlines of a laid out tree from its front (or from bearing 0). */
export function shapesOf({ tree, trunk, branches, apexPad }: PlacedTree): Shapes {
  const see = viewer(tree.plan.front ?? { bearing: 0, pitch: 0, roll: 0 });
  const { width, height } = tree.pot;
  const pads = branches.flatMap((b) => (b.pad ? [{ id: b.branch.id, points: padOutline(b.pad, see) }] : []));
  return {
    wood: [{ id: 'trunk', points: strip(smooth(trunk, 3), see) }, ...branches.map((b) => ({ id: b.branch.id, points: strip(b.line, see) }))],
    pads: [...pads, ...(apexPad ? [{ id: 'trunk', points: padOutline(apexPad, see) }] : [])],
    pot: [
      [-width / 2, 0],
      [width / 2, 0],
      [width * 0.42, -height],
      [-width * 0.42, -height],
    ],
  };
}

/** How shapes are fitted into a box so large, standing on its bottom edge. */
export function fitInto(points: readonly Point[], box: number): (p: Point) => Point {
  const [left, right] = [leastOf(points.map((p) => p[0])), greatestOf(points.map((p) => p[0]))];
  const [low, high] = [leastOf(points.map((p) => p[1])), greatestOf(points.map((p) => p[1]))];
  const scale = box / Math.max(right - left, high - low);
  return ([x, y]) => [box / 2 + (x - (left + right) / 2) * scale, box - (y - low) * scale];
}

/** The shapes of a tree without what the plan takes off, and how they are fitted into the small picture's box. */
function fitted(tree: Tree, lines?: ReadonlyMap<string, Limb>): Shapes & { fit: (p: Point) => Point } {
  const after = placeTree(outcomeOf(tree).tree);
  const shapes = shapesOf(lines ? withLines(after, lines) : after);
  return { ...shapes, fit: fitInto([...[...shapes.wood, ...shapes.pads].flatMap((s) => s.points), ...shapes.pot], 100) };
}

/** The outlines of single branches, or the trunk, in the box of the tree's small picture; also of what the plan takes off. */
export function outlinesIn(placed: PlacedTree, ids: ReadonlySet<string>): Map<string, string> {
  const { fit } = fitted(placed.tree);
  return new Map(shapesOf(placed).wood.flatMap(({ id, points }) => (ids.has(id) ? [[id, outlinePath(points.map(fit))] as const] : [])));
}

/** A tree as one sees it who stands so many quarter turns to the right of its front. */
export const seenFrom = (tree: Tree, quarters: number): Tree => {
  const front = tree.plan.front ?? { bearing: 0, pitch: 0, roll: 0 };
  return quarters === 0 ? tree : { ...tree, plan: { ...tree.plan, front: { bearing: (front.bearing + 360 - 90 * quarters) % 360, pitch: 0, roll: 0 } } };
};

/** A small picture of the tree from its front (or from bearing 0), what the plan takes off left out; with other lines for its branches, as those have it. */
export function silhouetteOf(tree: Tree, lines?: ReadonlyMap<string, Limb>): Silhouette {
  const { wood, pads, pot, fit } = fitted(tree, lines);
  const joined = (shapes: readonly { points: Point[] }[]): string => shapes.map((s) => outlinePath(s.points.map(fit))).join('');
  return { wood: joined(wood), foliage: joined(pads), pot: outlinePath(pot.map(fit)) };
}
