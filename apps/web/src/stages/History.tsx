import { useState } from 'react';
import { standing, type RecordEntry } from '@ustle/core';
import { useNotice } from '../app/notice';
import { postEntry } from '../shared/api';
import { addDays, sayDate } from '../shared/say';
import { useDesk } from './tree-context';

function wordsFor(entry: RecordEntry): string {
  switch (entry.kind) {
    case 'wired':
      return `wired, ${entry.size?.toFixed(1) ?? '?'} mm ${entry.metal ?? ''}${entry.strands && entry.strands > 1 ? ` × ${entry.strands}` : ''}${entry.bentDeg ? `, bent to ${entry.bentDeg.toFixed(0)}°` : ''}`;
    case 'inspected':
      return `seen ${entry.stage ?? ''}`;
    case 'unwired':
      return `wire ${entry.method === 'unwound' ? 'unwound' : 'cut off'}`;
    case 'removed':
      return `taken off, ${Math.round((entry.green ?? 0) * 100)}% of the green`;
    case 'shortened':
      return `${entry.stub ? 'cut to a stub of' : 'shortened to'} ${entry.length?.toFixed(0) ?? '?'} mm`;
    case 'agreed':
      return `${entry.by ?? 'the owner'} agreed to cut ${(entry.branches ?? []).join(', ')}`;
    default:
      return `${entry.kind}${entry.text ? `: ${entry.text}` : ''}`;
  }
}

/** Shows the tree as it was on a day: what was cut since is back on, with the coils of that day. */
function OnDay() {
  const { today, day, setDay } = useDesk();
  const [asked, setAsked] = useState(day > today ? today : day);
  const [fault, setFault] = useState<string | null>(null);
  return (
    <form
      className="mt-1"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        const wrong = !asked ? 'The tree on: name a whole date.' : asked > today ? `The tree on: ${sayDate(asked)} has not come yet.` : null;
        if (!wrong) setDay(asked);
        setFault(wrong);
      }}
    >
      <div className="flex items-center gap-2">
        <label className="flex items-center gap-2">
          <span className="text-quiet">The tree on</span>
          <input type="date" className="input w-40 bg-base-100" max={today} value={asked} onChange={(event) => setAsked(event.target.value)} />
        </label>
        <button type="submit" className="btn btn-outline btn-primary btn-sm">
          Show
        </button>
      </div>
      {fault && (
        <p role="alert" className="mt-1.5 text-madder">
          {fault}
        </p>
      )}
    </form>
  );
}

/** The record, newest first: of a branch, of some kinds of lines, or whole. A slip is taken back by a further line; the first stays readable. */
export function History({ branch, kinds, title = 'Record' }: { branch: string | null; kinds?: readonly RecordEntry['kind'][]; title?: string }) {
  const { view, tree, today, setDay } = useDesk();
  const { attempt } = useNotice();
  const valid = new Set(standing(tree.record).map((e) => e.id));
  const lines = tree.record.filter((e) => (kinds ? kinds.includes(e.kind) : e.kind !== 'withdrawn') && (!branch || e.branch === branch)).reverse();
  if (!lines.length) return null;
  return (
    <section className="mt-6">
      <h3 className="text-lg">
        {title}
        {branch ? ` of ${branch}` : ''}
      </h3>
      <OnDay />
      <ul className="mt-2 border-b border-rule">
        {lines.map((entry) => (
          <li key={entry.id} className="flex items-baseline gap-3 border-t border-rule py-1.5">
            <span className="w-24 shrink-0 text-quiet">{sayDate(entry.on)}</span>
            <span className={`flex-1 ${valid.has(entry.id) ? '' : 'text-quiet line-through'}`}>
              {!branch && entry.branch ? `${entry.branch} ` : ''}
              {wordsFor(entry)}
            </span>
            {entry.was && (
              <button type="button" className="text-[14px] text-copper underline-offset-2 hover:underline" onClick={() => setDay(addDays(entry.on, -1))}>
                see it before
              </button>
            )}
            {valid.has(entry.id) && entry.id && (
              <button
                type="button"
                className="text-[14px] text-copper underline-offset-2 hover:underline"
                onClick={() => void attempt(() => postEntry(view, { on: today, kind: 'withdrawn', corrects: entry.id! }))}
              >
                take back
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
