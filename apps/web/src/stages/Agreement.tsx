import { useState } from 'react';
import type { StoredTree } from '@ustle/contract';
import { agreedBranches, namesOf, sayBranches, type CutItem } from '@ustle/core';
import { useNotice } from '../app/notice';
import { DateField } from '../shared/DateField';
import { doAct } from '../shared/desk-store';
import { sayDate } from '../shared/say';

/** A client's tree: who agreed, to what, and when. Until then nothing is cut. */
export function Agreement({ stored, today, cuts }: { stored: StoredTree; today: string; cuts: readonly CutItem[] }) {
  const { tree } = stored;
  const { attempt } = useNotice();
  const [by, setBy] = useState('');
  const [on, setOn] = useState(today);
  const agreed = agreedBranches(tree);
  if (!agreed) return null;
  const names = namesOf(tree);
  const open = cuts.filter((c) => !agreed.has(c.branch)).map((c) => c.branch);
  const last = [...tree.record].reverse().flatMap((e) => (e.kind === 'agreed' ? e : []))[0];
  return (
    <section aria-label="Agreement" className="mb-3 border-l-4 border-indigo bg-base-100 px-3 py-2 print:hidden">
      <p>
        <strong>This tree belongs to {tree.client}.</strong>{' '}
        {open.length
          ? `Nothing is cut before it is agreed; open: ${sayBranches(names, open, 8)}.`
          : `${last?.by ?? 'They'} agreed on ${last ? sayDate(last.on) : ''}.`}
      </p>
      {open.length > 0 && (
        <form
          className="mt-2 flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void attempt(() => doAct(stored, { on, kind: 'agreed', by, branches: open }));
          }}
        >
          <label>
            <span className="block text-[0.94rem] text-quiet">Who agreed</span>
            <input className="input w-40 bg-sheet" required maxLength={120} value={by} onChange={(event) => setBy(event.target.value)} />
          </label>
          <DateField className="w-56" label="on" value={on} today={today} max={today} onValue={(iso) => setOn(iso!)} />
          <button type="submit" className="btn btn-outline btn-primary btn-sm">
            Note it
          </button>
        </form>
      )}
    </section>
  );
}
