import { Link, useRouteError } from 'react-router';

/** Shown in place of a page that failed; the rest of the application stays alive. */
export function ErrorPage({ missing = false }: { missing?: boolean }) {
  const error = useRouteError();
  return (
    <main className="p-8">
      <h1 className="text-2xl">{missing ? 'There is nothing at this address' : 'This page stopped working'}</h1>
      <p className="mt-2 max-w-xl text-quiet">
        {missing ? 'The tree or page may have been renamed.' : `What is stored is safe. ${error instanceof Error ? `It said: ${error.message}` : ''}`}
      </p>
      <Link className="btn btn-outline btn-primary mt-6" to="/bench">
        Back to the bench
      </Link>
    </main>
  );
}
