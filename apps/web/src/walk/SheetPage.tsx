import { Link } from 'react-router';
import { inNameOrder, type WalkStop } from '@ustle/contract';
import { groupedBy, MARK_STAGES } from '@ustle/core';
import { Skeleton } from '../shared/parts';
import { QrCode } from '../shared/QrCode';
import { useAccess, useTrees, useWalk, useYard } from '../shared/queries';
import { sayDate, sayShort } from '../shared/say';
import { useTitle } from '../shared/use-title';

const ON_ITSELF = /^(localhost|127\.|\[::1\])/;

/** Where a tag leads: the address of the yard in its network, or this page's own where that is one; null where a phone would reach neither. */
function useAddressOf(): ((tree: string) => string) | null {
  const { data } = useAccess();
  const at = data?.addresses[0] ?? (ON_ITSELF.test(window.location.host) ? null : window.location.origin);
  return at === null ? null : (tree) => `${at}/walk?tree=${encodeURIComponent(tree)}`;
}

/** The code that a phone's camera reads; where no phone would reach the yard, nothing. */
function Code({ tree, size }: { tree: string; size: number }) {
  const addressOf = useAddressOf();
  return addressOf && <QrCode text={addressOf(tree)} size={size} />;
}

/** Said once where there are no codes. */
function NoCodes() {
  const addressOf = useAddressOf();
  if (addressOf) return null;
  return (
    <p className="mt-3 border-l-4 border-ochre px-3 print:hidden">
      No phone reaches this yard yet, so there are no codes. Let phones in first: <Link to="/phone">Phone</Link>.
    </p>
  );
}

const byTree = (stops: readonly WalkStop[]): Map<string, WalkStop[]> => groupedBy(stops, (s) => s.tree);

/** The walk on paper: to be ticked with a pencil and written down afterwards. */
function Round() {
  const { data: view } = useWalk();
  if (!view) return <Skeleton lines={9} />;
  const day = view.stops.map((s) => s.walk).sort()[0];
  const trees = [...byTree(view.stops.filter((s) => s.walk === day))];
  if (!trees.length) return <p className="mt-4">No wire and no tie is on any tree.</p>;
  return trees.map(([tree, stops]) => (
    <section key={tree} className="mt-4 flex break-inside-avoid gap-4 border-t border-rule pt-2">
      <Code tree={tree} size={84} />
      <div className="min-w-0 flex-1">
        <h2 className="text-xl">{stops[0]!.treeName}</h2>
        <p className="text-quiet">
          {stops[0]!.species}, {view.benches.find((b) => b.id === stops[0]!.bench)?.name ?? 'on no bench'}
        </p>
        <ul>
          {stops.map((s) => (
            <li key={s.of + s.branch} className="border-t border-rule py-1">
              <strong>{s.name}</strong>, {s.what}, {s.last < view.on ? 'due since' : 'by'} {sayShort(s.last)}
              <span className="mt-0.5 flex flex-wrap gap-x-4">
                {[...MARK_STAGES, s.kind === 'wire' ? 'taken off' : 'let out'].map((stage) => (
                  <span key={stage}>
                    <span aria-hidden="true" className="mr-1 inline-block h-3.5 w-3.5 border border-ink align-[-2px]" />
                    {stage}
                  </span>
                ))}
              </span>
            </li>
          ))}
        </ul>
      </div>
    </section>
  ));
}

/** A tag for each tree: its name, and its code for the phone's camera. */
function Tags() {
  const { data: trees } = useTrees();
  if (!trees) return <Skeleton lines={9} />;
  return (
    <ul className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(210px,1fr))] gap-3">
      {trees
        .filter((t) => !t.asideOn)
        .sort((a, b) => inNameOrder(a.name, b.name))
        .map((t) => (
          <li key={t.id} className="flex break-inside-avoid items-center gap-3 border border-rule p-2">
            <Code tree={t.id} size={92} />
            <span className="min-w-0">
              <span className="block font-serif text-lg leading-6">{t.name}</span>
              <span className="text-quiet">{t.species}</span>
            </span>
          </li>
        ))}
    </ul>
  );
}

/** The next walk as a sheet, or tags for all trees. */
export function SheetPage({ tags = false }: { tags?: boolean }) {
  const title = tags ? 'Tags' : 'Walk sheet';
  useTitle(title);
  const { data: yard } = useYard();
  return (
    <main className="mx-auto max-w-3xl px-4 py-4 print:max-w-none print:p-0">
      <header className="flex flex-wrap items-baseline justify-between gap-3">
        <div>
          <h1 className="text-2xl">{title}</h1>
          <p className="text-quiet">{yard && `${yard.name}, ${sayDate(yard.today)}`}</p>
        </div>
        <div className="flex gap-2 print:hidden">
          <Link className="btn btn-ghost btn-sm" to="/walk">
            Back
          </Link>
          <Link className="btn btn-outline btn-sm btn-primary" to={tags ? '/walk/sheet' : '/walk/tags'}>
            {tags ? 'Walk sheet' : 'Tags for all trees'}
          </Link>
          <button type="button" className="btn btn-primary btn-sm" onClick={() => window.print()}>
            Print
          </button>
        </div>
      </header>
      <NoCodes />
      {tags ? <Tags /> : <Round />}
    </main>
  );
}
