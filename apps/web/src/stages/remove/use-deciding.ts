import { useEffect, useMemo, useRef } from 'react';
import { groupedBy, dayOf, takenAlong, usualDetails, type Consequences, type DecisionDetails, type Fate, type Finding } from '@ustle/core';
import type { Key } from '../../shared/keys';
import type { Desk } from '../desk';
import { FATE_WORDS } from './fates';

export interface Deciding {
  /** Branches with findings first, from below; then the others. */
  order: readonly string[];
  findingsOn: ReadonlyMap<string, Finding[]>;
  /** Decides what becomes of a branch, with what that usually means. */
  decide: (branch: string, fate: Fate) => Promise<void>;
  details: (branch: string, given: DecisionDetails) => void;
  keys: readonly Key[];
}

/** Decisions that are whole with one press. */
const STEPS_ON: ReadonlySet<Fate> = new Set(['keep', 'remove', 'reserve', 'sacrifice']);

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
    const openNow = (id: string): boolean => !now.current.tree.plan.decisions.some((d) => d.branch === id) && !takenAlong(now.current.tree).has(id);
    // A first decision steps on to the next branch that is open; one that is changed stays, and so does one of which more is to be said.
    const decide = async (id: string, fate: Fate): Promise<void> => {
      const { tree: before, order: all } = now.current;
      const isFirst = openNow(id) && STEPS_ON.has(fate);
      if (!(await act({ kind: 'decide', branch: id, act: fate, ...usualDetails(before, id, fate, dayOf(today)) })) || !isFirst || at.current !== id) return;
      const from = all.indexOf(id);
      const next = [...all.slice(from + 1), ...all.slice(0, from)].find((b) => b !== id && openNow(b));
      if (!next) return;
      at.current = next;
      setBranch(next);
    };
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
          { keys: 'j', what: 'branch before', run: () => go(-1) },
          { keys: 'l', what: 'next branch', run: () => go(1) },
          ...FATE_WORDS.map(({ act: fate, name, key }) => ({
            keys: key,
            what: name.toLowerCase(),
            run: () => void (at.current && void decide(at.current, fate)),
          })),
        ]
      : [];
    return { order, findingsOn, decide, details, keys };
  }, [order, findingsOn, act, today, setBranch, open]);
}
