import { useCallback, useEffect, useMemo } from 'react';
import { Navigate, useNavigate, useParams, useSearchParams } from 'react-router';
import { paths, type TreeView } from '@ustle/contract';
import { coilsOn, dayOf, removedIds, speciesOf, wrapDeg } from '@ustle/core';
import { useNotice } from '../app/notice';
import { step, useTree, useYard } from '../shared/api';
import { Skeleton } from '../shared/parts';
import { Turntable } from '../turntable/Turntable';
import type { DrawnCoil } from '../turntable/coil-geometry';
import { useFronts, usePlan, useStages } from '../work/use-planner';
import { Ribbon } from './Ribbon';
import { settledStages, STAGE_KEYS, STAGES, type StageKey } from './stages';
import { StageRow, StageStem } from './StageStem';
import { TreeContext, type TreeDesk } from './tree-context';

/** The user's place, kept in the address. */
function usePlace(today: string, front: number) {
  const [params, setParams] = useSearchParams();
  const set = useCallback(
    (key: string, value: string | null) =>
      setParams(
        (before) => {
          const next = new URLSearchParams(before);
          if (value === null) next.delete(key);
          else next.set(key, value);
          return next;
        },
        { replace: true },
      ),
    [setParams],
  );
  const bearing = Number(params.get('bearing') ?? front);
  const day = params.get('day') ?? today;
  return {
    branch: params.get('branch'),
    bearing: Number.isFinite(bearing) ? wrapDeg(bearing) : front,
    day: Number.isFinite(dayOf(day)) ? day : today,
    setBranch: useCallback((branch: string | null) => set('branch', branch), [set]),
    setBearing: useCallback((b: number) => set('bearing', String(b)), [set]),
    setDay: useCallback((d: string) => set('day', d === today ? null : d), [set, today]),
  };
}

function useUndoKeys(view: TreeView, undo: () => void, redo: () => void): void {
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
      event.preventDefault();
      if (event.shiftKey) redo();
      else undo();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [view, undo, redo]);
}

function useStageKeys(id: string): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      const typing = event.target instanceof HTMLElement && event.target.matches('input, textarea, select');
      const stage = STAGE_KEYS[Number(event.key) - 1];
      if (stage && !typing && !event.ctrlKey && !event.altKey) void navigate({ pathname: `/tree/${id}/${stage}`, search: window.location.search });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [id, navigate]);
}

function useCoils(desk: TreeDesk): DrawnCoil[] {
  const { tree, today, day } = desk;
  const stages = useStages(tree, today, day);
  return useMemo(
    () =>
      coilsOn(tree, dayOf(today))
        .filter((c) => c.since <= dayOf(day))
        .map((c) => ({
          branch: c.branch,
          metal: c.metal,
          size: c.size,
          strands: c.strands,
          angle: c.angle,
          hand: c.hand,
          start: c.start,
          planned: false,
          state: stages?.find((s) => s.branch === c.branch)?.stage ?? 'clear',
        })),
    [tree, today, day, stages],
  );
}

const NO_COILS: readonly DrawnCoil[] = [];

function Desk({ view, today, stage }: { view: TreeView; today: string; stage: StageKey }) {
  const { tree } = view;
  const front = tree.plan.front ?? null;
  const place = usePlace(today, front?.bearing ?? 0);
  const plan = usePlan(tree, today);
  const fronts = useFronts(tree);
  const { attempt } = useNotice();
  const undo = useCallback(() => void (view.undo && attempt(() => step(view, 'undo'))), [view, attempt]);
  const redo = useCallback(() => void (view.redo && attempt(() => step(view, 'redo'))), [view, attempt]);
  useUndoKeys(view, undo, redo);
  useStageKeys(view.id);

  const desk: TreeDesk = { view, tree, plan, today, fronts, ...place };
  const gone = useMemo(() => removedIds(tree), [tree]);
  const coils = useCoils(desk);
  const level = useMemo(() => front ?? { bearing: 0, pitch: 0, roll: 0 }, [front]);
  const { Panel, overlay } = STAGES.find((s) => s.key === stage)!;
  const { planned = NO_COILS, ...drawn } = useMemo(
    () => overlay({ view, tree, plan, today, fronts, ...place }),
    // A new place object is made on every render; its values say whether it is another place.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [overlay, view, plan, fronts, place.branch, place.bearing, place.day],
  );
  const allCoils = useMemo(() => (planned.length ? [...coils, ...planned] : coils), [coils, planned]);

  return (
    <TreeContext value={desk}>
      <div className="flex min-h-full flex-col lg:h-full">
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
          <StageStem stage={stage} settled={settledStages(desk)} />
          <StageRow stage={stage} />
        </header>
        <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
          <div className="h-[56vh] min-h-0 min-w-0 lg:h-auto lg:flex-1">
            <Turntable
              tree={tree}
              bearing={place.bearing}
              onBearing={place.setBearing}
              view={level}
              gone={gone}
              coils={allCoils}
              selected={place.branch}
              onSelect={place.setBranch}
              {...drawn}
              onFlag={(letter) => {
                const found = fronts.candidates['ABCDE'.indexOf(letter)];
                if (found) place.setBearing(found.bearing);
              }}
            />
          </div>
          <aside className="shrink-0 border-t border-rule bg-sheet px-5 py-5 lg:w-[400px] lg:overflow-y-auto lg:border-l lg:border-t-0">
            <Panel />
          </aside>
        </div>
        <Ribbon />
      </div>
    </TreeContext>
  );
}

export function TreePage() {
  const { id = '', stage } = useParams();
  const { data: view, error } = useTree(id);
  const { data: yard } = useYard();
  if (!stage || !(STAGE_KEYS as readonly string[]).includes(stage)) return <Navigate to={`/tree/${id}/front`} replace />;
  if (error && !view) return <p className="p-8 text-madder">{error.message}</p>;
  if (!view || !yard) {
    return (
      <div className="p-8">
        <Skeleton lines={8} />
      </div>
    );
  }
  return <Desk key={view.id} view={view} today={yard.today} stage={stage as StageKey} />;
}
