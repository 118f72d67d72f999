import { cornersOf, greatestOf, placeTree, type Camera, type PlacedTree, type Tree } from '@ustle/core';
import type { Picture } from '../vision.js';
import { cardsRound } from './cards-laid.js';
import { heldAt, type Size } from './stands.js';
import { takePicture } from './take.js';

/** From where a picture of a tree is taken: its bearing, how far down the camera looks, and whether cards lie round the pot. */
export interface Stand {
  bearing: number;
  downDeg: number;
  cards: boolean;
}

/** The side of the cards that lie there, mm. */
export const LAID_SIDE = 60;
const LEAFY = 0.5;
const NO_CARDS = new Map();

/** What a simulated camera sees of a tree, and where it stood. The same stand gives the same picture. */
export function photographOf(tree: Tree, { bearing, downDeg, cards: laid }: Stand, size: Size): { picture: Picture; camera: Camera; placed: PlacedTree } {
  const placed = placeTree(tree);
  const cards = laid ? cardsRound(tree.pot, LAID_SIDE) : NO_CARDS;
  const corners = [...cardsRound(tree.pot, LAID_SIDE).values()].flatMap((c) => cornersOf(c, LAID_SIDE));
  const radius = laid ? greatestOf(corners.map(([x, y]) => Math.hypot(x, y))) + 10 : Math.hypot(tree.pot.width, tree.pot.depth) / 2;
  const seed = Math.round(bearing) + 1000 * Math.round(downDeg);
  const camera = heldAt(placed, { radius, cards: laid }, bearing, downDeg, size, seed);
  return { picture: takePicture({ placed, cards, cardSide: LAID_SIDE, leafy: LEAFY }, camera, size, seed), camera, placed };
}
