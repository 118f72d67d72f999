import { useState } from 'react';
import type { WalkStop } from '@ustle/contract';
import { LINE_FIELDS, type MarkStage } from '@ustle/core';
import { NumberField } from '../shared/NumberField';
import { Caution, Quiet } from '../shared/parts';
import { Press, useOncePer } from './press';

/** What is to become of a branch whose wire came off. */
const AFTER = [
  { name: 'It holds by itself', said: 'taken off, it holds', act: { kind: 'note', text: 'It holds by itself, as far as one sees at once.' } },
  { name: 'Wire it again', said: 'taken off, to be wired again', act: { kind: 'promised', what: 'other', text: 'Wire it again, between the old marks.' } },
  { name: 'Tie it', said: 'taken off, to be tied', act: { kind: 'promised', what: 'other', text: 'Hold it by a tie.' } },
  { name: 'Let it rest for a season', said: 'taken off, it rests', act: { kind: 'note', text: 'No wire on it for a season.' } },
] as const;

interface Props {
  stop: WalkStop;
  /** What was seen that asks for it; null: it was asked for. */
  seen: MarkStage | null;
  about: { branch: string; run?: string };
  give: (said: string, act: Record<string, unknown>) => void;
  onNext: () => void;
  onBack: (() => void) | null;
}

/** Wire that comes off: all of it, the turns that mark, or later; and once it is off, what comes of the branch. */
export function TakeOff({ stop, seen, about, give, onNext, onBack }: Props) {
  const [pieces, setPieces] = useState<number | null>(null);
  const [left, setLeft] = useState<number | null>(null);
  const [missing, setMissing] = useState<number | null>(0);
  const [isOff, setOff] = useState(false);
  const once = useOncePer(isOff);
  const unwiring = stop.unwiring!;
  const counted = { ...(pieces ? { pieces } : {}), ...(missing ? { missing } : {}) };
  if (isOff)
    return (
      <div className="space-y-3 border-t border-rule pt-3" role="group" aria-label="Now that it is off">
        <p className="text-lg">It is off. Does the branch hold?</p>
        {AFTER.map(({ name, said, act }) => (
          <Press
            key={name}
            once={once}
            className="btn btn-outline min-h-14 w-full border-rule text-lg font-normal"
            onPress={() => {
              give(said, { ...act, branch: stop.branch });
              onNext();
            }}
          >
            {name}
          </Press>
        ))}
        <Press once={once} className="btn btn-ghost min-h-12 w-full" onPress={onNext}>
          That shows in some days
        </Press>
      </div>
    );
  return (
    <div className="space-y-3 border-t border-rule pt-3" role="group" aria-label="Take it off">
      {seen && <p className="text-lg">Noted: {seen}. Take it off now?</p>}
      {[...unwiring.because, ...unwiring.warnings].map((b) => (
        <p key={b}>{b}</p>
      ))}
      <div className="flex flex-wrap gap-4">
        <NumberField
          label={unwiring.pieces ? `Pieces off (about ${unwiring.pieces})` : 'Pieces off'}
          rule={LINE_FIELDS.unwired.pieces}
          unit=""
          value={pieces}
          onValue={setPieces}
          open
        />
        <NumberField label="Turns left on" rule={LINE_FIELDS.cut.left} unit="" value={left} onValue={setLeft} open />
        <NumberField label="Not found yet" rule={LINE_FIELDS.unwired.missing} unit="" value={missing} onValue={setMissing} open />
      </div>
      <div className="grid gap-3">
        <Press
          once={once}
          className="btn btn-primary min-h-14 text-lg"
          onPress={() => {
            give('taken off', { ...about, ...counted, kind: 'unwired', method: unwiring.how });
            setOff(true);
          }}
        >
          All of it is off
        </Press>
        <Press
          once={once}
          className="btn btn-outline btn-primary min-h-14 text-lg"
          onPress={() => {
            give('some turns off', { ...about, ...counted, ...(left === null ? {} : { left }), kind: 'cut' });
            onNext();
          }}
        >
          Only the turns that mark
        </Press>
        {seen && (
          <Press once={once} className="btn btn-ghost min-h-12" onPress={onNext}>
            Later: it stays on for now
          </Press>
        )}
        {onBack && <Quiet onClick={onBack}>leave it on</Quiet>}
      </div>
      <Caution>Cut ends fly. Protect your eyes, and hold the wire on both sides of the cut.</Caution>
    </div>
  );
}
