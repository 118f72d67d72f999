import { useState } from 'react';
import { LINE_FIELDS, type Deed, type Sound, type WorkStep } from '@ustle/core';
import { Dialog } from '../../shared/Dialog';
import { NumberField } from '../../shared/NumberField';
import { Choice } from '../../shared/parts';
import { useDesk } from '../desk';
import { SOUNDS } from '../pose/words';
import { PutOn } from '../wire/PutOn';
import type { Give } from './StepCard';

type OfKind<K extends Deed['kind']> = Extract<Deed, { kind: K }>;

/** A bend, a tie or a device as it was really done. */
function Measured({ deed, onDeed }: { deed: Deed; onDeed: (deed: Deed) => void }) {
  if (deed.kind === 'bent') {
    const set = (of: Partial<OfKind<'bent'>>): void => onDeed({ ...deed, ...of });
    return (
      <>
        <NumberField
          label="Bent to, by hand"
          rule={LINE_FIELDS.bent.bentDeg}
          value={deed.bentDeg ?? null}
          onValue={(v) => v !== null && set({ bentDeg: v })}
          unit="degrees"
        />
        <Choice
          label="What was heard"
          value={deed.sound ?? 'none'}
          options={SOUNDS.map((s) => ({ value: s.value, name: s.name }))}
          onChange={(sound: Sound) => set({ sound })}
        />
      </>
    );
  }
  if (deed.kind === 'placed' && deed.bends.length) {
    const most = deed.bends.reduce((a, b) => (b.bentDeg > a.bentDeg ? b : a));
    const set = (bentDeg: number): void => onDeed({ ...deed, bends: deed.bends.map((b) => (b === most ? { ...b, bentDeg } : b)) });
    return (
      <NumberField
        label={`Bent to, by hand, at ${Math.round(most.at)} mm`}
        rule={LINE_FIELDS.bent.bentDeg}
        value={most.bentDeg}
        onValue={(v) => v !== null && set(v)}
        unit="degrees"
      />
    );
  }
  if (deed.kind === 'tie' || deed.kind === 'guyed' || deed.kind === 'set-up') {
    const turns = deed.kind === 'set-up' ? 'Turns' : 'Twists';
    return (
      <div className="flex flex-wrap gap-4">
        <NumberField
          label={turns}
          rule={LINE_FIELDS.guyed.twists}
          value={deed.twists ?? null}
          onValue={(v) => onDeed({ ...deed, ...(v === null ? {} : { twists: v }) })}
          unit=""
          open
        />
        <NumberField
          label="It came"
          rule={LINE_FIELDS.guyed.cameDeg}
          value={deed.cameDeg ?? null}
          onValue={(v) => onDeed({ ...deed, ...(v === null ? {} : { cameDeg: v }) })}
          unit="degrees"
          open
        />
      </div>
    );
  }
  return null;
}

/** A step that was done, but not as planned: what was otherwise. */
export function Otherwise({ step, give, onClose }: { step: WorkStep; give: Give; onClose: () => void }) {
  const { plan, today } = useDesk();
  const [deeds, setDeeds] = useState<readonly Deed[]>(step.did);
  const [text, setText] = useState('');
  const run = step.kind === 'wire' ? plan!.runs.find((r) => r.id === step.of) : undefined;
  const said = text.trim() ? { text: text.trim() } : {};
  const save = async (did: Deed[]): Promise<void> => {
    if (await give('otherwise', { did, ...said })) onClose();
  };
  return (
    <Dialog label="Done otherwise" onClose={onClose} back="Back to the step">
      <h2 className="text-2xl">Done otherwise</h2>
      <p className="text-quiet first-letter:uppercase">{step.title}</p>
      <label className="mt-3 block">
        <span className="mb-1 block text-quiet">What was otherwise</span>
        <input data-first className="input w-full bg-base-100" maxLength={1000} value={text} onChange={(event) => setText(event.target.value)} />
      </label>
      {run ? (
        <div className="mt-3">
          <PutOn run={run} replaces={null} inSession onSave={(wired) => void save([{ ...wired, on: wired.on ?? today } as Deed])} />
        </div>
      ) : (
        <form
          className="mt-3 space-y-4"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void save(deeds.map((d) => ({ ...d, on: today })));
          }}
        >
          {deeds.map((d, i) => (
            <Measured key={i} deed={d} onDeed={(own) => setDeeds(deeds.map((x, k) => (k === i ? own : x)))} />
          ))}
          <button type="submit" className="btn btn-primary min-h-14 w-full text-lg">
            So it was done
          </button>
        </form>
      )}
    </Dialog>
  );
}
