import { useRef } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { WalkStop } from '@ustle/contract';
import { Quiet, Skeleton } from '../shared/parts';
import { count, sayLong, sayShort } from '../shared/say';
import { StageGlyph } from '../shared/StageGlyph';
import { useOffline } from '../shared/use-offline';
import { useTitle } from '../shared/use-title';
import { StopCard } from './StopCard';
import { keyOf, useWalking, type Answer, type Walking } from './use-walk';

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

const clearAll = (stops: readonly WalkStop[]): Answer[] =>
  stops.map((stop) => ({
    stop,
    said: 'clear',
    act:
      stop.kind === 'wire'
        ? { kind: 'inspected', branch: stop.branch, ...(stop.of ? { run: stop.of } : {}), stage: 'clear' }
        : { kind: 'guyed', branch: stop.branch, guy: stop.of, done: 'looked', bark: 'clear' },
  }));

/** The round on foot: bench by bench, tree by tree, one thing at a time. */
export function WalkPage() {
  useTitle('Walk');
  useOffline();
  const walking = useWalking();
  const { view, waiting, answered, away, error, answer, takeBack } = walking;
  const [address, setAddress] = useSearchParams();
  const top = useRef<HTMLDivElement>(null);
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
  const round = view.stops.filter((s) => (tree ? s.tree === tree : s.walk === next || answered.has(keyOf(s)) || s.walk <= view.on));
  const open = round.filter((s) => !answered.has(keyOf(s)));
  const asked = address.get('at');
  const stop = open.find((s) => keyOf(s) === asked) ?? open[0];
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
  const give = (answers: Answer[], from: WalkStop): void => {
    go(
      following(
        from,
        answers.map((a) => a.stop),
      ),
    );
    void answer(answers);
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
            {sayLong(view.on)}. {round.length ? `${round.length - open.length} of ${count(round.length, 'look')} done` : 'No wire and no tie is on any tree.'}
          </p>
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
            <StopCard on={view.on} key={keyOf(stop)} stop={stop} onAnswer={(answers) => give(answers, stop)} onSkip={() => go(following(stop, [stop]))} />
            {onBench.length > 1 && (
              <button type="button" className="btn btn-outline mt-4 min-h-14 w-full border-moss text-lg" onClick={() => give(clearAll(onBench), stop)}>
                All {onBench.length} here are clear
              </button>
            )}
          </>
        ) : (
          round.length > 0 && (
            <p className="py-6 text-lg">All is looked at. {unsent ? 'What waits is sent as soon as there is a network.' : 'All of it is stored.'}</p>
          )
        )}
      </div>
      {answered.size > 0 && (
        <section className="mt-6" aria-label="Answered today">
          <h2 className="text-lg">Answered today</h2>
          <ul className="border-b border-rule">
            {round.flatMap((s) => {
              const said = answered.get(keyOf(s));
              return said
                ? [
                    <li key={keyOf(s)} className="flex items-center gap-3 border-t border-rule py-1">
                      <StageGlyph stage={['clear', 'touching', 'marking', 'deep', 'swallowed'].includes(said.said) ? (said.said as 'clear') : 'none'} />
                      <span className="flex-1">
                        {s.treeName}, {s.name}: {said.said}
                      </span>
                      <Quiet onClick={() => void takeBack(said, s)} label={`take back: ${s.treeName}, ${s.name}`}>
                        take back
                      </Quiet>
                    </li>,
                  ]
                : [];
            })}
          </ul>
        </section>
      )}
    </main>
  );
}
