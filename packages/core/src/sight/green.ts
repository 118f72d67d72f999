import { clamp, greatestOf, leastOf } from '../units/index.js';
import { lengthOf, type Limb, type Vec } from '../space/index.js';
import { addShares, placeTree, type Branch, type Tree } from '../tree/index.js';
import { project, type Camera } from './camera.js';

/** Where a photo is green: one place for each square of so many px, by rows. */
export interface GreenMask {
  step: number;
  columns: number;
  rows: number;
  green: Uint8Array;
}

/** Space is looked at in cubes of this side, mm; coarser where it is so large that there would be more than so many. */
const CELL = 6;
const MOST_CELLS = 500_000;
/** Foliage reaches so far beyond the wood, as a share of the tree's height. */
const BEYOND = 0.09;
/** A place is foliage where at least so many photos see it, and such a share of them green. */
const FEWEST = 3;
const GREEN_IN = 0.86;
/** What is farther from a branch than such a share of its length and so many mm belongs to none of them. */
const BELONGS = { share: 0.25, mm: 30 };
/** A branch is bare up to where so little of its foliage lies. */
const LOWEST = 0.06;
/** Less than this of all foliage is none. */
const NOTHING = 0.004;

/** Points along a line, each as a share of its length, near enough to each other to tell a distance. */
function spotsOf(line: Limb): { share: number; at: Vec }[] {
  const total = lengthOf(line) || 1;
  return line.points.flatMap((b, i) => {
    if (!i) return [{ share: 0, at: b }];
    const a = line.points[i - 1]!;
    const [from, to] = [line.along[i - 1]!, line.along[i]!];
    const count = Math.max(1, Math.ceil((to - from) / 12));
    return Array.from({ length: count }, (_, k) => {
      const t = (k + 1) / count;
      return { share: (from + t * (to - from)) / total, at: [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1]), a[2] + t * (b[2] - a[2])] as Vec };
    });
  });
}

const isGreen = ({ step, columns, rows, green }: GreenMask, x: number, y: number): boolean | null => {
  const [c, r] = [Math.floor(x / step), Math.floor(y / step)];
  return c < 0 || r < 0 || c >= columns || r >= rows ? null : green[r * columns + c] === 1;
};

export interface FoundGreen {
  /** Of each branch: its share of all foliage, and the part of its length without. */
  byBranch: Map<string, { green: number; bareTo: number }>;
  /** What belongs to no branch: the crown's. */
  rest: number;
}

/** The foliage of a tree as its photos show it: space is carved by where they are green, each place belongs to the nearest branch. Null where too few photos tell. docs: Photographs. */
export function greenOf(tree: Tree, masks: ReadonlyMap<string, GreenMask>, cameras: ReadonlyMap<string, Camera>): FoundGreen | null {
  const seen = [...masks].flatMap(([photo, mask]) => {
    const camera = cameras.get(photo);
    return camera ? [{ camera, mask }] : [];
  });
  if (seen.length < FEWEST) return null;
  const placed = placeTree(tree);
  const beyond = BEYOND * placed.height;
  const wood = [
    { id: null, length: lengthOf(placed.trunk), spots: spotsOf(placed.trunk) },
    ...placed.branches.map((b) => ({ id: b.branch.id, length: lengthOf(b.line), spots: spotsOf(b.line) })),
  ];
  const all = wood.flatMap((w) => w.spots.map((s) => s.at));
  const box = [0, 1, 2].map((k) => ({ low: leastOf(all.map((p) => p[k]!)) - beyond, high: greatestOf(all.map((p) => p[k]!)) + beyond }));
  // Moss on the soil is not the tree's.
  if (box[2]!.high > 0) box[2]!.low = Math.max(box[2]!.low, leastOf(all.map((p) => p[2])) < -CELL ? box[2]!.low : 0.04 * placed.height);
  const size = Math.max(CELL, Math.cbrt(box.reduce((v, { low, high }) => v * (high - low), 1) / MOST_CELLS));
  const along = new Map<string | null, number[]>();
  for (let z = box[2]!.low + size / 2; z < box[2]!.high; z += size)
    for (let y = box[1]!.low + size / 2; y < box[1]!.high; y += size)
      for (let x = box[0]!.low + size / 2; x < box[0]!.high; x += size) {
        const place: Vec = [x, y, z];
        let [by, green] = [0, 0];
        for (const { camera, mask } of seen) {
          const px = project(camera, place);
          const is = px && isGreen(mask, px[0], px[1]);
          if (is === null) continue;
          by++;
          if (is) green++;
          else if (by - green > (1 - GREEN_IN) * seen.length) break;
        }
        if (by < FEWEST || green < GREEN_IN * by) continue;
        let nearest = { id: null as string | null, share: 0, off: Infinity };
        for (const { id, length, spots } of wood)
          for (const { share, at } of spots) {
            const off = Math.hypot(x - at[0], y - at[1], z - at[2]);
            if (off < nearest.off && (id === null || off < BELONGS.share * length + BELONGS.mm)) nearest = { id, share, off };
          }
        const own = along.get(nearest.id);
        if (own) own.push(nearest.share);
        else along.set(nearest.id, [nearest.share]);
      }
  const total = [...along.values()].reduce((sum, own) => sum + own.length, 0);
  if (!total) return null;
  const byBranch = new Map(
    placed.branches.map(({ branch: { id } }) => {
      const own = (along.get(id) ?? []).sort((a, b) => a - b);
      const green = own.length / total;
      return [id, green < NOTHING ? { green: 0, bareTo: 1 } : { green, bareTo: own[Math.floor(LOWEST * own.length)]! }] as const;
    }),
  );
  return { byBranch, rest: (along.get(null)?.length ?? 0) / total };
}

/** The branches of a tree with the foliage that was found; dead ones have none. Shares are rounded down: they never add up to more than the tree. */
export function withGreen(tree: Tree, { byBranch }: FoundGreen): Branch[] {
  const branches = tree.branches.map((b) => {
    const found = b.state === 'dead' ? undefined : byBranch.get(b.id);
    return found ? { ...b, green: Math.floor(1000 * found.green) / 1000, bareTo: clamp(Math.round(100 * found.bareTo) / 100, 0, 1) } : { ...b, green: 0 };
  });
  const sum = branches.reduce((s, b) => addShares(s, b.green), 0);
  return sum <= 1 ? branches : branches.map((b) => ({ ...b, green: Math.floor((1000 * b.green) / sum) / 1000 }));
}
