import { useState } from 'react';
import { Link } from 'react-router';
import { aftercareOf, dayOf, PROMISE_WORDS, suggestedPromises, worthMeasuring } from '@ustle/core';
import { sayDate } from '../../shared/say';
import { useDesk } from '../desk';

/** How the tree is kept after the work, and what may be promised to it now. */
export function Aftercare({ since }: { since: number }) {
  const { stored, tree, names, today, act } = useDesk();
  const [let_, setLet] = useState<readonly string[]>([]);
  const onDay = dayOf(today);
  const unsure = worthMeasuring(tree, onDay);
  const suggested = suggestedPromises(tree, onDay).filter((p) => !let_.includes(p.what));
  return (
    <section aria-label="Aftercare" className="mt-3 space-y-3">
      <ul className="list-disc space-y-1 pl-5 text-lg">
        {aftercareOf(tree, onDay, since).map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ul>
      {unsure.length > 0 && (
        <p>
          How it stands now is reckoned from what was bent. Worth measuring again:{' '}
          {unsure.map(({ branch, degrees }, i) => (
            <span key={branch}>
              {i > 0 && ', '}
              <Link className="underline" to={`/tree/${stored.id}/measure?branch=${branch}`}>
                {names(branch)}
              </Link>{' '}
              (±{Math.round(degrees)}°)
            </span>
          ))}
          .
        </p>
      )}
      {suggested.length > 0 && (
        <>
          <h3 className="text-lg">To promise</h3>
          <ul>
            {suggested.map((p) => (
              <li key={p.what} className="flex flex-wrap items-center justify-between gap-3 border-t border-rule py-1.5">
                <span className="min-w-0 flex-1">
                  {p.text} <span className="text-quiet">From {sayDate(p.from)}.</span>
                </span>
                <span className="flex gap-2">
                  <button
                    type="button"
                    className="btn btn-outline btn-primary btn-sm"
                    aria-label={`Promise: ${PROMISE_WORDS[p.what]}`}
                    onClick={() => void act({ kind: 'promised', ...p })}
                  >
                    Promise
                  </button>
                  <button type="button" className="btn btn-ghost btn-sm" aria-label={`Not: ${PROMISE_WORDS[p.what]}`} onClick={() => setLet([...let_, p.what])}>
                    No
                  </button>
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
