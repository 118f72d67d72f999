import { useState } from 'react';
import { LINE_FIELDS, type Watching } from '@ustle/core';
import { NumberField } from '../../shared/NumberField';
import { sayDate, sayShort } from '../../shared/say';
import { StageGlyph } from '../../shared/StageGlyph';
import { useDesk } from '../desk';

/** The angle that a branch holds some days after its wire came off, and what follows from it. */
function ToMeasure({ branch, offOn, on, wantedDeg }: Watching['toMeasure'][number]) {
  const { act, names, today } = useDesk();
  const [held, setHeld] = useState<number | null>(null);
  const short = held !== null && held < 0.9 * wantedDeg;
  return (
    <li className="border-t border-rule py-2">
      <strong>{names(branch)}</strong>{' '}
      <span className="text-quiet">
        off since {sayDate(offOn)}, wanted {wantedDeg.toFixed(0)}°
      </span>
      {on > today && <p className="text-quiet">Measure it on {sayShort(on)}: by then it has sprung back as far as it will.</p>}
      <div className="mt-1 flex flex-wrap items-end gap-3">
        <NumberField label="Angle it holds" rule={LINE_FIELDS.measured.heldDeg} unit="°" value={held} onValue={setHeld} open />
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={held === null}
          onClick={() => void act({ kind: 'measured', branch, heldDeg: held! })}
        >
          Note it
        </button>
      </div>
      {held !== null && (
        <p className="mt-1">
          {short
            ? 'It has not set. Wire it again from this shape in its next good month, let a guy hold it where the wire marked too soon, or rest the tree a season and feed it.'
            : 'It holds: nothing more for this branch.'}
        </p>
      )}
    </li>
  );
}

/** What is left to do and to see of wire that came off. */
export function AfterWire({ watching }: { watching: Watching }) {
  const { names } = useDesk();
  const { toMeasure, scars } = watching;
  return (
    <>
      {toMeasure.length > 0 && (
        <section className="mt-6" aria-label="Angles to measure">
          <h3 className="text-lg">Angles to measure</h3>
          <ul className="mt-1 border-b border-rule">
            {toMeasure.map((m) => (
              <ToMeasure key={m.run + m.branch} {...m} />
            ))}
          </ul>
        </section>
      )}
      {scars.length > 0 && (
        <section className="mt-6" aria-label="Marks in the bark">
          <h3 className="text-lg">Marks in the bark</h3>
          <ul className="mt-1 border-b border-rule">
            {scars.map((s) => (
              <li key={s.branch + s.since} className="flex items-start gap-3 border-t border-rule py-1.5">
                <StageGlyph stage={s.stage} />
                <span>
                  {names(s.branch)}, about {s.depth.toFixed(1)} mm deep, {s.on ? 'the wire is still on' : `off since ${sayDate(s.since)}`}
                  <span className="block text-quiet">{s.growsOut ? `likely grown out by ${sayDate(s.growsOut)}` : 'this bark keeps it'}</span>
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
