import { useEffect } from 'react';
import { Link } from 'react-router';
import { sayAbout, sayMinutes } from '@ustle/core';
import { AddPhoto } from '../../photos/AddPhoto';
import { Caution, PanelHead, Quiet, Skeleton } from '../../shared/parts';
import { keepOnDevice } from '../../shared/desk-store';
import { sayDate } from '../../shared/say';
import { useDesk } from '../desk';
import { Aftercare } from './Aftercare';
import { Begin } from './Begin';
import { useKit } from './kit';
import { Promises } from './Promises';
import { StepCard } from './StepCard';
import { useOffline } from '../../shared/use-offline';

/** The open session: how far it is, what a changed plan touches, and the step at hand. */
function Session() {
  const { tree, stored, today, act } = useDesk();
  const { now, step, touched, open } = useKit();
  const { session, open: steps, minutes } = now!;
  const answered = session.answers.filter((a) => a.answer !== 'ran-out' && a.answer !== 'changed');
  const close = async (): Promise<void> => {
    if (await act({ kind: 'session', session: session.id, done: 'closed' })) open(null);
  };
  const at = step ? steps.indexOf(step) : -1;
  return (
    <section aria-label="Session">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4 border-b border-rule pb-2">
        <p className="text-lg">
          {step ? (
            <>
              Step {answered.length + at + 1} of {answered.length + steps.length}
              <span className="text-quiet"> · about {sayAbout(minutes)} left</span>
            </>
          ) : (
            'All is done'
          )}
        </p>
        <p className="text-quiet">
          begun {session.begun === session.last ? '' : 'on '}
          {sayDate(tree.record.find((l) => l.kind === 'session' && l.session === session.id)!.on)}
          {session.by ? ` by ${session.by}` : ''}
        </p>
      </div>
      {touched.length > 0 && (
        <div role="status" className="mt-3 border-l-4 border-ochre bg-base-100 px-3 py-2">
          {touched.map((t) => (
            <p key={t}>{t}</p>
          ))}
        </div>
      )}
      {step ? <StepCard key={`${session.id} ${step.key} ${step.as}`} step={step} session={session} /> : <Aftercare since={session.begun} />}
      <div className="mt-5 flex flex-wrap gap-2 border-t border-rule pt-3">
        <AddPhoto tree={stored.id} today={today} of={{ when: 'during', ...(session.by ? { by: session.by } : {}) }} />
        <button type="button" className={`btn ${step ? 'btn-outline border-rule font-normal' : 'btn-primary'}`} onClick={() => void close()}>
          {step ? 'Close the session here' : 'Close the session'}
        </button>
      </div>
      <details className="mt-4 border-t border-rule pt-2" open={steps.length < 12}>
        <summary className="min-h-11 cursor-pointer content-center">All steps</summary>
        <ol className="mt-1">
          {answered.map((a) => (
            <li key={a.id} className="flex gap-3 py-1 text-quiet">
              <span aria-hidden="true">{a.answer === 'skipped' ? '–' : a.answer === 'cracked' ? '×' : '✓'}</span>
              <span>
                {a.title ?? a.step}
                {a.answer === 'skipped' ? ', left out' : a.answer === 'cracked' ? ', it cracked' : ''}
                {a.minutes ? `, ${sayMinutes(a.minutes)}` : ''}
              </span>
            </li>
          ))}
          {steps.map((s) => (
            <li key={s.key} className={`flex gap-3 py-0.5 ${s === step ? 'font-bold' : ''}`}>
              <span aria-hidden="true" className="pt-0.5">
                {s === step ? '›' : '·'}
              </span>
              <Quiet onClick={() => open(s.key)}>
                {s.title}
                {s.rest ? `, after ${sayMinutes(s.rest)} of rest` : ''}
              </Quiet>
            </li>
          ))}
        </ol>
      </details>
    </section>
  );
}

/** The day at the bench: what is decided, one step at a time. */
export function WorkPanel() {
  const { plan, stored } = useDesk();
  const { now } = useKit();
  useOffline();
  useEffect(() => keepOnDevice(stored.id), [stored.id]);
  if (!plan) return <Skeleton lines={10} />;
  return (
    <>
      <PanelHead
        title="Work"
        aside={
          <nav aria-label="Papers" className="flex items-center gap-4">
            <Link className="inline-flex items-center underline" to={`/tree/${stored.id}/record`}>
              Record
            </Link>
            <Link className="inline-flex items-center underline" to={`/tree/${stored.id}/proposal`}>
              Proposal
            </Link>
            <Link className="inline-flex items-center underline" to={`/tree/${stored.id}/sheet`}>
              On paper
            </Link>
          </nav>
        }
      />
      {now ? <Session /> : <Begin />}
      <Promises />
      {!now && (
        <div className="mt-6">
          <Caution>At each step stands what can hurt. Chemicals and power tools: the label, the tool maker’s word and your local rules come first.</Caution>
        </div>
      )}
    </>
  );
}
