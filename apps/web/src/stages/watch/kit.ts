import { useMemo } from 'react';
import type { Known, Tree, Watching } from '@ustle/core';
import type { Planner, RaceCurve } from '../../jobs/planner';
import { useAnswer, worker } from '../../jobs/use-planner';
import type { Desk } from '../desk';
import { kitOf, type Drawing } from '../stage';

const CHART_WEEKS = 79;
const MOST_LABELS = 14;

const useCurves = (tree: Tree, on: string, known: Known): RaceCurve[] | null =>
  useAnswer(() => worker('plans').curves(tree, on, CHART_WEEKS, known) as Promise<ReturnType<Planner['curves']>>, [tree, on, known]);

const useWatching = (tree: Tree, on: string, known: Known): Watching | null =>
  useAnswer(() => worker('plans').watching(tree, on, known) as Promise<Watching>, [tree, on, known]);

export function useWatchKit({ tree, plan, today, branch, short, known }: Desk) {
  const curves = useCurves(tree, today, known);
  const watching = useWatching(tree, today, known);
  const wires = plan?.wires;
  const drawing = useMemo<Drawing>(() => {
    const ids = (wires ?? []).map((w) => w.branch);
    const ordered = branch && ids.includes(branch) ? [branch, ...ids.filter((id) => id !== branch)] : ids;
    return { labels: ordered.slice(0, MOST_LABELS).map((id) => ({ branch: id, text: short(id) })), foliage: 0.4 };
  }, [wires, branch, short]);
  return { drawing, curves, watching };
}

export const useWatch = kitOf(useWatchKit);
