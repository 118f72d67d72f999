import { useMemo } from 'react';
import { lengthOf, placeTree, pointAt, type Tree } from '@ustle/core';
import type { DrawnTie } from '../turntable/Ties';
import type { Desk } from './desk';

/** The ties that are on, from where they are tied to their anchors. */
export function useTies({ plan }: Desk, tree: Tree): DrawnTie[] {
  return useMemo(() => {
    const on = plan?.guys.filter((g) => g.on) ?? [];
    if (!on.length) return [];
    const placed = placeTree(tree);
    return on.flatMap((g): DrawnTie[] => {
      const line = placed.byId.get(g.branch)?.line;
      if (!line) return [];
      const { point, diameter, direction } = pointAt(line, Math.min(g.at, lengthOf(line)));
      return [{ from: point, to: g.to, look: 'tie', cushion: { along: direction, diameter, width: g.cushion.width } }];
    });
  }, [plan, tree]);
}
