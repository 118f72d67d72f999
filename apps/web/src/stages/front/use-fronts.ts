import { proxy } from 'comlink';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { isTrunkMeasured, peaks, type Front, type FrontResult, type Tree, type View, type Weights } from '@ustle/core';
import type { Planner } from '../../jobs/planner';
import { useAnswer, worker } from '../../jobs/use-planner';

export type Judged = ReturnType<Planner['judge']>;

export const useJudged = (tree: Tree, view: View, weights: Weights): Judged | null =>
  useAnswer(() => worker('plans').judge(tree, view, weights) as Promise<Judged>, [tree, view.bearing, view.pitch, view.roll, weights]);

export interface FrontSearch {
  rose: Front[];
  candidates: Front[];
  /** 0..1 while searching, 1 when done. */
  done: number;
  stopped: boolean;
  stop: () => void;
}

/** The fronts of a tree, filling in as they are found; searched anew when what is seen has changed, not when a front is chosen. Given up when one leaves. */
export function useFronts(tree: Tree, tilts: number[], weights: Weights): FrontSearch {
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
    // Nothing is told of a trunk that nobody measured.
    if (found.current === key || !isTrunkMeasured(tree)) return undefined;
    let stale = false;
    // What is told on the way comes by another way than the end, and may come after it.
    let ended = false;
    const onRose = proxy((rose: Front[], done: number) => {
      if (!stale && !ended)
        setState((before) => (before.rose.length && done > 0 ? { ...before, key, done } : { key, rose, candidates: peaks(rose), done, stopped: false }));
    });
    void worker('search')
      .fronts(tree, { tilts, weights }, onRose)
      .then((result: FrontResult | null) => {
        if (stale) return;
        ended = true;
        if (result) found.current = key;
        setState((before) => (result ? { ...result, key, done: 1, stopped: false } : { ...before, stopped: true }));
      });
    return () => {
      stale = true;
      void worker('search').stopSearch();
    };
    // The key says it all.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const stop = useCallback(() => void worker('search').stopSearch(), []);
  return { ...state, done: state.key === key ? state.done : 0, stop };
}
