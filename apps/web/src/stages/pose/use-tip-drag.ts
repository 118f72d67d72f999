import { useRef, useState } from 'react';
import type { Drag, PlanDocument, Vec } from '@ustle/core';
import { worker } from '../../jobs/use-planner';
import type { Desk } from '../desk';

/** The tip of a branch being dragged: each place is asked of the worker, the newest only. */
export function useTipDrag({ tree, plan, branch, act }: Desk, tip: Vec | null) {
  // What was drawn counts as long as the plan is the one it was drawn on.
  const [drawn, setDrawn] = useState<{ plan: PlanDocument; branch: string; drag: Drag } | null>(null);
  const drag = drawn && drawn.plan === plan && drawn.branch === branch ? drawn.drag : null;
  const asked = useRef<{ branch: string | null; to: Vec; done: boolean } | null>(null);
  const busy = useRef(false);

  const work = async (): Promise<void> => {
    if (busy.current) return;
    busy.current = true;
    await worker('weighing').drag(tree, plan!.poses, branch!, null, false);
    while (asked.current?.branch === branch) {
      const { to, done } = asked.current;
      asked.current = null;
      const found = (await worker('weighing').drag(tree, plan!.poses, branch!, to, done)) as Drag | null;
      if (!found) break;
      setDrawn({ plan: plan!, branch: branch!, drag: found });
      if (done) {
        const tenth = (x: number): number => Math.round(x * 10) / 10;
        await act({ kind: 'pose', branch: branch!, bearing: tenth(found.bearing), elevation: tenth(found.elevation), bends: [] });
      }
    }
    busy.current = false;
  };
  // A quick hand takes it again before the plan has followed: then from where it was let go.
  const from = useRef<Vec | null>(null);
  const letGo = useRef<{ plan: PlanDocument | null; to: Vec } | null>(null);
  const onTip = (by: Vec, taken: boolean, done: boolean): void => {
    if (taken) from.current = letGo.current?.plan === plan ? letGo.current.to : tip;
    if (!from.current) return;
    const to: Vec = [from.current[0] + by[0], from.current[1] + by[1], from.current[2] + by[2]];
    asked.current = { branch, to, done };
    if (done) letGo.current = { plan, to };
    void work();
  };
  return { drag, onTip };
}
