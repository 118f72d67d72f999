import { sayDay } from '../units/index.js';
import { speciesOf } from '../species/index.js';
import type { OnPhoto, PieceStrip } from '../plan/index.js';
import type { Silhouette, Tree } from '../tree/index.js';

/** A part of a paper: what stands on it, from top to bottom. */
export interface Section {
  head: string;
  text?: string[];
  /** Names and values in two columns. */
  facts?: [string, string][];
  /** A line each, to be ticked on paper. */
  ticks?: { head: string; text: string[] }[];
  list?: string[];
  pictures?: { caption: string; picture: Silhouette }[];
  /** Ids of photos with what is said of them, and what is drawn over them. */
  photos?: { photo: string; caption: string; over?: OnPhoto }[];
  caution?: string[];
  /** An SVG drawing, for the file; the page shows the tree itself in its place. */
  drawing?: string;
  /** Pieces of wire, each laid straight. */
  pieces?: { head: string; text: string[]; strip: PieceStrip | null }[];
}

/** What leaves the studio on paper: the same for the page and for the file. */
export interface Paper {
  title: string;
  under: string;
  sections: Section[];
}

export const percent = (share: number): string => `${Math.round(share * 100)}%`;
export const many = (n: number, one: string, more = `${one}s`): string => `${n === 1 ? 'one' : n} ${n === 1 ? one : more}`;
/** What stands under the title of a tree's paper. */
export const under = (tree: Tree, onDay: number): string =>
  `${speciesOf(tree.species).name}${tree.client ? `, belongs to ${tree.client}` : ''}. ${sayDay(onDay)}.`;
export const ESTIMATES = 'All figures of wood, growth and time are estimates; the tree has the last word.';
/** A tree with nothing decided: as it is seen now. */
export const uncut = (tree: Tree): Tree => ({ ...tree, plan: { ...tree.plan, decisions: [] } });
