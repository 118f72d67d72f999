import { lastOn, type Tree } from '../tree/index.js';

/** A tree repotted lately is not replanted soon: its angle can only be trimmed. Degrees of tilt to look at, in steps of 5. */
export function tiltsFor(tree: Tree, onDay: number): number[] {
  const repotted = lastOn(tree, 'repotted', onDay);
  const months = repotted === null ? Infinity : (onDay - repotted) / 30.44;
  const most = months < 18 ? 5 : 20;
  return Array.from({ length: (2 * most) / 5 + 1 }, (_, i) => i * 5 - most);
}
