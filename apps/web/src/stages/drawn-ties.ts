import { useMemo } from 'react';
import { lengthOf, placeTree, pointAt, type FaultyDevice, type PlanDevice, type Tree } from '@ustle/core';
import type { DrawnTie } from '../turntable/Ties';
import type { Desk } from './desk';

/** A device as its parts are drawn, with its cushions. */
export const partsOfDevice = (d: Pick<PlanDevice, 'parts' | 'cushions'> | FaultyDevice): DrawnTie[] =>
  'fault' in d
    ? []
    : [
        ...d.parts.map(({ look, from, to }): DrawnTie => ({ look, from, to })),
        ...d.cushions.map(({ at, ...cushion }): DrawnTie => ({ look: 'pad', from: at, to: at, cushion })),
      ];

/** The ties and devices that are on, from where they are tied to their anchors. */
export function useTies({ plan }: Desk, tree: Tree): DrawnTie[] {
  return useMemo(() => {
    const on = plan?.guys.filter((g) => g.on) ?? [];
    const devices = (plan?.devices ?? []).flatMap((d) => ('fault' in d || !d.on ? [] : partsOfDevice(d)));
    if (!on.length) return devices;
    const placed = placeTree(tree);
    const ties = on.flatMap((g): DrawnTie[] => {
      const line = placed.byId.get(g.branch)?.line;
      if (!line) return [];
      const { point, diameter, direction } = pointAt(line, Math.min(g.at, lengthOf(line)));
      return [{ from: point, to: g.to, look: 'tie', cushion: { along: direction, diameter, width: g.cushion.width } }];
    });
    return [...ties, ...devices];
  }, [plan, tree]);
}
