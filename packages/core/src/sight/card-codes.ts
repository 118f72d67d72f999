/** Cards are squares of so many fields to a side, a black one round all others. */
export const CARD_FIELDS = 6;

/** The codes of cards 0 to 11, four rows of four fields, white is 1: the first of the ordinary 4×4 dictionary with fifty words. */
export const CARD_CODES: readonly number[] = [0xb532, 0x0f9a, 0x332d, 0x9946, 0x549e, 0x79cd, 0x9e2e, 0xc4f2, 0xfeda, 0xcf56, 0xf991, 0x11a7];

/** Whether a field of a card is white; rows from above, columns from the left, the black edge counted. */
export function isWhite(card: number, row: number, column: number): boolean {
  const inside = (i: number): boolean => i > 0 && i < CARD_FIELDS - 1;
  if (!inside(row) || !inside(column)) return false;
  return ((CARD_CODES[card]! >> (15 - (4 * (row - 1) + column - 1))) & 1) === 1;
}
