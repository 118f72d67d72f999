import { angleBetween, closestBetween, distance, lengthOf, limb, sub, type Limb, type Vec } from '../space/index.js';
import { toDeg } from '../units/index.js';
import type { Branch, Station } from './measures.js';

/** What wood can be: the length of its line (mm), its turn at one point (degrees), and its points, for each mm. Beyond is a slip, or no wood. */
const LONGEST = { branch: 4000, trunk: 8000 };
const SHARPEST_DEG = 150;
const MOST_POINTS_PER_MM = 4;
/** Stretches of a line that are so many thicknesses apart along it may come near each other, but not into each other by more than this share. */
const APART = 4;
const MAY_OVERLAP = 0.6;
const ROUNDED = 1.02;

/** Where a line runs through itself by more than bark grown together may: the number of the point, null where it does not. */
function crossesItself({ points, diameters, along }: Limb): number | null {
  const part = (i: number): Limb => limb([points[i - 1]!, points[i]!], [diameters[i - 1]!, diameters[i]!]);
  for (let i = 1; i < points.length; i++) {
    for (let k = i + 2; k < points.length; k++) {
      if (along[k - 1]! - along[i]! < APART * Math.max(diameters[i]!, diameters[k]!)) continue;
      const radii = (diameters[i]! + diameters[k]!) / 2;
      // Most are far apart by their ends already.
      if (distance(points[i]!, points[k]!) > along[i]! - along[i - 1]! + (along[k]! - along[k - 1]!) + radii) continue;
      if ((closestBetween(part(i), part(k))?.gap ?? 0) < -MAY_OVERLAP * radii) return k;
    }
  }
  return null;
}

/** Why a line of points cannot be wood; null where it can. */
function faultOfLine(line: Limb, longest: number): { at: number; message: string } | null {
  const { points } = line;
  const length = lengthOf(line);
  if (length > longest * ROUNDED) return { at: points.length - 1, message: `Its points lead along ${Math.round(length)} mm; at most ${longest} mm is taken.` };
  if (points.length - 1 > MOST_POINTS_PER_MM * Math.max(length, 1))
    return { at: points.length - 1, message: `It has ${points.length} points on ${length.toFixed(1)} mm: at most ${MOST_POINTS_PER_MM} for each mm.` };
  for (let i = 1; i + 1 < points.length; i++) {
    const [before, after]: [Vec, Vec] = [sub(points[i]!, points[i - 1]!), sub(points[i + 1]!, points[i]!)];
    const turn = toDeg(angleBetween(before, after));
    if (turn > SHARPEST_DEG) return { at: i, message: `It turns back on itself by ${Math.round(turn)}° at one point: no wood does.` };
  }
  const crossing = crossesItself(line);
  return crossing === null ? null : { at: crossing, message: 'It runs through itself there: no wood does.' };
}

type Fault = { at: number; message: string } | null;
const judged = new WeakMap<object, Fault>();
const once = (of: object, judge: () => Fault): Fault => {
  if (!judged.has(of)) judged.set(of, judge());
  return judged.get(of)!;
};

/** Why the points of a crooked branch cannot be wood, with the number of the point; each branch is judged once. docs: Geometry. */
export function branchShapeFault(branch: Branch): Fault {
  const { path, d, tipD } = branch;
  if (!path) return null;
  return once(branch, () =>
    faultOfLine(
      limb(
        path,
        path.map((_, i) => d + ((tipD - d) * i) / Math.max(1, path.length - 1)),
      ),
      LONGEST.branch,
    ),
  );
}

/** The same of a trunk. */
export const trunkShapeFault = (trunk: readonly Station[]): Fault =>
  once(trunk, () =>
    faultOfLine(
      limb(
        trunk.map(({ x, y, z }): Vec => [x, y, z]),
        trunk.map((s) => s.d),
      ),
      LONGEST.trunk,
    ),
  );
