import type { ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import type { StoredTree } from '@ustle/contract';
import { speciesOf } from '@ustle/core';
import { Skeleton } from '../shared/parts';
import { useTree, useYard } from '../shared/queries';
import { sayDate } from '../shared/say';
import { useTitle } from '../shared/use-title';

/** A page of one tree to be printed, or read on the phone beside it. */
export function PrintPage({
  what,
  back,
  file,
  children,
}: {
  what: string;
  back: string;
  file?: (id: string) => string;
  children: (stored: StoredTree, today: string) => ReactNode;
}) {
  const { id = '' } = useParams();
  const { data: stored, error } = useTree(id);
  const { data: yard } = useYard();
  useTitle(stored ? `${stored.tree.name}, ${what}` : what);
  if (error && !stored) return <p className="p-8 text-madder">{error.message}</p>;
  return (
    <main className="mx-auto max-w-3xl px-4 py-4 print:max-w-none print:p-0">
      {!stored || !yard ? (
        <Skeleton lines={9} />
      ) : (
        <>
          <header className="flex flex-wrap items-baseline justify-between gap-3">
            <div>
              <h1 className="text-2xl">
                {stored.tree.name}: {what}
              </h1>
              <p className="text-quiet">
                {speciesOf(stored.tree.species).name}, {sayDate(yard.today)}
              </p>
            </div>
            <div className="flex gap-2 print:hidden">
              <Link className="btn btn-ghost btn-sm" to={`/tree/${id}/${back}`}>
                Back
              </Link>
              {file && (
                <a className="btn btn-outline btn-primary btn-sm" href={file(id)} target="_blank" rel="noreferrer">
                  PDF
                </a>
              )}
              <button type="button" className="btn btn-primary btn-sm" onClick={() => window.print()}>
                Print
              </button>
            </div>
          </header>
          {children(stored, yard.today)}
        </>
      )}
    </main>
  );
}
