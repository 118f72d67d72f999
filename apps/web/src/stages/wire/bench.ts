import { useMemo } from 'react';
import type { PlanDocument } from '@ustle/core';
import type { DrawnCoil } from '../../turntable/coil-geometry';
import type { Desk } from '../desk';
import { usePosedLines } from '../posed-lines';
import type { Drawing } from '../stage';

/** The coil as it shall lie on the chosen branch, drawn thin as glass until it is on. */
const plannedCoils = (plan: PlanDocument, branch: string): DrawnCoil[] =>
  plan.runs.flatMap((run) =>
    run.branches
      .filter((part) => part.branch === branch)
      .map((part) => ({
        branch,
        metal: run.metal,
        size: run.size,
        strands: run.strands,
        angle: run.angle,
        hand: part.hand,
        start: part.start,
        state: 'clear' as const,
        planned: true,
      })),
  );

/** Draws the pose of the chosen branch, or of all main branches still to be wired, in dots. */
export function useWireBench({ tree, plan, branch, short }: Desk) {
  const lines = usePosedLines(tree, plan);
  const drawing = useMemo<Drawing>(() => {
    if (!plan) return {};
    const on = new Set(plan.wires.map((w) => w.branch));
    const open = plan.poses.filter((p) => !on.has(p.branch));
    const main = new Set(plan.runs.filter((r) => r.order === 1).flatMap((r) => r.branches.map((b) => b.branch)));
    return {
      poses: open
        .filter((p) => (branch ? p.branch === branch : main.has(p.branch)))
        .flatMap((p) => lines?.get(p.branch) ?? [])
        .map((line) => ({ line })),
      labels: branch ? [{ branch, text: short(branch) }] : [],
      planned: branch && !on.has(branch) ? plannedCoils(plan, branch) : [],
      foliage: 0.4,
    };
  }, [plan, lines, branch, short]);
  return { drawing };
}
