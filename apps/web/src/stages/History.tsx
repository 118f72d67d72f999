import { useState } from 'react';
import { branchIn, byWhom, sayLine, standing, type LineKind } from '@ustle/core';
import { DateField } from '../shared/DateField';
import { Quiet } from '../shared/parts';
import { addDays, sayDate } from '../shared/say';
import { useDesk } from './desk';

/** Shows the tree as it was on a day: what was cut since is back on, with the coils of that day. */
function OnDay() {
  const { today, day, setDay } = useDesk();
  const [asked, setAsked] = useState(day > today ? today : day);
  return (
    <form
      className="mt-1 flex items-end gap-2"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        setDay(asked);
      }}
    >
      <DateField className="w-56" label="The tree on" value={asked} today={today} max={today} onValue={(iso) => setAsked(iso!)} />
      <button type="submit" className="btn btn-outline btn-primary">
        Show
      </button>
    </form>
  );
}

/** The record, newest first: of a branch, of some kinds of lines, or whole. A slip is taken back by a further line; the first stays readable. */
export function History({ branch, kinds, title = 'Record' }: { branch: string | null; kinds?: readonly LineKind[]; title?: string }) {
  const { tree, setDay, names, act } = useDesk();
  const valid = new Set(standing(tree.record).map((line) => line.id));
  const lines = tree.record.filter((l) => (kinds ? kinds.includes(l.kind) : l.kind !== 'withdrawn') && (!branch || branchIn(l) === branch)).reverse();
  if (!lines.length) return null;
  return (
    <section className="mt-6" aria-label={title}>
      <h3 className="text-lg">
        {title}
        {branch ? ` of ${names(branch)}` : ''}
      </h3>
      <OnDay />
      <ul className="mt-2 border-b border-rule">
        {lines.map((line) => (
          <li key={line.id} className="border-t border-rule py-1.5">
            <div className={valid.has(line.id) ? '' : 'text-quiet line-through'}>
              <span className="text-quiet">{sayDate(line.on)}:</span> {!branch && branchIn(line) ? `${names(branchIn(line)!)}, ` : ''}
              {sayLine(line, names)}
              {byWhom(line)}
            </div>
            <div className="flex gap-5">
              {'was' in line && line.was && <Quiet onClick={() => setDay(addDays(line.on, -1))}>see it before</Quiet>}
              {valid.has(line.id) && line.id && <Quiet onClick={() => void act({ kind: 'withdrawn', corrects: line.id! })}>take back</Quiet>}
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
