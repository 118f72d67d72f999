import { lazy, Suspense, useCallback, useMemo, useState } from 'react';
import { Link } from 'react-router';
import type { StepBack } from '@ustle/contract';
import { coilsOn, dayOf, speciesOf } from '@ustle/core';
import { useKeys } from '../shared/keys';
import { useDesk } from './desk';
import type { Stage } from './stage';
import { count, sayDate } from '../shared/say';
import { StageRow, StageStem } from './StageStem';

const TreeSheet = lazy(() => import('./TreeSheet').then((m) => ({ default: m.TreeSheet })));

type Stepped = StepBack & { kind: 'undo' | 'redo' };

/** Where what was taken back, or done again, is seen. */
const leadsTo = (id: string, { stage, branch }: StepBack['at']): string => `/tree/${id}/${stage}${branch ? `?branch=${encodeURIComponent(branch)}` : ''}`;

/** The tree's name, undo and redo, what is done with it as a whole, and the stages on their stem. */
export function TreeHead({ stage, settled }: { stage: Stage; settled: ReadonlySet<string> }) {
  const { stored, tree, today, step } = useDesk();
  const { undo, redo, asideOn } = stored;
  const [sheet, setSheet] = useState(false);
  const [stepped, setStepped] = useState<Stepped | null>(null);
  const go = useCallback(
    async (kind: 'undo' | 'redo'): Promise<void> => {
      const of = stored[kind];
      if (of && (await step(kind))) setStepped({ kind, ...of });
    },
    [stored, step],
  );
  // It is told until something else is done: then the next step is about that.
  const told = stepped && stored[stepped.kind === 'undo' ? 'redo' : 'undo']?.said === stepped.said ? stepped : null;
  useKeys(
    'This tree',
    useMemo(
      () => [
        { keys: 'mod+z', what: 'take the last thing done back', run: (event) => (event.preventDefault(), void go('undo')) },
        { keys: 'mod+shift+z', what: 'do it again', run: (event) => (event.preventDefault(), void go('redo')) },
      ],
      [go],
    ),
  );
  return (
    <header className="flex min-h-16 flex-wrap items-center justify-between gap-x-4 border-b border-rule px-4 sm:px-6">
      <div className="min-w-0 py-1">
        <h1 className="truncate text-2xl">{tree.name}</h1>
        <p className={told ? 'hidden' : 'text-quiet'}>
          {speciesOf(tree.species).name}, {count(tree.branches.length, 'branch', 'branches')}, pot {tree.pot.width.toFixed(0)} mm
          {asideOn && `, put aside ${sayDate(asideOn)}`}
        </p>
        <p role="status" className={told ? '' : 'hidden'}>
          {told && (
            <>
              {told.kind === 'undo' ? 'Taken back' : 'Done again'}: {told.said}.{' '}
              <Link className="underline" to={leadsTo(stored.id, told.at)}>
                See it in {told.at.stage === 'record' ? 'the record' : told.at.stage[0]!.toUpperCase() + told.at.stage.slice(1)}
              </Link>
            </>
          )}
        </p>
      </div>
      <div className="flex flex-wrap items-center gap-1">
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          disabled={!undo}
          onClick={() => void go('undo')}
          title={undo ? `Take back: ${undo.said}` : 'Nothing to take back'}
        >
          Undo
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          disabled={!redo}
          onClick={() => void go('redo')}
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
