import { useState, type ReactElement, type ReactNode } from 'react';
import { Link } from 'react-router';
import { mutate } from 'swr';
import { paths } from '@ustle/contract';
import type { TreeSummary } from '@ustle/contract';
import type { Bench } from '@ustle/core';
import { useNotice } from '../app/notice';
import { byName } from '../bench/chosen';
import { send } from '../shared/http';
import { newId } from '../shared/new-id';
import { Quiet, Skeleton } from '../shared/parts';
import { useBenches, useTrees } from '../shared/queries';
import { counted, refreshLists } from '../shared/traffic';
import { useTitle } from '../shared/use-title';

/** The benches of the yard in walking order, and which tree stands where. */
export function BenchesPage() {
  useTitle('Benches');
  const { data: benches } = useBenches();
  const { data: trees } = useTrees();
  const { attempt } = useNotice();
  const [name, setName] = useState('');
  if (!benches || !trees) return <Skeleton lines={8} />;
  const keep = (next: Bench[]): Promise<boolean> =>
    attempt(async () => {
      await counted(send(paths.benches, { benches: next }, 'PUT'));
      await mutate(paths.benches);
      refreshLists();
    });
  const put = (tree: string, bench: string | null): Promise<boolean> =>
    attempt(async () => {
      await counted(send(paths.stands(tree), { bench }, 'PUT'));
      refreshLists();
    });
  const line = (bench: string, along: string[]): Promise<boolean> =>
    attempt(async () => {
      await counted(send(paths.line(bench), { trees: along }, 'PUT'));
      refreshLists();
    });
  const standing = trees.filter((t) => !t.asideOn);
  const on = (bench: string): TreeSummary[] => standing.filter((t) => t.bench === bench).sort((a, b) => a.place! - b.place!);
  const elsewhere = standing.filter((t) => !benches.some((b) => b.id === t.bench)).sort(byName);
  const chooser = (t: TreeSummary): ReactElement => (
    <select
      aria-label={`Where ${t.name} stands`}
      className="select w-40 bg-sheet"
      value={t.bench ?? ''}
      onChange={(event) => void put(t.id, event.target.value || null)}
    >
      <option value="">on no bench</option>
      {benches.map((b) => (
        <option key={b.id} value={b.id}>
          {b.name}
        </option>
      ))}
    </select>
  );
  return (
    <main className="mx-auto max-w-xl px-4 pb-24 pt-3">
      <header className="mb-4 flex items-baseline justify-between border-b border-rule pb-2">
        <h1 className="text-2xl">Benches</h1>
        <Link className="min-h-11 content-center text-copper" to="/walk">
          To the walk
        </Link>
      </header>
      <p className="text-quiet">In the order in which you walk past them. The round goes the same way.</p>
      <ol className="mt-3 border-b border-rule">
        {benches.map((b, i) => (
          <li key={b.id} className="flex min-h-12 items-center gap-4 border-t border-rule">
            <span className="flex-1">
              {i + 1}. {b.name}
            </span>
            <SoonerLater name={b.name} i={i} of={benches} keep={(next) => void keep(next)} />
            <Quiet label={`take off ${b.name}`} onClick={() => void keep(benches.filter((x) => x.id !== b.id))}>
              take off
            </Quiet>
          </li>
        ))}
      </ol>
      <form
        className="mt-3 flex items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) void keep([...benches, { id: newId(), name: name.trim() }]).then((done) => done && setName(''));
        }}
      >
        <label className="flex-1">
          <span className="mb-1 block text-quiet">A further bench</span>
          <input className="input w-full bg-sheet" maxLength={60} value={name} onChange={(event) => setName(event.target.value)} />
        </label>
        <button type="submit" className="btn btn-primary">
          Add
        </button>
      </form>
      <h2 className="mt-8 text-lg">Where the trees stand</h2>
      <p className="text-quiet">Along each bench in the order in which you pass them.</p>
      {benches.map((b) => (
        <section key={b.id} aria-label={b.name}>
          <h3 className="mb-1 mt-5">{b.name}</h3>
          <ol className="border-b border-rule">
            {on(b.id).map((t, i, all) => (
              <TreeRow key={t.id} tree={t}>
                <SoonerLater
                  name={t.name}
                  i={i}
                  of={all}
                  keep={(next) =>
                    void line(
                      b.id,
                      next.map((x) => x.id),
                    )
                  }
                />
                {chooser(t)}
              </TreeRow>
            ))}
            {on(b.id).length === 0 && <li className="border-t border-rule py-2 text-quiet">no tree yet</li>}
          </ol>
        </section>
      ))}
      {elsewhere.length > 0 && (
        <section aria-label="On no bench">
          <h3 className="mb-1 mt-5">On no bench</h3>
          <ul className="border-b border-rule">
            {elsewhere.map((t) => (
              <TreeRow key={t.id} tree={t}>
                {chooser(t)}
              </TreeRow>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}

function TreeRow({ tree, children }: { tree: TreeSummary; children: ReactNode }) {
  return (
    <li className="flex min-h-12 flex-wrap items-center gap-x-4 border-t border-rule py-1">
      <span className="min-w-32 flex-1 font-serif text-lg">{tree.name}</span>
      {children}
    </li>
  );
}

/** Moves one of a list by one place. */
function SoonerLater<T>({ name, i, of, keep }: { name: string; i: number; of: readonly T[]; keep: (next: T[]) => void }) {
  const moved = (by: number): T[] => {
    const next = [...of];
    next.splice(i + by, 0, ...next.splice(i, 1));
    return next;
  };
  return (
    <>
      <Quiet disabled={i === 0} label={`${name} sooner`} onClick={() => keep(moved(-1))}>
        sooner
      </Quiet>
      <Quiet disabled={i === of.length - 1} label={`${name} later`} onClick={() => keep(moved(1))}>
        later
      </Quiet>
    </>
  );
}
