import { useState } from 'react';

const CLOCK_KEY = 'ustle-clock';

/** Whether directions are told by the clock's hours; kept on this device, for all that is measured. */
export function useByClock(): [clock: boolean, set: (on: boolean) => void] {
  const [clock, setClock] = useState(() => localStorage.getItem(CLOCK_KEY) === '1');
  return [
    clock,
    (on) => {
      localStorage.setItem(CLOCK_KEY, on ? '1' : '0');
      setClock(on);
    },
  ];
}

export function ByClock({ clock, onClock }: { clock: boolean; onClock: (on: boolean) => void }) {
  return (
    <label className="flex min-h-9 items-center gap-2 pointer-coarse:min-h-11">
      <input type="checkbox" className="checkbox checkbox-sm" checked={clock} onChange={(event) => onClock(event.target.checked)} />
      by the clock{clock && <span className="text-quiet">(6 is the mark on the pot)</span>}
    </label>
  );
}
