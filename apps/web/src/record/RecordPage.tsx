import { lazy, Suspense, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { paths, type StoredTree } from '@ustle/contract';
import { asItStands, greatestOf, branchIn, dayOf, labourOf, LINE_FIELDS, speciesOf, treeOn, sayLength } from '@ustle/core';
import { AddPhoto } from '../photos/AddPhoto';
import { TurnCamera } from '../photos/TurnCamera';
import { NumberField } from '../shared/NumberField';
import { Choice, Pick, Skeleton } from '../shared/parts';
import { useTree, useYard } from '../shared/queries';
import { count, sayDate } from '../shared/say';
import { useTitle } from '../shared/use-title';
import { oneOf, useAddress } from '../stages/address';
import { DeskContext, useDesk, useNewDesk } from '../stages/desk';
import { useCoils } from '../stages/drawn-coils';
import { useTies } from '../stages/drawn-ties';
import { filtered, FILTERS } from './filters';
import { PhotoOver } from './PhotoOver';
import { Story } from './Story';

const Turntable = lazy(() => import('../turntable/Turntable').then((m) => ({ default: m.Turntable })));
const LEVEL = { bearing: 0, pitch: 0, roll: 0 };

/** Hours of work and wire used, by year. */
function Years() {
  const { tree } = useDesk();
  const years = labourOf(tree);
  if (!years.length) return null;
  const most = greatestOf(
    years.map((y) => y.hours),
    1,
  );
  return (
    <section aria-label="Hours and wire by year" className="mt-4">
      <h2 className="text-lg">Hours and wire by year</h2>
      <table className="mt-1 w-full">
        <tbody>
          {years.map((y) => (
            <tr key={y.year} className="border-t border-rule">
              <th scope="row" className="w-16 py-1 text-left font-normal">
                {y.year}
              </th>
              <td className="w-24 pr-3 text-right">{y.hours.toFixed(1)} hours</td>
              <td aria-hidden="true">
                <span className="block h-2 bg-bark" style={{ width: `${(y.hours / most) * 100}%` }} />
              </td>
              <td className="pl-3 text-quiet">
                {(['copper', 'aluminium'] as const)
                  .filter((m) => y.wire[m])
                  .map((m) => `${sayLength(y.wire[m])} of ${m}`)
                  .join(', ')}
                {y.people.length > 0 && (
                  <span className="block">
                    {y.people
                      .map((p) => [p.name, ...(p.hours ? [`${p.hours.toFixed(1)} hours`] : []), ...(p.looks ? [count(p.looks, 'look')] : [])].join(' '))
                      .join('; ')}
                  </span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** A note, hours and photos, added to the record by hand. */
function Add() {
  const { stored, today, act, bearing } = useDesk();
  const [text, setText] = useState('');
  const [hours, setHours] = useState<number | null>(null);
  const [when, setWhen] = useState<'before' | 'during' | 'after'>('before');
  const [aside, setAside] = useState(false);
  const note = async (): Promise<void> => {
    if (text.trim() && (await act({ kind: 'note', text: text.trim() }))) setText('');
  };
  return (
    <details className="mt-4 border-y border-rule py-1">
      <summary className="min-h-11 cursor-pointer content-center">Add a photo, a note, hours</summary>
      <div className="space-y-4 pb-3">
        <div className="flex flex-wrap items-end gap-4">
          <Choice
            label="Photo"
            value={when}
            options={[
              { value: 'before', name: 'before' },
              { value: 'during', name: 'during' },
              { value: 'after', name: 'after the work' },
            ]}
            onChange={setWhen}
          />
          <label className="flex min-h-11 items-center gap-2">
            <input type="checkbox" className="checkbox checkbox-sm" checked={aside} onChange={(event) => setAside(event.target.checked)} />
            taken from where the table stands ({bearing.toFixed(0)}°)
          </label>
          <AddPhoto tree={stored.id} today={today} of={{ when, ...(aside ? { bearing: Math.round(bearing) % 360 } : {}) }} label="Add a photo" />
        </div>
        <TurnCamera tree={stored.id} today={today} when={when} bearing={Math.round(bearing) % 360} />
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            void note();
          }}
        >
          <label className="min-w-0 flex-1">
            <span className="mb-1 block text-quiet">Note</span>
            <input className="input w-full bg-base-100" maxLength={5000} value={text} onChange={(event) => setText(event.target.value)} />
          </label>
          <button type="submit" className="btn btn-outline btn-primary" disabled={!text.trim()}>
            Note it
          </button>
        </form>
        <div className="flex flex-wrap items-end gap-2">
          <NumberField label="Time outside of a session" rule={LINE_FIELDS.hours.hours} value={hours} onValue={setHours} open />
          <button
            type="button"
            className="btn btn-outline btn-primary"
            disabled={!hours}
            onClick={() => void act({ kind: 'hours', hours: hours! }).then((ok) => ok && setHours(null))}
          >
            Note the time
          </button>
        </div>
      </div>
    </details>
  );
}

/** The tree on the day that is looked at, a photo laid over it where one is chosen. */
function OnThatDay() {
  const desk = useDesk();
  const { stored, tree, today, day, bearing, setBearing, branch, setBranch } = desk;
  const coils = useCoils(desk);
  const shown = useMemo(() => (day < today ? asItStands(treeOn(stored.tree, dayOf(day)), dayOf(day)) : tree), [stored.tree, tree, day, today]);
  const ties = useTies(desk, shown);
  return (
    <section
      aria-label="The tree on that day"
      className="relative h-[52vh] min-h-[320px] border-b border-rule lg:h-full lg:border-b-0 lg:border-r print:hidden"
    >
      <Suspense fallback={<div className="h-full w-full animate-pulse bg-rule/30" data-ready="0" />}>
        <Turntable
          tree={shown}
          after={null}
          coils={coils}
          ties={day < today ? [] : ties}
          selected={branch}
          onSelect={setBranch}
          bearing={bearing}
          onBearing={setBearing}
          view={tree.plan.front ?? LEVEL}
          plumb={false}
        />
      </Suspense>
      <p className="absolute right-5 top-3 text-lg">{day === today ? 'Today' : sayDate(day)}</p>
      <PhotoOver />
    </section>
  );
}

function Read({ stored, today }: { stored: StoredTree; today: string }) {
  const desk = useNewDesk(stored, today);
  const { tree, names } = desk;
  const { get, set } = useAddress();
  const filter = oneOf(get('kinds'), FILTERS, 'all');
  const about = get('about');
  const lines = filtered(tree.record, filter, about);
  const spoken = useMemo(() => [...new Set(tree.record.flatMap((l) => branchIn(l) ?? []))], [tree.record]);
  return (
    <DeskContext value={desk}>
      <main className="flex min-h-full flex-col lg:h-full lg:flex-row print:block">
        <div className="lg:min-w-0 lg:flex-1">
          <OnThatDay />
        </div>
        <div className="shrink-0 bg-sheet px-5 py-4 lg:w-[640px] lg:overflow-y-auto print:w-auto">
          <header className="flex flex-wrap items-baseline justify-between gap-3">
            <div>
              <h1 className="text-2xl">{tree.name}: its record</h1>
              <p className="text-quiet">{speciesOf(tree.species).name}</p>
            </div>
            <nav aria-label="From here" className="flex flex-wrap gap-4 print:hidden">
              <Link className="underline" to={`/tree/${stored.id}/work`}>
                Back
              </Link>
              <Link className="underline" to={`/tree/${stored.id}/report`}>
                Report
              </Link>
              <a className="underline" href={paths.recordCsv(stored.id)} download={`${tree.name} record.csv`}>
                As a table (CSV)
              </a>
            </nav>
          </header>
          <Years />
          <Add />
          <div className="mt-4 space-y-2 print:hidden">
            <Choice
              label="Shown"
              value={filter}
              options={FILTERS.map((f) => ({ value: f, name: f }))}
              onChange={(f) => set({ kinds: f === 'all' ? null : f })}
            />
            {spoken.length > 0 && (
              <Pick
                label="About"
                value={about ?? ''}
                options={[{ value: '', name: 'the whole tree' }, ...spoken.map((b) => ({ value: b, name: names(b) }))]}
                onChange={(b) => set({ about: b || null })}
              />
            )}
          </div>
          <Story lines={lines} />
        </div>
      </main>
    </DeskContext>
  );
}

/** The record of a tree as a story by date, any day of it drawn on the turntable beside its photos. */
export function RecordPage() {
  const { id = '' } = useParams();
  const { data: stored, error } = useTree(id);
  const { data: yard } = useYard();
  useTitle(stored ? `${stored.tree.name}, record` : 'Record');
  if (error && !stored) return <p className="p-8 text-madder">{error.message}</p>;
  if (!stored || !yard) return <Skeleton lines={9} />;
  return <Read stored={stored} today={yard.today} />;
}
