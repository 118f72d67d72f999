import { useState } from 'react';
import { LINE_FIELDS, MARK_STAGES, type MarkStage, type PlanWire, type UnwireMethod } from '@ustle/core';
import { DateField } from '../../shared/DateField';
import { NumberField } from '../../shared/NumberField';
import { Caution, Quiet } from '../../shared/parts';
import { addDays } from '../../shared/say';
import { StageGlyph } from '../../shared/StageGlyph';
import { useDesk } from '../desk';

const { pieces: PIECES, missing: MISSING, heldDeg: HELD } = LINE_FIELDS.unwired;
const { gap: GAP } = LINE_FIELDS.inspected;
const { left: LEFT } = LINE_FIELDS.cut;
const WEEK = 7;

type Doing = 'turns' | 'all' | 'snooze' | null;

/** Wire that comes off: all of it, or the turns that mark; its pieces are counted until none is missing. */
function TakeOff({ wire, on, all, onDone }: { wire: PlanWire; on: string; all: boolean; onDone: () => void }) {
  const { act } = useDesk();
  const [pieces, setPieces] = useState<number | null>(null);
  const [left, setLeft] = useState<number | null>(null);
  const [missing, setMissing] = useState<number | null>(0);
  const [heldDeg, setHeld] = useState<number | null>(null);
  const counted = { ...(pieces ? { pieces } : {}), ...(missing ? { missing } : {}) };
  const about = { on, branch: wire.branch, ...(wire.run ? { run: wire.run } : {}) };
  const off = async (method: UnwireMethod): Promise<void> => {
    if (await act({ ...about, ...counted, kind: 'unwired', method, ...(heldDeg === null ? {} : { heldDeg }) })) onDone();
  };
  const { unwiring } = wire;
  return (
    <div className="space-y-3">
      {unwiring.because.map((b) => (
        <p key={b}>{b}</p>
      ))}
      {unwiring.warnings.map((w) => (
        <p key={w} className="border-l-4 border-ochre px-3">
          {w}
        </p>
      ))}
      <div className="flex flex-wrap gap-x-6 gap-y-2">
        <NumberField
          label={unwiring.pieces ? `Pieces taken off (about ${unwiring.pieces})` : 'Pieces taken off'}
          rule={PIECES}
          unit=""
          value={pieces}
          onValue={setPieces}
          open
        />
        {!all && <NumberField label="Turns left on" rule={LEFT} unit="" value={left} onValue={setLeft} open />}
        <NumberField label="Not found yet" rule={MISSING} unit="" value={missing} onValue={setMissing} open />
        {all && <NumberField label="Angle it holds now" rule={HELD} unit="°" value={heldDeg} onValue={setHeld} open />}
      </div>
      <p className="text-quiet">
        Count the pieces: one that stays in the bark is grown over within a season.{all && ' Measure the angle again after some days; Season asks for it.'}
      </p>
      <div className="flex flex-wrap gap-2">
        {all ? (
          <>
            <button
              type="button"
              className={`btn btn-sm ${unwiring.how === 'cut' ? 'btn-primary' : 'btn-outline btn-primary'}`}
              onClick={() => void off('cut')}
            >
              Cut off
            </button>
            <button
              type="button"
              className={`btn btn-sm ${unwiring.how === 'cut' ? 'btn-outline btn-primary' : 'btn-primary'}`}
              onClick={() => void off('unwound')}
            >
              Unwound
            </button>
          </>
        ) : (
          <button
            type="button"
            className="btn btn-primary btn-sm"
            onClick={() => void act({ ...about, ...counted, ...(left === null ? {} : { left }), kind: 'cut' }).then((done) => done && onDone())}
          >
            Those turns are off
          </button>
        )}
        <button type="button" className="btn btn-ghost btn-sm" onClick={onDone}>
          Not yet
        </button>
      </div>
      <Caution>Cut ends fly. Protect your eyes, and hold the wire on both sides of the cut. No blade towards the living wood.</Caution>
    </div>
  );
}

/** A look that is put off, and why. */
function Snooze({ wire, onDone }: { wire: PlanWire; onDone: () => void }) {
  const { act, today } = useDesk();
  const [until, setUntil] = useState(addDays(wire.nextInspection > today ? wire.nextInspection : today, WEEK));
  const [why, setWhy] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const put = async (): Promise<void> => {
    if (!why.trim()) return setFault('Say why, so that whoever reads it later knows.');
    if (await act({ kind: 'snoozed', branch: wire.branch, ...(wire.run ? { run: wire.run } : {}), until, text: why.trim() })) onDone();
  };
  return (
    <form
      className="space-y-2"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void put();
      }}
    >
      <DateField
        className="w-60"
        label="Look again on"
        value={until}
        today={today}
        min={today}
        max={addDays(today, 12 * WEEK)}
        onValue={(iso) => setUntil(iso!)}
      />
      <label className="block">
        <span className="mb-1 block text-quiet">Why</span>
        <input className="input w-full bg-sheet" value={why} maxLength={400} aria-invalid={fault !== null} onChange={(event) => setWhy(event.target.value)} />
      </label>
      {fault && (
        <p role="alert" className="text-madder">
          {fault}
        </p>
      )}
      <p className="text-quiet">It is asked again at the latest on the day from which it may mark.</p>
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary btn-sm">
          Put off
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onDone}>
          Leave it
        </button>
      </div>
    </form>
  );
}

/** Says what was seen on a coil, or that it came off. */
export function CoilActs({ wire }: { wire: PlanWire }) {
  const { today, act } = useDesk();
  const [on, setOn] = useState(today);
  const [gap, setGap] = useState<number | null>(null);
  const [doing, setDoing] = useState<Doing>(null);
  const about = { on, branch: wire.branch, ...(wire.run ? { run: wire.run } : {}) };
  const inspect = (stage: MarkStage): void =>
    void act({ ...about, kind: 'inspected', stage, ...(gap === null ? {} : { gap }) }).then((done) => done && setGap(null));
  const done = (): void => setDoing(null);
  return (
    <div className="space-y-3 border-t border-rule pt-3">
      <div className="flex flex-wrap items-end gap-4">
        <DateField className="w-60" label="Seen on" value={on} today={today} min={wire.since} max={today} onValue={(iso) => setOn(iso!)} />
        <NumberField label="Gap, if you measured it" rule={GAP} value={gap} onValue={setGap} open />
      </div>
      <div role="group" aria-label="What you see" className="grid grid-cols-[repeat(5,auto)] gap-1">
        {MARK_STAGES.map((stage) => (
          <button
            key={stage}
            type="button"
            className="flex h-[68px] flex-col items-center gap-1 pt-2 border border-rule bg-sheet text-[0.94rem] tracking-tight leading-4 hover:border-copper"
            onClick={() => inspect(stage)}
          >
            <StageGlyph stage={stage} size={22} />
            {stage}
          </button>
        ))}
      </div>
      {doing === null && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <button
            type="button"
            className={`btn btn-sm ${wire.unwiring.take === 'all' ? 'btn-primary' : 'btn-outline btn-primary'}`}
            onClick={() => setDoing('all')}
          >
            It came off…
          </button>
          <button
            type="button"
            className={`btn btn-sm ${wire.unwiring.take === 'marking' ? 'btn-primary' : 'btn-outline btn-primary'}`}
            onClick={() => setDoing('turns')}
          >
            Some turns came off…
          </button>
          <Quiet onClick={() => setDoing('snooze')}>put the look off</Quiet>
        </div>
      )}
      {(doing === 'all' || doing === 'turns') && <TakeOff wire={wire} on={on} all={doing === 'all'} onDone={done} />}
      {doing === 'snooze' && <Snooze wire={wire} onDone={done} />}
    </div>
  );
}
