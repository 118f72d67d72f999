import { useDesk } from '../desk';
import { useMeasure } from './kit';

const THICKER = 1.08;
/** Where the foliage begins, in these steps. */
const BARE_STEP = 0.05;

/** Drawing on the tree: branches are pulled out of its wood, their points and the trunk's are dragged, thickness and foliage by eye. */
export function DrawOver() {
  const { stored, branch, names } = useDesk();
  const { drawing3d, setDrawing, thicken, mirror, change } = useMeasure();
  const chosen = stored.tree.branches.find((b) => b.id === branch);
  const small = 'btn btn-sm btn-outline border-rule bg-sheet/95 font-normal pointer-coarse:min-h-11';
  return (
    <div className={`absolute right-3 flex flex-col items-end gap-1.5 ${drawing3d ? 'bottom-10' : 'bottom-2'}`}>
      {drawing3d && (
        <p className="bg-base-100/90 px-2 text-right text-quiet">
          {chosen
            ? `${names(chosen.id)}: drag its points; turn the table for its depth.`
            : 'Press on the wood and pull: a branch grows. The trunk has its points.'}
        </p>
      )}
      <div className="flex flex-wrap justify-end gap-1.5" role="group" aria-label={chosen ? `Drawing: ${names(chosen.id)}` : 'Drawing: the trunk'}>
        {drawing3d && (
          <>
            <button type="button" className={small} onClick={() => thicken(1 / THICKER)}>
              thinner
            </button>
            <button type="button" className={small} onClick={() => thicken(THICKER)}>
              thicker
            </button>
            {chosen && (
              <>
                <button type="button" className={small} onClick={() => void change(chosen.id, { bareTo: Math.max(0, round(chosen.bareTo - BARE_STEP)) })}>
                  leaves in
                </button>
                <button type="button" className={small} onClick={() => void change(chosen.id, { bareTo: Math.min(1, round(chosen.bareTo + BARE_STEP)) })}>
                  leaves out
                </button>
                <button type="button" className={small} onClick={() => mirror(chosen)}>
                  mirrored
                </button>
              </>
            )}
          </>
        )}
        <button
          type="button"
          aria-pressed={drawing3d}
          className={`btn btn-sm pointer-coarse:min-h-11 ${drawing3d ? 'btn-primary' : 'btn-outline border-rule bg-sheet/95 font-normal'}`}
          onClick={() => setDrawing(!drawing3d)}
        >
          {drawing3d ? 'Drawing' : 'Draw on the tree'}
        </button>
      </div>
    </div>
  );
}

const round = (x: number): number => Math.round(100 * x) / 100;
