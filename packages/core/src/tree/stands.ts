import type { Branch, Station } from './measures.js';
import type { BendInSpace } from './planned-pose.js';
import type { Tree } from './types.js';

/** A bend that was made and stands: `angle` is what it has now, `handDeg` what the hand bent it to; `toward` in the tree's own space. */
export interface MadeBend extends BendInSpace {
  handDeg: number;
}

/** What was bent of a branch, or the trunk, under what holds it now. */
export interface HeldShape {
  /** The bends made last, one with another; `further`: on others made before them under the same wire. */
  made: readonly MadeBend[];
  further: boolean;
  /** The pose that it was placed to, in the world; null: bent, and not placed yet. */
  placed: { bearing: number | null; elevation: number | null } | null;
}

/** What a tree that stands as it was bent keeps beside its lines. */
export interface Stands {
  /** Day number up to which the record counts. */
  day: number;
  branches: readonly Branch[];
  trunk: readonly Station[];
  held: Readonly<Record<string, HeldShape>>;
  /** The trunk without what is held of it now. */
  layTrunk: readonly Station[];
  /** How far a branch that was bent may point elsewhere than it is drawn, degrees to either side. */
  unsure: Readonly<Record<string, number>>;
}

/** A tree as it was measured, whatever was bent since. */
export function asMeasured(tree: Tree): Tree {
  if (!tree.stands) return tree;
  const { stands, ...rest } = tree;
  return { ...rest, branches: [...stands.branches], trunk: [...stands.trunk] };
}

/** What was bent of a branch under what holds it now; undefined where nothing was, or it came off. */
export const heldShapeOf = ({ stands }: Tree, branch: string): HeldShape | undefined => stands?.held[branch];
