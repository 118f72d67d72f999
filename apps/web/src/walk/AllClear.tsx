import { useState } from 'react';
import type { WalkStop } from '@ustle/contract';
import type { Answer } from './use-walk';

/** What was seen to press, or is likely to mark by now, is not taken to be clear unseen. */
const isDoubtful = (stop: WalkStop, on: string): boolean =>
  stop.task === 'remove' || (stop.seen !== null && stop.seen.stage !== 'clear') || (stop.marks !== null && stop.marks <= on);

const clear = (stop: WalkStop): Answer => ({
  stop,
  said: 'clear',
  act:
    stop.kind === 'wire'
      ? { kind: 'inspected', branch: stop.branch, ...(stop.of ? { run: stop.of } : {}), stage: 'clear' }
      : { kind: 'guyed', branch: stop.branch, guy: stop.of, done: 'looked', bark: 'clear' },
});

/** All that is on one bench answered at once: asked once, without what may be otherwise. */
export function AllClear({ stops, on, onAnswer }: { stops: readonly WalkStop[]; on: string; onAnswer: (answers: Answer[]) => void }) {
  const [asking, setAsking] = useState(false);
  const sure = stops.filter((s) => !isDoubtful(s, on));
  const left = stops.filter((s) => isDoubtful(s, on));
  if (sure.length < 2) return null;
  if (!asking)
    return (
      <button type="button" className="btn btn-outline mt-8 min-h-14 w-full border-moss text-lg" onClick={() => setAsking(true)}>
        All {sure.length} here are clear
      </button>
    );
  return (
    <div role="group" aria-label="All clear" className="mt-8 space-y-3 border-l-4 border-moss px-3 py-2">
      <p>
        Clear: {sure.map((s) => `${s.treeName}, ${s.name}`).join('; ')}.
        {left.length > 0 &&
          ` Left to be looked at by ${left.length === 1 ? 'itself' : 'themselves'}, as ${left.length === 1 ? 'it may mark' : 'they may mark'}: ${left.map((s) => `${s.treeName}, ${s.name}`).join('; ')}.`}
      </p>
      <div className="flex flex-wrap gap-3">
        <button type="button" className="btn btn-primary min-h-12" onClick={() => onAnswer(sure.map(clear))}>
          Yes, I looked at all {sure.length}
        </button>
        <button type="button" className="btn btn-ghost min-h-12" onClick={() => setAsking(false)}>
          Not so
        </button>
      </div>
    </div>
  );
}
