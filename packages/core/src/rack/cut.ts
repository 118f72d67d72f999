/** Wire that pieces can be cut from: an offcut is used up before a roll is cut into. */
export interface CutStock {
  /** mm. */
  left: number;
  offcut: boolean;
}

/** Pieces as they are cut: from the stock, and from new rolls where that does not do. */
export interface PiecesCut {
  /** Indices of the pieces by what they are cut from: an index of the stock, or null for a new roll. */
  cuts: { from: number | null; pieces: number[] }[];
  /** New rolls that it takes, and the least that any cutting could take. */
  buy: number;
  bound: number;
  /** Whether nothing takes fewer new rolls, or as few and more from the offcuts. */
  exact: boolean;
}

/** So many pieces are still tried out wholly. */
const MOST_EXACT = 24;
/** What is tried at most before the best so far is taken. */
const MOST_TRIES = 400000;

interface Bin extends CutStock {
  from: number | null;
  pieces: number[];
}

const sum = (all: readonly number[]): number => all.reduce((total, x) => total + x, 0);

/** New rolls that there must be at least: by length in all; and, where there is no stock, by pieces of which no two go on one. */
function leastRolls(lengths: readonly number[], stock: readonly CutStock[], roll: number): number {
  const lacking = sum(lengths) - sum(stock.map((s) => s.left));
  const byLength = Math.max(0, Math.ceil(lacking / roll - 1e-9));
  const fitting = (l: number): boolean => stock.some((s) => s.left >= l);
  return Math.max(byLength, lengths.filter((l) => l > roll / 2 && !fitting(l)).length, lengths.some((l) => !fitting(l)) ? 1 : 0);
}

/** Best fit, the longest first: offcuts before rolls, the one where it leaves least. Pieces longer than a roll get a new one each. */
function bestFit(lengths: readonly number[], order: readonly number[], stock: readonly CutStock[], roll: number): Bin[] {
  const bins: Bin[] = stock.map((s, from) => ({ ...s, from, pieces: [] }));
  for (const i of order) {
    const fits = bins.filter((b) => b.left >= lengths[i]!).sort((a, b) => Number(b.offcut) - Number(a.offcut) || a.left - b.left)[0];
    const into = fits ?? { from: null, offcut: false, left: roll, pieces: [] };
    if (!fits) bins.push(into);
    into.left -= lengths[i]!;
    into.pieces.push(i);
  }
  return bins;
}

const bought = (bins: readonly Bin[]): number => bins.filter((b) => b.from === null).length;

/** Pieces (mm) cut from stock with the fewest new rolls (of `roll` mm), and of those ways the one with most from the offcuts: exact up to 24 pieces, best fit beyond, the bound beside it. docs: Cut list. */
export function cutPieces(lengths: readonly number[], roll: number, stock: readonly CutStock[] = []): PiecesCut {
  const order = lengths.map((_, i) => i).sort((a, b) => lengths[b]! - lengths[a]! || a - b);
  const bound = leastRolls(lengths, stock, roll);
  const fromOffcuts = (bins: readonly Bin[]): number => sum(bins.filter((b) => b.offcut).flatMap((b) => b.pieces.map((i) => lengths[i]!)));
  const most = Math.min(sum(lengths), sum(stock.filter((s) => s.offcut).map((s) => s.left)));
  let best = bestFit(lengths, order, stock, roll);
  let worth = { buy: bought(best), offcuts: fromOffcuts(best) };
  const cannotBeBetter = (): boolean => worth.buy === bound && worth.offcuts >= most - 1e-9;

  let tries = 0;
  const bins: Bin[] = stock.map((s, from) => ({ ...s, from, pieces: [] }));
  const now = { buy: 0, offcuts: 0 };
  /** Goes on with the piece at a place of the order; true where the search may end. */
  const place = (at: number, lengthLeft: number, offcutLeft: number): boolean => {
    if (now.buy > worth.buy || (now.buy === worth.buy && now.offcuts + Math.min(lengthLeft, offcutLeft) <= worth.offcuts + 1e-9)) return false;
    if (at === order.length) {
      best = bins.map((b) => ({ ...b, pieces: [...b.pieces] }));
      worth = { ...now };
      return cannotBeBetter();
    }
    if (tries++ > MOST_TRIES) return true;
    const i = order[at]!;
    const length = lengths[i]!;
    const put = (bin: Bin): boolean => {
      const offcut = bin.offcut ? length : 0;
      bin.left -= length;
      bin.pieces.push(i);
      now.offcuts += offcut;
      const done = place(at + 1, lengthLeft - length, offcutLeft - offcut);
      now.offcuts -= offcut;
      bin.pieces.pop();
      bin.left += length;
      return done;
    };
    const seen = new Set<string>();
    for (const bin of [...bins]) {
      // Those with as much left are alike.
      const alike = `${bin.offcut} ${bin.left}`;
      if (bin.left < length || seen.has(alike)) continue;
      seen.add(alike);
      if (put(bin)) return true;
    }
    const opened: Bin = { from: null, offcut: false, left: roll, pieces: [] };
    bins.push(opened);
    now.buy++;
    const done = put(opened);
    now.buy--;
    bins.pop();
    return done;
  };
  if (!cannotBeBetter() && lengths.length <= MOST_EXACT) {
    place(0, sum(lengths), sum(stock.filter((s) => s.offcut).map((s) => s.left)));
  }
  return {
    cuts: best.filter((b) => b.pieces.length).map(({ from, pieces }) => ({ from, pieces })),
    buy: worth.buy,
    bound,
    exact: cannotBeBetter() || (lengths.length <= MOST_EXACT && tries <= MOST_TRIES),
  };
}
