import { useMemo, useState } from 'react';
import { decisionsOf, takenAlong, unfinishedCuts, type Finding } from '@ustle/core';
import { useDesk } from '../desk';
import { useRemove } from './kit';
import { BranchRow } from './BranchRow';
import { RulesSheet } from './RulesSheet';

/** Branches listed at first; a scan may bring thousands. */
const ROWS = 120;
const NOTHING_FOUND: Finding[] = [];

/** Every branch with what was found against it, to be decided by hand or by keys. */
export function DecideSheet() {
  const { tree, branch, setBranch, act, names } = useDesk();
  const { weighed, deciding } = useRemove();
  const { order, findingsOn } = deciding;
  const fates = useMemo(() => decisionsOf(tree), [tree]);
  const takenBy = useMemo(() => takenAlong(tree), [tree]);
  const unfinished = useMemo(() => new Set(unfinishedCuts(tree).map((u) => u.branch)), [tree]);
  const byId = useMemo(() => new Map(tree.branches.map((b) => [b.id, b])), [tree.branches]);
  const decisions = useMemo(() => new Map(tree.plan.decisions.map((d) => [d.branch, d])), [tree.plan.decisions]);
  const [shown, setShown] = useState(ROWS);
  const rows = branch && order.indexOf(branch) >= shown ? order.slice(0, order.indexOf(branch) + 1) : order.slice(0, shown);
  return (
    <>
      {!tree.plan.front && <p className="mb-3 text-quiet">Choose a front first, and what points at the eye or hides the trunk is found too.</p>}
      <ul className="mb-4 border-b border-rule">
        {rows.map((id) => (
          <BranchRow
            key={id}
            branch={byId.get(id)!}
            name={names(id)}
            fate={fates.get(id) ?? 'undecided'}
            decision={decisions.get(id)}
            takenBy={takenBy.get(id)}
            findings={findingsOn.get(id) ?? NOTHING_FOUND}
            promised={weighed?.promises.find((p) => p.branch === id)}
            unfinished={unfinished.has(id)}
            open={id === branch}
            onOpen={setBranch}
            onFate={(to) => void deciding.decide(id, to)}
            onDetails={(given) => deciding.details(id, given)}
            onEither={(other) => void act({ kind: 'either', a: id, b: other })}
          />
        ))}
      </ul>
      {rows.length < order.length && (
        <button type="button" className="btn btn-ghost btn-sm mb-4" onClick={() => setShown(shown + ROWS)}>
          {order.length - rows.length} more branches
        </button>
      )}
      <RulesSheet />
    </>
  );
}
