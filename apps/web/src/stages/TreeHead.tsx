import { useCallback, useEffect } from 'react';
import { paths } from '@ustle/contract';
import { speciesOf } from '@ustle/core';
import { useNotice } from '../app/notice';
import { step } from '../shared/api';
import type { StageKey } from './settled';
import { StageRow, StageStem } from './StageStem';
import { useDesk } from './tree-context';

function useUndoKeys(undo: () => void, redo: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      if (event.shiftKey) redo();
      else undo();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [undo, redo]);
}

/** The tree's name, undo and redo, its file, and the stages on their stem. */
export function TreeHead({ stage, settled }: { stage: StageKey; settled: ReadonlySet<StageKey> }) {
  const { view, tree } = useDesk();
  const { attempt } = useNotice();
  const undo = useCallback(() => void (view.undo && attempt(() => step(view, 'undo'))), [view, attempt]);
  const redo = useCallback(() => void (view.redo && attempt(() => step(view, 'redo'))), [view, attempt]);
  useUndoKeys(undo, redo);
  return (
    <header className="flex min-h-16 flex-wrap items-center justify-between gap-x-4 border-b border-rule px-4 sm:px-6">
      <div className="min-w-0 py-1">
        <h1 className="truncate text-2xl">{tree.name}</h1>
        <p className="text-quiet">
          {speciesOf(tree.species).name}, {tree.branches.length} branches, pot {tree.pot.width.toFixed(0)} mm
        </p>
      </div>
      <div className="flex items-center gap-1">
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          disabled={!view.undo}
          onClick={undo}
          title={view.undo ? `Take back: ${view.undo}` : 'Nothing to take back'}
        >
          Undo
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          disabled={!view.redo}
          onClick={redo}
          title={view.redo ? `Again: ${view.redo}` : 'Nothing to make again'}
        >
          Redo
        </button>
        <a className="btn btn-ghost btn-sm" href={paths.treeFile(view.id)} download>
          Tree file
        </a>
      </div>
      <StageStem stage={stage} settled={settled} />
      <StageRow stage={stage} />
    </header>
  );
}
