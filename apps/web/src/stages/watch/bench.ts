import { useMemo } from 'react';
import type { Tree } from '@ustle/core';
import type { Planner, RaceCurve } from '../../work/planner';
import { useAnswer, worker } from '../../work/use-planner';
import type { Desk } from '../desk';
import { benchOf, type Drawing } from '../stage';

const CHART_WEEKS = 79;
const MOST_LABELS = 14;

const useCurves = (tree: Tree, on: string): RaceCurve[] | null =>
  useAnswer(() => worker('plans').curves(tree, on, CHART_WEEKS) as Promise<ReturnType<Planner['curves']>>, [tree, on]);

export function useWatchBench({ tree, plan, today, branch, short }: Desk) {
  const curves = useCurves(tree, today);
  const wires = plan?.wires;
  const drawing = useMemo<Drawing>(() => {
    const ids = (wires ?? []).map((w) => w.branch);
    const ordered = branch && ids.includes(branch) ? [branch, ...ids.filter((id) => id !== branch)] : ids;
    return { labels: ordered.slice(0, MOST_LABELS).map((id) => ({ branch: id, text: short(id) })), foliage: 0.4 };
  }, [wires, branch, short]);
  return { drawing, curves };
}

export const useWatch = benchOf(useWatchBench);
