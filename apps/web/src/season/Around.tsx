import { mutate } from 'swr';
import { paths } from '@ustle/contract';
import type { Hemisphere } from '@ustle/core';
import { useNotice } from '../app/notice';
import { send } from '../shared/http';
import { Pick, Quiet } from '../shared/parts';
import { useFeed, useLearned, useMail, useWeather } from '../shared/queries';
import { count, sayDate } from '../shared/say';
import { counted, refreshLists } from '../shared/traffic';

function Learned() {
  const { data } = useLearned();
  if (!data) return null;
  return (
    <section className="px-4 pt-6 sm:px-6" aria-label="What was learnt here">
      <h2 className="text-lg">What was learnt here</h2>
      {data.length === 0 && <p className="text-quiet">Nothing yet. Every look at a wire teaches its tree, and a little its kind.</p>}
      <ul>
        {data.map(({ species, name, trees, looks, pace, cases }) => {
          const told = cases.inside + cases.early + cases.late;
          return (
            <li key={species} className="border-t border-rule py-1.5">
              <strong>{name}</strong>, {count(trees, 'tree')}, {count(looks, 'look')}: a further one is taken to thicken {pace.likely.toFixed(2)} times as fast
              as usual ({pace.low.toFixed(2)} to {pace.high.toFixed(2)}).{' '}
              {told
                ? `${cases.inside} of ${told} first marks came within their band of four chances in five, ${cases.early} sooner, ${cases.late} later${told < 10 ? '; few cases' : ''}.`
                : 'No mark yet to judge the forecasts by.'}
            </li>
          );
        })}
      </ul>
    </section>
  );
}

const HALVES: { value: Hemisphere; name: string }[] = [
  { value: 'north', name: 'north of the equator: it tells of trees there' },
  { value: 'south', name: 'south of the equator: it tells of trees there' },
];

function Weather() {
  const { data } = useWeather();
  const { attempt } = useNotice();
  if (!data) return null;
  const set = (to: { on: boolean; hemisphere?: Hemisphere }): void =>
    void attempt(async () => {
      await counted(send(paths.weather, to, 'PUT'));
      await mutate(paths.weather);
      refreshLists();
    });
  const ahead = data.ahead === 0 ? 'as usual' : `${count(Math.abs(data.ahead), 'day')} ${data.ahead > 0 ? 'ahead of' : 'behind'} the usual`;
  return (
    <section className="px-4 pt-6 sm:px-6" aria-label="Weather">
      <h2 className="text-lg">Weather</h2>
      <p>
        {data.station} (simulated): by its warmth the season is {ahead}.
        {data.missing > 0 && ` Of the last six weeks ${count(data.missing, 'day')} ${data.missing === 1 ? 'has' : 'have'} no reading.`}
      </p>
      <label className="flex min-h-11 items-center gap-3">
        <input type="checkbox" className="checkbox" checked={data.on} onChange={(event) => set({ on: event.target.checked })} />
        Forecast growth by this warmth, not by the calendar alone
      </label>
      <div className="max-w-sm">
        <Pick label="The station stands" value={data.hemisphere} options={HALVES} onChange={(hemisphere) => set({ on: data.on, hemisphere })} />
      </div>
    </section>
  );
}

function Mail() {
  const { data } = useMail();
  const { data: feed } = useFeed();
  const { attempt } = useNotice();
  if (!data) return null;
  return (
    <section className="px-4 pb-10 pt-6 sm:px-6" aria-label="Notices">
      <h2 className="text-lg">Notices</h2>
      <p className="text-quiet">Sent the day before each walk to a mail box that comes with Ustle; no mail leaves this machine.</p>
      {data.map((m) => (
        <details key={m.id} className="border-t border-rule py-1">
          <summary className="min-h-11 cursor-pointer content-center">
            {sayDate(m.on)}: {m.subject}
          </summary>
          <pre className="whitespace-pre-wrap pb-2 font-sans">{m.text}</pre>
        </details>
      ))}
      {feed && (
        <p className="mt-3">
          To follow the season in a calendar program, subscribe to <code className="break-all">{`${window.location.origin}${feed.path}`}</code>.{' '}
          <Quiet onClick={() => void navigator.clipboard?.writeText(`${window.location.origin}${feed.path}`)}>copy</Quiet>
          {' · '}
          <Quiet onClick={() => void attempt(() => send(paths.feed, {}).then(() => mutate(paths.feed)))}>give it another address</Quiet>
          <span className="text-quiet"> (the old one then leads nowhere; a new passphrase changes it too)</span>
        </p>
      )}
    </section>
  );
}

/** What stands round the season: what was learnt, the weather, and notices. */
export function Around() {
  return (
    <>
      <Learned />
      <Weather />
      <Mail />
    </>
  );
}
