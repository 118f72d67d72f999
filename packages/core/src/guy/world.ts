import { keepNothing, type Keep } from '../units/index.js';
import type { Limb, View } from '../space/index.js';
import { speciesOf, woodOf, type Bark } from '../species/index.js';
import type { Branch, Feature, Pot, Root, Tree } from '../tree/index.js';
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

/** A tree on lines in the world, by branch and "trunk", as guys find it. */
export function worldOn(tree: Tree, lines: ReadonlyMap<string, Limb>, keep: Keep = keepNothing): GuyWorld {
  const species = speciesOf(tree.species);
  return {
    lines,
    branches: new Map(tree.branches.map((b) => [b.id, b])),
    trunk: lines.get('trunk')!,
    pot: tree.pot,
    roots: tree.roots,
    features: tree.features,
    wood: woodOf(species),
    bendRatio: species.bendRatio.value,
    bark: species.bark,
    front: tree.plan.front ?? null,
    keep,
  };
}
