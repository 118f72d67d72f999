import { useState } from 'react';
import { CRACK_NOW, LINE_FIELDS, type Deed, type WorkStep } from '@ustle/core';
import { Dialog } from '../../shared/Dialog';
import { NumberField } from '../../shared/NumberField';
import { Pick } from '../../shared/parts';
import { useDesk } from '../desk';
import type { Give } from './StepCard';

/** It cracked: where, which way, and what to do now. */
export function Cracked({ step, give, onClose }: { step: WorkStep; give: Give; onClose: () => void }) {
  const { names, today } = useDesk();
  const bent = step.did.find((d): d is Extract<Deed, { kind: 'bent' }> => d.kind === 'bent');
  const placed = step.did.flatMap((d) => (d.kind === 'placed' ? d.bends : []));
  const [branch, setBranch] = useState(step.branches[0]!);
  const [way, setWay] = useState<'along' | 'across' | null>(null);
  const [at, setAt] = useState<number | null>(bent?.at ?? null);
  const [angle, setAngle] = useState<number | null>(null);
  /** Over which length and which way it was being bent there. */
  const wayThere = (place: number): Pick<Extract<Deed, { kind: 'bent' }>, 'over' | 'toward'> => {
    const bends = [...(bent?.at === undefined ? [] : [{ ...bent, at: bent.at }]), ...placed];
    const [near] = bends.sort((a, b) => Math.abs(a.at - place) - Math.abs(b.at - place));
    return near?.over ? { over: near.over, ...(near.toward ? { toward: near.toward } : {}) } : {};
  };
  const save = async (): Promise<void> => {
    const others = step.did.filter((d) => d !== bent).map((d) => ({ ...d, on: today }));
    const crack: Deed = {
      kind: 'bent',
      on: today,
      branch,
      sound: 'fibre',
      crack: way!,
      ...(at === null ? {} : { at, ...wayThere(at) }),
      ...(angle === null ? {} : { bentDeg: angle }),
      ...(bent?.stage ? { stage: bent.stage } : {}),
    };
    // What the step put on is on: it cracked with it.
    if (await give('cracked', { did: [...(step.kind === 'wire' || step.kind === 'guy' ? others : []), crack], text: CRACK_NOW[way!] })) onClose();
  };
  return (
    <Dialog label="It cracked" onClose={onClose} back="Back to the step" alarm>
      <h2 className="text-2xl">It cracked</h2>
      <p className="mt-1 text-lg">Stop, and hold it as it is. Which way does the crack run?</p>
      <div className="mt-3 grid gap-2 sm:grid-cols-2" role="group" aria-label="The crack runs">
        <button
          type="button"
          data-first
          aria-pressed={way === 'along'}
          className={`btn min-h-16 text-lg ${way === 'along' ? 'btn-primary' : 'btn-outline btn-primary'}`}
          onClick={() => setWay('along')}
        >
          Along the branch
        </button>
        <button
          type="button"
          aria-pressed={way === 'across'}
          className={`btn min-h-16 text-lg ${way === 'across' ? 'btn-primary' : 'btn-outline btn-primary'}`}
          onClick={() => setWay('across')}
        >
          Across it
        </button>
      </div>
      {way && (
        <>
          <p role="status" className="mt-3 border-l-4 border-madder bg-base-100 px-3 py-2 text-lg">
            {CRACK_NOW[way]}
          </p>
          {step.branches.length > 1 && (
            <Pick label="On which branch" value={branch} options={step.branches.map((b) => ({ value: b, name: names(b) }))} onChange={setBranch} />
          )}
          <div className="mt-3 flex flex-wrap gap-4">
            <NumberField label="Where, from its shoulder" rule={LINE_FIELDS.bent.at} value={at} onValue={setAt} open />
            <NumberField label="Bent so far" rule={LINE_FIELDS.bent.bentDeg} value={angle} onValue={setAngle} unit="degrees" open />
          </div>
          <button type="button" className="btn btn-primary mt-4 min-h-14 w-full text-lg" onClick={() => void save()}>
            Note the crack, and go on with the next step
          </button>
        </>
      )}
    </Dialog>
  );
}
