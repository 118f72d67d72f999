import { useCallback, useEffect, useRef } from 'react';
import type { TreeView } from '@ustle/contract';
import { measureFaults, normaliseGreen, type Measured, type Tree } from '@ustle/core';
import { useNotice } from '../../app/notice';
import { putMeasured } from '../../shared/api';

export interface Drafting {
  tree: Tree;
  /** The tree as it is edited, not stored yet. */
  edit: (changes: Partial<Measured> | ((tree: Tree) => Partial<Measured>)) => void;
  /** Stores what was edited, once the field is left. */
  commit: () => void;
}

/** What is being measured: shown at once, stored when a field is left, one store after the other. */
export function useDraft(view: TreeView, draft: Tree | null, setDraft: (draft: Tree | null) => void): Drafting {
  const { attempt } = useNotice();
  const tree = draft ?? view.tree;
  const now = useRef({ view, tree, edited: false, storing: false });
  useEffect(() => {
    now.current.view = view;
    now.current.tree = draft ?? view.tree;
  }, [view, draft]);

  const edit = useCallback(
    (changes: Partial<Measured> | ((tree: Tree) => Partial<Measured>)) => {
      const { tree: before } = now.current;
      now.current.tree = { ...before, ...(typeof changes === 'function' ? changes(before) : changes) };
      now.current.edited = true;
      setDraft(now.current.tree);
    },
    [setDraft],
  );

  const commit = useCallback(() => {
    const state = now.current;
    if (!state.edited || state.storing || measureFaults(state.tree).some((f) => f.wrong)) return;
    const store = async (): Promise<void> => {
      state.storing = true;
      while (state.edited && !measureFaults(state.tree).some((f) => f.wrong)) {
        state.edited = false;
        const { trunk, roots, features, name, vigour, pot } = state.tree;
        const { branches } = normaliseGreen(state.tree);
        state.view = await putMeasured(state.view, { branches, trunk, roots, features, name, vigour, pot });
      }
    };
    void attempt(store).then(() => {
      state.storing = false;
      if (!state.edited) setDraft(null);
    });
  }, [attempt, setDraft]);

  return { tree, edit, commit };
}
