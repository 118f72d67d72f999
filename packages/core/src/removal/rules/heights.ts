import { leastOf, clamp, turnDeg } from '../../units/index.js';
import type { PlacedBranch } from '../../tree/index.js';
import type { Draft } from '../finding.js';
import { leastUsefulFirst, usefulness, type Survey } from '../survey.js';
import { ids, list, others, ringAt, ringed, within } from './shoulders.js';

/** Branches within this share of the height below and above say which sides are open. */
const NEAR_SHARE = 0.2;
/** A side is wholly open where nothing stands within this of it. */
const OPEN_DEG = 90;

/** How far open the side of a branch is, 0..1: beside those that stay near below and above it. */
function openness(s: Survey, b: PlacedBranch, group: readonly PlacedBranch[], going: ReadonlySet<string>): number {
  const near = NEAR_SHARE * s.placed.height;
  const turns = s.primaries
    .filter((o) => !group.includes(o) && !going.has(o.branch.id) && Math.abs(o.line.points[0]![2] - b.line.points[0]![2]) <= near)
    .map((o) => Math.abs(turnDeg(s.slopeOf(o).bearing, s.slopeOf(b).bearing)));
  return clamp(leastOf(turns, OPEN_DEG) / OPEN_DEG, 0, 1);
}

/** The two of a whorl that serve best: on open sides, apart but no bar, not at the eye, green; of like thickness last. */
function keptOfWhorl(s: Survey, group: readonly PlacedBranch[], going: ReadonlySet<string>): [PlacedBranch, PlacedBranch] {
  const worth = new Map(group.map((b) => [b, 1.5 * openness(s, b, group, going) + usefulness(s, b)]));
  const pairs = group.flatMap((a, i) =>
    group.slice(i + 1).map((b) => {
      const apart = Math.abs(turnDeg(s.slopeOf(a).bearing, s.slopeOf(b).bearing));
      const facing = 180 - apart <= s.profile.limits.barDeg ? 0.5 : 0;
      const alike = Math.min(a.branch.d, b.branch.d) / Math.max(a.branch.d, b.branch.d);
      return { a, b, worth: worth.get(a)! + worth.get(b)! + clamp(apart / OPEN_DEG, 0, 1) - facing + 0.1 * alike };
    }),
  );
  const best = pairs.reduce((x, y) => (y.worth > x.worth ? y : x));
  return [best.a, best.b];
}

const opposite = (s: Survey, a: PlacedBranch, b: PlacedBranch): boolean =>
  180 - Math.abs(turnDeg(s.slopeOf(a).bearing, s.slopeOf(b).bearing)) <= s.profile.limits.barDeg;

/** whorl, bar: branches that leave the trunk at one height. */
export function whorlsAndBars(s: Survey): Draft[] {
  const { whorlMm } = s.profile.limits;
  const height = (b: PlacedBranch): number => Math.max(whorlMm, b.parentDiameter / 2);
  const drafts: Draft[] = [];
  const proposed = new Set<string>();
  const bars = new Map<PlacedBranch, PlacedBranch[]>();

  for (const group of within(s.onTrunk, height)) {
    const left = group.filter((b) => !proposed.has(b.branch.id));
    if (left.length < 3) continue;
    const kept = keptOfWhorl(s, left, proposed);
    const names = kept.map((b) => s.names(b.branch.id)).join(' and ');
    for (const b of left.filter((x) => !kept.includes(x))) {
      proposed.add(b.branch.id);
      drafts.push({
        branch: b.branch.id,
        rule: 'whorl',
        severity: 2,
        evidence: { with: others(group, b), within: Math.round(height(group[0]!)), kept: ids(kept) },
        advice: 'remove',
        also: ['reserve'],
        because: [`${group.length} branches leave at one height: the trunk swells there. Two are enough; ${names} stand better to the sides left open.`],
        draw: () => ringed(s, b, b.branch.at, `${group.length} at one height`),
      });
    }
  }
  const rest = s.onTrunk.filter((b) => !(s.profile.rules.whorl && proposed.has(b.branch.id)));
  rest.forEach((a, i) => {
    for (const b of rest.slice(i + 1)) {
      const gap = b.branch.at - a.branch.at;
      if (gap > height(a)) break;
      if (!opposite(s, a, b)) continue;
      const [least, other] = leastUsefulFirst(s, [a, b]) as [PlacedBranch, PlacedBranch];
      bars.set(least, [...(bars.get(least) ?? []), other]);
    }
  });
  return [...drafts, ...[...bars].map(([least, facing]) => barOf(s, least, facing))];
}

/** A branch that faces one or more others straight across the trunk. */
function barOf(s: Survey, least: PlacedBranch, facing: readonly PlacedBranch[]): Draft {
  const gapTo = (o: PlacedBranch): number => Math.abs(o.branch.at - least.branch.at);
  const [other] = [...facing].sort((a, b) => gapTo(a) - gapTo(b) || (a.branch.id < b.branch.id ? -1 : 1)) as [PlacedBranch];
  return {
    branch: least.branch.id,
    rule: 'bar',
    severity: 2,
    evidence: {
      with: ids(facing),
      heightGap: Math.round(gapTo(other) * 10) / 10,
      between: Math.round(Math.abs(turnDeg(s.slopeOf(least).bearing, s.slopeOf(other).bearing))),
    },
    advice: 'remove',
    also: ['move', 'reserve'],
    because: [
      `Faces ${list(facing.map((o) => s.names(o.branch.id)))} straight across the trunk, ${gapTo(other).toFixed(0)} mm apart in height: together they read as a bar.`,
    ],
    draw: () => ({
      lines: [least.line.points, ...facing.map((o) => o.line.points), ringAt(s.placed.trunk, (least.branch.at + other.branch.at) / 2)],
      words: [{ at: other.line.points[0]!, text: 'bar' }],
    }),
  };
}
