import { lazy, Suspense } from 'react';
import { Link, useSearchParams } from 'react-router';
import { paths, type DueView } from '@ustle/contract';
import { useSeason, useSpecies, useTrees, useWalk } from '../shared/queries';
import { Skeleton } from '../shared/parts';
import { getISODay, parseISO } from 'date-fns';
import { addDays, daysBetween, sayDate, sayShort } from '../shared/say';
import { StageGlyph, type Glyph } from '../shared/StageGlyph';
import { Around } from './Around';
import { useTitle } from '../shared/use-title';

const Lanes = lazy(() => import('./Lanes').then((m) => ({ default: m.Lanes })));

interface Week {
  title: string;
  days: DueView[];
}

/** The dated work by week, Monday to Sunday; the first week is this one. */
function weeksOf(days: readonly DueView[], today: string): Week[] {
  const monday = addDays(today, 1 - getISODay(parseISO(today)));
  const byWeek = new Map<number, DueView[]>();
  for (const day of days) {
    const week = Math.floor(daysBetween(monday, day.on) / 7);
    byWeek.set(week, [...(byWeek.get(week) ?? []), day]);
  }
  return [...byWeek]
    .sort((a, b) => a[0] - b[0])
    .map(([week, list]) => {
      const from = addDays(monday, week * 7);
      const name = week === 0 ? 'This week' : week === 1 ? 'Next week' : `Week of ${sayDate(from)}`;
      return { title: name, days: list };
    });
}

const GLYPHS: Record<DueView['kind'], Glyph> = {
  look: 'touching',
  remove: 'marking',
  window: 'clear',
  held: 'none',
  stage: 'none',
  promise: 'none',
  vow: 'none',
  session: 'none',
  plan: 'none',
};

function Item({ item, today }: { item: DueView; today: string }) {
  return (
    <li className="border-t border-rule [contain-intrinsic-size:auto_52px] [content-visibility:auto]">
      <Link
        to={`/tree/${item.tree}/${item.leadsTo}${item.branches[0] ? `?branch=${item.branches[0]}` : ''}`}
        className="grid grid-cols-[24px_1fr] gap-x-3 gap-y-0.5 px-4 py-3 hover:bg-sheet sm:grid-cols-[24px_120px_170px_1fr] sm:px-6"
      >
        <StageGlyph stage={item.mark ?? GLYPHS[item.kind]} />
        <span className={item.kind !== 'plan' && item.on <= today ? 'font-bold text-copper' : ''}>
          {item.kind === 'plan' ? 'open' : item.on <= today ? 'today' : sayShort(item.on)}
        </span>
        <span className="col-start-2 font-serif text-lg leading-6 sm:col-start-3">{item.treeName}</span>
        <span className="col-start-2 sm:col-start-4">
          <strong className="font-semibold">{/\?$/.test(item.title) ? item.title : `${item.title}.`}</strong> <span className="text-quiet">{item.text}</span>
        </span>
      </Link>
    </li>
  );
}

/** What is due, week by week. */
export function SeasonPage() {
  useTitle('Season');
  const [address, setAddress] = useSearchParams();
  const lanes = address.get('as') === 'lanes';
  const { data: trees } = useTrees();
  const { data: species } = useSpecies();
  const { data: walk } = useWalk();
  const { data, error } = useSeason();
  const dated = data?.days.filter((d) => d.kind !== 'plan') ?? [];
  const open = data?.days.filter((d) => d.kind === 'plan') ?? [];
  const weeks: Week[] = data ? [...weeksOf(dated, data.from), ...(open.length ? [{ title: 'When you like', days: open }] : [])] : [];
  return (
    <main>
      <header className="flex min-h-16 flex-wrap items-center justify-between gap-3 border-b border-rule px-4 py-2 sm:px-6">
        <div>
          <h1 className="text-2xl">Season</h1>
          <p className="text-quiet">What is due by week: wire to look at and take off, and what the plans put off.</p>
        </div>
        <div className="flex flex-wrap items-center gap-2">
          {(['weeks', 'lanes'] as const).map((as) => (
            <button
              key={as}
              type="button"
              aria-pressed={lanes === (as === 'lanes')}
              className={`btn btn-sm ${lanes === (as === 'lanes') ? 'btn-primary' : 'btn-outline border-rule font-normal'}`}
              onClick={() => setAddress(as === 'lanes' ? { as } : {})}
            >
              {as === 'lanes' ? 'Lanes' : 'Weeks'}
            </button>
          ))}
          <a className="btn btn-outline btn-primary btn-sm" href={paths.calendar} download>
            Calendar file (.ics)
          </a>
        </div>
      </header>
      {error && (
        <p role="alert" className="px-6 py-4 text-madder">
          {error.message} {data ? 'This is as it was last.' : 'It is asked again by itself.'}
        </p>
      )}
      {!data && !error && (
        <div className="px-6">
          <Skeleton lines={6} />
        </div>
      )}
      {data && !lanes && weeks.length === 0 && (
        <p className="px-6 py-10">Nothing is due. Once wire is on a tree, the days to look at it and to take it off stand here.</p>
      )}
      {lanes && data && trees && species && walk && (
        <Suspense fallback={null}>
          <Lanes trees={trees} species={species} stops={walk.stops} due={data.days} today={data.from} />
        </Suspense>
      )}
      {!lanes &&
        weeks.map((week) => (
          <section key={week.title}>
            <h2 className="px-4 pb-2 pt-6 text-lg sm:px-6">{week.title}</h2>
            <ul className="border-b border-rule">
              {week.days.map((item) => (
                <Item key={`${item.tree}${item.kind}${item.on}${item.branches.join()}`} item={item} today={data!.from} />
              ))}
            </ul>
          </section>
        ))}
      {!lanes && data && <Around />}
    </main>
  );
}
