import { useState } from 'react';

/** The time that there is for a walk, minutes; the last one: as long as it takes. */
export const MINUTES = [20, 40, 60, 600] as const;
const KEY = 'ustle-walk-minutes';
const USUAL = 40;

const kept = (): number => {
  try {
    return Number(localStorage.getItem(KEY)) || USUAL;
  } catch {
    return USUAL;
  }
};

/** The time for today's walk, kept on this device. */
export function useMinutes(): [number, (minutes: number) => void] {
  const [minutes, set] = useState(kept);
  return [
    minutes,
    (next) => {
      set(next);
      try {
        localStorage.setItem(KEY, String(next));
      } catch {
        // Not kept, it holds for this walk.
      }
    },
  ];
}
