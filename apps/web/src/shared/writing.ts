import { useSyncExternalStore } from 'react';

let open = 0;
const listeners = new Set<() => void>();

function count(by: 1 | -1): void {
  open += by;
  listeners.forEach((tell) => tell());
}

/** Follows a write until it is answered: the page says that it is on its way, and asks before it is closed meanwhile. */
export async function followed<T>(write: Promise<T>): Promise<T> {
  count(1);
  try {
    return await write;
  } finally {
    count(-1);
  }
}

const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** Whether something written here has not been answered yet. */
export const useWriting = (): boolean => useSyncExternalStore(subscribe, () => open > 0);
