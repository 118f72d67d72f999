import { useState } from 'react';
import { LINE_FIELDS, MARK_STAGES, type MarkStage, type PlanGuy } from '@ustle/core';
import { DateField } from '../../shared/DateField';
import { NumberField } from '../../shared/NumberField';
import { Pick, Quiet } from '../../shared/parts';
import { sayDate } from '../../shared/say';
import { useDesk } from '../desk';

const BARK: { value: MarkStage; name: string }[] = MARK_STAGES.map((value) => ({ value, name: value === 'clear' ? 'clear: as it was' : value }));
const { twists: TWISTS, cameDeg: CAME } = LINE_FIELDS.guyed;

/** What is done with a tie: put on, twisted, let out, looked at, taken off. Each is a line of the record. */
export function TieActs({ guy }: { guy: PlanGuy }) {
  const { act, today, names } = useDesk();
  const [on, setOn] = useState(today);
  const [twists, setTwists] = useState<number | null>(guy.on ? 1 : Math.round(guy.windlassTurns));
  const [came, setCame] = useState<number | null>(null);
  const [bark, setBark] = useState<MarkStage>('clear');
  const { id, branch, at, anchor, wire, cushion, tension } = guy;
  const taut = Math.round(guy.length - guy.shortening);
  const moved = { ...(twists ? { twists } : {}), ...(came ? { cameDeg: came } : {}) };
  const line = (done: 'twisted' | 'loosened' | 'looked'): void =>
    void act({
      kind: 'guyed',
      on,
      branch,
      guy: id,
      done,
      ...(done === 'looked' ? { bark } : moved),
      ...(done === 'twisted' ? { tension: Math.round(tension), length: taut } : {}),
    });
  return (
    <section className="space-y-3 border-t border-rule pt-3">
      <h3 className="text-lg">{guy.on ? `On since ${sayDate(guy.on.since)}` : 'Put it on'}</h3>
      {guy.on && (
        <p className="text-quiet">
          {guy.on.twists.toFixed(0)} twists in it.{' '}
          {guy.on.holds
            ? `The branch is likely to hold by itself from ${sayDate(guy.on.holds)} on.`
            : 'When it will hold by itself is not known: note how far it came.'}{' '}
          Look at its cushion by {sayDate(guy.on.look)}.
        </p>
      )}
      <DateField label="On" value={on} today={today} max={today} onValue={(iso) => iso && setOn(iso)} />
      <div className="grid grid-cols-2 gap-3">
        <NumberField label="Twists" rule={TWISTS} value={twists} onValue={setTwists} unit="" open />
        <NumberField label="The branch came" rule={CAME} value={came} onValue={setCame} unit="degrees" open />
      </div>
      {guy.on ? (
        <>
          <div className="flex flex-wrap gap-2">
            <button type="button" className="btn btn-primary" onClick={() => line('twisted')}>
              Twisted shorter
            </button>
            <button type="button" className="btn btn-outline border-rule font-normal" onClick={() => line('loosened')}>
              Let out a little
            </button>
          </div>
          <Pick label="The bark under its cushion" value={bark} options={BARK} onChange={setBark} />
          <div className="flex flex-wrap gap-x-5">
            <Quiet onClick={() => line('looked')}>looked at it</Quiet>
            <Quiet onClick={() => void act({ kind: 'untie', on, guy: id })}>it is off</Quiet>
          </div>
        </>
      ) : (
        <button
          type="button"
          className="btn btn-primary w-full"
          onClick={() =>
            void act({
              kind: 'tie',
              on,
              ...(guy.fixed ? { guy: id } : {}),
              branch,
              at,
              anchor,
              wire,
              cushion,
              tension: Math.round(tension),
              length: taut,
              ...moved,
            })
          }
        >
          {names(branch)} is tied
        </button>
      )}
    </section>
  );
}
