import { clamp, toDeg, turnDeg } from '../../units/index.js';
import {
  add,
  angleBetween,
  anySquare,
  cross,
  dot,
  lengthOf,
  norm,
  pointAt,
  ring,
  scale,
  smooth,
  sub,
  unit,
  type Evidence,
  type Limb,
  type Vec,
} from '../../space/index.js';
import type { PlacedBranch } from '../../tree/index.js';
import type { Draft } from '../finding.js';
import { isLiving, leastUsefulFirst, usefulness, type Survey } from '../survey.js';

const parentLine = (s: Survey, b: PlacedBranch): Limb => s.placed.byId.get(b.branch.parent)?.line ?? s.placed.trunk;
const outOf = (b: PlacedBranch): Vec => unit(sub(b.line.points[b.line.points.length - 1]!, b.line.points[0]!));
const ids = (group: readonly PlacedBranch[]): string[] => group.map((b) => b.branch.id);
const others = (group: readonly PlacedBranch[], b: PlacedBranch): string[] => ids(group).filter((id) => id !== b.branch.id);
const list = (names: readonly string[]): string => [names.slice(0, -1).join('; '), names[names.length - 1]!].filter(Boolean).join(' and ');

/** A ring round a parent where branches leave it. */
function ringAt(line: Limb, at: number): Vec[] {
  const { point, diameter, direction } = pointAt(line, at);
  const u = anySquare(direction);
  return ring(point, diameter * 0.75 + 2, [u, cross(direction, u)]);
}

const ringed = (s: Survey, b: PlacedBranch, at: number, text: string): Evidence => {
  const line = parentLine(s, b);
  return { lines: [ringAt(line, at), b.line.points], words: [{ at: pointAt(line, at).point, text }] };
};

function crotch(s: Survey, b: PlacedBranch): Draft[] {
  const limit = s.profile.limits.crotchDiameters;
  const away = b.branch.at / b.parentDiameter;
  if (b.order < 2 || !isLiving(b) || !(away < limit)) return [];
  return [
    {
      branch: b.branch.id,
      rule: 'crotch',
      severity: 2,
      evidence: { away: Math.round(b.branch.at), diameters: Math.round(away * 10) / 10, limit },
      advice: 'remove',
      because: [
        `Grows in the crotch of ${s.names(b.branch.parent)}, ${b.branch.at.toFixed(0)} mm from the fork: no light reaches it, and wire finds no room there.`,
      ],
      draw: () => ringed(s, b, b.branch.at, 'crotch'),
    },
  ];
}

/** Circle through a line at a place, over three thicknesses of it: its centre and radius; null where it runs straight. */
export function bendAt(line: Limb, at: number): { center: Vec; radius: number } | null {
  const total = lengthOf(line);
  const reach = Math.min(1.5 * pointAt(line, at).diameter, total / 2);
  const middle = clamp(at, reach, total - reach);
  const [a, b, c] = [middle - reach, middle, middle + reach].map((x) => pointAt(line, x).point) as [Vec, Vec, Vec];
  const ab = sub(b, a);
  const ac = sub(c, a);
  const normal = cross(ab, ac);
  const square = dot(normal, normal);
  if (square < 1e-9 * norm(ac) ** 4) return null;
  const toCenter = scale(add(scale(cross(normal, ab), dot(ac, ac)), scale(cross(ac, normal), dot(ab, ab))), 1 / (2 * square));
  return { center: add(a, toCenter), radius: norm(toCenter) };
}

function insideBend(s: Survey, b: PlacedBranch, line: Limb, along: number): Draft[] {
  const { insideDiameters, insideShare } = s.profile.limits;
  if (!isLiving(b)) return [];
  const at = b.branch.at * along;
  const bend = bendAt(line, at);
  if (!bend || !(bend.radius < insideDiameters * b.parentDiameter)) return [];
  const from = pointAt(line, at).point;
  const inward = dot(outOf(b), unit(sub(bend.center, from)));
  if (!(inward > insideShare)) return [];
  return [
    {
      branch: b.branch.id,
      rule: 'inside-bend',
      severity: 2,
      evidence: { radius: Math.round(bend.radius), inward: Math.round(inward * 100) / 100, limit: insideShare },
      advice: 'remove',
      also: ['move', 'reserve'],
      because: [
        `Leaves ${s.names(b.branch.parent)} on the inside of its bend (radius ${bend.radius.toFixed(0)} mm): a branch is looked for on the outside, where a tree would have grown it.`,
      ],
      draw: () => ({ lines: [[from, bend.center], b.line.points], words: [{ at: bend.center, text: 'centre of the bend' }] }),
    },
  ];
}

/** Branches on the inside of their parent's bends, the parent's line smoothed once for all on it. */
function insideBends(s: Survey): Draft[] {
  return [...s.on.values()].flatMap((children) => {
    const measured = parentLine(s, children[0]!);
    const line = smooth(measured, 6);
    return children.flatMap((b) => insideBend(s, b, line, lengthOf(line) / lengthOf(measured)));
  });
}

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
  return clamp(Math.min(OPEN_DEG, ...turns) / OPEN_DEG, 0, 1);
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

function whorlsAndBars(s: Survey): Draft[] {
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

/** One shoot of a fork: a branch, or the parent going on beyond it. */
interface Shoot {
  branch: PlacedBranch | null;
  way: Vec;
  d: number;
}

/** How good two shoots are as a fork, 0..1: the angle between them, and like thickness. */
function forkWorth(a: Shoot, b: Shoot, lowDeg: number, highDeg: number): number {
  const angle = toDeg(angleBetween(a.way, b.way));
  const off = Math.max(0, lowDeg - angle, angle - highDeg);
  return 0.6 * clamp(1 - off / 50, 0, 1) + 0.4 * (Math.min(a.d, b.d) / Math.max(a.d, b.d));
}

/** Green of a branch beyond a place on it: its own, if its bare part ends there or before, and that of what leaves it farther out. */
function greenBeyond(s: Survey, stem: PlacedBranch, at: number): number {
  const { id, length, bareTo } = stem.branch;
  const onwards = (s.on.get(id) ?? []).filter((b) => b.branch.at > at).reduce((sum, b) => sum + s.greenWith.get(b.branch.id)!, 0);
  return onwards + stem.branch.green * clamp((length - at) / Math.max(1, length * (1 - bareTo)), 0, 1);
}

function forks(s: Survey): Draft[] {
  const { forkLowDeg, forkHighDeg } = s.profile.limits;
  return [...s.on].flatMap(([parent, children]): Draft[] => {
    const stem = s.placed.byId.get(parent);
    if (!stem) return [];
    const groups = within(children.filter(isLiving), (b) => Math.max(4, b.parentDiameter));
    const seen = new Set<string>();
    return groups.flatMap((whole): Draft[] => {
      const group = whole.filter((b) => !seen.has(b.branch.id));
      const at = Math.max(...group.map((b) => b.branch.at));
      const beyond = lengthOf(stem.line) - at;
      const here = pointAt(stem.line, at);
      const shoots: Shoot[] = group.map((branch) => ({ branch, way: outOf(branch), d: branch.branch.d }));
      if (beyond > 3 * here.diameter) {
        const end = pointAt(stem.line, Math.min(lengthOf(stem.line), at + 6 * here.diameter)).point;
        shoots.push({ branch: null, way: unit(sub(end, here.point)), d: here.diameter });
      }
      if (group.length < 2 || shoots.length < 3) return [];
      const order = leastUsefulFirst(s, group);
      const rank = (x: Shoot): number => (x.branch ? order.indexOf(x.branch) : order.length);
      // The line that goes on and carries the green is one of the two, whatever leaves beside it.
      const green = group.map((b) => s.greenWith.get(b.branch.id)!);
      const goesOn = shoots.length > group.length && isLiving(stem) && greenBeyond(s, stem, at) >= Math.max(...green);
      const pairs = shoots.flatMap((a, i) =>
        shoots
          .slice(i + 1)
          .filter((b) => !goesOn || a.branch === null || b.branch === null)
          .map((b) => ({ a, b, worth: forkWorth(a, b, forkLowDeg, forkHighDeg) + 0.001 * (rank(a) + rank(b)) })),
      );
      const best = pairs.reduce((x, y) => (y.worth > x.worth ? y : x));
      const angle = Math.round(toDeg(angleBetween(best.a.way, best.b.way)));
      const name = (x: Shoot): string => (x.branch ? s.names(x.branch.branch.id) : `${s.names(parent)} itself`);
      for (const b of group) seen.add(b.branch.id);
      return shoots
        .filter((x) => x !== best.a && x !== best.b)
        .map((x): Draft => {
          const about = x.branch ?? stem;
          return {
            branch: about.branch.id,
            rule: 'fork',
            severity: 1,
            evidence: { with: shoots.filter((y) => y !== x).map((y) => y.branch?.branch.id ?? parent), angle, at: Math.round(at) },
            advice: x.branch ? 'remove' : 'shorten',
            also: ['reserve'],
            because: [
              `${shoots.length} shoots from one point (${list(shoots.map(name))}): two make a fork. ${goesOn ? `${s.names(parent)} goes on and carries the green; with ${name(best.a.branch ? best.a : best.b)} it stands ${angle}° apart.` : `${name(best.a)} and ${name(best.b)} stand ${angle}° apart and are most alike in thickness.`}`,
              ...(x.branch ? [] : [`Shortened to ${at.toFixed(0)} mm, ${s.names(parent)} ends in that fork.`]),
            ],
            draw: () => ({ lines: [ringAt(stem.line, at), about.line.points], words: [{ at: here.point, text: `${shoots.length} from one point` }] }),
          };
        });
    });
  });
}

/** crotch, inside-bend, whorl, bar, fork: where branches leave. */
export const forksAndHeights = (s: Survey): Draft[] => [...s.placed.branches.flatMap((b) => crotch(s, b)), ...insideBends(s), ...whorlsAndBars(s), ...forks(s)];
