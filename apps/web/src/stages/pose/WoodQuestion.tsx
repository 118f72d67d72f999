import type { PlanPose, Worsening } from '@ustle/core';
import { Quiet } from '../../shared/parts';
import { useDesk } from '../desk';
import { WORSE_NAMES } from './words';

/** What makes the wood of a branch worse: asked once, before it is bent; then it stands there. */
export function WoodQuestion({ id, pose }: { id: string; pose: PlanPose }) {
  const { tree, act } = useDesk();
  const main = tree.branches.find((b) => b.id === id)?.parent === 'trunk';
  const what = tree.plan.worse?.find((w) => w.branch === id)?.what ?? [];
  const set = (next: readonly Worsening[]): void => void act({ kind: 'wood', branch: id, what: [...next] });
  return (
    <details open={!pose.woodAsked && main} className="border-l-4 border-ochre bg-sheet px-3 py-2">
      <summary className="cursor-pointer">
        {pose.woodAsked ? (what.length ? 'Its wood is worse than its kind’s' : 'Its wood is sound') : 'Before you bend it: is any of this so?'}
      </summary>
      <fieldset className="mt-1">
        <legend className="sr-only">What makes its wood worse</legend>
        {WORSE_NAMES.map(({ value, name }) => (
          <label key={value} className="flex min-h-7 items-center gap-2 pointer-coarse:min-h-11">
            <input
              type="checkbox"
              className="checkbox checkbox-sm"
              checked={what.includes(value)}
              onChange={(event) => set(event.target.checked ? [...what, value] : what.filter((w) => w !== value))}
            />
            {name}
          </label>
        ))}
      </fieldset>
      {!pose.woodAsked && <Quiet onClick={() => set([])}>None of it</Quiet>}
    </details>
  );
}
