import { useState } from 'react';
import { GUY, type RankedAnchor, sayForce } from '@ustle/core';
import { NumberField } from '../../shared/NumberField';
import { Quiet, Skeleton } from '../../shared/parts';
import { useDesk } from '../desk';
import { useKit } from './kit';
import { FAILS, sayAnchor } from './words';

const SHOWN = 8;

function saysOf(a: RankedAnchor): string {
  const fails = a.failed.map((f) => FAILS[f] ?? f);
  return [
    `about ${sayForce(a.tension)}`,
    a.missDeg > 4 ? `misses by ${a.missDeg.toFixed(0)}°` : 'leads there',
    a.band === 'no' ? 'more than the wood bears' : a.band === 'heavy' ? 'a heavy bend' : '',
    a.behind === null ? '' : a.behind ? 'behind' : 'seen',
    ...fails,
  ]
    .filter(Boolean)
    .join(', ');
}

/** Where a branch can be tied to, the best first; choosing one fixes the tie. */
export function Anchors({ branch }: { branch: string }) {
  const { tree, act, names } = useDesk();
  const { choice, own, at, setAt } = useKit();
  const [adding, setAdding] = useState(false);
  const length = tree.branches.find((b) => b.id === branch)?.length ?? 0;
  if (!choice) return <Skeleton lines={5} />;
  const [first, second] = own;
  const tie = ({ anchor }: RankedAnchor): void => {
    const guy = first?.fixed && !adding ? first.id : undefined;
    setAdding(false);
    const wire = first?.wire ?? 1.2;
    void act({ kind: 'guy', ...(guy ? { guy } : {}), branch, at: choice.at, anchor, wire });
  };
  return (
    <section className="mt-2 space-y-2 border-t border-rule px-2 pt-3">
      <h3 className="text-lg">Where {names(branch)} can be tied to</h3>
      {choice.fork && <p className="text-quiet">Tied in the fork of {names(choice.fork)}: it cannot slide, and a short bar there spreads the pull.</p>}
      <NumberField
        label="Tie it at"
        rule={{ ...GUY.properties.at, maximum: Math.floor(length) }}
        value={Math.round(at ?? choice.at)}
        onValue={(mm) => mm !== null && setAt({ branch, at: mm })}
        unit="mm from the shoulder"
        inline
      />
      {choice.anchors.length === 0 && <p>Nothing in reach pulls it that way: a prop, a frame on the pot, or another pose.</p>}
      <ol className="border-b border-rule">
        {choice.anchors.slice(0, SHOWN).map((a) => {
          const chosen = own.some((g) => JSON.stringify(g.anchor) === JSON.stringify(a.anchor));
          return (
            <li key={JSON.stringify(a.anchor)}>
              <button
                type="button"
                aria-pressed={chosen}
                className={`w-full border-t border-rule px-2 py-2 text-left ${chosen ? 'bg-base-100' : 'hover:bg-base-100'}`}
                onClick={() => tie(a)}
              >
                <strong className="block">{sayAnchor(a.anchor, names)}</strong>
                <span className={a.failed.length || a.band === 'no' ? 'text-madder' : 'text-quiet'}>{saysOf(a)}</span>
              </button>
            </li>
          );
        })}
      </ol>
      {first?.fixed && !second && (
        <Quiet onClick={() => setAdding(!adding)}>{adding ? 'choose another anchor for the one tie' : 'choose an anchor for a second tie'}</Quiet>
      )}
      {adding && <p aria-live="polite">Choose above what the second tie goes to: the two share the pull.</p>}
      {second && <p className="text-quiet">Two ties share the pull on it.</p>}
    </section>
  );
}
