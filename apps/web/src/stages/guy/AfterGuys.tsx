import { useMemo, useState } from 'react';
import { dayOf, DEVICE_WORDS, isoOf, letGoDue, LINE_FIELDS, placeTree, type GuyOff } from '@ustle/core';
import { NumberField } from '../../shared/NumberField';
import { sayDate, sayShort } from '../../shared/say';
import { useDesk } from '../desk';

const { heldDeg: HELD, backMm: BACK } = LINE_FIELDS.measured;
/** A branch is let go once it keeps so much of what it was drawn by. */
const KEEPS = 0.8;

/** What is left some days after a tie or a device came off: by its angle where it is known how far the wood came, else by how far it went back. */
function ToSee({ guy, on }: { guy: GuyOff; on: string }) {
  const { act, names, today } = useDesk();
  const [value, setValue] = useState<number | null>(null);
  const { branch, cameDeg, device } = guy;
  const what = device ? DEVICE_WORDS[device].name : 'tie';
  return (
    <li className="border-t border-rule py-2">
      <strong>{names(branch)}</strong>{' '}
      <span className="text-quiet">
        {what} off since {sayDate(isoOf(guy.offOn))}
        {cameDeg ? `, it had come ${cameDeg.toFixed(0)}°` : ''}
      </span>
      {on > today && <p className="text-quiet">See it on {sayShort(on)}: by then it has gone back as far as it will.</p>}
      <div className="mt-1 flex flex-wrap items-end gap-3">
        {cameDeg ? (
          <NumberField label="Of that it holds" rule={HELD} unit="°" value={value} onValue={setValue} open />
        ) : (
          <NumberField label="It went back by" rule={BACK} unit="mm" value={value} onValue={setValue} open />
        )}
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={value === null}
          onClick={() => void act({ kind: 'measured', branch, guy: guy.guy, ...(cameDeg ? { heldDeg: value! } : { backMm: value! }) })}
        >
          Note it
        </button>
      </div>
      {cameDeg && value !== null && (
        <p className="mt-1">
          {value < KEEPS * cameDeg ? 'It has not set: tie it again, a little farther, for another season or more.' : 'It holds: nothing more for this branch.'}
        </p>
      )}
    </li>
  );
}

/** What is left to see of ties and devices that came off. */
export function AfterGuys() {
  const { tree, today } = useDesk();
  const due = useMemo(() => letGoDue(placeTree(tree), dayOf(today)), [tree, today]);
  if (!due.length) return null;
  return (
    <section className="mt-6" aria-label="What is left of it">
      <h3 className="text-lg">What is left of it</h3>
      <ul className="mt-1 border-b border-rule">
        {due.map(({ guy, on }) => (
          <ToSee key={guy.guy + guy.offOn} guy={guy} on={isoOf(on)} />
        ))}
      </ul>
    </section>
  );
}
