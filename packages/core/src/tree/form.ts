import { greatestOf } from '../units/index.js';
import { lengthOf, stretch, type Limb } from '../space/index.js';
import type { PlacedTree } from './geometry.js';
import type { Tree } from './types.js';

export const FORMS = ['upright', 'cascade', 'twin', 'clump'] as const;
export type Form = (typeof FORMS)[number];

/** A growing end that falls below this share of the trunk's highest point hangs. */
const HANGS_BELOW = 0.3;
/** Stems leave the trunk within this share of its height, rise at least so steeply and are at least so thick beside it. */
const STEM = { height: 0.08, elevationDeg: 50, thickness: 0.35 };
/** A single one is the second of twins where it is so thick beside the trunk and so long beside its height; else a low shoot. */
const TWIN = { thickness: 0.45, length: 0.4 };

/** Branches that are stems: trunks of their own from the same base, one of twins or several of a clump. */
export function stemsOf({ trunk, branches }: Pick<Tree, 'trunk' | 'branches'>): Set<string> {
  const top = greatestOf(trunk.map((s) => s.z));
  const base = trunk[0]!.d;
  const stems = branches.filter((b) => b.parent === 'trunk' && b.at <= STEM.height * top && b.elevation >= STEM.elevationDeg && b.d >= STEM.thickness * base);
  const [only] = stems;
  const areStems = stems.length > 1 || (only !== undefined && only.d >= TWIN.thickness * base && only.length >= TWIN.length * top);
  return new Set(areStems ? stems.map((b) => b.id) : []);
}

/** What a tree was grown as, from its measures: one rising trunk, one that falls past the rim, twins or several stems from one base. */
export function formOf(tree: Pick<Tree, 'trunk' | 'branches'>): Form {
  const { trunk } = tree;
  const top = greatestOf(trunk.map((s) => s.z));
  if (trunk[trunk.length - 1]!.z < HANGS_BELOW * top) return 'cascade';
  const stems = stemsOf(tree).size;
  return stems > 1 ? 'clump' : stems ? 'twin' : 'upright';
}

const LOWER = 2 / 3;

/** The part of the trunk that should be seen: its lower two thirds; of one that falls past the rim, all that is above the soil. */
export function seenTrunk({ tree, trunk }: Pick<PlacedTree, 'tree' | 'trunk'>): Limb {
  const total = lengthOf(trunk);
  return formOf(tree) === 'cascade' ? stretch(trunk, trunk.diameters[0]! / 2, total) : stretch(trunk, 0, total * LOWER);
}

/** The other stem of twins, as much of it as of the trunk should be seen; null where there is none. */
export function seenTwin({ tree, byId }: Pick<PlacedTree, 'tree' | 'byId'>): Limb | null {
  if (formOf(tree) !== 'twin') return null;
  const [id] = stemsOf(tree);
  const { line } = byId.get(id!)!;
  return stretch(line, 0, lengthOf(line) * LOWER);
}
