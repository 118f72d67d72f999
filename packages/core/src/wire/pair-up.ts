import { alike, candidates, joinedBy, type Candidate } from './join-ways.js';
import type { LaidPiece, LimbWork, Need, OnLimb, Placed } from './limb-work.js';
import { bestPairs, type Edge } from './matching.js';
import { clearOfItself, findWay } from './ways.js';

/** Pairs of greatest worth whose ways all find room: where some do not, those worth less are given up and all is matched again. docs: Pairs. */
export function pairUp(work: LimbWork, needs: readonly Need[], before: Placed): { joined: LaidPiece[]; placed: Placed; worth: OnLimb['worth'] } {
  const tried: Trial = { placed: before, piece: null, before: null, next: new Map() };
  const open: Candidate[] = [];
  for (let i = 0; i < needs.length; i++) {
    for (let j = i + 1; j < needs.length; j++) {
      if (!alike(needs[i]!, needs[j]!)) continue;
      open.push(...candidates(work, needs[i]!, needs[j]!));
    }
  }
  const index = new Map(needs.map((n, i) => [n.branch, i]));
  const forbidden = new Set<string>();
  let best = -1;
  for (;;) {
    const byPair = new Map<string, Candidate>();
    for (const c of open) {
      const key = `${c.a.branch} ${c.b.branch}`;
      if (!forbidden.has(c.key) && !work.stuck.has(c.ends[0].touch) && !work.stuck.has(c.ends[1].touch) && c.worth > (byPair.get(key)?.worth ?? 0))
        byPair.set(key, c);
    }
    const edges = [...byPair.values()].map((c): Edge => [index.get(c.a.branch)!, index.get(c.b.branch)!, c.worth]);
    const matched = bestPairs(needs.length, edges);
    if (best < 0) best = matched.worth;
    const chosen = matched.pairs
      .map(([a, b]) => byPair.get(`${needs[a]!.branch} ${needs[b]!.branch}`)!)
      .sort((x, y) => y.worth - x.worth || (x.key < y.key ? -1 : 1));
    let at = tried;
    let given = 0;
    for (const c of chosen) {
      at = laidAfter(work, c, at);
      if (!at.piece) {
        forbidden.add(c.key);
        given++;
        at = at.before!;
      }
    }
    if (given) continue;
    const joined: LaidPiece[] = [];
    for (let step = at; step.piece; step = step.before!) joined.unshift(step.piece);
    return { joined, placed: at.placed, worth: { best, had: matched.worth } };
  }
}

/** What was laid one after another, and what came of trying a further piece: found once, however often the pairs are matched anew. */
interface Trial {
  placed: Placed;
  piece: LaidPiece | null;
  before: Trial | null;
  next: Map<string, Trial>;
}

function laidAfter(work: LimbWork, c: Candidate, before: Trial): Trial {
  const known = before.next.get(c.key);
  if (known) return known;
  const placed = before.placed.copy();
  const way = findWay(c.course, work.bark, work.knots, placed.ways);
  const piece = way && clearOfItself(way, work.bark) ? joinedBy(work, c, way) : null;
  const laid = piece && placed.add(work, piece);
  const trial: Trial = { placed, piece: piece && laid ? { ...piece, laid } : null, before, next: new Map() };
  before.next.set(c.key, trial);
  return trial;
}
