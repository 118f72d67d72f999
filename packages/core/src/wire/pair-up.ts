import { alike, candidates, joinedBy, pairOf, type Candidate } from './join-ways.js';
import { keptWay } from './kept-way.js';
import type { Joined, LaidPiece, LimbWork, Need, OnLimb, Placed } from './limb-work.js';
import { bestPairs, type Edge } from './matching.js';

/** Pairs of greatest worth whose ways all find room: where some do not, those worth less are given up and all is matched again. docs: Pairs. */
export function pairUp(work: LimbWork, needs: readonly Need[], before: Placed): { joined: LaidPiece[]; placed: Placed; worth: OnLimb['worth'] } {
  const tried: Trial = { placed: before, piece: null, before: null, next: new Map() };
  /** The ways of each two branches, the best first; what falls out never comes back. */
  const open: { ways: Candidate[]; first: number }[] = [];
  for (let i = 0; i < needs.length; i++) {
    for (let j = i + 1; j < needs.length; j++) {
      if (alike(needs[i]!, needs[j]!)) open.push({ ways: candidates(work, needs[i]!, needs[j]!), first: 0 });
    }
  }
  const index = new Map(needs.map((n, i) => [n.branch, i]));
  const forbidden = new Set<Candidate>();
  // What has no way even alone is no choice.
  const hasWay = new Set<Candidate>();
  const mayLie = (c: Candidate): boolean => {
    if (forbidden.has(c) || work.stuck.has(c.ends[0].touch) || work.stuck.has(c.ends[1].touch)) return false;
    if (!hasWay.has(c) && wayFor(work, c, before)) hasWay.add(c);
    return hasWay.has(c);
  };
  let best = -1;
  for (;;) {
    const byPair = new Map<string, Candidate>();
    for (const of of open) {
      while (of.first < of.ways.length && !mayLie(of.ways[of.first]!)) of.first++;
      const c = of.ways[of.first];
      if (c) byPair.set(c.pair, c);
    }
    const edges = [...byPair.values()].map((c): Edge => [index.get(c.a.branch)!, index.get(c.b.branch)!, c.worth]);
    const matched = work.keep(`pairs ${needs.length} ${edges.join(' ')}`, () => bestPairs(needs.length, edges));
    if (best < 0) best = matched.worth;
    const chosen = matched.pairs.map(([a, b]) => byPair.get(pairOf(needs[a]!, needs[b]!))!).sort((x, y) => y.worth - x.worth || (x.key < y.key ? -1 : 1));
    let at = tried;
    let given = 0;
    for (const c of chosen) {
      at = laidAfter(work, c, at);
      if (!at.piece) {
        forbidden.add(c);
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

/** The piece on the way that a candidate finds past what was laid before; null where there is none. */
export const wayFor = (work: LimbWork, c: Candidate, { ways }: Placed): Joined | null => keptWay(work, c.course, ways, (way) => joinedBy(work, c, way));

function laidAfter(work: LimbWork, c: Candidate, before: Trial): Trial {
  const known = before.next.get(c.key);
  if (known) return known;
  const placed = before.placed.copy();
  const piece = wayFor(work, c, placed);
  const laid = piece && placed.add(work, piece);
  const trial: Trial = { placed, piece: piece && laid ? { ...piece, laid } : null, before, next: new Map() };
  before.next.set(c.key, trial);
  return trial;
}
