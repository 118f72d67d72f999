import { ANCHOR_TURNS, anchor, anchorAnyhow } from './anchors.js';
import { candidates, joinedBy } from './join-ways.js';
import { Placed, type LaidPiece, type LimbWork, type Need, type OnLimb } from './limb-work.js';
import { pairUp } from './pair-up.js';
import { findWay } from './ways.js';

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
  if (!b)
    return (
      anchor(work, a, placed, ANCHOR_TURNS, true) ??
      anchorAnyhow(work, a, placed) ??
      forced(anchor(work, a, alone, ANCHOR_TURNS) ?? anchor(bare, a, alone, ANCHOR_TURNS))
    );
  const handOnly = (n: Need): Need => ({ ...n, wish: { ...n.wish, must: 'hand' } });
  const pair = (x: Need, y: Need, on: Placed, of: LimbWork = work): LaidPiece | null => {
    for (const c of candidates(of, x, y)) {
      const way = findWay(c.course, of.bark, of.knots, on.ways);
      const piece = way && joinedBy(of, c, way);
      const laid = piece && on.add(of, piece);
      if (piece && laid) return { ...piece, laid };
    }
    return null;
  };
  return pair(a, b, placed) ?? pair(handOnly(a), handOnly(b), placed) ?? forced(pair(handOnly(a), handOnly(b), alone) ?? pair(a, b, alone, bare));
}

/** The pieces of wire on the branches of one limb: what is fixed first, then pairs, then what is left over, anchored. */
export function planOnLimb(work: LimbWork, fixed: readonly Fixed[], needs: readonly Need[]): OnLimb {
  const before = new Placed(work.coil ? [work.coil.way] : [], [...work.wires]);
  const joined: LaidPiece[] = [];
  const left: string[] = [];
  for (const f of fixed) {
    const found = placeFixed(work, f, before);
    if (found) joined.push(found);
    else left.push(...f.needs.map((n) => n.branch));
  }
  const paired = pairUp(work, needs, before);
  joined.push(...paired.joined);
  const done = new Set(joined.flatMap((j) => j.ends.flatMap((e) => e?.need.branch ?? [])));
  for (const need of [...needs].sort((a, b) => b.size - a.size || (a.branch < b.branch ? -1 : 1))) {
    if (done.has(need.branch)) continue;
    const found = anchorAnyhow(work, need, paired.placed);
    if (found) joined.push(found);
    else left.push(need.branch);
  }
  return { joined, left, worth: paired.worth };
}
