import { cameraOf, depthOf, photoNear, project, type Camera } from '../sight/index.js';
import { distance, type Limb, type Point, type Vec } from '../space/index.js';
import { clamp, greatestOf, leastOf } from '../units/index.js';
import { posedLines, type BentBranch } from '../pose/index.js';
import { outcomeOf, outlinePath, placeTree, type PlacedBranch, type Tree } from '../tree/index.js';

/** A photo with what is drawn over it: outlines as SVG paths, px of the photo. */
export interface OnPhoto {
  photo: string;
  /** Counted from 1, as it is named. */
  number: number;
  width: number;
  height: number;
  /** What is shown of it, px: left, top, width and height of the tree with what stands near it. */
  box: [number, number, number, number];
  /** What goes, and what is led elsewhere as it shall lie. */
  goes: string;
  meant: string;
}

/** A branch whose end comes to lie nearer than this to where it was is not led elsewhere, mm. */
const STILL = 3;

/** A limb's outline as a camera sees it; null where part of it is behind. */
function outlineIn(camera: Camera, { points, diameters }: Limb): [Point[]] | null {
  const seen = points.map((p) => project(camera, p));
  if (seen.some((p) => p === null)) return null;
  const sides = seen.map((p, i): [Point, Point] => {
    const [before, after] = [seen[Math.max(0, i - 1)]!, seen[Math.min(seen.length - 1, i + 1)]!];
    const [x, y] = [after[0] - before[0], after[1] - before[1]];
    const half = (camera.focal * diameters[i]!) / 2 / depthOf(camera, points[i]!) / (Math.hypot(x, y) || 1);
    return [
      [p![0] - y * half, p![1] + x * half],
      [p![0] + y * half, p![1] - x * half],
    ];
  });
  return [[...sides.map(([a]) => a), ...sides.map(([, b]) => b).reverse()]];
}

/** So much of its own size a picture shows beside what it is of. */
const BESIDE = 0.08;

function boxOf(points: readonly Point[], width: number, height: number): OnPhoto['box'] {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [low, high] = [
    [leastOf(xs), leastOf(ys)],
    [greatestOf(xs), greatestOf(ys)],
  ];
  const beside = BESIDE * Math.max(high[0]! - low[0]!, high[1]! - low[1]!);
  const [left, top] = [Math.round(clamp(low[0]! - beside, 0, width)), Math.round(clamp(low[1]! - beside, 0, height))];
  return [left, top, Math.round(clamp(high[0]! + beside, 0, width)) - left, Math.round(clamp(high[1]! + beside, 0, height)) - top];
}

/** The plan drawn over the photo taken from nearest to its front; null without a front or such a photo. docs: On the photo. */
export function planOnPhoto(tree: Tree, plan: { poses: readonly BentBranch[] }): OnPhoto | null {
  const { front } = tree.plan;
  const near = front && photoNear(tree, front.bearing);
  if (!near) return null;
  const { photo, width, height, camera: kept } = near.photo;
  const camera = cameraOf(kept);
  const now = placeTree(tree);
  const after = placeTree(outcomeOf(tree).tree);
  const lines = posedLines(after, plan.poses);
  const path = (limbs: readonly Limb[]): string =>
    limbs
      .flatMap((l) => outlineIn(camera, l) ?? [])
      .map(outlinePath)
      .join('');
  const all = [now.trunk, ...now.branches.map((b) => b.line), ...lines.values()];
  const { pot } = tree;
  const seenAt = (p: Vec): Point[] => {
    const at = project(camera, p);
    return at ? [[at[0], at[1]]] : [];
  };
  const rim = [-1, 1].flatMap((x) => [-1, 1].flatMap((y) => seenAt([(x * pot.width) / 2, (y * pot.depth) / 2, -pot.height])));
  const ledTo = ({ branch, line }: PlacedBranch): Limb[] => {
    const to = lines.get(branch.id);
    return to && distance(to.points[to.points.length - 1]!, line.points[line.points.length - 1]!) > STILL ? [to] : [];
  };
  return {
    photo,
    number: near.number,
    width,
    height,
    box: boxOf([...all.flatMap((l) => outlineIn(camera, l) ?? []).flat(), ...rim], width, height),
    goes: path(now.branches.filter((b) => !after.byId.has(b.branch.id)).map((b) => b.line)),
    meant: path(after.branches.flatMap(ledTo)),
  };
}

/** A photo with what is drawn over it as SVG; `address` is where the picture comes from. */
export function onPhotoSvg({ width, height, box, goes, meant }: OnPhoto, address: string): string {
  const line = (Math.max(box[2], box[3]) / 500) * 1.2;
  const drawn = (d: string, colour: string, dashed: boolean): string => {
    const dashes = dashed ? ` stroke-dasharray="${(6 * line).toFixed(1)} ${(4 * line).toFixed(1)}"` : '';
    return d
      ? `<path d="${d}" fill="none" stroke="#fffdf6" stroke-opacity="0.9" stroke-width="${(2.2 * line).toFixed(1)}"/><path d="${d}" fill="none" stroke="${colour}" stroke-width="${line.toFixed(1)}"${dashes}/>`
      : '';
  };
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${box.join(' ')}">`,
    `<image href="${address}" xlink:href="${address}" xmlns:xlink="http://www.w3.org/1999/xlink" width="${width}" height="${height}"/>`,
    drawn(meant, '#2f4a7a', false),
    drawn(goes, '#a03a34', true),
    '</svg>',
  ].join('');
}
