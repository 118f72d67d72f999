import type { AsGrown, PlanPose } from '@ustle/core';
import { useDesk } from '../desk';
import { useSeenWhenChosen } from '../seen-when-chosen';
import { usePose } from './kit';
import { OpenPose } from './OpenPose';
import { deg, SOURCES } from './words';

interface RowProps {
  id: string;
  pose: PlanPose | undefined;
  still: AsGrown | undefined;
  within: boolean;
}

function BranchRow({ id, pose, still, within }: RowProps) {
  const { branch, setBranch, names, tree } = useDesk();
  const open = branch === id;
  const row = useSeenWhenChosen(open);
  const own = tree.plan.poses.some((p) => p.branch === id);
  return (
    <li ref={row} className={`border-t border-rule ${open ? 'bg-base-100' : ''}`}>
      <button
        type="button"
        aria-expanded={open}
        data-branch={id}
        className={`flex w-full items-baseline gap-3 py-2 pr-2 text-left ${within ? 'pl-6' : 'pl-2'}`}
        onClick={() => setBranch(open ? null : id)}
      >
        <span className="min-w-0 flex-1">
          <strong className="block">{within ? names(id).split(', ').slice(1).join(', ') || names(id) : names(id)}</strong>
          <span className="text-quiet">{pose ? SOURCES[pose.from] : still?.placed ? 'bent and placed' : own ? 'left as it grows' : 'as it grows'}</span>
        </span>
        <span className={pose ? '' : 'text-quiet'}>{pose ? `${deg(pose.now.elevation)} → ${deg(pose.elevation)}` : deg(still?.elevation ?? 0)}</span>
      </button>
      {open && <OpenPose key={id} id={id} pose={pose} still={still} />}
    </li>
  );
}

/** The main branches from below; under the one that is open, what grows on it. */
export function BranchList() {
  const { tree, plan, branch } = useDesk();
  const { order } = usePose();
  const byId = new Map(tree.branches.map((b) => [b.id, b]));
  const mainOf = (id: string): string => {
    const parent = byId.get(id)?.parent ?? 'trunk';
    return parent === 'trunk' ? id : mainOf(parent);
  };
  const openMain = branch && byId.has(branch) ? mainOf(branch) : null;
  const shown = order.filter((id) => byId.has(id) && (byId.get(id)!.parent === 'trunk' || mainOf(id) === openMain));
  return (
    <ul className="mt-3 border-b border-rule">
      {shown.map((id) => (
        <BranchRow
          key={id}
          id={id}
          pose={plan!.poses.find((p) => p.branch === id)}
          still={plan!.asGrown.find((p) => p.branch === id)}
          within={byId.get(id)!.parent !== 'trunk'}
        />
      ))}
    </ul>
  );
}
