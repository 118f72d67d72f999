import { useRef, useState } from 'react';
import type { Drag, PlanDocument, Vec } from '@ustle/core';
import { worker } from '../../work/use-planner';
import type { Desk } from '../desk';

/** The tip of a branch being dragged: each place is asked of the worker, the newest only. */
export function useTipDrag({ tree, plan, branch, act }: Desk, tip: Vec | null) {
  // What was drawn counts as long as the plan is the one it was drawn on.
  const [drawn, setDrawn] = useState<{ plan: PlanDocument; branch: string; drag: Drag } | null>(null);
  const drag = drawn && drawn.plan === plan && drawn.branch === branch ? drawn.drag : null;
  const asked = useRef<{ to: Vec; done: boolean } | null>(null);
  const busy = useRef(false);

  const work = async (): Promise<void> => {
    if (busy.current) return;
    busy.current = true;
    await worker('weighing').drag(tree, plan!.poses, branch!, null, false);
    while (asked.current) {
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
  const onTip = (by: Vec, done: boolean): void => {
    if (!tip) return;
    asked.current = { to: [tip[0] + by[0], tip[1] + by[1], tip[2] + by[2]], done };
    void work();
  };
  return { drag, onTip };
}
