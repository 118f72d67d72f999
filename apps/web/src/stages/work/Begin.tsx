import { useMemo, useState } from 'react';
import { mutate } from 'swr';
import { paths } from '@ustle/contract';
import { aloneUntil, dayOf, isoOf, LINE_FIELDS, sayAbout, sayMinutes, workSessions, WORK_PARTS, type Left, type WorkPart, type WorkStep } from '@ustle/core';
import { newId } from '../../shared/new-id';
import { NumberField } from '../../shared/NumberField';
import { count, sayDate } from '../../shared/say';
import { usePeople, useWeather } from '../../shared/queries';
import { send } from '../../shared/http';
import { useDesk } from '../desk';
import { useKit } from './kit';
import { By } from './By';

const PARTS: Record<WorkPart, string> = { cuts: 'Cuts', wire: 'Wire', bends: 'Bends and placing', ties: 'Ties and devices', finish: 'Cleaning and pot' };
const KEPT_HOURS = 'ustle-session-hours';

const KIND_WORDS: [WorkStep['kind'], string, string?][] = [
  ['cut', 'cut'],
  ['jin', 'stub to peel', 'stubs to peel'],
  ['wire', 'piece of wire', 'pieces of wire'],
  ['bend', 'stage of bending', 'stages of bending'],
  ['guy', 'tie'],
  ['device', 'device'],
  ['place', 'branch to place', 'branches to place'],
];

/** What some steps are, counted by kind. */
export function sayWork(steps: readonly WorkStep[]): string {
  const told = KIND_WORDS.flatMap(([kind, one, many]) => {
    const n = steps.filter((s) => s.kind === kind).length;
    return n ? [count(n, one, many)] : [];
  });
  return told.length ? told.join(', ') : 'no work on any branch';
}

function LeftOver({ left }: { left: readonly Left[] }) {
  if (!left.length) return null;
  return (
    <section className="mt-4" aria-label="Left for another session">
      <h3 className="text-lg">Left for another session</h3>
      <ul>
        {left.map((l) => (
          <li key={`${l.why}${l.on}`} className="border-t border-rule py-1.5">
            {sayWork(l.steps)}. <span className="text-quiet">{l.why}</span>
            {l.on && <span className="text-quiet"> From about {sayDate(l.on)}.</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** A session laid out from what is decided: how long there is, what of it, and what is left. */
export function Begin() {
  const { tree, plan, act, today } = useDesk();
  const { lay } = useKit();
  const { data: weather } = useWeather();
  const { data: people } = usePeople();
  const [hours, setHours] = useState(() => Number(localStorage.getItem(KEPT_HOURS)) || 4);
  const [parts, setParts] = useState<readonly WorkPart[]>(WORK_PARTS);
  const [beyond, setBeyond] = useState(false);
  const [by, setBy] = useState(() => workSessions(tree).at(-1)?.by ?? '');
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const laid = useMemo(() => lay({ hours, parts, beyond }), [tree, plan, hours, parts, beyond]);
  if (!laid) return null;
  const work = laid.steps.filter((s) => s.branches.length);
  const last = weather?.days.at(-1);
  const alone = aloneUntil(tree, dayOf(today));
  const stages = plan!.poses.flatMap((p) => p.bending?.next ?? []).sort()[0];
  const begin = (): void => {
    localStorage.setItem(KEPT_HOURS, String(hours));
    void act({
      kind: 'session',
      session: newId(),
      done: 'begun',
      hours,
      parts: [...parts],
      holds: laid.holds,
      leaves: laid.leaves,
      ...(by.trim() ? { by: by.trim() } : {}),
      ...(last?.mean !== undefined && last.mean !== null ? { weather: `${last.mean.toFixed(0)} °C on the day before` } : {}),
      did: laid.settles,
    });
    if (by.trim() && people && !people.includes(by.trim())) void send(paths.people, { people: [...people, by.trim()] }, 'PUT').then(() => mutate(paths.people));
  };
  return (
    <section aria-label="A session">
      {alone !== null && (
        <p className="mb-3 border-l-4 border-ochre bg-base-100 px-3 py-2">
          The last session asks that it is let alone until {sayDate(isoOf(alone))}: let it answer before the next.
          {stages &&
            ` Only the bends that were begun go on, each from its own day; the next ${stages <= today ? 'may go on today' : `from ${sayDate(stages)} on`}.`}
        </p>
      )}
      <p className="min-h-[2lh] text-lg">
        {work.length ? (
          <>
            {sayWork(work)}: about <strong>{sayAbout(laid.minutes)}</strong>.
          </>
        ) : (
          'Nothing that is decided can be done in this session.'
        )}
      </p>
      <p className="text-quiet">{plan!.read.because[0]} What is only proposed counts too; a session settles it as it begins.</p>
      <div className="mt-4 flex flex-wrap items-end gap-x-6 gap-y-3">
        <NumberField label="Time there is" rule={LINE_FIELDS.session.hours} value={hours} onValue={(v) => v !== null && setHours(v)} unit="hours" />
        <By value={by} onValue={setBy} />
      </div>
      <fieldset className="mt-4">
        <legend className="mb-1 text-quiet">What of it</legend>
        <div className="flex flex-wrap gap-1.5">
          {WORK_PARTS.map((part) => (
            <button
              key={part}
              type="button"
              aria-pressed={parts.includes(part)}
              className={`btn btn-sm ${parts.includes(part) ? 'btn-primary' : 'btn-outline border-rule font-normal'}`}
              onClick={() => setParts(WORK_PARTS.filter((p) => (p === part ? !parts.includes(p) : parts.includes(p))))}
            >
              {PARTS[part]}
            </button>
          ))}
        </div>
      </fieldset>
      <label className="mt-3 flex min-h-11 items-center gap-2">
        <input type="checkbox" className="checkbox checkbox-sm" checked={beyond} onChange={(event) => setBeyond(event.target.checked)} />
        Also what the tree is not reckoned to bear at once
      </label>
      {work.length > 0 && (
        <button type="button" className="btn btn-primary mt-3 min-h-14 w-full text-lg" onClick={begin}>
          Begin the session
        </button>
      )}
      <ol className="mt-4 border-b border-rule" aria-label="Its steps">
        {laid.steps.slice(0, 60).map((s) => (
          <li key={s.key} className="flex justify-between gap-4 border-t border-rule py-1">
            <span>
              {s.title}
              {s.rest ? <span className="text-quiet">, after {sayMinutes(s.rest)} of rest</span> : null}
            </span>
            <span className="shrink-0 text-quiet">{sayMinutes(s.minutes)}</span>
          </li>
        ))}
      </ol>
      {laid.steps.length > 60 && <p className="mt-1 text-quiet">and {laid.steps.length - 60} more</p>}
      <LeftOver left={laid.left} />
      <p className="mt-3 text-quiet">Times are reckoned by rule, and by how long your own steps took. Today is {sayDate(today)}.</p>
    </section>
  );
}
