import { useEffect, useMemo, useRef, useState } from 'react';
import { sayThick, cutFrom, sayAbout, type Deed, type StepAnswer, type WorkSession, type WorkStep, sayStock } from '@ustle/core';
import { useKeys } from '../../shared/keys';
import { Caution } from '../../shared/parts';
import { useRack } from '../../shared/queries';
import { Worded } from '../../words/Worded';
import { useDesk } from '../desk';
import { UnrolledPiece } from '../wire/UnrolledPiece';
import { Aftercare } from './Aftercare';
import { useKit } from './kit';
import { Changed } from './Changed';
import { useClock, type Clock } from './clock';
import { Cracked } from './Cracked';
import { Otherwise } from './Otherwise';
import { RanOut } from './RanOut';
import { sayClock } from './ticking';

/** What an answer says beyond itself. */
export interface Said {
  did?: Deed[];
  text?: string;
}
export type Give = (answer: StepAnswer, said?: Said) => Promise<boolean>;

type Sheet = 'otherwise' | 'cracked' | 'ran-out' | 'changed';

/** A card that has just come takes no answer: a second tap, or one that was meant for the step before it, is none; ms. */
const SETTLES_MS = 300;

const CAN_CRACK = new Set<WorkStep['kind']>(['wire', 'bend', 'guy', 'device', 'place']);

function ClockRow({ clock, step }: { clock: Clock; step: WorkStep }) {
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 pt-2 text-lg">
      <span role="timer" aria-label="Time at this step" className="font-bold">
        {sayClock(clock.seconds)}
      </span>
      <span className="text-quiet">of about {sayAbout(step.minutes)}</span>
      <button type="button" className="btn btn-ghost btn-sm" onClick={() => clock.pause(!clock.paused)}>
        {clock.paused ? 'Go on' : 'Pause the clock'}
      </button>
      {clock.rest > 0 && (
        <span className="flex items-center gap-2 text-ochre">
          Rests for {sayClock(clock.rest)} still; it rings
          <button type="button" className="btn btn-ghost btn-sm" onClick={clock.endRest}>
            Enough
          </button>
        </span>
      )}
      {step.rest > 0 && clock.rest === 0 && <span className="text-moss">It has rested.</span>}
    </div>
  );
}

/** What a piece of wire is cut from, and the piece laid straight. */
function WirePicture({ step }: { step: WorkStep }) {
  const { tree, plan, short } = useDesk();
  const { data: rack } = useRack();
  const run = plan!.runs.find((r) => r.id === step.of);
  if (!run) return null;
  const wire = { metal: run.metal, size: run.size, length: run.length * run.strands };
  const stock = rack ? cutFrom(wire, rack.stock) : null;
  return (
    <>
      {rack && (
        <p className={`mt-2 text-lg ${stock ? '' : 'text-ochre'}`}>
          {stock ? `Cut it from ${sayStock(stock)}.` : `There is no ${sayThick(run.size)} ${run.metal} of that length on the rack.`}
        </p>
      )}
      <details className="mt-2 border-t border-rule pt-1" open>
        <summary className="min-h-11 cursor-pointer content-center">The piece laid straight</summary>
        <div className="max-w-[420px]">
          <UnrolledPiece run={run} tree={tree} plan={plan!} short={short} />
        </div>
      </details>
    </>
  );
}

/** One step in large type, with what to mind and the answers to it. */
export function StepCard({ step, session }: { step: WorkStep; session: WorkSession }) {
  const { act, tree, plan, today } = useDesk();
  const { open } = useKit();
  const { data: rack } = useRack();
  const [sheet, setSheet] = useState<Sheet | null>(null);
  const [settled, setSettled] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(true), SETTLES_MS);
    return () => clearTimeout(timer);
  }, []);
  const clock = useClock(`${session.id} ${step.key}`, step.rest);
  const { minutes } = clock;

  const give: Give = (answer, { did = [], text } = {}) => {
    open(null);
    const branch = step.branches.find((b) => b === 'trunk' || tree.branches.some((x) => x.id === b));
    return act({
      kind: 'worked',
      session: session.id,
      step: step.key,
      answer,
      title: step.title.slice(0, 240),
      ...(step.as ? { as: step.as } : {}),
      ...(branch && branch !== 'trunk' && step.kind !== 'cut' ? { branch } : {}),
      ...(answer === 'ran-out' || answer === 'changed' || answer === 'skipped' ? {} : { minutes, reckoned: step.minutes }),
      ...(session.by ? { by: session.by } : {}),
      ...(text ? { text } : {}),
      did,
    });
  };
  const asPlanned = (): void => {
    if (!settled) return;
    const run = step.kind === 'wire' ? plan!.runs.find((r) => r.id === step.of) : undefined;
    const stock = run && rack ? cutFrom({ metal: run.metal, size: run.size, length: run.length * run.strands }, rack.stock) : null;
    void give('done', { did: step.did.map((d) => (d.kind === 'wired' && stock ? { ...d, on: today, roll: stock.id } : { ...d, on: today })) });
  };
  const leaveOut = (): void => {
    if (settled) void give('skipped');
  };
  const keys = useMemo(
    () => [
      { keys: 'd', what: 'this step is done as planned', run: asPlanned },
      { keys: 'o', what: 'done otherwise', run: () => setSheet('otherwise') },
      { keys: 'l', what: 'leave it out', run: leaveOut },
      ...(CAN_CRACK.has(step.kind) ? [{ keys: 'x', what: 'it cracked', run: () => setSheet('cracked') }] : []),
      ...(step.kind === 'wire' ? [{ keys: 'w', what: 'the wire ran out', run: () => setSheet('ran-out') }] : []),
      { keys: 'm', what: 'changed my mind', run: () => setSheet('changed') },
      { keys: 'p', what: 'stop or start the clock', run: () => clock.pause(!clock.paused) },
    ],
    // Rebuilt with whatever an answer tells.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [step, minutes, rack, plan, tree, session, clock.paused, settled],
  );
  useKeys('At this step', keys);
  // The next step begins at its head, for whoever works by keyboard or listens.
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    head.current?.focus({ preventScroll: session.answers.length === 0 });
    // Once for each step: the card of another one is another card.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const close = (): void => setSheet(null);
  const other = 'btn btn-outline min-h-14 grow whitespace-nowrap px-2.5 text-[0.94rem]';
  return (
    <article aria-label={step.title} data-settled={settled ? '1' : '0'}>
      <h2 ref={head} tabIndex={-1} className="mt-4 text-3xl outline-none first-letter:uppercase">
        {step.title}
      </h2>
      <div className="mt-2 space-y-1.5 text-xl">
        {step.what.map((w) => (
          <p key={w} className="first-letter:uppercase">
            <Worded>{w}</Worded>
          </p>
        ))}
      </div>
      {step.kind === 'aftercare' && <Aftercare since={session.begun} />}
      {step.mind.length > 0 && (
        <ul className="mt-3 space-y-1 border-l-2 border-rule pl-3 text-lg text-quiet">
          {step.mind.map((m) => (
            <li key={m}>
              <Worded>{m}</Worded>
            </li>
          ))}
        </ul>
      )}
      {step.danger.length > 0 && (
        <div className="mt-3">
          <Caution>{step.danger.join(' ')}</Caution>
        </div>
      )}
      {step.kind === 'wire' && <WirePicture step={step} />}
      <div className="z-10 -mx-5 mt-4 border-t border-rule bg-sheet px-5 pb-3 lg:sticky lg:-bottom-5" role="group" aria-label="How it went">
        <ClockRow clock={clock} step={step} />
        <button type="button" className="btn btn-primary mt-2 min-h-16 w-full text-xl" onClick={asPlanned}>
          Done as planned
        </button>
        <div className="mt-2 flex flex-wrap gap-2">
          <button type="button" className={`${other} btn-primary`} onClick={() => setSheet('otherwise')}>
            Otherwise…
          </button>
          <button type="button" className={`${other} border-rule font-normal`} onClick={leaveOut}>
            Leave it out
          </button>
          <button type="button" className={`${other} border-rule font-normal`} onClick={() => setSheet('changed')}>
            Changed my mind…
          </button>
          {step.kind === 'wire' && (
            <button type="button" className={`${other} border-rule font-normal`} onClick={() => setSheet('ran-out')}>
              Wire ran out…
            </button>
          )}
          {CAN_CRACK.has(step.kind) && (
            <button type="button" className={`${other} border-madder text-madder`} onClick={() => setSheet('cracked')}>
              It cracked…
            </button>
          )}
        </div>
      </div>
      {sheet === 'otherwise' && <Otherwise step={step} give={give} onClose={close} />}
      {sheet === 'cracked' && <Cracked step={step} give={give} onClose={close} />}
      {sheet === 'ran-out' && <RanOut step={step} give={give} onClose={close} />}
      {sheet === 'changed' && <Changed step={step} give={give} onClose={close} />}
    </article>
  );
}
