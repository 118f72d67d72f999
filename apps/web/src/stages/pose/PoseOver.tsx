import { usePose } from './kit';
import { deg } from './words';

/** From the tree as it stands to the tree as posed; while a tip is drawn, what the wood says to it. */
export function PoseOver() {
  const { share, setShare, moveTo, drag } = usePose();
  return (
    <div className="absolute right-4 top-3 w-80 max-w-[70%]">
      <div className="flex w-full items-center gap-2 px-1 max-sm:bg-base-100/85">
        <button type="button" aria-pressed={share === 0} className={`min-h-11 ${share === 0 ? 'font-bold' : 'text-quiet'}`} onClick={() => moveTo(0)}>
          as it stands
        </button>
        <input
          type="range"
          min={0}
          max={1}
          step={0.05}
          value={share}
          aria-label="From the tree as it stands to the tree as posed"
          aria-valuetext={`${Math.round(share * 100)}% of the way to its poses`}
          className="range range-sm min-w-0 flex-1"
          onChange={(event) => setShare(Number(event.target.value))}
        />
        <button type="button" aria-pressed={share === 1} className={`min-h-11 ${share === 1 ? 'font-bold' : 'text-quiet'}`} onClick={() => moveTo(1)}>
          as posed
        </button>
      </div>
      <p aria-live="polite" className="mt-1 leading-5" data-drag>
        {drag &&
          `${deg(drag.bearing)}, ${deg(drag.elevation)} steep; strain ${(drag.strain * 100).toFixed(1)}% at ${drag.strainAt.toFixed(0)} mm, ${drag.band}.${drag.missed > 2 ? ` It gets no nearer: ${drag.missed.toFixed(0)} mm short.` : ''}`}
      </p>
    </div>
  );
}
