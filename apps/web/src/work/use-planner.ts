import { proxy, wrap, type Remote } from 'comlink';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { peaks, type Consequences, type Evidence, type Front, type FrontResult, type PlanDocument, type Tree, type View, type Weights } from '@ustle/core';
import type { Planner, RaceCurve } from './planner';

let shared: Remote<Planner> | null = null;

/** The one worker of the page, started when first asked. */
export const worker = (): Remote<Planner> => (shared ??= wrap<Planner>(new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' })));

/** The front search runs apart, so that plans are not kept waiting behind it. */
let searcher: Remote<Planner> | null = null;
const searchWorker = (): Remote<Planner> => (searcher ??= wrap<Planner>(new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' })));

/** What follows from a decision is told beside it at once: it has a worker of its own too. */
let weigher: Remote<Planner> | null = null;
const weighWorker = (): Remote<Planner> => (weigher ??= wrap<Planner>(new Worker(new URL('./planner.worker.ts', import.meta.url), { type: 'module' })));

/** The newest answer of the worker to a question; an answer to an older question is dropped, the last one stays in sight meanwhile. */
function useAnswer<T>(question: () => Promise<T | null>, keys: readonly unknown[]): T | null {
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

/** What the plan's cuts lead to; null until it is known, and where it is not wanted. */
export const useConsequences = (tree: Tree, on: string, wanted: boolean): Consequences | null =>
  useAnswer(() => (wanted ? (weighWorker().consequences(tree, on) as Promise<Consequences>) : Promise.resolve(null)), [tree, on, wanted]);

export const useFindingEvidence = (tree: Tree, branch: string | null): Evidence | null =>
  useAnswer(() => (branch ? (weighWorker().findingEvidence(tree, branch) as Promise<Evidence>) : Promise.resolve(null)), [tree, branch]);

export type Judged = ReturnType<Planner['judge']>;

export const useJudged = (tree: Tree, view: View, weights: Weights): Judged | null =>
  useAnswer(() => worker().judge(tree, view, weights) as Promise<Judged>, [tree, view.bearing, view.pitch, view.roll, weights]);

export interface FrontSearchState {
  rose: Front[];
  candidates: Front[];
  /** 0..1 while searching, 1 when done. */
  done: number;
  stopped: boolean;
  stop: () => void;
}

/** The fronts of a tree, filling in as they are found; searched anew when they are wanted and what is seen has changed, not when a front is chosen. */
export function useFronts(tree: Tree, tilts: number[], weights: Weights, wanted: boolean): FrontSearchState {
  const how = JSON.stringify([tilts, weights]);
  // Another key for another question: a front that is chosen does not change what is seen.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const key = useMemo(() => Symbol(how), [tree.trunk, tree.roots, tree.branches, tree.features, tree.plan.decisions, how]);
  const [state, setState] = useState<{ key: symbol | null; rose: Front[]; candidates: Front[]; done: number; stopped: boolean }>({
    key: null,
    rose: [],
    candidates: [],
    done: 0,
    stopped: false,
  });
  const found = useRef<symbol | null>(null);
  useEffect(() => {
    if (!wanted || found.current === key) return;
    let stale = false;
    const onRose = proxy((rose: Front[], done: number) => {
      if (!stale)
        setState((before) => (before.rose.length && done > 0 ? { ...before, key, done } : { key, rose, candidates: peaks(rose), done, stopped: false }));
    });
    void searchWorker()
      .fronts(tree, { tilts, weights }, onRose)
      .then((result: FrontResult | null) => {
        if (stale) return;
        if (result) found.current = key;
        setState((before) => (result ? { ...result, key, done: 1, stopped: false } : { ...before, stopped: true }));
      });
    return () => {
      stale = true;
    };
    // The key says it all.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, wanted]);
  const stop = useCallback(() => void searchWorker().stopSearch(), []);
  return { ...state, done: state.key === key ? state.done : 0, stop };
}
