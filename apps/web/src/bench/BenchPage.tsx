import { Link, useSearchParams } from 'react-router';
import { paths, type TreeSummary } from '@ustle/contract';
import { useTrees, useYard } from '../shared/queries';
import { useLast } from '../shared/last';
import { Skeleton } from '../shared/parts';
import { daysBetween, sayBrief, sayDate, sayLong, sayMoment, sayShort } from '../shared/say';
import { StageGlyph, type Glyph } from '../shared/StageGlyph';
import { useTitle } from '../shared/use-title';
import { chosen, ORDERS, SHOWN } from './chosen';
import { ImportTree } from './ImportTree';
import { RestoreStudio } from './RestoreStudio';
import { RaceStrip } from './RaceStrip';
import { TreePicture } from './TreePicture';

const glyphOf = (tree: TreeSummary): Glyph => {
  if (!tree.coils) return 'none';
  return tree.next?.mark ?? 'unseen';
};

function whenOf(tree: TreeSummary, today: string): string {
  if (tree.trouble) return 'look at it';
  if (!tree.next) return 'resting';
  if (tree.next.kind === 'plan') return 'when you like';
  if (tree.next.since) return `since ${sayBrief(tree.next.since)}`;
  return tree.next.on <= today ? 'today' : sayShort(tree.next.on);
}

function Row({ tree, today }: { tree: TreeSummary; today: string }) {
  return (
    <li className="border-b border-rule">
      <Link
        to={`/tree/${tree.id}/${tree.next?.leadsTo ?? (tree.coils ? 'watch' : 'read')}`}
        className="grid grid-cols-[84px_1fr_auto] items-center gap-x-4 px-4 py-2 hover:bg-sheet sm:px-6 lg:grid-cols-[84px_minmax(170px,1.1fr)_minmax(220px,1.6fr)_minmax(200px,330px)_110px]"
      >
        <TreePicture tree={tree} size={76} />
        <div className="min-w-0">
          <div className="truncate font-serif text-xl">{tree.name}</div>
          <div className="text-quiet">{tree.species}</div>
        </div>
        <div className="col-span-2 col-start-2 flex min-w-0 items-center gap-2.5 lg:col-span-1 lg:col-start-3">
          <StageGlyph stage={glyphOf(tree)} />
          {tree.trouble ? <span className="text-madder">{tree.trouble}</span> : <span>{tree.next?.title ?? 'nothing to do'}</span>}
        </div>
        <div className="hidden lg:block">
          {tree.race ? <RaceStrip race={tree.race} today={today} /> : !tree.trouble && <span className="text-quiet">no wire on</span>}
        </div>
        <div
          className={`col-start-3 row-start-1 text-right lg:col-start-5 ${tree.next && tree.next.kind !== 'plan' && tree.next.on <= today ? 'font-bold text-copper' : ''}`}
        >
          {whenOf(tree, today)}
        </div>
      </Link>
    </li>
  );
}

function Legend() {
  const items: [string, string][] = [
    ['var(--color-moss)', 'set, may come off'],
    ['var(--color-ochre)', 'may be touching'],
    ['var(--color-madder)', 'may be marking'],
  ];
  return (
    <div className="hidden flex-wrap items-center gap-x-5 gap-y-1 px-6 py-4 text-quiet lg:flex">
      {items.map(([colour, name]) => (
        <span key={name} className="flex items-center gap-2">
          <span className="h-3 w-4" style={{ background: colour }} />
          {name}
        </span>
      ))}
      <span className="flex items-center gap-2">
        <span className="h-4 w-[2px] bg-copper" />
        today, then a year on. These are forecasts: look before you trust them.
      </span>
    </div>
  );
}

function Empty() {
  return (
    <div className="max-w-2xl px-6 py-10">
      <h2 className="text-2xl">No tree on the bench yet</h2>
      <p className="mt-3">
        Bring in a tree file if you have one, measured here or elsewhere. It holds the trunk, the branches with their thickness and slope, and what is planned
        and was done.
      </p>
      <p className="mt-3">
        Or begin one: it is watched after a minute if it has wire on, measured with ruler and caliper, or made up to try things first. Nothing can break.
      </p>
      <div className="mt-6 flex flex-wrap items-end gap-6">
        <Link to="/new" className="btn btn-primary">
          New tree
        </Link>
        <ImportTree />
      </div>
      <RestoreStudio />
    </div>
  );
}

/** Trees that are not on the bench, to be found again. */
function PutAside({ trees }: { trees: readonly TreeSummary[] }) {
  return (
    <details className="px-4 sm:px-6">
      <summary className="min-h-11 cursor-pointer content-center text-quiet">Put aside: {trees.length}</summary>
      <ul className="mb-4">
        {trees.map((tree) => (
          <li key={tree.id} className="border-b border-rule">
            <Link to={`/tree/${tree.id}/read`} className="flex min-h-11 flex-wrap items-baseline gap-x-4 py-2 hover:bg-sheet">
              <span className="font-serif text-lg">{tree.name}</span>
              <span className="text-quiet">
                {tree.species}, since {sayDate(tree.asideOn!)}
                {tree.coils > 0 && `; wire on it: ${tree.next?.title ?? 'watched in Season'}`}
              </span>
            </Link>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** So many trees are found by looking. */
const FOUND_BY_EYE = 8;

/** A large bench: found by typing, some of it, in another order. What is chosen stands in the address. */
function Finder({ shown, of }: { shown: number; of: number }) {
  const [address, setAddress] = useSearchParams();
  const set = (key: string, value: string): void =>
    setAddress(
      (p) => {
        if (value) p.set(key, value);
        else p.delete(key);
        return p;
      },
      { replace: true },
    );
  return (
    <div className="flex flex-wrap items-end gap-3 border-b border-rule px-4 py-2 sm:px-6" role="search" aria-label="Trees">
      <label className="block max-w-full">
        <span className="mb-1 block text-quiet">Find</span>
        <input
          type="search"
          className="input w-56 max-w-full bg-sheet"
          placeholder="name, kind, or what to do"
          value={address.get('find') ?? ''}
          onChange={(event) => set('find', event.target.value)}
        />
      </label>
      <label className="block max-w-full">
        <span className="mb-1 block text-quiet">Show</span>
        <select className="select w-52 max-w-full bg-sheet" value={address.get('show') ?? ''} onChange={(event) => set('show', event.target.value)}>
          {SHOWN.map((s) => (
            <option key={s.value} value={s.value}>
              {s.name}
            </option>
          ))}
        </select>
      </label>
      <label className="block max-w-full">
        <span className="mb-1 block text-quiet">Order</span>
        <select className="select w-48 max-w-full bg-sheet" value={address.get('order') ?? ''} onChange={(event) => set('order', event.target.value)}>
          {ORDERS.map((o) => (
            <option key={o.value} value={o.value}>
              {o.name}
            </option>
          ))}
        </select>
      </label>
      <p role="status" className="min-h-9 content-center text-quiet">
        {shown === of ? '' : `${shown} of ${of}`}
      </p>
    </div>
  );
}

/** The trees in the order in which they need a hand. */
export function BenchPage() {
  useTitle('Bench');
  const asked = useTrees();
  const { error } = asked;
  const { data: all, asOf } = useLast('bench', asked);
  const { data: yard } = useYard();
  const trees = all?.filter((t) => !t.asideOn);
  const aside = all?.filter((t) => t.asideOn) ?? [];
  const [address] = useSearchParams();
  const shown = trees && chosen(trees, address, yard?.today ?? '');
  const soon = trees && yard ? trees.filter((t) => t.next && t.next.kind !== 'plan' && daysBetween(yard.today, t.next.on) <= 7).length : 0;
  const words = soon === 0 ? 'No wire wants you this week.' : soon === 1 ? 'One tree wants you this week.' : `${soon} trees want you this week.`;
  return (
    <main className="min-h-full">
      <header className="flex min-h-16 flex-wrap items-center justify-between gap-3 border-b border-rule px-4 py-2 sm:px-6">
        <div>
          <h1 className="text-2xl">Bench</h1>
          {yard && trees && (
            <p className="text-quiet">
              {yard.name}, {sayLong(yard.today)}. {trees.length > 0 && words}
            </p>
          )}
        </div>
        <div className="flex flex-wrap items-center gap-3">
          <Link to="/new" className="btn btn-primary">
            New tree
          </Link>
          <ImportTree />
        </div>
      </header>
      {error && (
        <p role="alert" className="px-6 py-4 text-madder">
          {error.message} {asOf ? `This is the bench as it was on ${sayMoment(asOf)}.` : trees ? 'This is as it was last.' : 'It is asked again by itself.'}
        </p>
      )}
      {!trees && !error && (
        <div className="px-6">
          <Skeleton lines={6} />
        </div>
      )}
      {all?.length === 0 && <Empty />}
      {trees && all && all.length > 0 && yard && (
        <>
          {(trees.length > FOUND_BY_EYE || address.size > 0) && <Finder shown={shown!.length} of={trees.length} />}
          {trees.length > 0 && !shown!.length && <p className="px-4 py-6 sm:px-6">No tree on the bench is like that.</p>}
          <ul>
            {shown!.map((tree) => (
              <Row key={tree.id} tree={tree} today={yard.today} />
            ))}
          </ul>
          <Legend />
          {aside.length > 0 && <PutAside trees={aside} />}
          <p className="flex flex-wrap gap-x-6 px-4 pb-8 sm:px-6">
            <a className="inline-flex min-h-11 items-center text-quiet underline" href={paths.studio} download>
              Take everything along as one file (ZIP)
            </a>
            <a className="inline-flex min-h-11 items-center text-quiet underline" href={paths.backup} download>
              Copy of the data file, without photos
            </a>
          </p>
        </>
      )}
    </main>
  );
}
