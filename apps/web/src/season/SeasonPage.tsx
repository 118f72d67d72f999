import { lazy, Suspense } from 'react';
import { useSearchParams } from 'react-router';
import { paths } from '@ustle/contract';
import { useSeason, useSpecies, useTrees, useWalk } from '../shared/queries';
import { useLast } from '../shared/last';
import { Skeleton } from '../shared/parts';
import { sayMoment } from '../shared/say';
import { Around } from './Around';
import { useTitle } from '../shared/use-title';
import { Weeks } from './Weeks';

const Lanes = lazy(() => import('./Lanes').then((m) => ({ default: m.Lanes })));

/** What is due, week by week. */
export function SeasonPage() {
  useTitle('Season');
  const [address, setAddress] = useSearchParams();
  const lanes = address.get('as') === 'lanes';
  const { data: trees } = useTrees();
  const { data: species } = useSpecies();
  const { data: walk } = useWalk();
  const asked = useSeason();
  const { error } = asked;
  const { data, asOf } = useLast('season', asked);
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
          {error.message} {asOf ? `This is the season as it was on ${sayMoment(asOf)}.` : data ? 'This is as it was last.' : 'It is asked again by itself.'}
        </p>
      )}
      {!data && !error && (
        <div className="px-6">
          <Skeleton lines={6} />
        </div>
      )}
      {data && !lanes && data.days.length === 0 && (
        <p className="px-6 py-10">Nothing is due. Once wire is on a tree, the days to look at it and to take it off stand here.</p>
      )}
      {lanes && data && trees && species && walk && (
        <Suspense fallback={null}>
          <Lanes trees={trees} species={species} stops={walk.stops} due={data.days} today={data.from} />
        </Suspense>
      )}
      {!lanes && data && <Weeks days={data.days} from={data.from} />}
      {!lanes && data && <Around />}
    </main>
  );
}
