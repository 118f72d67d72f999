import { useEffect, useMemo } from 'react';

interface Kept<T> {
  at: string;
  data: T;
}

const keyOf = (name: string): string => `ustle-last-${name}`;

function read<T>(name: string): Kept<T> | null {
  try {
    return JSON.parse(localStorage.getItem(keyOf(name)) ?? 'null') as Kept<T> | null;
  } catch {
    return null;
  }
}

/** What was read, or where nobody answers what was read last on this device, with when that was (ISO, to the minute). */
export function useLast<T>(name: string, { data, error }: { data?: T; error?: unknown }): { data: T | undefined; asOf: string | null } {
  useEffect(() => {
    if (data === undefined) return;
    try {
      localStorage.setItem(keyOf(name), JSON.stringify({ at: new Date().toISOString().slice(0, 16), data } satisfies Kept<T>));
    } catch {
      // There is no room: without a network this page then has nothing.
    }
  }, [name, data]);
  const away = error !== undefined && data === undefined;
  const kept = useMemo(() => (away ? read<T>(name) : null), [away, name]);
  return { data: data ?? kept?.data, asOf: kept && data === undefined ? kept.at : null };
}
