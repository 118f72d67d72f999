import { turnDeg } from '../units/index.js';
import { greenWithChildren, namesOf, shortNamesOf, slope, stemsOf, type Names, type PlacedBranch, type PlacedTree } from '../tree/index.js';
import type { SeenFromFront } from './finding.js';
import type { RemovalProfile } from './profile.js';

/** A tree as the rules look at it, with what several of them need looked up once. */
export interface Survey {
  placed: PlacedTree;
  front: SeenFromFront | null;
  profile: RemovalProfile;
  /** Branches on each parent, from its base to its tip. */
  on: ReadonlyMap<string, readonly PlacedBranch[]>;
  /** Branches on the trunk, from below; stems of a clump are trunks of their own and not among them. */
  onTrunk: readonly PlacedBranch[];
  /** Those of them that live. */
  primaries: readonly PlacedBranch[];
  greenWith: ReadonlyMap<string, number>;
  slopeOf: (b: PlacedBranch) => { bearing: number; elevation: number };
  /** What branches are called, in sentences; and short enough for a word on the tree. */
  names: Names;
  short: Names;
}

const idOrder = (a: PlacedBranch, b: PlacedBranch): number => (a.branch.id < b.branch.id ? -1 : 1);

/** Independent of the order in which the file lists the branches. */
export function survey(placed: PlacedTree, front: SeenFromFront | null, profile: RemovalProfile): Survey {
  const on = new Map<string, PlacedBranch[]>();
  for (const b of [...placed.branches].sort((a, c) => a.branch.at - c.branch.at || idOrder(a, c))) {
    const siblings = on.get(b.branch.parent);
    if (siblings) siblings.push(b);
    else on.set(b.branch.parent, [b]);
  }
  const slopes = new Map(placed.branches.map((b) => [b, slope(b)]));
  const stems = stemsOf(placed.tree);
  const onTrunk = (on.get('trunk') ?? []).filter((b) => !stems.has(b.branch.id));
  return {
    placed,
    front,
    profile,
    on,
    onTrunk,
    primaries: onTrunk.filter(isLiving),
    greenWith: greenWithChildren(placed.tree),
    slopeOf: (b) => slopes.get(b)!,
    names: namesOf(placed.tree),
    short: shortNamesOf(placed.tree),
  };
}

export const isLiving = (b: PlacedBranch): boolean => b.branch.state !== 'dead';

const STATE_WORTH = { dead: -3, blind: -1, weak: -0.5, normal: 0, strong: 0.2 };

/** How well a branch serves: living, not at the viewer, green. The least useful of a group is the one proposed. */
export function usefulness({ front, greenWith, slopeOf }: Survey, b: PlacedBranch): number {
  const aside = front ? Math.abs(turnDeg(front.bearing, slopeOf(b).bearing)) : 90;
  return STATE_WORTH[b.branch.state] + Math.min(aside, 60) / 60 + 2 * greenWith.get(b.branch.id)!;
}

/** Some branches, the least useful first. */
export const leastUsefulFirst = (s: Survey, group: readonly PlacedBranch[]): PlacedBranch[] =>
  [...group].sort((a, b) => usefulness(s, a) - usefulness(s, b) || idOrder(a, b));

export const percent = (share: number): string => `${(share * 100).toFixed(0)}%`;
