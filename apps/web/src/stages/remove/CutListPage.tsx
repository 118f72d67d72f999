import { lazy, Suspense, useMemo } from 'react';
import { paths, type StoredTree } from '@ustle/contract';
import { cutList, cutsMade, namesOf, outcomeOf, placeTree, shortNamesOf } from '@ustle/core';
import { useNotice } from '../../app/notice';
import { doAct } from '../../shared/desk-store';
import { Skeleton } from '../../shared/parts';
import { count, percent, sayDate } from '../../shared/say';
import { useWide } from '../../shared/use-wide';
import { PrintPage } from '../PrintPage';
import { useConsequences } from './kit';
import { CutCare, CutText } from './CutSheet';

const Turntable = lazy(() => import('../../turntable/Turntable').then((m) => ({ default: m.Turntable })));

const nothing = (): void => undefined;

function List({ stored, today }: { stored: StoredTree; today: string }) {
  const { tree } = stored;
  const { attempt } = useNotice();
  const wide = useWide();
  const weighed = useConsequences(tree, today);
  const names = useMemo(() => namesOf(tree), [tree]);
  const short = useMemo(() => shortNamesOf(tree), [tree]);
  // Of the tree as it is now: what is ticked moves no other row, and keeps the focus.
  const cuts = useMemo(() => cutList(placeTree(tree), 1), [tree]);
  if (!weighed) return <Skeleton lines={9} />;
  const { front, green } = weighed;
  const now = green.sessions.find((s) => s.session === 1)?.removed ?? 0;
  const later = weighed.promises.filter((p) => p.kind === 'later cut');
  const made = cutsMade(tree);
  const rows = [...cuts.map((cut) => ({ tag: cut.tag, cut, line: null })), ...made.map((line) => ({ tag: line.tag!, cut: null, line }))].sort(
    (a, b) => a.tag - b.tag,
  );
  return (
    <>
      {wide && (
        <div className="mx-auto h-[420px] w-full max-w-[680px]">
          <Suspense fallback={null}>
            <Turntable
              tree={tree}
              after={outcomeOf(tree).tree}
              bearing={front.bearing}
              onBearing={nothing}
              view={tree.plan.front ?? front}
              selected={null}
              onSelect={nothing}
              labels={cuts.map((c) => ({ branch: c.branch, text: `${c.tag}: ${short(c.branch)}` }))}
              foliage={0.35}
            />
          </Suspense>
        </div>
      )}
      <p className="mt-3">
        {count(cuts.length, 'cut')}
        {made.length > 0 && ` to make, ${made.length} made`}, {percent(now)} of the green; at most {percent(green.cap)} in a year.
        {tree.client ? ` Belongs to ${tree.client}: nothing is cut before it is agreed.` : ''}
      </p>
      <ol className="mt-2 border-b border-rule">
        {rows.map(({ tag, cut, line }) => {
          const name = line?.called ?? names(cut?.branch ?? '');
          return (
            <li key={tag} className="flex break-inside-avoid gap-2 border-t border-rule py-2 sm:gap-4">
              <button
                type="button"
                aria-pressed={line !== null}
                aria-label={line ? `${name} was not cut after all` : `${name} was cut today`}
                className="-my-2 flex h-11 w-11 shrink-0 items-center justify-center"
                onClick={() =>
                  void attempt(() => doAct(stored, line ? { kind: 'withdrawn', corrects: line.id! } : { kind: 'take-off', branches: [cut!.branch] }))
                }
              >
                <svg viewBox="0 0 20 20" className="h-5 w-5" aria-hidden="true">
                  <rect x="0.75" y="0.75" width="18.5" height="18.5" fill="none" stroke="var(--color-ink)" strokeWidth="1.5" />
                  {line && <path d="M4 10.5 8.5 15 16 5" fill="none" stroke="var(--color-moss)" strokeWidth="2.5" />}
                </svg>
              </button>
              <span className="w-7 shrink-0 font-serif text-xl leading-6">{tag}</span>
              <div className="min-w-0 flex-1">
                <strong className={`block ${line ? 'text-quiet line-through' : ''}`}>{name}</strong>
                {line ? <span className="text-quiet">cut {sayDate(line.on)}</span> : <CutText cut={cut!} names={names} />}
              </div>
            </li>
          );
        })}
      </ol>
      {later.length > 0 && (
        <p className="mt-2 text-quiet">Left for later: {later.map((p) => `${names(p.branch)}${p.on ? ` from ${sayDate(p.on)}` : ''}`).join('; ')}.</p>
      )}
      <CutCare care={weighed.care} />
    </>
  );
}

/** The cuts of this session on one page, to be printed or read on the phone beside the tree. */
export function CutListPage() {
  return (
    <PrintPage what="what to cut" back="remove?sheet=cut" file={(id) => paths.paper(id, 'cuts')}>
      {(stored, today) => <List stored={stored} today={today} />}
    </PrintPage>
  );
}
