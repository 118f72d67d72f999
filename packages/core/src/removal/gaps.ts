import { greatestOf, leastOf, toDeg } from '../units/index.js';
import {
  add,
  angleBetween,
  direction,
  distances,
  dot,
  hull,
  lengthOf,
  norm,
  paint,
  scale,
  sub,
  viewer,
  type Grid,
  type Point,
  type Vec,
  type View,
} from '../space/index.js';
import { speciesOf } from '../species/index.js';
import { bendRisk, safeBendRatio } from '../wood/index.js';
import { placeTree, slope, treeOn, type Gap, type GapFill, type Pad, type PlacedBranch, type PlacedTree } from '../tree/index.js';

const CELLS = 48;
/** A hole narrower than this share of the tree's height is the air between pads. */
const LEAST_WIDTH = 0.12;
const MOST_GAPS = 3;
const MOST_TURN_DEG = 75;
const NEVER_RISK = 1.6;

const OUTLINE: readonly Point[] = Array.from({ length: 12 }, (_, i): Point => [Math.cos((i / 6) * Math.PI), Math.sin((i / 6) * Math.PI)]);

/** Outline of an ellipsoid on a plane: its farthest point along each of some directions. */
function outline(pad: Pad, see: (p: Vec) => Point): Point[] {
  const [cx, cy] = see(pad.center);
  const arms = pad.axes.map((axis, k) => see(add(pad.center, scale(axis, pad.half[k]!))));
  return OUTLINE.map(([c, s]): Point => {
    let [x, y, length] = [0, 0, 0];
    for (const arm of arms) {
      const [ax, ay] = [arm[0] - cx, arm[1] - cy];
      const along = ax * c + ay * s;
      x += ax * along;
      y += ay * along;
      length += along * along;
    }
    const by = Math.sqrt(length) || 1;
    return [cx + x / by, cy + y / by];
  });
}

const padsOf = (placed: PlacedTree): Pad[] => [...placed.branches.flatMap((b) => (b.pad ? [b.pad] : [])), ...(placed.apexPad ? [placed.apexPad] : [])];

/** The largest empty circles within the outline that the foliage had before: middle, radius, and the radius before. */
function holes(before: PlacedTree, after: PlacedTree, see: (p: Vec) => Point): { center: Point; radius: number; was: number }[] {
  const [shapesBefore, shapesAfter] = [padsOf(before), padsOf(after)].map((pads) => pads.map((p) => outline(p, see))) as [Point[][], Point[][]];
  const envelope = hull(shapesBefore.flat());
  if (envelope.length < 3) return [];
  const [xs, ys] = [envelope.map((p) => p[0]), envelope.map((p) => p[1])];
  const [left, bottom] = [leastOf(xs), leastOf(ys)];
  const cell = Math.max(greatestOf(xs) - left, greatestOf(ys) - bottom) / CELLS;
  const grid: Grid = {
    cell,
    columns: Math.max(1, Math.ceil((greatestOf(xs) - left) / cell)),
    rows: Math.max(1, Math.ceil((greatestOf(ys) - bottom) / cell)),
    at: (c, r) => [left + (c + 0.5) * cell, bottom + (r + 0.5) * cell],
  };
  const within = paint([envelope], grid, left, bottom);
  const free = (shapes: readonly Point[][]): Float64Array => {
    const covered = paint(shapes, grid, left, bottom);
    return distances(
      within.map((w, i) => (w && !covered[i] ? 1 : 0)),
      grid,
    );
  };
  const [now, was] = [free(shapesAfter), free(shapesBefore)];
  const found: { center: Point; radius: number; was: number }[] = [];
  const least = (LEAST_WIDTH / 2) * before.height;
  while (found.length < MOST_GAPS) {
    let best = -1;
    now.forEach((d, i) => {
      if (best >= 0 && d <= now[best]!) return;
      const p = grid.at(i % grid.columns, Math.floor(i / grid.columns));
      if (found.every((f) => Math.hypot(f.center[0] - p[0], f.center[1] - p[1]) > 1.5 * f.radius)) best = i;
    });
    const radius = best < 0 ? 0 : now[best]! * cell;
    if (radius < least) break;
    found.push({ center: grid.at(best % grid.columns, Math.floor(best / grid.columns)), radius, was: was[best]! * cell });
  }
  return found;
}

/** Whether a branch could bring its foliage to a place: long enough, within a turn that its wood takes. */
function fillBy(placed: PlacedTree, b: PlacedBranch, target: Vec): GapFill {
  const shoulder = b.line.points[0]!;
  const { bearing, elevation } = slope(b);
  const way = sub(target, shoulder);
  const length = lengthOf(b.line);
  const turnDeg = toDeg(angleBetween(direction({ bearingDeg: bearing, elevationDeg: elevation }), way));
  const shortBy = Math.max(0, norm(way) - length);
  const k0 = speciesOf(placed.tree.species).bendRatio.value;
  const over = Math.max(length * 0.5, b.branch.d * safeBendRatio(k0, b.branch.d, 'both'));
  const risk = bendRisk({ diameter: b.branch.d, angleDeg: Math.max(1, turnDeg), length: over, k0, protection: 'both' });
  const bends = turnDeg <= MOST_TURN_DEG && risk <= NEVER_RISK;
  const because =
    shortBy > 0
      ? `${shortBy.toFixed(0)} mm short`
      : bends
        ? `reaches it, turned by ${turnDeg.toFixed(0)}°`
        : `long enough, but would have to turn by ${turnDeg.toFixed(0)}°, which is too far`;
  return { branch: b.branch.id, reaches: shortBy === 0 && bends, shortBy, turnDeg, because };
}

function fills(after: PlacedTree, targetFor: (b: PlacedBranch) => Vec): GapFill[] {
  return after.branches
    .filter((b) => b.order === 1 && b.pad)
    .map((b) => fillBy(after, b, targetFor(b)))
    .sort((a, b) => Number(b.reaches) - Number(a.reaches) || a.shortBy + a.turnDeg - (b.shortBy + b.turnDeg) || (a.branch < b.branch ? -1 : 1))
    .slice(0, 3);
}

/** The largest holes in the outline after the plan's cuts, from the front and from above, and who could fill each. docs: Gap map. */
export function gapMap(before: PlacedTree, after: PlacedTree, front: View): Gap[] {
  const see = viewer(front);
  // Where the screen's axes lie in the tree: the tilt turned back.
  const axes = ([0, 1, 2] as const).map((k): Vec => [see([1, 0, 0])[k], see([0, 1, 0])[k], see([0, 0, 1])[k]]) as [Vec, Vec, Vec];
  const back = (x: number, y: number, depth: number): Vec => add(add(scale(axes[0], x), scale(axes[1], y)), scale(axes[2], depth));
  const tip = (b: PlacedBranch): Vec => b.line.points[b.line.points.length - 1]!;
  const gap = (seen: Gap['seen'], h: { radius: number; was: number }, center: Vec, targetFor: (b: PlacedBranch) => Vec): Gap => ({
    seen,
    center,
    radius: h.radius,
    opened: h.was < 0.7 * h.radius,
    fills: fills(after, targetFor),
  });
  const fromFront = holes(before, after, (p) => {
    const [x, y] = see(p);
    return [x, y];
  }).map((h) =>
    // A branch keeps its depth when it is led across the picture.
    gap('front', h, back(h.center[0], h.center[1], 0), (b) => back(h.center[0], h.center[1], dot(axes[2], tip(b)))),
  );
  const inner = 0.16 * before.height;
  const fromAbove = holes(before, after, (p) => [p[0], p[1]])
    .filter((h) => Math.hypot(...h.center) > inner)
    .map((h) => gap('above', h, [h.center[0], h.center[1], before.height * 0.5], (b) => [h.center[0], h.center[1], tip(b)[2]]));
  return [...fromFront, ...fromAbove];
}

/** For so long a gap that a cut opened is still to be closed, days. */
const OPEN_DAYS = 365;
const LEVEL = { bearing: 0, pitch: 0, roll: 0 };

/** The gaps in the outline as the plan's cuts leave it: what these open, and what the cuts of the past year opened. docs: Gap map. */
export function openGaps(placed: PlacedTree, after: PlacedTree, onDay: number): Gap[] {
  const earlier = treeOn(placed.tree, onDay - OPEN_DAYS);
  return gapMap(earlier === placed.tree ? placed : placeTree(earlier), after, placed.tree.plan.front ?? LEVEL);
}
