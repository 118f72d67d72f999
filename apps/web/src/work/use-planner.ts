import { proxy, wrap, type Remote } from 'comlink';
import { useEffect, useState } from 'react';
import type { Front, FrontResult, PlanDocument, Tree } from '@ustle/core';
import type { Planner, RaceCurve } from './planner';

let shared: Remote<Planner> | null = null;

/** The one worker of the page, started when first asked. */
export const worker = (): Remote<Planner> => (shared ??= wrap<Planner>(new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' })));

/** The front search runs apart, so that plans are not kept waiting behind it. */
let searcher: Remote<Planner> | null = null;
const searchWorker = (): Remote<Planner> => (searcher ??= wrap<Planner>(new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' })));

/** The newest answer of the worker to a question; an answer to an older question is dropped, the last one stays in sight meanwhile. */
function useAnswer<T>(question: () => Promise<T>, keys: readonly unknown[]): T | null {
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

export const usePlan = (tree: Tree, on: string): PlanDocument | null => useAnswer(() => worker().plan(tree, on) as Promise<PlanDocument>, [tree, on]);

export const useCurves = (tree: Tree, on: string, weeks: number): RaceCurve[] | null =>
  useAnswer(() => worker().curves(tree, on, weeks) as Promise<RaceCurve[]>, [tree, on, weeks]);

export const useStages = (tree: Tree, today: string, on: string): Awaited<ReturnType<Planner['stages']>> | null =>
  useAnswer(() => worker().stages(tree, today, on) as Promise<ReturnType<Planner['stages']>>, [tree, today, on]);

export const useSeasonCurve = (tree: Tree, from: string, weeks: number): number[] | null =>
  useAnswer(() => worker().season(tree.species, tree.site.hemisphere, from, weeks) as Promise<number[]>, [tree.species, tree.site.hemisphere, from, weeks]);

export interface FrontSearchState {
  rose: Front[];
  candidates: Front[];
  /** 0..1 while searching, 1 when done. */
  done: number;
}

/** The fronts of a tree, filling in as they are found; searched anew when its branches or decisions change. */
export function useFronts(tree: Tree): FrontSearchState {
  const [state, setState] = useState<FrontSearchState>({ rose: [], candidates: [], done: 0 });
  useEffect(() => {
    let stale = false;
    const onRose = proxy((rose: Front[], done: number) => {
      if (!stale) setState((before) => ({ rose: before.rose.length > rose.length ? before.rose : rose, candidates: before.candidates, done }));
    });
    void searchWorker()
      .fronts(tree, onRose)
      .then((found: FrontResult | null) => {
        if (!stale && found) setState({ ...found, done: 1 });
      });
    return () => {
      stale = true;
    };
    // Only what changes the view: the front that is chosen does not.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [tree.branches, tree.trunk, tree.roots, JSON.stringify(tree.plan.decisions)]);
  return state;
}
