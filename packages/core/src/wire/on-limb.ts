import { anchor } from './anchors.js';
import { candidates, goesRound } from './join-ways.js';
import { Placed, type LaidPiece, type LimbWork, type Need, type OnLimb } from './limb-work.js';
import { pairUp, wayFor } from './pair-up.js';
import { serves } from './shoulders.js';

/** A piece that the plan fixes: as it says where there is room, else beside what is asked. */
export interface Fixed {
  needs: [Need] | [Need, Need];
}

/** Lays what is fixed; where it cannot lie clear of the rest, across that: it was asked for. */
function placeFixed(work: LimbWork, { needs }: Fixed, placed: Placed): LaidPiece | null {
  const [a, b] = needs;
  const alone = new Placed([], []);
  const bare: LimbWork = { ...work, coil: null, knots: [] };
  const forced = (piece: LaidPiece | null): LaidPiece | null => {
    if (!piece) return null;
    placed.ways.push(piece.way);
    placed.wires.push(piece.laid.wire);
    return { ...piece, across: true };
  };
  if (!b) return anchor(work, a, placed, true) ?? anchor(work, a, placed) ?? forced(anchor(work, a, alone) ?? anchor(bare, a, alone));
  const handOnly = (n: Need): Need => ({ ...n, wish: { ...n.wish, must: 'hand' } });
  const pair = (x: Need, y: Need, on: Placed, of: LimbWork = work): LaidPiece | null => {
    for (const c of candidates(of, x, y)) {
      const piece = wayFor(of, c, on);
      const laid = piece && goesRound(x.side, piece.hidden) && on.add(of, piece);
      if (piece && laid) return { ...piece, laid };
    }
    return null;
  };
  return pair(a, b, placed) ?? pair(handOnly(a), handOnly(b), placed) ?? forced(pair(handOnly(a), handOnly(b), alone) ?? pair(a, b, alone, bare));
}

/** Whether a piece that is fixed came out so of itself: the same branches, wound as it says, round the side that it says. */
const cameOut = ({ joined }: OnLimb, { needs }: Fixed): boolean =>
  joined.some(({ ends, hidden }) => {
    const own = ends.flatMap((e) => e ?? []);
    return (
      goesRound(needs[0].side, hidden) &&
      own.length === needs.length &&
      needs.every((need) => own.some((e) => e.need.branch === need.branch && serves(e.touch, need.wish)))
    );
  });

/**
 * The pieces of wire on the branches of one limb: pairs, then what is left over, anchored. What is fixed as it came out of itself
 * lies as it did, and moves nothing; else it is laid before all others. docs: Fixed pieces.
 */
export function planOnLimb(workFor: (anyhow: boolean) => LimbWork, fixed: readonly Fixed[], of: { needs: readonly Need[]; ofItself: readonly Need[] }): OnLimb {
  if (!fixed.some((f) => f.needs.some((n) => of.ofItself.includes(n)))) {
    const alone = workFor(false);
    const free = layAll(alone, of.ofItself, onLimbBefore(alone));
    if (fixed.every((f) => cameOut(free, f))) return free;
  }
  const work = workFor(true);
  const placed = onLimbBefore(work);
  const first: LaidPiece[] = [];
  const left: string[] = [];
  for (const f of fixed) {
    const found = placeFixed(work, f, placed);
    if (found) first.push(found);
    else left.push(...f.needs.map((n) => n.branch));
  }
  const done = new Set(fixed.flatMap((f) => f.needs));
  const rest = layAll(
    work,
    of.needs.filter((n) => !done.has(n)),
    placed,
  );
  return { joined: [...first, ...rest.joined], left: [...left, ...rest.left], worth: rest.worth };
}

const onLimbBefore = (work: LimbWork): Placed => new Placed(work.coil ? [work.coil.way] : [], [...work.wires]);

/** Pairs of greatest worth, and the others anchored, beside what was laid before. */
function layAll(work: LimbWork, needs: readonly Need[], before: Placed): OnLimb {
  const { joined, placed, worth } = pairUp(work, needs, before);
  const left: string[] = [];
  const done = new Set(joined.flatMap((j) => j.ends.flatMap((e) => e?.need.branch ?? [])));
  for (const need of [...needs].sort((a, b) => b.size - a.size || (a.branch < b.branch ? -1 : 1))) {
    if (done.has(need.branch)) continue;
    const found = anchor(work, need, placed);
    if (found) joined.push(found);
    else left.push(need.branch);
  }
  return { joined, left, worth };
}
