import { useState } from 'react';
import { Link } from 'react-router';
import { cutsMade, sayBranches, unfinishedCuts, type Consequences, type CutItem, type Names } from '@ustle/core';
import { DateField } from '../../shared/DateField';
import { Caution } from '../../shared/parts';
import { percent } from '../../shared/say';
import { Agreement } from '../Agreement';
import { History } from '../History';
import { useDesk } from '../desk';
import { useRemove } from './kit';

/** One cut as it is read at the tree. */
export function CutText({ cut, names }: { cut: CutItem; names: Names }) {
  return (
    <>
      <div>
        <strong>{cut.what}</strong> {cut.widthMm.toFixed(0)} mm wide{cut.green > 0.0005 ? `, ${percent(cut.green)} of the green` : ', no green'}.
      </div>
      <div className="text-quiet">{cut.where}</div>
      {cut.along.length > 0 && <div className="text-quiet">Takes {cut.along.map(names).join('; ')} along.</div>}
      {cut.why && <div className="text-quiet">{cut.why}</div>}
    </>
  );
}

/** Wound care and cautions, at the step where they matter. */
export function CutCare({ care }: { care: Consequences['care'] }) {
  return (
    <>
      <ul className="mb-2 mt-3 list-disc space-y-1 pl-5">
        {care.wounds.map((w) => (
          <li key={w}>{w}</li>
        ))}
      </ul>
      <Caution>{care.people.join(' ')} Follow the makers' instructions and your local rules.</Caution>
    </>
  );
}

/** What was cut before, and who agreed to it. */
const Done = () => <History branch={null} kinds={['removed', 'shortened', 'agreed']} title="Cut so far" />;

/** Cuts that are decided but cannot be made yet: they are on no list until it is said how far. */
function NotFinished() {
  const { tree, names, setBranch } = useDesk();
  const { setSheet } = useRemove();
  const open = unfinishedCuts(tree);
  if (!open.length) return null;
  return (
    <p className="mb-3">
      <strong className="text-madder">Not on this list:</strong>{' '}
      {sayBranches(
        names,
        open.map((u) => u.branch),
        4,
      )}
      . How far to cut is not said there.{' '}
      <button
        type="button"
        className="text-copper underline-offset-2 hover:underline"
        onClick={() => {
          setBranch(open[0]!.branch);
          setSheet('decide');
        }}
      >
        say it
      </button>
    </p>
  );
}

/** The list to take to the tree: each cut is ticked when it is made, and the measured tree moves on. */
export function CutSheet({ weighed }: { weighed: Consequences }) {
  const { stored, tree, today, branch, setBranch, act, names } = useDesk();
  const [on, setOn] = useState(today);
  const { cuts } = weighed;
  const later = weighed.promises.filter((p) => p.kind === 'later cut');
  if (!cuts.length)
    return (
      <>
        <NotFinished />
        <p className="text-quiet">
          Nothing is {cutsMade(tree).length ? 'left' : 'decided'} to be cut{later.length ? ' in this session' : ''}. Decide branches first; they come here in
          the order to cut them.
        </p>
        <Done />
      </>
    );
  return (
    <>
      <NotFinished />
      <Agreement stored={stored} today={today} cuts={cuts} />
      <div className="mb-2 flex items-end justify-between gap-3">
        <DateField className="w-56" label="Cut on" value={on} today={today} max={today} onValue={(iso) => setOn(iso!)} />
        <Link className="btn btn-outline btn-primary btn-sm" to={`/tree/${stored.id}/cuts`}>
          List to take along
        </Link>
      </div>
      <ol className="border-b border-rule">
        {cuts.map((c) => (
          <li key={c.branch} className={`flex gap-3 border-t border-rule py-2 ${c.branch === branch ? 'bg-base-100' : ''}`}>
            <button
              type="button"
              aria-label={`${c.tag}, show ${names(c.branch)} on the tree`}
              className="w-9 shrink-0 self-start text-left font-serif text-xl"
              onClick={() => setBranch(c.branch === branch ? null : c.branch)}
            >
              {c.tag}
            </button>
            <div className="min-w-0 flex-1">
              <strong className="block">{names(c.branch)}</strong>
              <CutText cut={c} names={names} />
            </div>
            <button
              type="button"
              className="btn btn-outline btn-primary btn-sm self-start"
              onClick={() => void act({ kind: 'take-off', on, branches: [c.branch] })}
            >
              Cut
            </button>
          </li>
        ))}
      </ol>
      <CutCare care={weighed.care} />
      <Done />
    </>
  );
}
