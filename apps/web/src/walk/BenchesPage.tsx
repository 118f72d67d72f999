import { useState } from 'react';
import { Link } from 'react-router';
import { mutate } from 'swr';
import { paths } from '@ustle/contract';
import type { Bench } from '@ustle/core';
import { useNotice } from '../app/notice';
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
  const move = (i: number, by: number): void => {
    const next = [...benches];
    next.splice(i + by, 0, ...next.splice(i, 1));
    void keep(next);
  };
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
            <Quiet disabled={i === 0} label={`${b.name} sooner`} onClick={() => move(i, -1)}>
              sooner
            </Quiet>
            <Quiet disabled={i === benches.length - 1} label={`${b.name} later`} onClick={() => move(i, 1)}>
              later
            </Quiet>
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
      <ul className="border-b border-rule">
        {trees
          .filter((t) => !t.asideOn)
          .sort((a, b) => (a.name < b.name ? -1 : 1))
          .map((t) => (
            <li key={t.id} className="border-t border-rule py-1">
              <label className="flex min-h-11 items-center gap-3">
                <span className="flex-1 font-serif text-lg">{t.name}</span>
                <select className="select w-52 bg-sheet" value={t.bench ?? ''} onChange={(event) => void put(t.id, event.target.value || null)}>
                  <option value="">on no bench</option>
                  {benches.map((b) => (
                    <option key={b.id} value={b.id}>
                      {b.name}
                    </option>
                  ))}
                </select>
              </label>
            </li>
          ))}
      </ul>
    </main>
  );
}
