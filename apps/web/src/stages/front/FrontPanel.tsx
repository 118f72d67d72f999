import { useCallback, useEffect } from 'react';
import { PARTS, turnDeg, type Front, type Part } from '@ustle/core';
import { useNotice } from '../../app/notice';
import { putFront } from '../../shared/api';
import { Bar, PanelHead, Skeleton } from '../../shared/parts';
import { useDesk } from '../tree-context';
import { LETTERS } from './overlay';

const NAMES: Record<Part, string> = {
  base: 'Base',
  movement: 'Movement',
  trunkInSight: 'Trunk in sight',
  apex: 'Apex',
  eye: 'Eye',
  firstBranch: 'First branch',
  features: 'Features',
  greenKept: 'Green kept',
};

function Parts({ front }: { front: Front }) {
  return (
    <dl>
      {PARTS.map((part) => (
        <div key={part} className="grid grid-cols-[112px_1fr_40px] items-center gap-x-3 py-[5px]">
          <dt>{NAMES[part]}</dt>
          <dd>
            <Bar share={front.parts[part]} tone={front.parts[part] < 0.65 ? 'ochre' : 'bark'} />
          </dd>
          <dd className="text-right">{front.parts[part].toFixed(2)}</dd>
          <dd className="col-span-2 col-start-2 text-[14px] leading-5 text-quiet">{front.because[part]}</dd>
        </div>
      ))}
    </dl>
  );
}

/** Nearest looked-at bearing of the rose. */
const nearest = (rose: readonly Front[], bearing: number): Front | undefined =>
  rose.reduce<Front | undefined>(
    (best, f) => (!best || Math.abs(turnDeg(bearing, f.bearing)) < Math.abs(turnDeg(bearing, best.bearing)) ? f : best),
    undefined,
  );

export function FrontPanel() {
  const { view, tree, fronts, bearing, setBearing } = useDesk();
  const { attempt } = useNotice();
  const here = nearest(fronts.rose, bearing);
  const index = fronts.candidates.findIndex((f) => f.bearing === here?.bearing);
  const chosen = tree.plan.front;
  const isChosen = chosen && here && chosen.bearing === here.bearing;
  const choose = useCallback(
    () => void (here && attempt(() => putFront(view, { bearing: here.bearing, pitch: here.pitch, roll: here.roll }))),
    [here, attempt, view],
  );

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === 'Enter' && !(event.target instanceof HTMLElement && event.target.closest('button, a, input, select'))) choose();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [choose]);

  if (!here) return <Skeleton lines={9} />;
  return (
    <>
      <PanelHead
        title={index >= 0 ? `Front ${LETTERS[index]}` : 'Seen from here'}
        aside={
          <span>
            <span className="text-quiet">{here.bearing}° </span>
            <strong className="ml-2 font-serif text-xl font-semibold">{here.score.toFixed(2)}</strong>
          </span>
        }
      />
      <div className="mb-3 flex flex-wrap gap-1.5" role="group" aria-label="Best fronts">
        {fronts.candidates.map((f, i) => (
          <button
            key={f.bearing}
            type="button"
            aria-pressed={i === index}
            onClick={() => setBearing(f.bearing)}
            className={`btn btn-sm ${i === index ? 'btn-primary' : 'btn-outline border-rule'}`}
          >
            {LETTERS[i]} <span className="font-normal">{f.score.toFixed(2)}</span>
          </button>
        ))}
        {fronts.done < 1 && <span className="self-center text-quiet">looking round, {Math.round(fronts.done * 100)}%</span>}
      </div>
      <Parts front={here} />
      <div className="sticky -bottom-5 -mx-5 mt-3 flex flex-wrap items-center gap-3 border-t border-rule bg-sheet px-5 py-3">
        <button type="button" className="btn btn-primary" disabled={Boolean(isChosen)} onClick={choose}>
          {isChosen ? 'This is the front' : `Choose ${index >= 0 ? LETTERS[index] : `${here.bearing}°`}`}
        </button>
        {chosen && !isChosen && (
          <button type="button" className="btn btn-outline btn-primary" onClick={() => setBearing(chosen.bearing)}>
            Back to {chosen.bearing}°
          </button>
        )}
        {chosen && (
          <button type="button" className="btn btn-ghost" onClick={() => void attempt(() => putFront(view, null))}>
            Leave it open
          </button>
        )}
      </div>
    </>
  );
}
