import type { Px } from '../tree/index.js';

/** A card found in a picture: its corners clockwise from its own upper left, px. */
export interface SeenCard {
  card: number;
  corners: readonly [Px, Px, Px, Px];
}

/** A picture as cameras are worked out from it: its size, a first guess of its focal length (px), and the cards found in it. */
export interface SeenPhoto {
  photo: string;
  width: number;
  height: number;
  focalGuess: number;
  cards: readonly SeenCard[];
}

/** Where a card lies in the plane of the cards: its middle and how it is turned, radians. */
export interface LaidCard {
  x: number;
  y: number;
  turn: number;
}

/** The corners of a card of a side (mm) as it lies, clockwise from its own upper left, seen from above. */
export function cornersOf({ x, y, turn }: LaidCard, side: number): [Px, Px, Px, Px] {
  const h = side / 2;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return (
    [
      [-h, h],
      [h, h],
      [h, -h],
      [-h, -h],
    ] as const
  ).map(([u, v]): Px => [x + c * u - s * v, y + s * u + c * v]) as [Px, Px, Px, Px];
}

/** The place that fits corners seen in the plane best; how far they are from it, mm (root mean square). */
export function laidAt(corners: readonly Px[], side: number): { card: LaidCard; off: number } {
  const middle = [0, 1].map((i) => corners.reduce((sum, c) => sum + c[i]! / 4, 0)) as [number, number];
  const own = cornersOf({ x: 0, y: 0, turn: 0 }, side);
  let [along, across] = [0, 0];
  own.forEach(([u, v], i) => {
    const [x, y] = [corners[i]![0] - middle[0], corners[i]![1] - middle[1]];
    along += u * x + v * y;
    across += u * y - v * x;
  });
  const card = { x: middle[0], y: middle[1], turn: Math.atan2(across, along) };
  const laid = cornersOf(card, side);
  const off = Math.sqrt(laid.reduce((sum, [x, y], i) => sum + (x - corners[i]![0]) ** 2 + (y - corners[i]![1]) ** 2, 0) / 4);
  return { card, off };
}

/** Whether the corners run round the wrong way: a card is never seen from behind, so the picture is mirrored. */
export function isMirrored({ corners }: SeenCard): boolean {
  const twice = corners.reduce((sum, [x, y], i) => {
    const [nx, ny] = corners[(i + 1) % 4]!;
    return sum + x * ny - nx * y;
  }, 0);
  // Clockwise on a screen, whose y runs down, is a positive area.
  return twice < 0;
}
