import { lazy, Suspense, useEffect, useLayoutEffect, useMemo, useState } from 'react';
import { createPortal } from 'react-dom';
import { Navigate, useNavigate, useParams } from 'react-router';
import { mutate } from 'swr';
import { paths, type StoredTree } from '@ustle/contract';
import { asItStands, dayOf, outcomeOf, treeOn, type View } from '@ustle/core';
import { useNotice } from '../app/notice';
import { send } from '../shared/http';
import { useKeys } from '../shared/keys';
import { Skeleton } from '../shared/parts';
import { sayDate } from '../shared/say';
import { useTree, useYard } from '../shared/queries';
import { STAGES } from './all';
import { DayShown } from './DayShown';
import { useCoils } from './drawn-coils';
import { useTies } from './drawn-ties';
import { DeskContext, useNewDesk, type Desk } from './desk';
import { FirstStep } from './FirstStep';
import { Ribbon } from './Ribbon';
import { STAGE_KEYS } from './stem';
import { hasPhotos, photoBehind } from './photo-near';
import { KitContext, type Drawing, type Stage } from './stage';
import { TreeHead } from './TreeHead';

// The scene's library is large: whatever else the page says is there before it.
const Turntable = lazy(() => import('../turntable/Turntable').then((m) => ({ default: m.Turntable })));
const SideBySide = lazy(() => import('./SideBySide').then((m) => ({ default: m.SideBySide })));

const NOTHING: Drawing = {};
const LEVEL: View = { bearing: 0, pitch: 0, roll: 0 };

function useStageKeys(id: string): void {
  const navigate = useNavigate();
  const keys = useMemo(
    () =>
      STAGES.slice(0, STAGE_KEYS.length).map(({ key, name }, i) => ({
        keys: STAGE_KEYS[i]!,
        what: name,
        run: () => void navigate({ pathname: `/tree/${id}/${key}`, search: window.location.search }),
      })),
    [id, navigate],
  );
  useKeys('Stages', keys);
}

function OpenStage({ stage, desk, over, onDraw }: { stage: Stage; desk: Desk; over: HTMLElement | null; onDraw: (drawing: Drawing) => void }) {
  const kit = stage.useKit(desk);
  const { Panel, Over } = stage;
  useLayoutEffect(() => onDraw(kit.drawing), [onDraw, kit.drawing]);
  useKeys(stage.name, kit.keys ?? []);
  return (
    <KitContext value={kit}>
      <Panel />
      {Over && over && createPortal(<Over />, over)}
    </KitContext>
  );
}

/** What can be done with a tree of which what is kept cannot be read: nothing of it is lost. */
function WayOut({ id }: { id: string }) {
  const { attempt } = useNotice();
  const navigate = useNavigate();
  const putAside = async (): Promise<void> => {
    if (!(await attempt(() => send(paths.aside(id), { aside: true }, 'PUT').then(() => mutate(paths.trees))))) return;
    void navigate('/bench');
  };
  return (
    <p className="mt-4 flex flex-wrap gap-3">
      <a className="btn btn-primary" href={paths.treeKept(id)} download>
        Save it as it is kept
      </a>
      <button type="button" className="btn btn-outline" onClick={() => void putAside()}>
        Put it aside
      </button>
    </p>
  );
}

/** The turntable, or what a stage sets in its place. */
function Picture({ desk, drawing }: { desk: Desk; drawing: Drawing }) {
  const { stored, tree, today, day, branch, setBranch, bearing, setBearing, plumb, onPhoto } = desk;
  const { planned, measured, beside, instead, ...drawn } = drawing;
  const coils = useCoils(desk);
  const allCoils = useMemo(() => (planned?.length ? [...coils, ...planned] : coils), [coils, planned]);
  // On a day that is past the tree is shown as it was: what was cut since is back on.
  const past = day < today;
  const shown = useMemo(() => (past ? asItStands(treeOn(stored.tree, dayOf(day)), dayOf(day)) : tree), [stored.tree, tree, past, day]);
  const after = useMemo(() => (past ? null : outcomeOf(tree).tree), [tree, past]);
  // Ties stand on the tree in every stage: a hose or a can pulls at what nobody sees.
  const ties = useTies(desk, measured ?? shown);
  const near = useMemo(() => (onPhoto ? photoBehind(stored.tree, bearing) : null), [onPhoto, stored.tree, bearing]);
  const scene = { tree: measured ?? shown, coils: allCoils, ties, selected: branch, onSelect: setBranch };
  if (instead) return null;
  if (beside?.length) return <SideBySide pictures={beside} scene={scene} />;
  return (
    <Turntable
      {...scene}
      after={measured ? null : after}
      plumb={plumb}
      bearing={bearing}
      onBearing={setBearing}
      view={tree.plan.front ?? LEVEL}
      photo={near?.photo ?? null}
      {...drawn}
    />
  );
}

function OnTheTable({ stored, today, stage }: { stored: StoredTree; today: string; stage: Stage }) {
  const desk = useNewDesk(stored, today);
  const { tree, plan, plumb, setPlumb, onPhoto, setOnPhoto } = desk;
  const [drawing, setDrawing] = useState<Drawing>(NOTHING);
  const [over, setOver] = useState<HTMLElement | null>(null);
  const settled = useMemo(() => new Set(plan ? STAGES.filter((s) => s.settled(tree, plan)).map((s) => s.key) : []), [tree, plan]);
  useStageKeys(stored.id);
  useEffect(() => {
    document.title = `${tree.name}, ${stage.name} · Ustle`;
  }, [tree.name, stage.name]);
  const seenOn = onPhoto ? photoBehind(stored.tree, desk.bearing) : null;
  const takenOn = seenOn && stored.tree.record.find((l) => l.kind === 'photo' && l.photo === seenOn.id)?.on;
  const one = !drawing.beside?.length && !drawing.instead;
  return (
    <DeskContext value={desk}>
      <main className="flex min-h-full flex-col lg:h-full">
        <TreeHead stage={stage} settled={settled} />
        <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
          <div className="over-its-list h-[44vh] min-h-0 min-w-0 border-b border-rule bg-base-100 lg:h-auto lg:flex-1 lg:border-b-0">
            <Suspense fallback={<div className="h-full w-full animate-pulse bg-rule/30" data-ready="0" />}>
              <Picture desk={desk} drawing={drawing} />
            </Suspense>
            {one && !drawing.measured && <DayShown />}
            {one && !seenOn && (
              <button
                type="button"
                aria-pressed={plumb}
                className="absolute bottom-0 left-4 flex min-h-8 items-end pb-1.5 text-quiet pointer-coarse:min-h-11 underline-offset-2 hover:underline lg:pb-3"
                onClick={() => setPlumb(!plumb)}
              >
                <span className="bg-base-100/85 px-1">{plumb ? 'without the grid' : 'plumb line and cm grid'}</span>
              </button>
            )}
            {one && seenOn && (
              <p className="pointer-events-none absolute right-4 top-4 bg-base-100/85 px-1 text-quiet" data-on-photo={seenOn.id}>
                photo {seenOn.number}
                {takenOn && `, taken on ${sayDate(takenOn)}`}
              </p>
            )}
            {one && hasPhotos(stored.tree) && (
              <button
                type="button"
                aria-pressed={onPhoto}
                className={`absolute bottom-0 flex ${seenOn ? 'left-4' : 'left-52'} min-h-8 items-end pb-1.5 text-quiet pointer-coarse:min-h-11 underline-offset-2 hover:underline lg:pb-3`}
                onClick={() => setOnPhoto(!onPhoto)}
              >
                <span className="bg-base-100/85 px-1">{onPhoto ? 'off the photo' : 'on the photo'}</span>
              </button>
            )}
            <div ref={setOver} hidden={Boolean(drawing.beside?.length)} className={drawing.instead ? 'h-full w-full' : ''} />
          </div>
          <aside
            key={stage.key}
            aria-label={stage.name}
            className={`shrink-0 bg-sheet px-5 py-5 border-rule lg:overflow-y-auto lg:border-l ${stage.wide && !drawing.instead ? 'lg:w-[640px]' : 'lg:w-[400px]'}`}
          >
            <FirstStep stage={stage} />
            <OpenStage stage={stage} desk={desk} over={over} onDraw={setDrawing} />
          </aside>
        </div>
        <Ribbon />
      </main>
    </DeskContext>
  );
}

export function TreePage() {
  const { id = '', stage: key } = useParams();
  const { data: stored, error } = useTree(id);
  const { data: yard } = useYard();
  const stage = STAGES.find((s) => s.key === key);
  if (!stage) return <Navigate to={`/tree/${id}/front`} replace />;
  if (!stored || !yard) {
    return (
      <main className="p-8">
        {error ? (
          <>
            <h1 className="text-2xl">This tree cannot be shown</h1>
            <p className="mt-2 text-madder">{error.message}</p>
            {error.problem.code === 'unreadable' ? (
              <WayOut id={id} />
            ) : (
              error.status !== 404 && <p className="mt-1 text-quiet">It is asked for again by itself.</p>
            )}
          </>
        ) : (
          <Skeleton lines={8} />
        )}
      </main>
    );
  }
  return <OnTheTable key={stored.id} stored={stored} today={yard.today} stage={stage} />;
}
