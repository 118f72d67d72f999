import { mutate } from 'swr';
import { paths } from '@ustle/contract';
import { deviceDay, yardDay } from './day';

/** How many changes are on their way or wait, and whether the server is away. */
export interface Traffic {
  waiting: number;
  away: boolean;
}
let traffic: Traffic = { waiting: 0, away: false };
const listeners = new Set<() => void>();
export const subscribeTraffic = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};
export const trafficNow = (): Traffic => traffic;

let acts = 0;
let others = 0;

function tell(away: boolean): void {
  const waiting = acts + others;
  const next = { waiting, away: away && waiting > 0 };
  if (next.waiting === traffic.waiting && next.away === traffic.away) return;
  traffic = next;
  listeners.forEach((listen) => listen());
}

/** Tells how many acts wait; and whether the server was found away, or there again, where that is known. */
export function tellActs(waiting: number, away = traffic.away): void {
  acts = waiting;
  tell(away);
}

/** Counts a write other than an act until it is answered: trees begun and brought in, steps. */
export async function counted<T>(write: Promise<T>): Promise<T> {
  others++;
  tell(traffic.away);
  try {
    return await write;
  } finally {
    others--;
    tell(traffic.away);
  }
}

/** What other pages show of the trees is out of date after a change. */
export const refreshLists = (): void =>
  void Promise.all([paths.trees, paths.season, paths.rack, paths.walk, paths.learned, paths.mail, paths.pace].map((path) => mutate(path)));

let told: { iso: string; on: string } | null = null;
/** The day that acts are judged by: the server's, when it told it. */
export const setToday = (iso: string): void => {
  told = { iso, on: deviceDay() };
};
/** The day now: a page that stays open goes on with the days. */
export const todayNow = (): string => (told ? yardDay(told.iso, told.on) : '');
