import { useEffect, useRef } from 'react';
import type { Photographs } from './use-photographs';

/** All photos by bearing, the one that is looked at marked; what is wrong with one, and which helps most. */
export function PhotoStrip({ photographs: ph }: { photographs: Photographs }) {
  const open = useRef<HTMLButtonElement>(null);
  const next = ph.nextFor(ph.line);
  const shown = ph.photo?.photo;
  useEffect(() => void open.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' }), [shown]);
  return (
    <ul className="flex shrink-0 gap-1.5 overflow-x-auto border-t border-rule bg-sheet p-1.5" aria-label="Photos, round the tree">
      {ph.inOrder.map((p) => {
        const here = p.photo === shown;
        const drawn = ph.sight.drawn.some((d) => d.photo === p.photo && d.line === ph.line);
        const why = ph.left.get(p.photo);
        const mark = why ? 'not used' : drawn ? 'drawn' : next === p.photo ? 'next' : null;
        return (
          <li key={p.photo} className="shrink-0">
            <button
              ref={here ? open : null}
              type="button"
              aria-pressed={here}
              className={`relative block border-2 ${here ? 'border-copper' : 'border-transparent hover:border-rule'}`}
              onClick={() => ph.look(p.photo)}
            >
              <img src={ph.addressOf(p.photo, 'small')} alt="" className={`h-16 w-auto ${why ? 'opacity-40' : ''}`} width={86} height={64} loading="lazy" />
              <span className="absolute left-0 top-0 bg-base-100/90 px-1">
                <span className="sr-only">Photo </span>
                {ph.numbers.get(p.photo)}
              </span>
              {mark && <span className={`absolute bottom-0 right-0 bg-base-100/95 px-1 text-[0.94rem] ${why ? 'text-madder' : ''}`}>{mark}</span>}
            </button>
          </li>
        );
      })}
    </ul>
  );
}
