/** Keys of the stages, in their order: the row of digits as it lies on a keyboard, and the two behind it. */
export const STAGE_KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9', '0', '-', '='] as const;

const EDGE = 30;
/** From node to node: a name of seven letters and the next one beside each other. */
const WIDE = 65;
const CLOSE = 57;
/** So many stages stand wide apart. */
const MOST_WIDE = 9;

export interface Stem {
  width: number;
  /** Room for the name of one stage. */
  step: number;
  nodes: readonly { x: number; y: number }[];
}

/** The stem of so many stages, px: it grows from left to right, and rises less as it goes. */
export function stemOf(count: number): Stem {
  const step = count > MOST_WIDE ? CLOSE : WIDE;
  const last = Math.max(1, count - 1);
  const nodes = Array.from({ length: count }, (_, i) => ({ x: EDGE + i * step, y: 30 - 5 * Math.sin((i / last) * Math.PI * 1.5) - (i * 9.6) / last }));
  return { width: 2 * EDGE + last * step, step, nodes };
}
