import { useEffect, useState } from 'react';
import { ticked, type Kept } from './ticking';

const KEY = 'ustle-work-clock';
function read(key: string, restMinutes: number): Kept {
  const now = Date.now();
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Kept | null;
    if (kept?.key === key) return ticked(kept, now);
  } catch {
    // What cannot be read is begun anew.
  }
  return { key, seconds: 0, at: now, paused: false, restUntil: restMinutes ? now + restMinutes * 60_000 : 0 };
}

/** A short ring, twice; silent where the browser lets nothing be heard. */
function ring(): void {
  try {
    const audio = new AudioContext();
    for (const start of [0, 0.45]) {
      const tone = audio.createOscillator();
      const loud = audio.createGain();
      tone.frequency.value = 660;
      loud.gain.setValueAtTime(0.2, audio.currentTime + start);
      loud.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + start + 0.35);
      tone.connect(loud).connect(audio.destination);
      tone.start(audio.currentTime + start);
      tone.stop(audio.currentTime + start + 0.4);
    }
    setTimeout(() => void audio.close(), 1500);
  } catch {
    // No sound here: it is said on the page as well.
  }
}

export interface Clock {
  minutes: number;
  seconds: number;
  paused: boolean;
  /** Seconds of rest that are left. */
  rest: number;
  pause: (paused: boolean) => void;
  endRest: () => void;
}

/** The clock of a step: it runs by itself while the step is shown; its rest rings when it is over. One for each step: another one is another component. */
export function useClock(key: string, restMinutes: number): Clock {
  const [own, setOwn] = useState(() => read(key, restMinutes));
  useEffect(() => {
    const timer = setInterval(
      () =>
        setOwn((before) => {
          const next = ticked(before, Date.now());
          if (next.restUntil && before.at < next.restUntil && next.at >= next.restUntil) ring();
          localStorage.setItem(KEY, JSON.stringify(next));
          return next;
        }),
      1000,
    );
    return () => clearInterval(timer);
  }, []);
  const change = (of: Partial<Kept>): void =>
    setOwn((before) => {
      const next = { ...ticked(before, Date.now()), ...of };
      localStorage.setItem(KEY, JSON.stringify(next));
      return next;
    });
  return {
    seconds: own.seconds,
    minutes: Math.round((own.seconds / 60) * 2) / 2,
    paused: own.paused,
    rest: own.restUntil ? Math.max(0, Math.round((own.restUntil - own.at) / 1000)) : 0,
    pause: (paused) => change({ paused }),
    endRest: () => change({ restUntil: 0 }),
  };
}
