import { useEffect, useMemo, useRef } from 'react';
import { groupedBy, dayOf, usualDetails, type Consequences, type DecisionDetails, type Fate, type Finding } from '@ustle/core';
import type { Key } from '../../shared/keys';
import type { Desk } from '../desk';
import { FATE_WORDS } from './fates';

export interface Deciding {
  /** Branches with findings first, from below; then the others. */
  order: readonly string[];
  findingsOn: ReadonlyMap<string, Finding[]>;
  /** Decides what becomes of a branch, with what that usually means. */
  decide: (branch: string, fate: Fate) => void;
  details: (branch: string, given: DecisionDetails) => void;
  keys: readonly Key[];
}

/** Deciding branch after branch, by hand or by keys. */
export function useDeciding({ tree, today, branch, setBranch, act }: Desk, weighed: Consequences | null, open: boolean): Deciding {
  const { order, findingsOn } = useMemo(() => {
    const on = groupedBy<Finding, string>(weighed?.findings ?? [], (f) => f.branch);
    const known = new Set(tree.branches.map((b) => b.id));
    // The tree may be a step ahead of what was found on it.
    const found = [...on.keys()].filter((id) => known.has(id));
    return { order: [...found, ...tree.branches.map((b) => b.id).filter((id) => !on.has(id))], findingsOn: on };
  }, [weighed, tree.branches]);

  // The address follows the keys with a delay; a quick hand is ahead of it.
  const at = useRef(branch);
  const now = useRef({ tree, order });
  useEffect(() => {
    at.current = branch;
  }, [branch]);
  useEffect(() => {
    now.current = { tree, order };
  }, [tree, order]);

  return useMemo(() => {
    const decide = (id: string, fate: Fate): void =>
      void act({ kind: 'decide', branch: id, act: fate, ...usualDetails(now.current.tree, id, fate, dayOf(today)) });
    const details = (id: string, given: DecisionDetails): void => {
      const decision = now.current.tree.plan.decisions.find((d) => d.branch === id);
      if (decision) void act({ kind: 'decide', branch: id, act: decision.act, ...given });
    };
    const go = (by: number): void => {
      const from = at.current ? now.current.order.indexOf(at.current) : -1;
      at.current = now.current.order[Math.min(now.current.order.length - 1, Math.max(0, from + by))] ?? null;
      setBranch(at.current);
    };
    const keys: Key[] = open
      ? [
          { keys: 'j', what: 'next branch', run: () => go(1) },
          { keys: 'l', what: 'branch before', run: () => go(-1) },
          ...FATE_WORDS.map(({ act: fate, name, key }) => ({ keys: key, what: name.toLowerCase(), run: () => void (at.current && decide(at.current, fate)) })),
        ]
      : [];
    return { order, findingsOn, decide, details, keys };
  }, [order, findingsOn, act, today, setBranch, open]);
}
