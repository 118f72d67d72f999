import { turnDeg } from '../units/index.js';
import { findSpecies } from '../species/index.js';
import { slope, withChildren, type PlacedBranch, type PlacedTree } from '../tree/index.js';
import { conflictsOf, reasonsToKeep } from './keeping.js';

export type Rule = 'dead' | 'blind' | 'weak' | 'hanging' | 'eye' | 'bar' | 'whorl' | 'hides-trunk';
export type Advice = 'remove' | 'shorten' | 'compact' | 'move' | 'reserve' | 'wait';

/** One observation on a branch: never an act, always with what it rests on. */
export interface Finding {
  branch: string;
  rule: Rule;
  severity: 1 | 2 | 3;
  evidence: Record<string, number | string | string[]>;
  advice: Advice;
  because: string[];
  conflicts: string[];
}

export interface FindingLimits {
  hangingDeg: number;
  barDeg: number;
  whorlMm: number;
  hidesShare: number;
}
export const DEFAULT_LIMITS: FindingLimits = { hangingDeg: -60, barDeg: 20, whorlMm: 10, hidesShare: 0.06 };

/** What the chosen front shows: its bearing, the branches that point at the viewer, and what hides the trunk. */
export interface SeenFromFront {
  bearing: number;
  atEye: readonly string[];
  hiding: readonly { branch: string; share: number }[];
}

type Draft = Omit<Finding, 'conflicts'>;

function condition(placed: PlacedTree): Draft[] {
  const species = findSpecies(placed.tree.species);
  return placed.branches.flatMap(({ branch: b }): Draft[] => {
    const draft = (rule: Rule, severity: 1 | 2 | 3, advice: Advice, ...because: string[]): Draft[] => [
      { branch: b.id, rule, severity, evidence: { state: b.state, green: b.green }, advice, because },
    ];
    switch (b.state) {
      case 'dead':
        return draft('dead', 3, 'remove', 'Dead wood carries no green. Cut it back, or leave a stub as a jin.');
      case 'blind':
        return b.backBuds
          ? draft('blind', 2, 'shorten', 'No bud at the tip, but buds further back: shorten to one of them.')
          : draft(
              'blind',
              2,
              'remove',
              'Green, but without a bud at the tip it will not go on.',
              ...(species?.budsBackOnOldWood ? [`${species.name} can bud on old wood: waiting a season is possible.`] : []),
            );
      case 'weak':
        return draft('weak', 1, 'wait', 'Weak growth: wire and cuts here cost more than they give this year.');
      default:
        return [];
    }
  });
}

function hanging(placed: PlacedTree, limits: FindingLimits): Draft[] {
  return placed.branches.flatMap((b): Draft[] => {
    const elevation = slope(b).elevation;
    if (b.order < 2 || b.branch.state === 'dead' || !(elevation < limits.hangingDeg)) return [];
    return [
      {
        branch: b.branch.id,
        rule: 'hanging',
        severity: 2,
        evidence: { elevation: Math.round(elevation), limit: limits.hangingDeg },
        advice: 'remove',
        because: [`Hangs at ${Math.round(elevation)}° under ${b.branch.parent}: shaded there, and it muddles the underside of the pad.`],
      },
    ];
  });
}

/** How well a branch serves: living, not at the viewer, green. The least useful of a group is proposed. */
function usefulness(b: PlacedBranch, front: SeenFromFront | null): number {
  const state = { dead: -3, blind: -1, weak: -0.5, normal: 0, strong: 0.2 }[b.branch.state];
  const aside = front ? Math.abs(turnDeg(front.bearing, slope(b).bearing)) : 90;
  return state + Math.min(aside, 60) / 60 + 2 * b.branch.green;
}

function heightLimit(b: PlacedBranch, limits: FindingLimits): number {
  return Math.max(limits.whorlMm, b.parentDiameter / 2);
}

/** Groups of siblings that leave their parent within the limit of each other, from below. */
function clusters(placed: PlacedTree, limits: FindingLimits): PlacedBranch[][] {
  const byParent = new Map<string, PlacedBranch[]>();
  for (const b of placed.branches) byParent.set(b.branch.parent, [...(byParent.get(b.branch.parent) ?? []), b]);
  return [...byParent.values()].flatMap((siblings) => {
    const sorted = [...siblings].sort((a, b) => a.branch.at - b.branch.at || (a.branch.id < b.branch.id ? -1 : 1));
    const groups: PlacedBranch[][] = [];
    for (const b of sorted) {
      const group = groups[groups.length - 1];
      if (group && b.branch.at - group[0]!.branch.at <= heightLimit(group[0]!, limits)) group.push(b);
      else groups.push([b]);
    }
    return groups.filter((g) => g.length > 1);
  });
}

function whorlsAndBars(placed: PlacedTree, front: SeenFromFront | null, limits: FindingLimits): Draft[] {
  return clusters(placed, limits).flatMap((group): Draft[] => {
    const ranked = [...group].sort((a, b) => usefulness(a, front) - usefulness(b, front) || (a.branch.id < b.branch.id ? -1 : 1));
    const ids = group.map((b) => b.branch.id);
    if (group.length >= 3) {
      return ranked.slice(0, group.length - 2).map((b) => ({
        branch: b.branch.id,
        rule: 'whorl',
        severity: 2,
        advice: 'remove',
        evidence: { with: ids.filter((id) => id !== b.branch.id), within: Math.round(heightLimit(b, limits)) },
        because: [`${group.length} branches leave at one height (${ids.join(', ')}): the trunk swells there. Two are enough; this one serves least.`],
      }));
    }
    const [a, b] = group as [PlacedBranch, PlacedBranch];
    const between = Math.abs(turnDeg(slope(a).bearing, slope(b).bearing));
    if (180 - between > limits.barDeg) return [];
    const least = ranked[0]!;
    const other = least === a ? b : a;
    const gap = Math.abs(a.branch.at - b.branch.at);
    return [
      {
        branch: least.branch.id,
        rule: 'bar',
        severity: 2,
        advice: 'remove',
        evidence: { with: [other.branch.id], heightGap: gap, between: Math.round(between) },
        because: [`Faces ${other.branch.id} straight across the trunk, ${gap.toFixed(0)} mm apart in height: together they read as a bar.`],
      },
    ];
  });
}

function fromTheFront(placed: PlacedTree, front: SeenFromFront, limits: FindingLimits): Draft[] {
  const eye = front.atEye.map((id): Draft => ({
    branch: id,
    rule: 'eye',
    severity: 2,
    advice: 'move',
    evidence: { front: front.bearing, off: Math.round(Math.abs(turnDeg(front.bearing, slope(placed.byId.get(id)!).bearing))) },
    because: ['Points at the eye from the chosen front and hides the trunk behind it. Move it to a side, or take it off.'],
  }));
  const hides = front.hiding
    .filter((h) => h.branch !== 'trunk' && h.share > limits.hidesShare && !front.atEye.includes(h.branch))
    .map((h): Draft => ({
      branch: h.branch,
      rule: 'hides-trunk',
      severity: 1,
      advice: 'move',
      evidence: { share: Math.round(h.share * 100) / 100 },
      because: [`Covers ${(h.share * 100).toFixed(0)}% of the lower trunk from the chosen front.`],
    }));
  return [...eye, ...hides];
}

/** What a good teacher would point at, from below; the artist decides. Independent of the order of the file. */
export function findingsOf(placed: PlacedTree, front: SeenFromFront | null, limits: FindingLimits = DEFAULT_LIMITS): Finding[] {
  const drafts = [
    ...condition(placed),
    ...hanging(placed, limits),
    ...whorlsAndBars(placed, front, limits),
    ...(front ? fromTheFront(placed, front, limits) : []),
  ];
  const heightOf = (id: string): number => placed.byId.get(id)!.line.points[0]![2];
  return drafts
    .map((d): Finding => {
      const children = withChildren(placed.tree, d.branch).size - 1;
      const takes = children && d.advice === 'remove' ? [`It takes ${children} ${children === 1 ? 'branch' : 'branches'} growing on it along.`] : [];
      return { ...d, because: [...d.because, ...takes, ...reasonsToKeep(placed, d.branch, front)], conflicts: conflictsOf(placed.tree, d.branch) };
    })
    .sort((a, b) => heightOf(a.branch) - heightOf(b.branch) || (a.branch + a.rule < b.branch + b.rule ? -1 : 1));
}
