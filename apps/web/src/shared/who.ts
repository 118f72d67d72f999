import { useSyncExternalStore } from 'react';
import { newId } from './new-id';

/** Who works on this device, as far as it was told, and the device itself: what it did, no other takes back. */
export interface Who {
  desk: string;
  /** null: nobody said. */
  name: string | null;
  /** It was asked once, and answered or left. */
  asked: boolean;
}

const KEY = 'ustle-who';
const listeners = new Set<() => void>();

function kept(): Who {
  try {
    const found = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Who | null;
    if (found?.desk) return found;
  } catch {
    // What cannot be read is made anew.
  }
  return { desk: newId(), name: null, asked: false };
}

function keep(who: Who): Who {
  try {
    localStorage.setItem(KEY, JSON.stringify(who));
  } catch {
    // Without a place to keep it, it holds until the page is left.
  }
  return who;
}

let now = keep(kept());

export const deskNow = (): string => now.desk;

/** What an act says of where it comes from. */
export const signed = (): { desk: string; who?: string } => ({ desk: now.desk, ...(now.name ? { who: now.name } : {}) });

/** Says who works here from now on; an empty name: nobody in particular. */
export function sayWho(name: string): void {
  now = keep({ ...now, name: name.trim() || null, asked: true });
  listeners.forEach((tell) => tell());
}

export const useWho = (): Who =>
  useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => now,
  );
