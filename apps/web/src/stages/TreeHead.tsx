import { lazy, Suspense, useMemo, useState } from 'react';
import { coilsOn, dayOf, speciesOf } from '@ustle/core';
import { useKeys } from '../shared/keys';
import { useDesk } from './desk';
import type { Stage } from './stage';
import { count, sayDate } from '../shared/say';
import { StageRow, StageStem } from './StageStem';

const TreeSheet = lazy(() => import('./TreeSheet').then((m) => ({ default: m.TreeSheet })));

/** The tree's name, undo and redo, what is done with it as a whole, and the stages on their stem. */
export function TreeHead({ stage, settled }: { stage: Stage; settled: ReadonlySet<string> }) {
  const { stored, tree, today, step } = useDesk();
  const { undo, redo, asideOn } = stored;
  const [sheet, setSheet] = useState(false);
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
          {speciesOf(tree.species).name}, {count(tree.branches.length, 'branch', 'branches')}, pot {tree.pot.width.toFixed(0)} mm
          {asideOn && `, put aside ${sayDate(asideOn)}`}
        </p>
      </div>
      <div className="flex flex-wrap items-center gap-1">
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          disabled={!undo}
          onClick={() => void step('undo')}
          title={undo ? `Take back: ${undo.said}` : 'Nothing to take back'}
        >
          Undo
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          disabled={!redo}
          onClick={() => void step('redo')}
          title={redo ? `Again: ${redo.said}` : 'Nothing to make again'}
        >
          Redo
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => setSheet(true)}>
          About it
        </button>
      </div>
      <StageStem stage={stage} settled={settled} />
      <StageRow stage={stage} />
      <Suspense fallback={null}>{sheet && <TreeSheet onClose={() => setSheet(false)} coils={coilsOn(tree, dayOf(today)).length} />}</Suspense>
    </header>
  );
}
