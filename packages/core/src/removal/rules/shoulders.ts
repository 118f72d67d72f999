import { anySquare, cross, pointAt, ring, sub, unit, type Evidence, type Limb, type Vec } from '../../space/index.js';
import type { PlacedBranch } from '../../tree/index.js';
import type { Survey } from '../survey.js';

export const parentLine = (s: Survey, b: PlacedBranch): Limb => s.placed.byId.get(b.branch.parent)?.line ?? s.placed.trunk;
export const outOf = (b: PlacedBranch): Vec => unit(sub(b.line.points[b.line.points.length - 1]!, b.line.points[0]!));
export const ids = (group: readonly PlacedBranch[]): string[] => group.map((b) => b.branch.id);
export const others = (group: readonly PlacedBranch[], b: PlacedBranch): string[] => ids(group).filter((id) => id !== b.branch.id);
export const list = (names: readonly string[]): string => [names.slice(0, -1).join('; '), names[names.length - 1]!].filter(Boolean).join(' and ');

/** A ring round a parent where branches leave it. */
export function ringAt(line: Limb, at: number): Vec[] {
  const { point, diameter, direction } = pointAt(line, at);
  const u = anySquare(direction);
  return ring(point, diameter * 0.75 + 2, [u, cross(direction, u)]);
}

export const ringed = (s: Survey, b: PlacedBranch, at: number, text: string): Evidence => {
  const line = parentLine(s, b);
  return { lines: [ringAt(line, at), b.line.points], words: [{ at: pointAt(line, at).point, text }] };
};

/** Maximal runs of branches on one parent, from its base, that leave it within a limit of each other; `limit` by the lowest of them. */
export function within(sorted: readonly PlacedBranch[], limit: (lowest: PlacedBranch) => number): PlacedBranch[][] {
  const groups: PlacedBranch[][] = [];
  let reached = 0;
  sorted.forEach((lowest, i) => {
    let end = i + 1;
    while (end < sorted.length && sorted[end]!.branch.at - lowest.branch.at <= limit(lowest)) end++;
    if (end > reached) groups.push(sorted.slice(i, end));
    reached = Math.max(reached, end);
  });
  return groups;
}
