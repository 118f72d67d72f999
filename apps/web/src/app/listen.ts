import { useEffect } from 'react';
import { paths, type Change } from '@ustle/contract';
import { refreshLists } from '../shared/traffic';
import { whileSeen } from '../shared/while-seen';
import { deskNow } from '../shared/who';

/** Changes that come close together are read once. */
const TOGETHER_MS = 250;

/** What others store is read here as it happens: the tree that is open, and the lists. */
export function useListening(inside: boolean): void {
  useEffect(() => {
    if (!inside) return;
    const changed = new Map<string, Change>();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const read = (): void => {
      const these = [...changed.values()];
      changed.clear();
      timer = undefined;
      refreshLists();
      void import('../shared/desk-store').then((m) => these.forEach((change) => void m.catchUp(change)));
    };
    // What was stored while nobody was heard is read once the line is there again.
    let heard = false;
    const stop = whileSeen(() => {
      const stream = new EventSource(paths.changes);
      stream.onopen = () => {
        if (heard) {
          refreshLists();
          void import('../shared/desk-store').then((m) => m.catchUpAll());
        }
        heard = true;
      };
      stream.onmessage = ({ data }) => {
        const change = JSON.parse(data as string) as Change;
        if (change.desk === deskNow()) return;
        changed.set(change.tree, change);
        timer ??= setTimeout(read, TOGETHER_MS);
      };
      return () => stream.close();
    });
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, [inside]);
}
