import { dayOf } from '../units/index.js';
import type { Tree } from '../tree/index.js';

/** A tree repotted lately is not replanted soon: its angle can only be trimmed. Degrees of tilt to look at, in steps of 5. */
export function tiltsFor(tree: Tree, onDay: number): number[] {
  const months = tree.repottedOn ? (onDay - dayOf(tree.repottedOn)) / 30.44 : Infinity;
  const most = months < 18 ? 5 : 20;
  return Array.from({ length: (2 * most) / 5 + 1 }, (_, i) => i * 5 - most);
}
