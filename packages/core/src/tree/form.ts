import { lengthOf, stretch, type Limb } from '../space/index.js';
import type { PlacedTree } from './geometry.js';
import type { Tree } from './types.js';

export const FORMS = ['upright', 'cascade', 'clump'] as const;
export type Form = (typeof FORMS)[number];

/** A growing end that falls below this share of the trunk's highest point hangs. */
const HANGS_BELOW = 0.3;
/** Stems leave the trunk within this share of its height, rise at least so steeply and are at least so thick beside it. */
const STEM = { height: 0.08, elevationDeg: 50, thickness: 0.35 };
const LEAST_STEMS = 2;

/** Branches that are stems of a clump: trunks of their own from the same base. */
export function stemsOf({ trunk, branches }: Pick<Tree, 'trunk' | 'branches'>): Set<string> {
  const top = Math.max(...trunk.map((s) => s.z));
  const stems = branches.filter(
    (b) => b.parent === 'trunk' && b.at <= STEM.height * top && b.elevation >= STEM.elevationDeg && b.d >= STEM.thickness * trunk[0]!.d,
  );
  return new Set(stems.length >= LEAST_STEMS ? stems.map((b) => b.id) : []);
}

/** What a tree was grown as, from its measures: one rising trunk, one that falls past the rim, or several stems from one base. */
export function formOf(tree: Pick<Tree, 'trunk' | 'branches'>): Form {
  const { trunk } = tree;
  const top = Math.max(...trunk.map((s) => s.z));
  if (trunk[trunk.length - 1]!.z < HANGS_BELOW * top) return 'cascade';
  return stemsOf(tree).size ? 'clump' : 'upright';
}

/** The part of the trunk that should be seen: its lower two thirds; of one that falls past the rim, all that is above the soil. */
export function seenTrunk({ tree, trunk }: Pick<PlacedTree, 'tree' | 'trunk'>): Limb {
  const total = lengthOf(trunk);
  return formOf(tree) === 'cascade' ? stretch(trunk, trunk.diameters[0]! / 2, total) : stretch(trunk, 0, (total * 2) / 3);
}
