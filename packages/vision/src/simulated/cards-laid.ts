import { CARD_FIELDS, direction, isWhite, seeded, type LaidCard, type Pot } from '@ustle/core';

/** Cards as somebody lays them round a pot: anyhow, the first towards bearing 0. Places in mm from the pot's middle. */
export function cardsRound(pot: Pot, side: number, count = 6): ReadonlyMap<number, LaidCard> {
  const random = seeded(7 * pot.width + pot.depth);
  const out = Math.hypot(pot.width, pot.depth) / 2;
  return new Map(
    Array.from({ length: count }, (_, i): [number, LaidCard] => {
      const bearingDeg = (360 / count) * i + (i ? 16 * (random() - 0.5) : 0);
      const [x, y] = direction({ bearingDeg, elevationDeg: 0 });
      const radius = out * (0.86 + 0.1 * random()) + side * (0.85 + 0.25 * random());
      return [i, { x: radius * x, y: radius * y, turn: 2 * Math.PI * random() }];
    }),
  );
}

/** The paper round a card's black edge, as a share of its side. */
const MARGIN = 0.18;
const [PAPER, INK] = [232, 28];

/** How light a card of a side is at a place of the bench; null beside it. */
export function lightOfCard(card: number, { x: cx, y: cy, turn }: LaidCard, side: number, x: number, y: number): number | null {
  const [dx, dy] = [x - cx, y - cy];
  const u = (dx * Math.cos(turn) + dy * Math.sin(turn)) / side + 0.5;
  const v = (dy * Math.cos(turn) - dx * Math.sin(turn)) / side + 0.5;
  if (u < -MARGIN || u > 1 + MARGIN || v < -MARGIN || v > 1 + MARGIN) return null;
  const [row, column] = [Math.floor((1 - v) * CARD_FIELDS), Math.floor(u * CARD_FIELDS)];
  if (row < 0 || column < 0 || row >= CARD_FIELDS || column >= CARD_FIELDS) return PAPER;
  return isWhite(card, row, column) ? PAPER : INK;
}
