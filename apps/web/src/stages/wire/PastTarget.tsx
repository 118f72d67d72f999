import { useState } from 'react';
import { sayByHand, type PastChoice } from '@ustle/core';
import { Quiet, Skeleton } from '../../shared/parts';
import { percent } from '../../shared/say';
import { useAnswer, worker } from '../../jobs/use-planner';
import { useDesk } from '../desk';
import { sayRace } from './say-race';

/** The shares lie five percent apart. */
const HALF_STEP = 0.025;

function Choices({ branch, now }: { branch: string; now: number }) {
  const { tree, today, known, act } = useDesk();
  const choices = useAnswer(() => worker('weighing').pasts(tree, today, branch, known) as Promise<PastChoice[]>, [tree, today, branch, known]);
  if (!choices) return <Skeleton lines={4} />;
  if (!choices.length) return <p className="text-quiet">No wire bends it, so there is nothing to choose.</p>;
  const isNow = (past: number): boolean => Math.abs(past - now) < HALF_STEP;
  const own = tree.plan.wiring?.find((w) => w.branch === branch)?.past;
  return (
    <>
      <ul>
        {choices.map((c) => (
          <li key={c.past}>
            <button
              type="button"
              aria-pressed={isNow(c.past)}
              className={`flex min-h-11 w-full items-baseline gap-3 border-b border-rule px-1 py-1.5 text-left hover:bg-base-100 ${isNow(c.past) ? 'font-bold' : ''}`}
              onClick={() => void act({ kind: 'branch-manner', branch, past: c.past })}
            >
              <span className="w-28 shrink-0">{c.past ? `${percent(c.past)} past it` : 'on the target'}</span>
              <span className="flex-1">
                {sayRace(c)}
                <span className="block font-normal text-quiet">
                  bent to about {sayByHand(c.handDeg)} by hand, {percent(c.risk)} of what the wood bears
                </span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {own !== undefined && <Quiet onClick={() => void act({ kind: 'branch-manner', branch, past: null })}>by the window it opens</Quiet>}
    </>
  );
}

/** How far past its target a branch is left to settle, as the choice it is: what it does to the days on which its wire comes off. */
export function PastTarget({ branch, now }: { branch: string; now: number }) {
  const [open, setOpen] = useState(false);
  return (
    <details className="border-t border-rule pt-2" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="cursor-pointer">How far past its target it settles</summary>
      <p className="my-1 text-quiet">It goes back a little when the wire comes off. Left past its target, it may come off sooner. Estimates.</p>
      {open && <Choices branch={branch} now={now} />}
    </details>
  );
}
