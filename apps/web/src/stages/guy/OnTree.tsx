import { useState } from 'react';
import { LINE_FIELDS, MARK_STAGES, type MarkStage } from '@ustle/core';
import { DateField } from '../../shared/DateField';
import { NumberField } from '../../shared/NumberField';
import { Pick, Quiet } from '../../shared/parts';
import { useDesk } from '../desk';

const BARK: { value: MarkStage; name: string }[] = MARK_STAGES.map((value) => ({ value, name: value === 'clear' ? 'clear: as it was' : value }));
const { twists: TWISTS, cameDeg: CAME, backMm: BACK } = LINE_FIELDS.guyed;

/** What was found or done at a tie or a device, to go into a line of the record. */
export interface Told {
  on: string;
  moved: { twists?: number; cameDeg?: number };
  bark: MarkStage;
  backMm?: number;
}

interface Props {
  /** Null: it is not on yet. */
  on: { head: string; told: string } | null;
  words: { turns: string; shorter: string; back: string; put: string };
  turns: number;
  /** Whether what the wood goes back by is noted when it comes off. */
  goesBack?: boolean;
  /** Why it is not put on as it is; null where nothing speaks against it. */
  against?: string | null;
  onPut: (told: Told) => void;
  onDone: (done: 'twisted' | 'loosened' | 'looked', told: Told) => void;
  onOff: (told: Told) => void;
}

/** What is done with something that holds wood: put on, drawn on, let back, looked at, taken off. Each is a line of the record. */
export function OnTree({ on, words, turns, goesBack = false, against = null, onPut, onDone, onOff }: Props) {
  const { today } = useDesk();
  const [day, setDay] = useState(today);
  const [twists, setTwists] = useState<number | null>(turns);
  const [came, setCame] = useState<number | null>(null);
  const [bark, setBark] = useState<MarkStage>('clear');
  const [back, setBack] = useState<number | null>(null);
  const told: Told = {
    on: day,
    moved: { ...(twists ? { twists } : {}), ...(came ? { cameDeg: came } : {}) },
    bark,
    ...(goesBack && back !== null ? { backMm: back } : {}),
  };
  return (
    <section className="space-y-3 border-t border-rule pt-3">
      <h3 className="text-lg">{on ? on.head : 'Put it on'}</h3>
      {on && <p className="text-quiet">{on.told}</p>}
      <DateField label="On" value={day} today={today} max={today} onValue={(iso) => iso && setDay(iso)} />
      <div className="grid grid-cols-2 gap-3">
        <NumberField label={words.turns} rule={TWISTS} value={twists} onValue={setTwists} unit="" open />
        <NumberField label="The wood came" rule={CAME} value={came} onValue={setCame} unit="degrees" open />
      </div>
      {on ? (
        <>
          <div className="flex flex-wrap gap-2">
            <button type="button" className="btn btn-primary" onClick={() => onDone('twisted', told)}>
              {words.shorter}
            </button>
            <button type="button" className="btn btn-outline border-rule font-normal" onClick={() => onDone('loosened', told)}>
              {words.back}
            </button>
          </div>
          <Pick label="The bark under its cushion" value={bark} options={BARK} onChange={setBark} />
          {goesBack && (
            <>
              <p className="text-quiet">
                Before it comes off, mark where the wood stands. Look again after an hour and after some days: what it goes back tells whether a tie must
                follow.
              </p>
              <NumberField label="The wood went back by" rule={BACK} value={back} onValue={setBack} unit="mm" open />
            </>
          )}
          <div className="flex flex-wrap gap-x-5">
            <Quiet onClick={() => onDone('looked', told)}>looked at it</Quiet>
            <Quiet onClick={() => onOff(told)}>it is off</Quiet>
          </div>
        </>
      ) : against ? (
        <p className="text-madder">{against}</p>
      ) : (
        <button type="button" className="btn btn-primary w-full" onClick={() => onPut(told)}>
          {words.put}
        </button>
      )}
    </section>
  );
}
