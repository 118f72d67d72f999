import { add, distance, scale, type Vec } from '../space/index.js';

const DEGREE = 3;

/** The knots of a cubic that begins and ends at its outer control points. */
const knotsOf = (count: number): number[] => Array.from({ length: count + DEGREE + 1 }, (_, i) => Math.min(1, Math.max(0, (i - DEGREE) / (count - DEGREE))));

/** How much each control point counts at the shares of a curve: for each share a row (de Boor). */
function weightsAt(count: number, shares: readonly number[]): number[][] {
  const knots = knotsOf(count);
  return shares.map((share) => {
    const t = Math.min(share, 1 - 1e-12);
    let row = Array.from({ length: count + DEGREE }, (_, i): number => (knots[i]! <= t && t < knots[i + 1]! ? 1 : 0));
    for (let d = 1; d <= DEGREE; d++)
      row = row.slice(0, count + DEGREE - d).map((_, i) => {
        const [a, b] = [knots[i + d]! - knots[i]!, knots[i + d + 1]! - knots[i + 1]!];
        return (a > 0 ? ((t - knots[i]!) / a) * row[i]! : 0) + (b > 0 ? ((knots[i + d + 1]! - t) / b) * row[i + 1]! : 0);
      });
    return row.slice(0, count);
  });
}

const STEPS = 24;
const known = new Map<number, number[][]>();

/** How much each of so many control points counts at each of the curve's points. */
export function curveWeights(count: number): readonly (readonly number[])[] {
  let weights = known.get(count);
  if (!weights)
    known.set(
      count,
      (weights = weightsAt(
        count,
        Array.from({ length: STEPS + 1 }, (_, i) => i / STEPS),
      )),
    );
  return weights;
}

/** A cubic through space from its control points (four or more), as points along it at even shares. */
export function curveThrough(control: readonly Vec[]): Vec[] {
  return curveWeights(control.length).map((row) => row.reduce<Vec>((sum, w, i) => (w ? add(sum, scale(control[i]!, w)) : sum), [0, 0, 0]));
}

/** Length of points joined, mm. */
export const lengthAlong = (points: readonly Vec[]): number => points.slice(1).reduce((sum, p, i) => sum + distance(points[i]!, p), 0);

/** The place at a share of the length of points joined. */
export function placeAt(points: readonly Vec[], share: number): Vec {
  const wanted = share * lengthAlong(points);
  let gone = 0;
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1]!, points[i]!];
    const step = distance(a, b);
    if (gone + step >= wanted && step > 0) return add(a, scale(add(b, scale(a, -1)), (wanted - gone) / step));
    gone += step;
  }
  return points[points.length - 1]!;
}
