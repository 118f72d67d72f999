import { useMemo } from 'react';
import type { Desk } from '../desk';
import { plannedCoils } from '../drawn-coils';
import { usePosedLines } from '../posed-lines';
import type { Drawing } from '../stage';

/** Draws the wire that is not on yet as it will lie: all of it, or the piece of the chosen branch with the poses that it is for, in dots. */
export function useWireKit({ tree, plan, branch, short }: Desk) {
  const lines = usePosedLines(tree, plan);
  const drawing = useMemo<Drawing>(() => {
    if (!plan) return {};
    const on = new Set(plan.wires.map((w) => w.branch));
    const open = plan.runs.filter((r) => r.branches.some((b) => !on.has(b.branch)));
    const chosen = branch ? open.filter((r) => r.branches.some((b) => b.branch === branch)) : open;
    const own = branch ? chosen.flatMap((r) => r.branches.map((b) => b.branch)) : [];
    return {
      poses: own.flatMap((id) => lines?.get(id) ?? []).map((line) => ({ line })),
      labels: own.map((id) => ({ branch: id, text: short(id) })),
      planned: chosen.flatMap(plannedCoils).filter((c) => !on.has(c.branch)),
      foliage: branch ? 0.25 : 0.35,
    };
  }, [plan, lines, branch, short]);
  return { drawing };
}
