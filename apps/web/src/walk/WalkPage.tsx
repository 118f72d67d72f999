import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { paths, type WalkStop } from '@ustle/contract';
import { inTime, LOOK_MINUTES, MARK_STAGES, type MarkStage } from '@ustle/core';
import { ask } from '../shared/http';
import { useTrees } from '../shared/queries';
import { useWho } from '../shared/who';
import { Quiet, Skeleton } from '../shared/parts';
import { count, sayLong, sayShort } from '../shared/say';
import { StageGlyph } from '../shared/StageGlyph';
import { useOffline } from '../shared/use-offline';
import { useTitle } from '../shared/use-title';
import { AllClear } from './AllClear';
import { MINUTES, useMinutes } from './minutes';
import { isGrave } from './press';
import { StopCard } from './StopCard';
import { keyOf, useWalking, type Walking } from './use-walk';

const WhoSheet = lazy(() => import('../app/WhoSheet').then((m) => ({ default: m.WhoSheet })));

/** Pictures that this page has asked for: they are kept where a network is missed. */
const takenAlong = new Set<string>();

/** Another, or this one before, looked at it today: on one round it is not asked twice. */
const isSeenToday = (stop: WalkStop, on: string): boolean => stop.seen?.on === on && stop.task === 'look';

function Refused({ waiting, again, letGo }: Pick<Walking, 'waiting' | 'again' | 'letGo'>) {
  const refused = waiting.filter((w) => w.refused !== null);
  if (!refused.length) return null;
  return (
    <section role="alert" aria-label="Not taken" className="border-l-4 border-madder px-3 py-2">
      <h2 className="text-lg">The server did not take {count(refused.length, 'answer')}</h2>
      <ul>
        {refused.map((w) => (
          <li key={w.id} className="py-1">
            {w.about}: {w.refused}
            <span className="flex gap-5">
              <Quiet onClick={() => void again(w.turn!)}>send it again</Quiet>
              <Quiet onClick={() => void letGo(w.turn!)}>I have read it, let it go</Quiet>
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Who walks: asked once on a device, one press to change. */
function Walker() {
  const { name, asked } = useWho();
  const [asking, setAsking] = useState(false);
  return (
    <>
      {name ? (
        <Quiet onClick={() => setAsking(true)} label={`${name} walks: change`}>
          {name}
        </Quiet>
      ) : (
        <Quiet onClick={() => setAsking(true)}>{asked ? 'nobody in particular' : 'who are you?'}</Quiet>
      )}
      <Suspense fallback={null}>{asking && <WhoSheet onClose={() => setAsking(false)} />}</Suspense>
    </>
  );
}

/** What was seen to mark, and is on still. */
function StillOn({ answered }: Pick<Walking, 'answered'>) {
  const left = [...answered.values()].flatMap(({ said, about }) => (isGrave(said as MarkStage) ? [`${about}: ${said}`] : []));
  if (!left.length) return null;
  return (
    <p className="border-l-4 border-madder px-3 py-1">
      {left.length === 1 ? 'One is' : `${left.length} are`} still on: {left.join('; ')}.
    </p>
  );
}

/** What another saw of a thing today, where that is graver than what was answered here. */
const RANK = (stage: string): number => MARK_STAGES.indexOf(stage as MarkStage);
const graverBy = (stop: WalkStop, said: string, on: string): string | null =>
  stop.seen && stop.seen.on === on && RANK(said) >= 0 && RANK(stop.seen.stage) > RANK(said)
    ? `${stop.seen.who ?? 'somebody'} saw it ${stop.seen.stage}: that stands`
    : null;

/** A tag leads to its tree, also where nothing on it wants a look. */
function NothingOn({ tree }: { tree: string }) {
  const { data: trees } = useTrees();
  const own = trees?.find((t) => t.id === tree);
  return (
    <div className="space-y-3 py-4">
      <p className="text-lg">{own ? `No wire and no tie is on ${own.name}.` : trees ? 'This tree is not in the yard any more.' : ''}</p>
      {own && (
        <p className="flex flex-wrap gap-4">
          <Link className="btn btn-outline btn-primary min-h-12" to={`/tree/${tree}/${own.next?.leadsTo ?? 'read'}`}>
            Open {own.name}
          </Link>
          <Link className="btn btn-ghost min-h-12" to="/walk">
            The walk
          </Link>
        </p>
      )}
    </div>
  );
}

/** The round on foot: bench by bench, tree by tree, one thing at a time. */
export function WalkPage() {
  useTitle('Walk');
  useOffline();
  const walking = useWalking();
  const { view, waiting, answered, away, error, answer, takeBack } = walking;
  const [minutes, setMinutes] = useMinutes();
  // What was just answered stays until its further questions are, though it may be off the tree by then.
  const [staying, setStaying] = useState<WalkStop | null>(null);
  const [address, setAddress] = useSearchParams();
  const top = useRef<HTMLDivElement>(null);
  // The trees' pictures are taken along with the walk.
  const pictured = view && !away ? [...new Set(view.stops.map((s) => paths.silhouette(s.tree, s.revision, s.recorded)))].join(' ') : '';
  useEffect(() => {
    for (const path of pictured.split(' '))
      if (path && !takenAlong.has(path)) {
        takenAlong.add(path);
        void ask(path).catch(() => takenAlong.delete(path));
      }
  }, [pictured]);
  if (!view)
    return (
      <main className="mx-auto max-w-xl px-4 py-6">
        {error ? <p role="alert">{error} A walk is taken along when this page is opened at home.</p> : <Skeleton lines={8} />}
      </main>
    );
  const tree = address.get('tree');
  const next = view.stops.map((s) => s.walk).sort()[0] ?? null;
  const early = next !== null && next > view.on && address.get('early') === null && !tree;
  // What was answered today belongs to today's walk, whenever it is due again.
  const all = view.stops.filter((s) => (tree ? s.tree === tree : s.walk === next || answered.has(keyOf(s)) || s.walk <= view.on));
  const done = all.filter((s) => answered.has(keyOf(s)) || isSeenToday(s, view.on));
  const { now, waits } = tree
    ? { now: all, waits: [] }
    : inTime(
        all.filter((s) => !done.includes(s)),
        minutes - done.length * LOOK_MINUTES,
      );
  const round = all.filter((s) => now.includes(s) || done.includes(s));
  const open = round.filter((s) => !done.includes(s));
  const asked = address.get('at');
  const stop = staying ?? open.find((s) => keyOf(s) === asked) ?? open[0];
  const finished = new Set([...[...answered.keys()].filter((key) => !tree || key.startsWith(`${tree} `)), ...done.map(keyOf)]).size;
  const go = (s: WalkStop | undefined): void => {
    setAddress((p) => {
      if (s) p.set('at', keyOf(s));
      else p.delete('at');
      return p;
    });
    top.current?.focus();
  };
  const following = (s: WalkStop, given: readonly WalkStop[]): WalkStop | undefined => {
    const left = open.filter((o) => !given.includes(o));
    return left.find((o) => round.indexOf(o) > round.indexOf(s)) ?? left[0];
  };
  const benchName = (id: string | null): string => view.benches.find((b) => b.id === id)?.name ?? 'On no bench';
  const onBench = stop ? open.filter((s) => s.bench === stop.bench) : [];
  const unsent = waiting.filter((w) => w.refused === null).length;
  return (
    <main className="mx-auto max-w-xl px-4 pb-24 pt-3">
      <header className="mb-3 flex flex-wrap items-baseline justify-between gap-2 border-b border-rule pb-2">
        <div>
          <h1 className="text-2xl">Walk</h1>
          <p className="text-quiet">
            {sayLong(view.on)}. {finished + open.length ? `${finished} of ${count(finished + open.length, 'look')} done` : 'No wire and no tie is on any tree.'}{' '}
            <Walker />
          </p>
          {(waits.length > 0 || all.length > MINUTES[0] / LOOK_MINUTES) && (
            <p className="text-quiet">
              <label>
                I have{' '}
                <select className="select select-sm w-auto bg-sheet" value={minutes} onChange={(event) => setMinutes(Number(event.target.value))}>
                  {MINUTES.map((m) => (
                    <option key={m} value={m}>
                      {m > 60 ? 'as long as it takes' : m === 60 ? 'an hour' : `${m} minutes`}
                    </option>
                  ))}
                </select>
              </label>
              {waits.length > 0 && ` The gravest first; ${count(waits.length, 'look')} ${waits.length === 1 ? 'waits' : 'wait'} for another day.`}
            </p>
          )}
        </div>
        <nav aria-label="Of the walk" className="flex gap-4">
          <Link className="min-h-11 content-center text-copper" to="/walk/sheet">
            Sheet
          </Link>
          <Link className="min-h-11 content-center text-copper" to="/walk/benches">
            Benches
          </Link>
        </nav>
      </header>
      <p role="status" className={unsent || away ? 'mb-3 border-l-4 border-ochre px-3' : ''}>
        {away && 'No connection: this is the walk as it was taken along. '}
        {unsent > 0 && `${count(unsent, 'answer')} ${unsent === 1 ? 'waits' : 'wait'} on this device to be sent.`}
      </p>
      <Refused {...walking} />
      {tree && !all.length && finished === 0 && <NothingOn tree={tree} />}
      <div ref={top} tabIndex={-1} className="outline-none">
        {early ? (
          <div className="space-y-3 py-6">
            <p className="text-lg">
              Nothing wants a look today. The next walk is on {sayShort(next)}: {count(round.length, 'look')}.
            </p>
            <button type="button" className="btn btn-outline btn-primary" onClick={() => setAddress({ early: '1' })}>
              Walk it now
            </button>
          </div>
        ) : stop ? (
          <>
            {view.benches.length > 0 && <p className="text-quiet">{benchName(stop.bench)}</p>}
            <StopCard
              on={view.on}
              key={keyOf(stop)}
              stop={stop}
              onAnswer={(answers) => {
                setStaying(stop);
                void answer(answers);
              }}
              onNext={() => {
                setStaying(null);
                go(following(stop, [stop]));
              }}
              onSkip={() => go(following(stop, [stop]))}
            />
            {open.includes(stop) && (
              <AllClear
                key={stop.bench}
                stops={onBench}
                on={view.on}
                onAnswer={(answers) => {
                  const given = answers.map((a) => a.stop);
                  go(following(stop, given));
                  void answer(answers, true);
                }}
              />
            )}
          </>
        ) : (
          finished > 0 && (
            <p className="py-6 text-lg">
              {waits.length ? 'What there was time for is looked at.' : 'All is looked at.'}{' '}
              {unsent ? 'What waits is sent as soon as there is a network.' : 'All of it is stored.'}
            </p>
          )
        )}
      </div>
      {answered.size > 0 && (
        <section className="mt-6" aria-label="Answered today">
          <h2 className="text-lg">Answered today</h2>
          <StillOn answered={answered} />
          <ul className="border-b border-rule">
            {[...answered.values()].map((one) => {
              const stop = view.stops.find((s) => keyOf(s) === one.key);
              const graver = stop && graverBy(stop, one.said, view.on);
              return (
                <li key={one.key} className="flex items-center gap-3 border-t border-rule py-1">
                  <StageGlyph stage={RANK(one.said) < 0 ? 'none' : (one.said as MarkStage)} />
                  <span className="flex-1">
                    {one.about}: {one.said}
                    {graver && <span className="block text-madder">{graver}</span>}
                  </span>
                  <Quiet
                    onClick={() => void takeBack(one)}
                    label={one.group ? `take back all that were said to be clear with ${one.about}` : `take back: ${one.about}`}
                  >
                    {one.group ? 'take all back' : 'take back'}
                  </Quiet>
                </li>
              );
            })}
          </ul>
        </section>
      )}
    </main>
  );
}
