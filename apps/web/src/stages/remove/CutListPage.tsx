import { Link, useParams } from 'react-router';
import type { TreeView } from '@ustle/contract';
import { outcomeOf, speciesOf } from '@ustle/core';
import { useNotice } from '../../app/notice';
import { postCut, useTree, useYard } from '../../shared/api';
import { Skeleton } from '../../shared/parts';
import { percent, sayDate } from '../../shared/say';
import { Turntable } from '../../turntable/Turntable';
import { useConsequences } from '../../work/use-planner';
import { CutCare, CutText } from './CutSheet';

const nothing = (): void => undefined;

function List({ view, today }: { view: TreeView; today: string }) {
  const { tree } = view;
  const { attempt } = useNotice();
  const weighed = useConsequences(tree, today, true);
  if (!weighed) return <Skeleton lines={9} />;
  const { cuts, front, green } = weighed;
  const now = green.sessions.find((s) => s.session === 1)?.removed ?? 0;
  const later = weighed.promises.filter((p) => p.kind === 'later cut');
  return (
    <>
      <div className="mx-auto h-[420px] w-full max-w-[680px]">
        <Turntable
          tree={tree}
          after={outcomeOf(tree).tree}
          bearing={front.bearing}
          onBearing={nothing}
          view={tree.plan.front ?? front}
          selected={null}
          onSelect={nothing}
          labels={cuts.map((c) => ({ branch: c.branch, text: `${c.tag}  ${c.branch}` }))}
          foliage={0.35}
        />
      </div>
      <p className="mt-3">
        {cuts.length} {cuts.length === 1 ? 'cut' : 'cuts'}, {percent(now)} of the green; at most {percent(green.cap)} in a year.
        {tree.client ? ` Belongs to ${tree.client}: nothing is cut before it is agreed.` : ''}
      </p>
      <ol className="mt-2 border-b border-rule">
        {cuts.map((c) => (
          <li key={c.branch} className="flex break-inside-avoid gap-2 border-t border-rule py-2 sm:gap-4">
            <button
              type="button"
              aria-label={`${c.branch} was cut today`}
              className="-my-2 flex h-11 w-11 shrink-0 items-center justify-center"
              onClick={() => void attempt(() => postCut(view, today, [c.branch]))}
            >
              <span className="h-5 w-5 border-[1.5px] border-ink" />
            </button>
            <div className="w-9 shrink-0">
              <span className="font-serif text-xl leading-6">{c.tag}</span>
              <strong className="block text-[15px]">{c.branch}</strong>
            </div>
            <div className="min-w-0 flex-1">
              <CutText cut={c} />
            </div>
          </li>
        ))}
      </ol>
      {later.length > 0 && (
        <p className="mt-2 text-quiet">Left for later: {later.map((p) => `${p.branch}${p.on ? ` from ${sayDate(p.on)}` : ''}`).join(', ')}.</p>
      )}
      <CutCare care={weighed.care} />
    </>
  );
}

/** The cuts of this session on one page, to be printed or read on the phone beside the tree. */
export function CutListPage() {
  const { id = '' } = useParams();
  const { data: view, error } = useTree(id);
  const { data: yard } = useYard();
  if (error && !view) return <p className="p-8 text-madder">{error.message}</p>;
  return (
    <div className="mx-auto max-w-3xl px-4 py-4 print:max-w-none print:p-0">
      {!view || !yard ? (
        <Skeleton lines={9} />
      ) : (
        <>
          <header className="flex flex-wrap items-baseline justify-between gap-3">
            <div>
              <h1 className="text-2xl">{view.tree.name}: what to cut</h1>
              <p className="text-quiet">
                {speciesOf(view.tree.species).name}, {sayDate(yard.today)}
              </p>
            </div>
            <div className="flex gap-2 print:hidden">
              <Link className="btn btn-ghost btn-sm" to={`/tree/${id}/remove?sheet=cut`}>
                Back
              </Link>
              <button type="button" className="btn btn-primary btn-sm" onClick={() => window.print()}>
                Print
              </button>
            </div>
          </header>
          <List view={view} today={yard.today} />
        </>
      )}
    </div>
  );
}
