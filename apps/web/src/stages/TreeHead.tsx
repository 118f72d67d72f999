import { useMemo } from 'react';
import { paths } from '@ustle/contract';
import { speciesOf } from '@ustle/core';
import { useKeys } from '../shared/keys';
import { useDesk } from './desk';
import type { Stage } from './stage';
import { StageRow, StageStem } from './StageStem';

/** The tree's name, undo and redo, its file, and the stages on their stem. */
export function TreeHead({ stage, settled }: { stage: Stage; settled: ReadonlySet<string> }) {
  const { stored, tree, step } = useDesk();
  const { undo, redo } = stored;
  useKeys(
    'This tree',
    useMemo(
      () => [
        { keys: 'mod+z', what: 'take the last thing done back', run: (event) => (event.preventDefault(), void (undo && step('undo'))) },
        { keys: 'mod+shift+z', what: 'do it again', run: (event) => (event.preventDefault(), void (redo && step('redo'))) },
      ],
      [undo, redo, step],
    ),
  );
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
          disabled={!undo}
          onClick={() => void step('undo')}
          title={undo ? `Take back: ${undo}` : 'Nothing to take back'}
        >
          Undo
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          disabled={!redo}
          onClick={() => void step('redo')}
          title={redo ? `Again: ${redo}` : 'Nothing to make again'}
        >
          Redo
        </button>
        <a className="btn btn-ghost btn-sm" href={paths.treeFile(stored.id)} download>
          Tree file
        </a>
      </div>
      <StageStem stage={stage} settled={settled} />
      <StageRow stage={stage} />
    </header>
  );
}
