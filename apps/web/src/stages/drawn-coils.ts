import { useMemo } from 'react';
import { coilAlone, coilsOn, dayOf, FlatBark, placesFor, placeTree, woodIn, type PlanDocument, type PlanRun } from '@ustle/core';
import type { DrawnCoil } from '../turntable/coil-geometry';
import { useStages } from '../jobs/use-planner';
import type { Desk } from './desk';

const branchesOf = (run: PlanRun): string[] => run.branches.map((b) => b.branch);

/** The coils of a planned piece as they will lie, drawn thin as glass until they are on. */
export const plannedCoils = (run: PlanRun): DrawnCoil[] =>
  branchesOf(run).map((branch) => ({
    branch,
    metal: run.metal,
    size: run.size,
    strands: run.strands,
    places: placesFor(run.places ?? [], branchesOf(run), branch),
    state: 'clear',
    planned: true,
  }));

const pieceOn = (plan: PlanDocument, run: string, branch: string): PlanRun | undefined =>
  plan.runs.find((r) => r.id === run && r.branches.some((b) => b.branch === branch));

/** The coils on the tree on the day shown, each as it is likely to be then; nothing until it is known where they lie. */
export function useCoils({ tree, plan, today, day, known }: Desk): DrawnCoil[] {
  const likely = useStages(tree, today, day, known);
  return useMemo(() => {
    if (!plan) return [];
    const placed = placeTree(tree);
    return coilsOn(tree, Math.min(dayOf(today), dayOf(day))).flatMap((coil): DrawnCoil[] => {
      const { branch, metal, size, strands } = coil;
      const on = woodIn(placed, branch);
      if (!on) return [];
      const run = pieceOn(plan, coil.run, branch);
      return [
        {
          branch,
          metal,
          size,
          strands,
          places: run?.places ? placesFor(run.places, branchesOf(run), branch) : coilAlone(branch, new FlatBark(on.line), coil),
          planned: false,
          state: likely?.find((s) => s.branch === branch)?.stage ?? 'clear',
        },
      ];
    });
  }, [tree, plan, today, day, likely]);
}
