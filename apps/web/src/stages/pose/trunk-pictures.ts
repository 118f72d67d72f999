import { isTrunkLead, type Intent, type TrunkOption, type TrunkWay } from '@ustle/core';
import { percent } from '../../shared/say';
import type { Desk } from '../desk';
import type { Picture } from '../SideBySide';

/** More pictures than these are too small to judge. */
const MOST_PICTURES = 4;
const LEVEL = { bearing: 0, pitch: 0, roll: 0 };

/** The act that chooses a way, with what leads the trunk there. */
export function choosing(way: TrunkWay | null, device: TrunkOption['device']): Intent {
  if (!device || !isTrunkLead(device.kind)) return { kind: 'trunk-way', way };
  const { kind, at, anchor, bearing, by, pitch } = device;
  return { kind: 'trunk-way', way, device: { kind, at, anchor, bearing, by, pitch } };
}

export const sayYears = (n: number | null): string =>
  n === null ? 'over 15 years' : n < 1 ? 'under a year' : `${Math.round(n)} ${Math.round(n) === 1 ? 'year' : 'years'}`;

/** A tall trunk bent in the ways that are offered, beside it cut back: as many pictures as can be judged, one of a cut among them. */
export function waysBeside({ tree, act, setBranch }: Desk, options: readonly TrunkOption[]): Picture[] {
  const offered = options.filter((o) => o.then);
  const cuts = offered.filter((o) => o.kind === 'cut').slice(0, 1);
  const bends = offered.filter((o) => o.kind === 'bend').slice(0, MOST_PICTURES - cuts.length);
  const own = tree.plan.front ?? LEVEL;
  return [...bends, ...cuts].map((o) => ({
    name: o.name,
    note: `${percent(o.heightShare)} of its height, holds in ${sayYears(o.years)}`,
    view: o.planting?.view ?? own,
    after: o.then!.tree,
    bent: o.kind === 'bend' ? new Map(o.then!.lines) : null,
    onPick: () => (o.kind === 'bend' ? void act(choosing(o.key as TrunkWay, o.device)) : setBranch(o.key)),
  }));
}
