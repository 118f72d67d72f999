import { useEffect, useState } from 'react';

/** Time spent at a step, kept on this device so that a reload loses none of it. */
interface Kept {
  key: string;
  seconds: number;
  /** When it was counted last, ms. */
  at: number;
  paused: boolean;
  /** When the rest before the step ends, ms; 0 where there is none. */
  restUntil: number;
}

const KEY = 'ustle-work-clock';
/** Whoever was away for longer was not at the step: that time is not counted. */
const AWAY_S = 15 * 60;

/** The clock after some time has passed. */
export function ticked(kept: Kept, now: number): Kept {
  const passed = (now - kept.at) / 1000;
  const counted = kept.paused || passed < 0 || passed > AWAY_S ? 0 : passed;
  return { ...kept, seconds: kept.seconds + counted, at: now };
}

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

/** "4:05", "1:02:30" */
export function sayClock(seconds: number): string {
  const s = Math.floor(seconds);
  const two = (n: number): string => String(n).padStart(2, '0');
  const hours = Math.floor(s / 3600);
  return `${hours ? `${hours}:${two(Math.floor(s / 60) % 60)}` : Math.floor(s / 60)}:${two(s % 60)}`;
}
