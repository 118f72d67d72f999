import { add, cross, direction, scale, sub, seeded, toRad, unit, type Camera, type PlacedTree, type Vec } from '@ustle/core';

/** A picture's size, px. */
export interface Size {
  width: number;
  height: number;
}

/** A camera at a place that looks at another, held so many degrees askew. */
export function lookingAt(at: Vec, target: Vec, askewDeg: number, lens: Pick<Camera, 'focal' | 'k1' | 'centre'>): Camera {
  const forward = unit(sub(target, at));
  const level = unit(cross(forward, [0, 0, 1]));
  const below = cross(forward, level);
  const [c, s] = [Math.cos(toRad(askewDeg)), Math.sin(toRad(askewDeg))];
  const right = add(scale(level, c), scale(below, s));
  return { at, right, down: cross(forward, right), forward, ...lens };
}

/** The lens of a phone: as wide as 26 mm on film, a little bent, its middle a little off. */
const ON_35MM = 26;
const FILM_WIDTH = 36;
export const lensOf = ({ width, height }: Size): Pick<Camera, 'focal' | 'k1' | 'centre'> => ({
  focal: (ON_35MM / FILM_WIDTH) * Math.max(width, height),
  k1: 0.018,
  centre: [width / 2 + 4, height / 2 - 3],
});
export const FOCAL_ON_35MM = ON_35MM;

/** A hand-held camera before a tree, with its cards or without: from a bearing, looking so many degrees down, so near that all is in the picture. */
export function heldAt(placed: PlacedTree, reach: { radius: number; cards: boolean }, bearing: number, downDeg: number, size: Size, seed: number): Camera {
  const random = seeded(seed);
  const lens = lensOf(size);
  const tall = placed.height + placed.tree.pot.height;
  const half = Math.min(size.width, size.height) / 2 / lens.focal;
  const radius = Math.max(reach.radius, 0.62 * tall);
  const away = (radius / Math.sin(Math.atan(half))) * ((reach.cards ? 1.12 : 0.86) + 0.08 * random());
  const middle: Vec = [0, 0, 0.42 * placed.height - placed.tree.pot.height];
  const from = direction({ bearingDeg: bearing + 6 * (random() - 0.5), elevationDeg: downDeg + 4 * (random() - 0.5) });
  const aside: Vec = [24 * (random() - 0.5), 24 * (random() - 0.5), 24 * (random() - 0.5)];
  return lookingAt(add(middle, scale(from, away)), add(middle, aside), 5 * (random() - 0.5), lens);
}
