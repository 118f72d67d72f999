import { dayOf } from '../units/index.js';
import { pointAt } from '../space/index.js';
import { bendRisk } from '../wood/index.js';
import { bendRatioOf, HEAVY_BY_HAND } from '../pose/index.js';
import type { Lately } from '../reading/index.js';
import { coilsOn, SAME_SESSION_DAYS, standing, woodIn, type PlacedTree } from '../tree/index.js';

/** What was wired, and bent heavily by hand, within this session: each bend by the farthest that it came. */
export function latelyOf(placed: PlacedTree, onDay: number): Lately {
  const { tree } = placed;
  const lately = (day: number): boolean => day <= onDay && onDay - day <= SAME_SESSION_DAYS;
  const coils = coilsOn(tree, onDay);
  const made = new Map<string, number>();
  for (const line of standing(tree.record)) {
    if ((line.kind !== 'bent' && line.kind !== 'placed') || !lately(dayOf(line.on))) continue;
    const wood = woodIn(placed, line.branch);
    if (!wood) continue;
    const wrapped = coils.some((c) => c.branch === line.branch && c.wrap !== 'none');
    for (const { at = 0, over, bentDeg } of line.kind === 'bent' ? [line] : line.bends) {
      if (!over || !bentDeg) continue;
      const { diameter } = pointAt(wood.line, at);
      const risk = bendRisk({ diameter, angleDeg: bentDeg, length: over, k0: bendRatioOf(tree, line.branch), protection: wrapped ? 'raffia' : 'none' });
      const key = `${line.branch} ${Math.round(at)}`;
      made.set(key, Math.max(made.get(key) ?? 0, risk));
    }
  }
  return {
    wired: new Set(coils.flatMap((c) => (lately(c.since) ? c.branch : []))).size,
    heavyBends: [...made.values()].filter((risk) => risk >= HEAVY_BY_HAND).length,
  };
}
