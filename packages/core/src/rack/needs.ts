import { rollLength, wireMass, type MetalName } from '../wood/index.js';
import { cutPieces } from './cut.js';
import { isUsable, type Stock } from './stock.js';

/** A piece to be cut. */
export interface Piece {
  metal: MetalName;
  size: number;
  length: number;
  tree: string;
  run: string;
}

/** What the pieces of one metal and size take from the rack, and what is to be bought for them. */
export interface SizeNeed {
  metal: MetalName;
  size: number;
  pieces: Piece[];
  /** mm in all, and mm on the rack that can be cut. */
  total: number;
  have: number;
  /** What each piece is cut from: the id of a roll or offcut, or null for a new roll. */
  cuts: { from: string | null; pieces: Piece[] }[];
  /** Rolls to buy, the least that any cutting would need, and whether no cutting needs fewer. */
  buy: number;
  bound: number;
  exact: boolean;
  /** Of what is bought: g, and what it costs by the last price paid for that metal; null where none is known. */
  buyMass: number;
  buyPrice: number | null;
  /** On the rack, and hard: to be annealed before it can be wound; mm. */
  hard: number;
}

/** Sizes that differ by less than this (mm) are the same on a roll and in a plan. */
const SAME_SIZE = 0.03;
export const isSameWire = (a: { metal: MetalName; size: number }, b: { metal: MetalName; size: number }): boolean =>
  a.metal === b.metal && Math.abs(a.size - b.size) < SAME_SIZE;

/** What a gram of it cost last: of that size, else of that metal; null where no price is known. */
function pricePerGram(wire: { metal: MetalName; size: number }, stock: readonly Stock[]): number | null {
  const priced = stock
    .filter((s) => s.metal === wire.metal && s.price !== null && s.price > 0 && s.whole > 0)
    .sort((a, b) => Number(isSameWire(b, wire)) - Number(isSameWire(a, wire)) || (a.since < b.since ? 1 : -1));
  const [last] = priced;
  return last ? last.price! / wireMass(last.metal, last.size, last.whole) : null;
}

function sizeNeed(pieces: readonly Piece[], stock: readonly Stock[]): SizeNeed {
  const { metal, size } = pieces[0]!;
  const same = stock.filter((s) => isSameWire(s, { metal, size }));
  const usable = same.filter(isUsable);
  const roll = rollLength(metal, size);
  const { cuts, buy, bound, exact } = cutPieces(
    pieces.map((p) => p.length),
    roll,
    usable.map((s) => ({ left: s.left, offcut: s.form === 'offcut' })),
  );
  const buyMass = wireMass(metal, size, buy * roll);
  const perGram = pricePerGram({ metal, size }, stock);
  return {
    metal,
    size,
    pieces: [...pieces],
    total: pieces.reduce((sum, p) => sum + p.length, 0),
    have: usable.reduce((sum, s) => sum + s.left, 0),
    cuts: cuts.map((c) => ({ from: c.from === null ? null : usable[c.from]!.id, pieces: c.pieces.map((i) => pieces[i]!) })),
    buy,
    bound,
    exact,
    buyMass,
    buyPrice: perGram === null ? null : perGram * buyMass,
    hard: same.filter((s) => s.gone === null && !isUsable(s) && !s.soft).reduce((sum, s) => sum + s.left, 0),
  };
}

/** The pieces of one tree or several by metal and size, thick before thin: from which roll or offcut each is cut, offcuts first, and what is to be bought. */
export function needsOf(pieces: readonly Piece[], stock: readonly Stock[]): SizeNeed[] {
  const sizes: Piece[][] = [];
  for (const piece of pieces) {
    const same = sizes.find((s) => isSameWire(s[0]!, piece));
    if (same) same.push(piece);
    else sizes.push([piece]);
  }
  return sizes.map((of) => sizeNeed(of, stock)).sort((a, b) => (a.metal < b.metal ? -1 : a.metal > b.metal ? 1 : b.size - a.size));
}

/** What one piece is best cut from: the offcut that it uses up most of, else the roll with least left; null where the rack has none long enough. */
export function cutFrom(wire: { metal: MetalName; size: number; length: number }, stock: readonly Stock[]): Stock | null {
  const usable = stock.filter((s) => isSameWire(s, wire) && isUsable(s));
  const { cuts } = cutPieces(
    [wire.length],
    rollLength(wire.metal, wire.size),
    usable.map((s) => ({ left: s.left, offcut: s.form === 'offcut' })),
  );
  const from = cuts[0]?.from ?? null;
  return from === null ? null : usable[from]!;
}
