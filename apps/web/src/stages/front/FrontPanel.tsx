import { Link } from 'react-router';
import { isTrunkMeasured, PARTS, WEIGHT_PROFILES, type Front, type Part, type Planting, type Weights } from '@ustle/core';
import { Bar, PanelHead, Skeleton } from '../../shared/parts';
import { useDesk } from '../desk';
import { useFront } from './kit';
import { LETTERS, sameView, sayView } from './views';

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

function Parts({ front, part, onPart }: { front: Front; part: Part | null; onPart: (part: Part | null) => void }) {
  return (
    <ul>
      {PARTS.map((p) => (
        <li key={p}>
          <button
            type="button"
            aria-pressed={p === part}
            title="Draw on the tree what this saw"
            onClick={() => onPart(p === part ? null : p)}
            className={`grid w-full grid-cols-[112px_1fr_40px] items-center gap-x-3 py-1 text-left hover:bg-base-100 ${p === part ? 'bg-base-100 font-semibold' : ''}`}
          >
            <span>{NAMES[p]}</span>
            <Bar share={front.parts[p]} tone={front.parts[p] < 0.65 ? 'ochre' : 'bark'} />
            <span className="text-right">{Math.round(front.parts[p] * 100)}</span>
            <span className="col-span-2 col-start-2 font-normal leading-5 text-quiet">{front.because[p]}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

/** What the tilt does to pot, root ball and branches. */
function PlantingNotes({ planting }: { planting: Planting }) {
  const { names } = useDesk();
  if (planting.tiltDeg < 0.5) return null;
  const astray = planting.branches.filter((b) => b.astray);
  return (
    <section className="mt-3 border-t border-rule pt-3">
      <h3 className="text-lg">Planted {planting.tiltDeg.toFixed(0)}° off level</h3>
      <p>
        Wedge {planting.wedge.toFixed(0)} mm under the pot now. At the next repot the root ball stands {planting.rootBallRise.toFixed(0)} mm above the rim on
        one side.
      </p>
      {astray.length > 0 && (
        <ul className="mt-2">
          {astray.map((b) => (
            <li key={b.branch}>
              <strong>{names(b.branch)}</strong> {b.astray === 'rises' ? 'rises' : 'falls'} to {b.after.elevation.toFixed(0)}°, meant at {b.meant.toFixed(0)}°:{' '}
              {b.astray === 'rises' ? 'bring it down' : 'raise it'} again.
            </li>
          ))}
        </ul>
      )}
      <details className="mt-2">
        <summary className="cursor-pointer">Every branch's new slope</summary>
        <table className="mt-1 w-full ">
          <thead>
            <tr className="text-left text-quiet">
              <th className="font-normal">branch</th>
              <th className="font-normal">slope now</th>
              <th className="font-normal">planted so</th>
              <th className="font-normal">towards</th>
            </tr>
          </thead>
          <tbody>
            {planting.branches.map((b) => (
              <tr key={b.branch} className="border-t border-rule">
                <th className="py-0.5 text-left font-normal">{names(b.branch)}</th>
                <td>{b.before.elevation.toFixed(0)}°</td>
                <td>{b.after.elevation.toFixed(0)}°</td>
                <td>{b.after.bearing.toFixed(0)}°</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </section>
  );
}

/** The named profile of weights, and each weight by hand. */
function WeightsSheet({
  weights,
  profile,
  onProfile,
  onWeights,
}: {
  weights: Weights;
  profile: string;
  onProfile: (name: string) => void;
  onWeights: (weights: Weights) => void;
}) {
  return (
    <details className="mt-3 border-t border-rule pt-3">
      <summary className="cursor-pointer">Weights: {profile}</summary>
      <select
        className="select mt-2 w-full bg-base-100"
        aria-label="Profile of weights"
        value={profile in WEIGHT_PROFILES ? profile : ''}
        onChange={(event) => onProfile(event.target.value)}
      >
        {!(profile in WEIGHT_PROFILES) && <option value="">{profile}</option>}
        {Object.keys(WEIGHT_PROFILES).map((name) => (
          <option key={name}>{name}</option>
        ))}
      </select>
      {PARTS.map((p) => (
        <label key={p} className="mt-1.5 grid grid-cols-[112px_1fr_32px] items-center gap-3">
          {NAMES[p]}
          <input
            type="range"
            min={0}
            max={3}
            step={0.1}
            className="range range-xs"
            value={weights[p]}
            onChange={(event) => onWeights({ ...weights, [p]: Number(event.target.value) })}
          />
          <span className="text-right">{weights[p].toFixed(1)}</span>
        </label>
      ))}
    </details>
  );
}

const TILTS = [
  { value: 'level', name: 'level only' },
  { value: 'trim', name: 'up to 5°' },
  { value: 'free', name: 'up to 20°' },
] as const;

export function FrontPanel() {
  const { stored, tree, here, setView, act } = useDesk();
  const { fronts, judged, part, setPart, compare, setCompare, tilts, setTilts, weights, profile, setProfile, setWeights, choose } = useFront();
  const index = fronts.candidates.findIndex((f) => sameView(f, here));
  const chosen = tree.plan.front ?? null;
  const isChosen = chosen !== null && sameView(chosen, here);
  const pinned = tree.plan.pinned ?? [];
  const isPinned = pinned.some((v) => sameView(v, here));

  if (!isTrunkMeasured(tree))
    return (
      <PanelHead title="Front">
        A front is judged on the trunk, and nobody measured this one yet.{' '}
        <Link className="underline" to={`/tree/${stored.id}/measure`}>
          Measure it
        </Link>
      </PanelHead>
    );
  if (!judged) return <Skeleton lines={9} />;
  const { front, planting } = judged;
  return (
    <>
      <PanelHead
        title={index >= 0 ? `Front ${LETTERS[index]}` : 'Seen from here'}
        aside={
          <span>
            <span className="text-quiet">{here.bearing}° </span>
            <strong className="ml-2 font-serif text-xl font-semibold">{Math.round(front.score * 100)}</strong>
          </span>
        }
      />
      <div className="mb-2 flex flex-wrap gap-1.5" role="group" aria-label="Best fronts">
        {fronts.candidates.map((f, i) => (
          <button
            key={f.bearing}
            type="button"
            aria-pressed={i === index}
            onClick={() => setView(f)}
            className={`btn btn-sm gap-1 px-2 ${i === index ? 'btn-primary' : 'btn-outline border-rule'}`}
          >
            {LETTERS[i]} <span className="font-normal">{Math.round(f.score * 100)}</span>
          </button>
        ))}
      </div>
      <div className="mb-2 flex items-center gap-2">
        <label className="flex items-center gap-2 text-quiet">
          Tilts
          <select className="select select-sm w-32 bg-base-100" value={tilts} onChange={(event) => setTilts(event.target.value as typeof tilts)}>
            {TILTS.map((t) => (
              <option key={t.value} value={t.value}>
                {t.name}
              </option>
            ))}
          </select>
        </label>
        {fronts.done < 1 && !fronts.stopped && (
          <>
            <progress className="progress w-20" value={fronts.done} max={1} aria-label="Searching the fronts" />
            <button type="button" className="text-copper underline-offset-2 hover:underline" onClick={fronts.stop}>
              stop
            </button>
          </>
        )}
      </div>
      <Parts front={front} part={part} onPart={setPart} />
      <PlantingNotes planting={planting} />
      {pinned.length > 0 && (
        <section className="mt-3 border-t border-rule pt-3">
          <h3 className="text-lg">Kept open</h3>
          <div className="mt-1 flex flex-wrap gap-1.5">
            {pinned.map((v) => (
              <button
                key={`${v.bearing} ${v.pitch} ${v.roll}`}
                type="button"
                className={`btn btn-sm ${sameView(v, here) ? 'btn-primary' : 'btn-outline border-rule'}`}
                onClick={() => setView(v)}
              >
                {sayView(v)}
              </button>
            ))}
          </div>
        </section>
      )}
      <WeightsSheet weights={weights} profile={profile} onProfile={setProfile} onWeights={setWeights} />
      <div className="sticky -bottom-5 -mx-5 mt-3 flex flex-wrap items-center gap-2 border-t border-rule bg-sheet px-5 py-3">
        <button type="button" className="btn btn-primary" disabled={isChosen} onClick={choose}>
          {isChosen ? 'This is the front' : `Choose ${index >= 0 ? LETTERS[index] : sayView(here)}`}
        </button>
        <button type="button" className="btn btn-outline btn-primary" aria-pressed={isPinned} onClick={() => void act({ kind: 'keep-open', view: here })}>
          {isPinned ? 'Let go' : 'Keep open'}
        </button>
        <button type="button" className="btn btn-outline btn-primary" aria-pressed={compare} onClick={() => setCompare(!compare)}>
          {compare ? 'One alone' : 'Side by side'}
        </button>
        {chosen && !isChosen && (
          <button type="button" className="btn btn-ghost" onClick={() => setView(chosen)}>
            Back to {chosen.bearing}°
          </button>
        )}
        {isChosen && (
          <button type="button" className="btn btn-ghost" onClick={() => void act({ kind: 'front', front: null })}>
            Leave it open
          </button>
        )}
      </div>
    </>
  );
}
