/** Pieces cut from rolls: what each roll gives, and fewer rolls than `bound` there cannot be. */
export interface RollsCut {
  /** Indices of the pieces, roll by roll. */
  rolls: number[][];
  bound: number;
  /** Whether no fewer rolls would do. */
  exact: boolean;
}

/** So many pieces are still tried out wholly. */
const MOST_EXACT = 24;
/** What is tried at most before the best so far is taken. */
const MOST_TRIES = 400000;

/** Best fit, the longest first: into the roll where it leaves least. Pieces longer than a roll get one each. */
function bestFit(lengths: readonly number[], order: readonly number[], roll: number): number[][] {
  const rolls: { left: number; pieces: number[] }[] = [];
  for (const i of order) {
    const fits = rolls.filter((r) => r.left >= lengths[i]!).sort((a, b) => a.left - b.left)[0];
    if (fits) {
      fits.left -= lengths[i]!;
      fits.pieces.push(i);
    } else rolls.push({ left: roll - lengths[i]!, pieces: [i] });
  }
  return rolls.map((r) => r.pieces);
}

/** Rolls that there must be at least: by length in all, and by pieces of which no two go on one. */
function leastRolls(lengths: readonly number[], roll: number): number {
  const byLength = Math.ceil(lengths.reduce((sum, l) => sum + l, 0) / roll - 1e-9);
  return Math.max(lengths.length ? 1 : 0, byLength, lengths.filter((l) => l > roll / 2).length);
}

/** The fewest rolls of one length that give all pieces (mm): exact up to 24 pieces, best fit beyond, the bound beside it. docs: Cut list. */
export function cutPieces(lengths: readonly number[], roll: number): RollsCut {
  const order = lengths.map((_, i) => i).sort((a, b) => lengths[b]! - lengths[a]! || a - b);
  const bound = leastRolls(lengths, roll);
  let best = bestFit(lengths, order, roll);
  if (best.length === bound || lengths.length > MOST_EXACT) return { rolls: best, bound, exact: best.length === bound };
  let tries = 0;
  const left: number[] = [];
  const pieces: number[][] = [];
  const place = (at: number): boolean => {
    if (at === order.length) {
      best = pieces.map((p) => [...p]);
      return best.length === bound;
    }
    if (tries++ > MOST_TRIES) return true;
    const i = order[at]!;
    const length = lengths[i]!;
    const seen = new Set<number>();
    for (let r = 0; r < left.length; r++) {
      // Rolls with as much left are alike.
      if (left[r]! < length || seen.has(left[r]!)) continue;
      seen.add(left[r]!);
      left[r]! -= length;
      pieces[r]!.push(i);
      const done = place(at + 1);
      pieces[r]!.pop();
      left[r]! += length;
      if (done) return true;
    }
    if (left.length + 1 >= best.length) return false;
    left.push(roll - length);
    pieces.push([i]);
    const done = place(at + 1);
    left.pop();
    pieces.pop();
    return done;
  };
  place(0);
  return { rolls: best, bound, exact: best.length === bound || tries <= MOST_TRIES };
}
