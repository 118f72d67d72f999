import { wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { Known, PlanDocument, Tree } from '@ustle/core';
import type { Planner } from './planner';

/** Plans, the long search for fronts, what follows from a decision, and photos each have a worker of their own: none is kept waiting by another. */
type Bench = 'plans' | 'search' | 'weighing' | 'sight';
const started = new Map<Bench, Remote<Planner>>();

/** A worker of the page, started when it is first asked. */
export function worker(bench: Bench): Remote<Planner> {
  let found = started.get(bench);
  if (!found) started.set(bench, (found = wrap<Planner>(new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' }))));
  return found;
}

/** The newest answer of a worker to a question; an answer to an older question is dropped, the last one stays in sight meanwhile. */
export function useAnswer<T>(question: () => Promise<T | null>, keys: readonly unknown[]): T | null {
  const [answer, setAnswer] = useState<T | null>(null);
  useEffect(() => {
    let stale = false;
    void question().then((value) => {
      if (!stale) setAnswer(() => value);
    });
    return () => {
      stale = true;
    };
    // The question is rebuilt on every render; its keys say when it is another one.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, keys);
  return answer;
}

export const usePlan = (tree: Tree, on: string, known: Known): PlanDocument | null =>
  useAnswer(() => worker('plans').plan(tree, on, known) as Promise<PlanDocument>, [tree, on, known]);

export const useStages = (tree: Tree, today: string, on: string, known: Known): Awaited<ReturnType<Planner['stages']>> | null =>
  useAnswer(() => worker('plans').stages(tree, today, on, known) as Promise<ReturnType<Planner['stages']>>, [tree, today, on, known]);

export const useSeasonCurve = (tree: Tree, from: string, weeks: number): number[] | null =>
  useAnswer(
    () => worker('plans').season(tree.species, tree.site.hemisphere, from, weeks) as Promise<number[]>,
    [tree.species, tree.site.hemisphere, from, weeks],
  );
