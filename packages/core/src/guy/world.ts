import type { Keep } from '../units/index.js';
import type { Limb, View } from '../space/index.js';
import type { Bark } from '../species/index.js';
import type { Branch, Feature, Pot, Root } from '../tree/index.js';
import type { Wood } from '../wood/index.js';

/** A tree as guys find it: posed, on its table, at its planting angle; lines by the id of the branch, and "trunk". */
export interface GuyWorld {
  lines: ReadonlyMap<string, Limb>;
  branches: ReadonlyMap<string, Branch>;
  trunk: Limb;
  pot: Pot;
  roots: readonly Root[];
  features: readonly Feature[];
  wood: Wood;
  /** Bend ratio of its kind, mm of radius for each mm of thickness. */
  bendRatio: number;
  bark: Bark;
  front: View | null;
  /** What was worked out before. */
  keep: Keep;
}
