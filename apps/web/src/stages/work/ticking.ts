/** Time spent at a step, kept on this device so that a reload loses none of it. */
export interface Kept {
  key: string;
  seconds: number;
  /** When it was counted last, ms. */
  at: number;
  paused: boolean;
  /** When the rest before the step ends, ms; 0 where there is none. */
  restUntil: number;
}

/** Whoever was away for longer was not at the step: that time is not counted. */
const AWAY_S = 15 * 60;

/** The clock after some time has passed. */
export function ticked(kept: Kept, now: number): Kept {
  const passed = (now - kept.at) / 1000;
  const counted = kept.paused || passed < 0 || passed > AWAY_S ? 0 : passed;
  return { ...kept, seconds: kept.seconds + counted, at: now };
}

/** "4:05", "1:02:30" */
export function sayClock(seconds: number): string {
  const s = Math.floor(seconds);
  const two = (n: number): string => String(n).padStart(2, '0');
  const hours = Math.floor(s / 3600);
  return `${hours ? `${hours}:${two(Math.floor(s / 60) % 60)}` : Math.floor(s / 60)}:${two(s % 60)}`;
}
