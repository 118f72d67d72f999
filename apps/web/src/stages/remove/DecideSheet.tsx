import { useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { dayOf, decisionsOf, usualDetails, type Act, type DecisionDetails, type Finding } from '@ustle/core';
import { useNotice } from '../../app/notice';
import { putDecision, putEither } from '../../shared/api';
import { useDesk } from '../tree-context';
import { ACT_WORDS } from './acts';
import { BranchRow } from './BranchRow';
import { RulesBench } from './RulesBench';

/** Branches listed at first; a scan may bring thousands. */
const ROWS = 120;
const NOTHING_FOUND: Finding[] = [];

/** Every branch with what was found against it, to be decided by hand or by keys. */
export function DecideSheet() {
  const { view, tree, weighed, branch, setBranch, today } = useDesk();
  const { attempt } = useNotice();
  const acts = useMemo(() => decisionsOf(tree), [tree]);
  /** Branches with findings first, from below; then the others. */
  const { order, findingsOn, byId } = useMemo(() => {
    const on = new Map<string, Finding[]>();
    for (const f of weighed?.findings ?? []) on.set(f.branch, [...(on.get(f.branch) ?? []), f]);
    const known = new Map(tree.branches.map((b) => [b.id, b]));
    // The tree may be a step ahead of what was found on it.
    const found = [...on.keys()].filter((id) => known.has(id));
    return { order: [...found, ...tree.branches.map((b) => b.id).filter((id) => !on.has(id))], findingsOn: on, byId: known };
  }, [weighed, tree]);
  const [shown, setShown] = useState(ROWS);
  const rows = branch && order.indexOf(branch) >= shown ? order.slice(0, order.indexOf(branch) + 1) : order.slice(0, shown);
  const decision = (id: string): (typeof tree.plan.decisions)[number] | undefined => tree.plan.decisions.find((d) => d.branch === id);
  const act = useCallback(
    (id: string, to: Act) => void attempt(() => putDecision(view, id, { act: to, ...usualDetails(view.tree, id, to, dayOf(today)) })),
    [attempt, view, today],
  );
  const details = (id: string, given: DecisionDetails): void => void attempt(() => putDecision(view, id, { act: decision(id)!.act, ...given }));

  // The address follows the keys with a delay; a quick hand is ahead of it.
  const at = useRef(branch);
  useEffect(() => {
    at.current = branch;
  }, [branch]);

  // Heard from the moment the list is seen.
  useLayoutEffect(() => {
    const go = (by: number): void => {
      const from = at.current ? order.indexOf(at.current) : -1;
      at.current = order[Math.min(order.length - 1, Math.max(0, from + by))] ?? null;
      setBranch(at.current);
    };
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || (event.target instanceof HTMLElement && event.target.matches('input, textarea, select'))) return;
      const key = event.key.toLowerCase();
      if (key === 'j') go(1);
      else if (key === 'l') go(-1);
      const chosen = ACT_WORDS.find((a) => a.key === key);
      if (chosen && at.current) act(at.current, chosen.act);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [order, setBranch, act]);

  return (
    <>
      {!tree.plan.front && <p className="mb-3 text-quiet">Choose a front first, and what points at the eye or hides the trunk is found too.</p>}
      <ul className="mb-4 border-b border-rule">
        {rows.map((id) => (
          <BranchRow
            key={id}
            branch={byId.get(id)!}
            act={acts.get(id) ?? 'undecided'}
            decision={decision(id)}
            findings={findingsOn.get(id) ?? NOTHING_FOUND}
            promised={weighed?.promises.find((p) => p.branch === id)}
            open={id === branch}
            onOpen={setBranch}
            onAct={(to) => act(id, to)}
            onDetails={(given) => details(id, given)}
            onEither={(other) => void attempt(() => putEither(view, id, other))}
          />
        ))}
      </ul>
      {rows.length < order.length && (
        <button type="button" className="btn btn-ghost btn-sm mb-4" onClick={() => setShown(shown + ROWS)}>
          {order.length - rows.length} more branches
        </button>
      )}
      <RulesBench />
    </>
  );
}
