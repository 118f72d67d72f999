import { useRef, useState } from 'react';
import type { WalkStop } from '@ustle/contract';
import { LINE_FIELDS, MARK_STAGES, type MarkStage } from '@ustle/core';
import { AddPhoto } from '../photos/AddPhoto';
import { useDraft } from '../shared/kept-draft';
import { NumberField } from '../shared/NumberField';
import { Quiet } from '../shared/parts';
import { addDays, sayDate, sayShort } from '../shared/say';
import { StageGlyph } from '../shared/StageGlyph';
import { TakeOff } from './TakeOff';
import { TieActs } from './TieActs';
import { StopPicture } from './StopPicture';
import { isGrave, Press, useOncePer } from './press';
import { keyOf, type Answer } from './use-walk';

const SAID: Record<MarkStage, string> = {
  clear: 'a gap all round',
  touching: 'it presses',
  marking: 'it marks',
  deep: 'half in the bark',
  swallowed: 'grown over',
};
/** Twice as thick as it was, or half: more likely a slip of the hand. */
const UNLIKELY = 2;

/** A thickness that can hardly be is asked about once. */
function Thickness({ was, value, onValue }: { was: number; value: number | null; onValue: (d: number | null) => void }) {
  const asked = useRef<number | null>(null);
  const check = (d: number | null): string | null => {
    if (d === null || (d <= was * UNLIKELY && d >= was / UNLIKELY) || asked.current === d) return null;
    asked.current = d;
    return `It was ${was.toFixed(1)} mm: is it really ${d} mm now? Leave the field once more to say so.`;
  };
  return <NumberField label="Thickness at the shoulder" rule={LINE_FIELDS.measured.d} value={value} onValue={onValue} check={check} open />;
}

/** The look is put off, and why. */
function PutOff({ on, onPut }: { on: string; onPut: (until: string, why: string) => void }) {
  const [why, setWhy] = useState('');
  const [fault, setFault] = useState(false);
  const put = (days: number): void => (why.trim() ? onPut(addDays(on, days), why.trim()) : setFault(true));
  return (
    <div className="space-y-2 border-t border-rule pt-3">
      <label className="block">
        <span className="mb-1 block text-quiet">Why it is put off</span>
        <input className="input w-full bg-sheet" aria-invalid={fault} maxLength={1000} value={why} onChange={(event) => setWhy(event.target.value)} />
      </label>
      {fault && (
        <p role="alert" className="text-madder">
          Say why, so that whoever reads it later knows.
        </p>
      )}
      <div className="flex flex-wrap gap-3">
        {[3, 7, 14].map((days) => (
          <button key={days} type="button" className="btn btn-outline min-h-12 border-rule font-normal" onClick={() => put(days)}>
            to {sayShort(addDays(on, days))}
          </button>
        ))}
      </div>
    </div>
  );
}

/** One thing to look at: what it is and where, what to expect of it, and answers that a thumb finds, in one place from card to card. */
export function StopCard(of: { stop: WalkStop; on: string; onAnswer: (answers: Answer[]) => void; onNext: () => void; onSkip: () => void }) {
  const { stop, on, onAnswer, onNext, onSkip } = of;
  const [open, setOpen] = useState<'look' | 'off' | 'tie' | 'put-off'>('look');
  const [seen, setSeen] = useState<MarkStage | null>(null);
  const [d, setD] = useState<number | null>(null);
  const [note, setNote] = useDraft(`walk ${keyOf(stop)}`, '');
  const once = useOncePer(open);
  const { kind, branch, of: piece, unwiring } = stop;
  const wire = kind === 'wire';
  const about = { branch, ...(piece && wire ? { run: piece } : {}) };
  const extras: Answer[] = [
    ...(d ? [{ stop, said: `${d.toFixed(1)} mm thick`, act: { kind: 'measured', branch, d } }] : []),
    ...(note.trim() ? [{ stop, said: note.trim(), act: { kind: 'note', branch, text: note.trim() } }] : []),
  ];
  // What else was noted comes first: the look itself is what stands as the answer.
  const give = (said: string, act: Record<string, unknown>): void => {
    onAnswer([...extras, { stop, said, act }]);
    setD(null);
    setNote('');
  };
  const see = (stage: MarkStage): void => {
    give(stage, wire ? { ...about, kind: 'inspected', stage } : { kind: 'guyed', branch, guy: piece, done: 'looked', bark: stage });
    if (!isGrave(stage)) return onNext();
    setSeen(stage);
    setOpen(wire ? 'off' : 'tie');
  };
  const other = stop.other ? `, one piece with ${stop.other.name}` : '';
  return (
    <section aria-label={stop.name} className="space-y-3">
      <div className="flex min-h-36 flex-wrap gap-3 sm:flex-nowrap">
        <StopPicture stop={stop} />
        <div className="min-w-0 flex-1 basis-52 wrap-anywhere">
          <h2 className="text-2xl leading-7">
            {stop.treeName}: {stop.name}
          </h2>
          <p>
            {stop.what}
            {other}, since {sayDate(stop.since)}
            {stop.seen && `; ${stop.seen.stage} on ${sayDate(stop.seen.on)}${stop.seen.who ? `, ${stop.seen.who}` : ''}`}
          </p>
          <p className="text-quiet">{stop.because[0]}</p>
        </div>
      </div>
      {open === 'look' && (
        <>
          <div role="group" aria-label={wire ? 'What you see' : 'The bark under it'} className="space-y-2">
            {MARK_STAGES.map((stage) => (
              <Press
                key={stage}
                once={once}
                className="flex min-h-16 w-full items-center gap-4 border border-rule bg-sheet px-4 text-left text-xl hover:border-copper"
                onPress={() => see(stage)}
              >
                <StageGlyph stage={stage} size={30} />
                <span>
                  {stage} <span className="text-[0.94rem] text-quiet">{SAID[stage]}</span>
                </span>
              </Press>
            ))}
          </div>
          <details className="border-t border-rule pt-2" open={note !== ''}>
            <summary className="min-h-11 cursor-pointer content-center">Thickness, a note, a photo</summary>
            <div className="space-y-3 py-2">
              <Thickness was={stop.d} value={d} onValue={setD} />
              <label className="block">
                <span className="mb-1 block text-quiet">Note, goes with your answer</span>
                <input className="input w-full bg-sheet" value={note} maxLength={1000} onChange={(event) => setNote(event.target.value)} />
              </label>
              <AddPhoto tree={stop.tree} today={on} of={{ branch }} />
            </div>
          </details>
          <div className="flex flex-wrap items-center justify-between gap-3">
            <Press once={once} className="btn btn-ghost min-h-12" onPress={onSkip}>
              Not now, the next one
            </Press>
            {wire && <Quiet onClick={() => setOpen('put-off')}>put the look off…</Quiet>}
          </div>
          {/* Apart from the usual answers: it cannot be hit for one of them. */}
          <div className="mt-8 border-t border-rule pt-4">
            <Press
              once={once}
              className={`btn min-h-14 w-full text-lg ${wire && unwiring?.take !== 'none' ? 'btn-outline btn-primary' : 'btn-outline border-rule font-normal'}`}
              onPress={() => setOpen(wire ? 'off' : 'tie')}
            >
              {wire ? 'Take it off…' : 'Let it out, or take it off…'}
            </Press>
          </div>
        </>
      )}
      {open === 'put-off' && (
        <>
          <PutOff
            on={on}
            onPut={(until, text) => {
              give(`put off to ${sayShort(until)}`, { ...about, kind: 'snoozed', until, text });
              onNext();
            }}
          />
          <Quiet onClick={() => setOpen('look')}>back to the look</Quiet>
        </>
      )}
      {open === 'off' && unwiring && <TakeOff stop={stop} seen={seen} give={give} about={about} onNext={onNext} onBack={seen ? null : () => setOpen('look')} />}
      {open === 'tie' && <TieActs stop={stop} seen={seen} give={give} onNext={onNext} onBack={seen ? null : () => setOpen('look')} />}
    </section>
  );
}
