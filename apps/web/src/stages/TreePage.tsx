import { useEffect, useMemo, useState } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import type { TreeView } from '@ustle/contract';
import { coilsOn, dayOf, movedPoint, outcomeOf, treeOn, type Evidence, type Tree, type Vec, type View } from '@ustle/core';
import { useNotice } from '../app/notice';
import { putDecision, useTree, useYard } from '../shared/api';
import { Skeleton } from '../shared/parts';
import { Turntable } from '../turntable/Turntable';
import type { DrawnCoil } from '../turntable/coil-geometry';
import { useConsequences, useFindingEvidence, useFronts, useJudged, usePlan, useStages } from '../work/use-planner';
import { DayShown } from './DayShown';
import { Level } from './front/Level';
import { LETTERS, sameView } from './front/overlay';
import { SideBySide, type Picture } from './front/SideBySide';
import { useDraft } from './measure/use-draft';
import { usePlace } from './place';
import { Ribbon } from './Ribbon';
import { settledStages, STAGE_KEYS, type StageKey } from './settled';
import { STAGES } from './stages';
import { TreeContext, type TreeDesk } from './tree-context';
import { TreeHead } from './TreeHead';

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
      // On a day that is past the coils of that day, on branches since cut too.
      coilsOn(tree, Math.min(dayOf(today), dayOf(day)))
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
const LEVEL: View = { bearing: 0, pitch: 0, roll: 0 };

/** What to set beside each other: the chosen front, those kept open, the one looked at; the best where there is only one. Four at most. */
function frontsBeside({ tree, here, fronts, setView }: TreeDesk, after: Tree | null): Picture[] {
  const own = [
    ...(tree.plan.front ? [{ name: 'chosen', view: tree.plan.front }] : []),
    ...(tree.plan.pinned ?? []).map((view) => ({ name: 'kept open', view })),
    { name: 'this one', view: here },
  ];
  const best = fronts.candidates.map((view, i) => ({ name: `front ${LETTERS[i]}`, view }));
  const distinct = (list: typeof own): typeof own => list.filter(({ view }, i) => list.findIndex((x) => sameView(x.view, view)) === i);
  const kept = distinct(own);
  const shown = kept.length >= 2 ? kept.slice(0, 4) : distinct([...kept, ...best]).slice(0, 2);
  return shown.map(({ name, view }) => ({
    name,
    view,
    note: `${view.bearing}°${view.pitch || view.roll ? `, tilt ${view.pitch}/${view.roll}°` : ''}`,
    after,
    onPick: () => setView(view),
  }));
}

/** A pair of which one goes, shown both ways; empty where none is looked at. */
function eitherWays({ view, weighed, pair }: TreeDesk, attempt: (work: () => Promise<unknown>) => Promise<boolean>): Picture[] {
  const ways = pair === null ? undefined : weighed?.either[pair];
  return (ways ?? []).map((way) => ({
    name: `Keep ${way.keep}`,
    note: `without ${way.remove}`,
    view: weighed!.front,
    after: outcomeOf(way.tree).tree,
    labels: [
      { branch: way.keep, text: way.keep },
      { branch: way.remove, text: `${way.remove} goes` },
    ],
    onPick: () => void attempt(() => putDecision(view, way.keep, { act: 'keep' })),
  }));
}

function Desk({ view, today, stage }: { view: TreeView; today: string; stage: StageKey }) {
  const { tree } = view;
  const place = usePlace(tree, today);
  const [draft, setDraft] = useState<Tree | null>(null);
  const [spot, setSpot] = useState<Evidence | null>(null);
  const [wipe, setWipe] = useState(0.5);
  const plan = usePlan(tree, today);
  const fronts = useFronts(tree, place.tiltSteps, place.weights, stage === 'front');
  const weighed = useConsequences(tree, today, stage === 'remove');
  const found = useFindingEvidence(tree, stage === 'remove' && place.sheet === 'decide' ? place.branch : null);
  const judged = useJudged(tree, place.here, place.weights);
  const { attempt } = useNotice();
  useStageKeys(view.id);

  const drafting = useDraft(view, draft, setDraft);
  const movePoint = (index: number, by: Vec): void =>
    drafting.edit((t) => ({ branches: t.branches.map((b) => (b.id === place.branch ? movedPoint(b, index, by) : b)) }));
  const desk: TreeDesk = { view, tree, plan, today, fronts, judged, drafting, weighed, found, spot, setSpot, ...place };
  const settled = useMemo(() => settledStages(tree, plan), [tree, plan]);
  const measuring = stage === 'measure' && draft;
  // On a day that is past the tree is shown as it was: what was cut since is back on.
  const past = place.day < today;
  const shown = useMemo(() => (past ? treeOn(tree, dayOf(place.day)) : tree), [tree, past, place.day]);
  const after = useMemo(() => (stage === 'measure' || past ? null : outcomeOf(tree).tree), [tree, stage, past]);
  const coils = useCoils(desk);
  const { Panel, overlay } = STAGES.find((s) => s.key === stage)!;
  const { planned = NO_COILS, ...drawn } = useMemo(
    () => overlay(desk),
    // The desk is laid anew on every render; these say whether something else lies on it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [overlay, view, plan, fronts, judged, place.branch, place.bearing, place.day, place.part, place.sheet, weighed, found, spot],
  );
  const bothWays = useMemo(
    () => eitherWays(desk, attempt),
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [view, weighed, place.pair],
  );
  const allCoils = useMemo(() => (planned.length ? [...coils, ...planned] : coils), [coils, planned]);

  const beside = stage === 'front' && place.compare ? frontsBeside(desk, after) : stage === 'remove' ? bothWays : [];
  const scene = { tree, coils: allCoils, selected: place.branch, onSelect: place.setBranch };

  return (
    <TreeContext value={desk}>
      <div className="flex min-h-full flex-col lg:h-full">
        <TreeHead stage={stage} settled={settled} />
        <div className="flex min-h-0 flex-1 flex-col lg:flex-row">
          <div className="relative h-[56vh] min-h-0 min-w-0 lg:h-auto lg:flex-1">
            {beside.length ? (
              <SideBySide pictures={beside} scene={scene} />
            ) : (
              <Turntable
                {...(stage === 'measure' && place.branch ? { bendable: place.branch, onMovePoint: movePoint, onMoved: drafting.commit } : {})}
                tree={measuring || shown}
                after={after}
                wipe={stage === 'remove' && place.wiping && after !== tree ? wipe : null}
                onWipe={setWipe}
                plumb={place.plumb}
                bearing={place.bearing}
                onBearing={place.setBearing}
                view={stage === 'front' ? { ...place.here, bearing: null } : (tree.plan.front ?? LEVEL)}
                coils={allCoils}
                selected={place.branch}
                onSelect={place.setBranch}
                {...drawn}
                onFlag={(letter) => {
                  const found = fronts.candidates[LETTERS.indexOf(letter)];
                  if (found) place.setView(found);
                }}
              />
            )}
            {!beside.length && !measuring && <DayShown />}
            {!beside.length && (
              <button
                type="button"
                aria-pressed={place.plumb}
                className="absolute bottom-3 left-5 text-[14px] text-quiet underline-offset-2 hover:underline"
                onClick={() => place.setPlumb(!place.plumb)}
              >
                {place.plumb ? 'without the grid' : 'plumb line and cm grid'}
              </button>
            )}
            {stage === 'front' && !beside.length && (
              <Level
                pitch={place.here.pitch}
                roll={place.here.roll}
                wedge={judged?.planting.wedge ?? null}
                onTilt={(pitch, roll) => place.setView({ ...place.here, pitch, roll })}
              />
            )}
          </div>
          <aside
            className={`shrink-0 border-t border-rule bg-sheet px-5 py-5 lg:overflow-y-auto lg:border-l lg:border-t-0 ${stage === 'measure' ? 'lg:w-[620px]' : 'lg:w-[400px]'}`}
          >
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
