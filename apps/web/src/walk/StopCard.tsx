import { useState } from 'react';
import type { WalkStop } from '@ustle/contract';
import { LINE_FIELDS, MARK_STAGES, type MarkStage } from '@ustle/core';
import { AddPhoto } from '../photos/AddPhoto';
import { NumberField } from '../shared/NumberField';
import { Caution, Quiet } from '../shared/parts';
import { sayDate } from '../shared/say';
import { StageGlyph } from '../shared/StageGlyph';
import type { Answer } from './use-walk';

const SAID: Record<MarkStage, string> = {
  clear: 'a gap all round',
  touching: 'it presses',
  marking: 'it marks',
  deep: 'half in the bark',
  swallowed: 'grown over',
};

/** One thing to look at: what it is, what to expect of it, and answers that a thumb finds. */
export function StopCard({ stop, on, onAnswer, onSkip }: { stop: WalkStop; on: string; onAnswer: (answers: Answer[]) => void; onSkip: () => void }) {
  const [off, setOff] = useState(false);
  const [pieces, setPieces] = useState<number | null>(null);
  const [missing, setMissing] = useState<number | null>(0);
  const [d, setD] = useState<number | null>(null);
  const [note, setNote] = useState('');
  const { kind, branch, of, unwiring } = stop;
  const wire = kind === 'wire';
  const about = { branch, ...(of && wire ? { run: of } : {}) };
  const extras: Answer[] = [
    ...(d ? [{ stop, said: `${d.toFixed(1)} mm thick`, act: { kind: 'measured', branch, d } }] : []),
    ...(note.trim() ? [{ stop, said: note.trim(), act: { kind: 'note', branch, text: note.trim() } }] : []),
  ];
  // What else was noted comes first: the look itself is what stands as the answer.
  const give = (said: string, act: Record<string, unknown>): void => onAnswer([...extras, { stop, said, act }]);
  const see = (stage: MarkStage): void =>
    give(stage, wire ? { ...about, kind: 'inspected', stage } : { kind: 'guyed', branch, guy: of, done: 'looked', bark: stage });
  const counted = { ...(pieces ? { pieces } : {}), ...(missing ? { missing } : {}) };
  return (
    <section aria-label={stop.name} className="space-y-3">
      <div>
        <h2 className="text-2xl">
          {stop.treeName}: {stop.name}
        </h2>
        <p className="text-lg">
          {stop.what}, since {sayDate(stop.since)}
          {stop.seen && `; ${stop.seen.stage} on ${sayDate(stop.seen.on)}`}
        </p>
        <p className="text-quiet">{stop.because[0]}</p>
      </div>
      <div role="group" aria-label={wire ? 'What you see' : 'The bark under it'} className="space-y-2">
        {MARK_STAGES.map((stage) => (
          <button
            key={stage}
            type="button"
            className="flex min-h-16 w-full items-center gap-4 border border-rule bg-sheet px-4 text-left text-xl hover:border-copper"
            onClick={() => see(stage)}
          >
            <StageGlyph stage={stage} size={30} />
            <span>
              {stage} <span className="text-[15px] text-quiet">{SAID[stage]}</span>
            </span>
          </button>
        ))}
      </div>
      {wire && unwiring && !off && (
        <button
          type="button"
          className={`btn min-h-14 w-full text-lg ${unwiring.take === 'none' ? 'btn-outline border-rule font-normal' : 'btn-primary'}`}
          onClick={() => setOff(true)}
        >
          Take it off…
        </button>
      )}
      {off && unwiring && (
        <div className="space-y-3 border-t border-rule pt-3">
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
            <NumberField label="Not found yet" rule={LINE_FIELDS.unwired.missing} unit="" value={missing} onValue={setMissing} open />
          </div>
          <div className="grid gap-2">
            <button
              type="button"
              className="btn btn-primary min-h-14 text-lg"
              onClick={() => give('taken off', { ...about, ...counted, kind: 'unwired', method: unwiring.how })}
            >
              All of it is off
            </button>
            <button
              type="button"
              className="btn btn-outline btn-primary min-h-14 text-lg"
              onClick={() => give('some turns off', { ...about, ...counted, kind: 'cut' })}
            >
              Only the turns that mark
            </button>
            <Quiet onClick={() => setOff(false)}>leave it on</Quiet>
          </div>
          <Caution>Cut ends fly. Protect your eyes, and hold the wire on both sides of the cut.</Caution>
        </div>
      )}
      <details className="border-t border-rule pt-2">
        <summary className="min-h-11 cursor-pointer content-center">Thickness, a note, a photo</summary>
        <div className="space-y-3 py-2">
          <NumberField label="Thickness at the shoulder" rule={LINE_FIELDS.measured.d} value={d} onValue={setD} open />
          <label className="block">
            <span className="mb-1 block text-quiet">Note, goes with your answer</span>
            <input className="input w-full bg-sheet" value={note} maxLength={1000} onChange={(event) => setNote(event.target.value)} />
          </label>
          <AddPhoto tree={stop.tree} today={on} of={{ branch }} />
        </div>
      </details>
      <button type="button" className="btn btn-ghost min-h-12 w-full" onClick={onSkip}>
        Not now, the next one
      </button>
    </section>
  );
}
