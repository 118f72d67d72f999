import { useEffect, useLayoutEffect, useState } from 'react';
import { useWriting } from '../shared/writing';

const SLOW_MS = 500;

/** Keeps the page from being closed over a change that is still on its way, and says so where it takes long. */
export function Writing() {
  const writing = useWriting();
  const [slow, setSlow] = useState(false);
  useLayoutEffect(() => {
    document.body.dataset.writing = writing ? '1' : '0';
  }, [writing]);
  useEffect(() => {
    if (!writing) return undefined;
    const hold = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener('beforeunload', hold);
    const timer = setTimeout(() => setSlow(true), SLOW_MS);
    return () => {
      window.removeEventListener('beforeunload', hold);
      clearTimeout(timer);
      setSlow(false);
    };
  }, [writing]);
  return (
    <p role="status" className="fixed bottom-20 right-6 z-30 bg-sheet px-3 text-quiet print:hidden">
      {slow && 'Being written'}
    </p>
  );
}
