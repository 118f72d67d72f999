import { turnDeg } from '../../units/index.js';
import { boxesApart, boxOf, closestBetween, lengthOf, ring, stretch, type Box, type Closest, type Limb, type Vec } from '../../space/index.js';
import type { PlacedBranch } from '../../tree/index.js';
import type { Draft } from '../finding.js';
import { isLiving, leastUsefulFirst, percent, type Survey } from '../survey.js';

/** This near its fork a branch touches what it grows from: twice the thicknesses there. */
const forkReach = (a: PlacedBranch, b: PlacedBranch): number => 2 * (Math.max(a.branch.d, b.branch.d) + Math.min(a.parentDiameter, b.parentDiameter));

interface Stretch {
  line: Limb;
  /** Where it begins on the branch, mm. */
  from: number;
}

const beyond = ({ line }: PlacedBranch, from: number): Stretch | null =>
  from < lengthOf(line) ? { line: from > 0 ? stretch(line, from, lengthOf(line)) : line, from } : null;

/** The parts of two branches to hold against each other: those near a fork that they share are left out. */
function partsApart(a: PlacedBranch, b: PlacedBranch): [Stretch | null, Stretch | null] {
  const reach = forkReach(a, b);
  if (b.branch.parent === a.branch.id) return [beyond(a, 0), beyond(b, reach)];
  if (a.branch.parent === b.branch.id) return [beyond(a, reach), beyond(b, 0)];
  const together = a.branch.parent === b.branch.parent && Math.abs(a.branch.at - b.branch.at) < reach;
  return together ? [beyond(a, reach), beyond(b, reach)] : [beyond(a, 0), beyond(b, 0)];
}

/** Where two branches come nearer than `within` (mm) away from their own fork; null where they do not, or only draw apart from it. */
export function meeting(a: PlacedBranch, b: PlacedBranch, within: number): Closest | null {
  const [partA, partB] = partsApart(a, b);
  if (!partA || !partB) return null;
  const found = closestBetween(partA.line, partB.line, within);
  if (!found) return null;
  // A branch nearest to its parent where its stretch begins only draws apart from it.
  const onOther = b.branch.parent === a.branch.id || a.branch.parent === b.branch.id;
  if (onOther && ((partA.from > 0 && found.alongA < 0.5) || (partB.from > 0 && found.alongB < 0.5))) return null;
  return { ...found, alongA: found.alongA + partA.from, alongB: found.alongB + partB.from };
}

/** Pairs of branches whose boxes are within a margin, found by sweeping along one axis. */
function nearPairs(branches: readonly PlacedBranch[], margin: number): [PlacedBranch, PlacedBranch][] {
  const boxed = branches.map((b): { b: PlacedBranch; box: Box } => ({ b, box: boxOf(b.line) })).sort((x, y) => x.box.low[2] - y.box.low[2]);
  return boxed.flatMap(({ b, box }, i) => {
    const pairs: [PlacedBranch, PlacedBranch][] = [];
    for (let k = i + 1; k < boxed.length && boxed[k]!.box.low[2] <= box.high[2] + margin; k++) {
      if (!boxesApart(box, boxed[k]!.box, margin)) pairs.push([b, boxed[k]!.b]);
    }
    return pairs;
  });
}

/** A branch no thicker than this can be led aside by wire. */
const BENDABLE_MM = 15;

interface Crossed {
  least: PlacedBranch;
  other: PlacedBranch;
  met: Closest;
  /** Where on the least useful one, mm. */
  along: number;
}

/** A sentence for those behind the first: "It meets 4 more: second left; back; …"; nothing where there are none. */
const furtherNames = (does: string, [, ...more]: readonly string[]): string =>
  more.length ? ` ${does} ${more.length} more: ${more.slice(0, 3).join('; ')}${more.length > 3 ? '; …' : ''}.` : '';

/** One finding for each branch proposed, naming all that it meets, the nearest first. */
function crossings(s: Survey): Draft[] {
  const limit = s.profile.limits.crossingMm;
  const byLeast = new Map<string, Crossed[]>();
  for (const [a, b] of nearPairs(s.placed.branches, limit)) {
    const met = meeting(a, b, limit);
    if (!met) continue;
    const [least, other] = leastUsefulFirst(s, [a, b]) as [PlacedBranch, PlacedBranch];
    const crossed = { least, other, met, along: least === a ? met.alongA : met.alongB };
    byLeast.set(least.branch.id, [...(byLeast.get(least.branch.id) ?? []), crossed]);
  }
  return [...byLeast.values()].map((unsorted): Draft => {
    const all = [...unsorted].sort((x, y) => x.met.gap - y.met.gap || (x.other.branch.id < y.other.branch.id ? -1 : 1));
    const { least, other, met, along } = all[0]!;
    const gap = Math.max(0, met.gap);
    const bends = least.branch.d <= BENDABLE_MM && isLiving(least);
    const more = furtherNames(
      'It meets',
      all.map((c) => s.names(c.other.branch.id)),
    );
    return {
      branch: least.branch.id,
      rule: 'crossing',
      severity: met.gap < 0 ? 2 : 1,
      evidence: { with: all.map((c) => c.other.branch.id), gap: Math.round(gap * 10) / 10, along: Math.round(along), limit },
      advice: bends ? 'move' : 'remove',
      also: bends ? ['shorten', 'remove'] : ['shorten'],
      because: [
        `${met.gap < 0.05 ? 'Lies against' : `Passes ${gap.toFixed(1)} mm from`} ${s.names(other.branch.id)}: crossing lines trouble the eye, and bark that rubs is hurt.${more}`,
      ],
      draw: () => ({
        lines: all.flatMap((c) => rings(c)),
        words: [{ at: met.at, text: `${s.short(least.branch.id)} × ${s.short(other.branch.id)}` }],
      }),
    };
  });
}

/** Two rings square to each other round a crossing. */
function rings({ least, other, met }: Crossed): Vec[][] {
  const size = Math.max(6, least.branch.d, other.branch.d);
  const up: Vec = [0, 0, 1];
  return [ring(met.at, size, [[1, 0, 0], up]), ring(met.at, size, [[0, 1, 0], up])];
}

/** A branch shades another when it reaches out over at least this share of its length. */
const OVERLAP = 0.4;

const reachOf = ({ line: { points } }: PlacedBranch): number =>
  Math.hypot(points[points.length - 1]![0] - points[0]![0], points[points.length - 1]![1] - points[0]![1]);

/** One finding for each branch that takes light, naming all that lie below it, the nearest first. */
function shading(s: Survey): Draft[] {
  const { shadesDeg, shadesGap } = s.profile.limits;
  const living = s.primaries.filter((b) => s.greenWith.get(b.branch.id)! > 0);
  const heightOf = (b: PlacedBranch): number => b.line.points[0]![2];
  return living.flatMap((upper): Draft[] => {
    const below = living
      .map((lower) => ({ lower, gap: heightOf(upper) - heightOf(lower), between: Math.abs(turnDeg(s.slopeOf(lower).bearing, s.slopeOf(upper).bearing)) }))
      .filter(
        ({ lower, gap, between }) =>
          lower !== upper && gap >= 0 && gap < shadesGap * s.placed.height && between < shadesDeg && reachOf(upper) >= OVERLAP * reachOf(lower),
      )
      // Of two at one height the later one in the list stands above.
      .filter(({ lower, gap }) => gap > 0 || living.indexOf(lower) < living.indexOf(upper))
      .sort((x, y) => x.gap - y.gap);
    const [nearest] = below;
    if (!nearest) return [];
    const { lower, gap, between } = nearest;
    const shadow = lower.pad ?? upper.pad;
    return [
      {
        branch: upper.branch.id,
        rule: 'shades',
        severity: 1,
        evidence: {
          with: below.map((x) => x.lower.branch.id),
          gap: Math.round(gap),
          between: Math.round(between),
          limit: Math.round(shadesGap * s.placed.height),
        },
        advice: 'move',
        also: ['remove', 'shorten'],
        because: [
          `Stands ${gap.toFixed(0)} mm above ${s.names(lower.branch.id)} and ${between.toFixed(0)}° aside of it, less than ${percent(shadesGap)} of the height: that one loses its light, and what is shaded dies back.${furtherNames(
            'It shades',
            below.map((x) => s.names(x.lower.branch.id)),
          )}`,
        ],
        draw: () => ({
          lines: shadow ? [ring(shadow.center, shadow.half[1], [shadow.axes[0], shadow.axes[1]]), upper.line.points] : [upper.line.points, lower.line.points],
          words: [{ at: shadow?.center ?? lower.line.points[0]!, text: `shade on ${s.short(lower.branch.id)}` }],
        }),
      },
    ];
  });
}

/** crossing, shades: branches that meet or lie above each other. */
export const meetings = (s: Survey): Draft[] => [...crossings(s), ...shading(s)];
