import { useEffect, useMemo, useRef } from 'react';
import { useSearchParams } from 'react-router';
import { inNameOrder, paths } from '@ustle/contract';
import { greatestOf, isSameWire, isUsable, needsOf, SCRAP, type Stock, sayLength, saySize } from '@ustle/core';
import { useRack, useTrees, useYard } from '../shared/queries';
import { PanelHead, Quiet, Skeleton } from '../shared/parts';
import { count } from '../shared/say';
import { useTitle } from '../shared/use-title';
import { BringIn } from './BringIn';
import { CutFor } from './CutFor';
import { OpenRoll } from './OpenRoll';
import { usePieces } from './queries';
import { OffcutBar, Reel } from './Reel';

/** Wire of one metal and size. */
const bySize = (stock: readonly Stock[]): Stock[][] => {
  const sizes: Stock[][] = [];
  for (const s of stock) {
    const same = sizes.find((of) => isSameWire(of[0]!, s));
    if (same) same.push(s);
    else sizes.push([s]);
  }
  return sizes.sort((a, b) => (a[0]!.metal < b[0]!.metal ? -1 : a[0]!.metal > b[0]!.metal ? 1 : b[0]!.size - a[0]!.size));
};

/** Less than this share of a roll, and no other of its size, is little. */
const LITTLE = 0.1;

function Size({
  stock,
  reserved,
  open,
  onOpen,
}: {
  stock: readonly Stock[];
  reserved: ReadonlyMap<string, number>;
  open: string | null;
  onOpen: (id: string) => void;
}) {
  const [{ metal, size }] = stock as [Stock];
  const usable = stock.filter(isUsable);
  const left = usable.reduce((sum, s) => sum + s.left, 0);
  const spoken = stock.reduce((sum, s) => sum + (reserved.get(s.id) ?? 0), 0);
  const little = left < LITTLE * greatestOf(stock.map((s) => s.whole)) && stock.some((s) => s.form === 'roll');
  return (
    <section className="grid items-center gap-x-4 border-b border-rule px-4 py-2 sm:grid-cols-[230px_1fr] sm:px-6">
      <div>
        <h2 className="text-lg">
          {saySize(metal, size)} {metal}
        </h2>
        <p className={little ? 'text-madder' : 'text-quiet'}>
          {sayLength(left)} to cut from{spoken ? `, ${sayLength(spoken)} of it spoken for` : ''}
          {little ? ': little' : ''}
        </p>
      </div>
      <ul className="flex flex-wrap items-center gap-x-2">
        {stock.map((s) => (
          <li key={s.id}>
            <button
              type="button"
              aria-expanded={open === s.id}
              data-roll={s.id}
              className={`flex items-center gap-2 border px-2 py-1 text-left ${open === s.id ? 'border-copper bg-base-100' : 'border-transparent hover:border-rule'}`}
              onClick={() => onOpen(s.id)}
            >
              {s.form === 'roll' ? <Reel stock={s} reserved={reserved.get(s.id) ?? 0} /> : <OffcutBar stock={s} reserved={reserved.get(s.id) ?? 0} />}
              <span>
                <span className="sr-only">
                  {saySize(metal, size)} {metal}, {s.form === 'roll' ? 'roll' : 'loose piece'}:{' '}
                </span>
                {sayLength(s.left)}
                {s.form === 'roll' ? ` of ${sayLength(s.whole)}` : ''}
                {!s.soft && <span className="text-quiet">{s.metal === 'copper' ? ', hard' : ', straightened'}</span>}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Wire in stock: rolls and offcuts, what is left, what is spoken for, what to cut and what to buy. */
export function RackPage() {
  useTitle('Rack');
  const [params, setParams] = useSearchParams();
  const { data: rack, error } = useRack();
  const { data: all } = useTrees();
  const { data: yard } = useYard();
  const trees = useMemo(() => (all ?? []).filter((t) => !t.asideOn).sort((a, b) => inNameOrder(a.name, b.name)), [all]);
  const chosen = useMemo(() => (params.get('trees') ?? '').split(',').filter((id) => trees.some((t) => t.id === id)), [params, trees]);
  const { data: pieces, error: noPieces } = usePieces(chosen);
  const spoken = useMemo(() => {
    const found = new Map<string, number>();
    if (!rack) return found;
    for (const need of needsOf(rack.reserved, rack.stock))
      for (const { from, pieces: of } of need.cuts)
        if (from)
          found.set(
            from,
            of.reduce((sum, p) => sum + p.length, 0),
          );
    return found;
  }, [rack]);

  const set = (next: Record<string, string | null>): void =>
    setParams((before) => {
      const to = new URLSearchParams(before);
      for (const [key, value] of Object.entries(next)) {
        if (value === null) to.delete(key);
        else to.set(key, value);
      }
      return to;
    });
  const opened = rack?.stock.find((s) => s.id === params.get('roll')) ?? null;
  const bringing = params.has('new');
  const panel = useRef<HTMLElement>(null);
  const shown = params.get('roll') ?? (bringing ? 'new' : '');
  // Where the panel stands above the rolls, it comes into sight with what was opened.
  useEffect(() => {
    if (shown) panel.current?.scrollIntoView({ block: 'nearest' });
  }, [shown]);
  const stock = rack?.stock.filter((s) => s.gone === null && s.left >= SCRAP) ?? [];
  const past = rack?.stock.filter((s) => s.gone !== null || s.left < SCRAP) ?? [];

  return (
    <main className="flex min-h-full flex-col">
      <header className="flex min-h-16 flex-wrap items-center justify-between gap-3 border-b border-rule px-4 py-2 print:hidden sm:px-6">
        <div>
          <h1 className="text-2xl">Rack</h1>
          <p className="text-quiet">Rolls and offcuts, what is left of each, and what the plans take.</p>
        </div>
        <button type="button" className="btn btn-outline btn-primary" aria-expanded={bringing} onClick={() => set({ new: bringing ? null : '', roll: null })}>
          Bring wire in
        </button>
      </header>
      {error && (
        <p role="alert" className="px-6 py-4 text-madder">
          {error.message} {rack ? 'This is as it was last.' : 'It is asked again by itself.'}
        </p>
      )}
      {!rack || !yard || !all ? (
        !error && (
          <div className="px-6">
            <Skeleton lines={6} />
          </div>
        )
      ) : (
        <div className="flex flex-1 flex-col lg:flex-row">
          <div className="min-w-0 flex-1 print:hidden">
            {stock.length === 0 && (
              <p className="max-w-xl px-4 py-8 sm:px-6">
                The rack is empty. Bring in each roll once, by its weight or its length: from then on what is cut for a tree is taken off it, and you are told
                before a session what will not last.
              </p>
            )}
            {bySize(stock).map((of) => (
              <Size
                key={`${of[0]!.metal}${of[0]!.size}`}
                stock={of}
                reserved={spoken}
                open={params.get('roll')}
                onOpen={(id) => set({ roll: params.get('roll') === id ? null : id, new: null })}
              />
            ))}
            {past.length > 0 && (
              <details className="px-4 py-3 sm:px-6">
                <summary className="min-h-11 cursor-pointer content-center text-quiet">Used up or gone: {past.length}</summary>
                <ul>
                  {past.map((s) => (
                    <li key={s.id}>
                      <button type="button" className="min-h-11 text-left underline" data-roll={s.id} onClick={() => set({ roll: s.id, new: null })}>
                        {saySize(s.metal, s.size)} {s.metal}, {count(s.events.filter((e) => e.kind === 'cut').length, 'piece')} cut from it
                      </button>
                    </li>
                  ))}
                </ul>
              </details>
            )}
          </div>
          <aside
            ref={panel}
            className="order-first border-b border-rule bg-sheet px-4 py-4 lg:sticky lg:top-0 lg:order-none lg:h-dvh lg:w-[420px] lg:shrink-0 lg:self-start lg:overflow-auto lg:border-b-0 lg:border-l print:static print:h-auto print:w-full print:border-0"
          >
            {bringing ? (
              <>
                <PanelHead title="Wire comes in" aside={<Quiet onClick={() => set({ new: null })}>close</Quiet>} />
                <BringIn today={yard.today} money={yard.money} onDone={(roll) => set({ new: null, roll })} />
              </>
            ) : opened ? (
              <>
                <PanelHead title={`${saySize(opened.metal, opened.size)} ${opened.metal}`} aside={<Quiet onClick={() => set({ roll: null })}>close</Quiet>} />
                <OpenRoll key={opened.id} stock={opened} />
              </>
            ) : (
              <>
                <PanelHead
                  title="What to cut"
                  aside={
                    chosen.length > 0 && (
                      <span className="flex gap-2 print:hidden">
                        <a className="btn btn-outline btn-sm border-rule" href={paths.rackPaper(chosen)} target="_blank" rel="noreferrer">
                          PDF
                        </a>
                        <button type="button" className="btn btn-outline btn-sm border-rule" onClick={() => window.print()}>
                          Print
                        </button>
                      </span>
                    )
                  }
                />
                {noPieces && (
                  <p role="alert" className="text-madder">
                    {noPieces.message}
                  </p>
                )}
                <CutFor
                  stock={rack.stock}
                  reserved={rack.reserved}
                  trees={trees}
                  chosen={chosen}
                  pieces={pieces}
                  money={yard.money}
                  onChoose={(ids) => set({ trees: ids.length ? ids.join(',') : null })}
                />
              </>
            )}
          </aside>
        </div>
      )}
    </main>
  );
}
