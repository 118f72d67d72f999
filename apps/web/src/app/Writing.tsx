import { useEffect, useLayoutEffect, useState, useSyncExternalStore } from 'react';
import { subscribeTraffic, trafficNow } from '../shared/traffic';
import { count } from '../shared/say';

const SLOW_MS = 500;

/** Says what is on its way to the server or waits for it, and keeps the page from being closed over it. */
export function Writing() {
  const { waiting, away } = useSyncExternalStore(subscribeTraffic, trafficNow);
  const writing = waiting > 0;
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
    <p role="status" className={`fixed bottom-20 right-6 z-30 bg-sheet px-3 print:hidden ${away ? 'border-l-4 border-ochre py-1' : 'text-quiet'}`}>
      {away
        ? `The server does not answer. ${count(waiting, 'change')} ${waiting === 1 ? 'waits' : 'wait'} here and will be sent when it does.`
        : slow && 'Being written'}
    </p>
  );
}
