import { dayOf, isoOf } from '@ustle/core';

/** The day on this device, ISO, in its own time zone. */
export function deviceDay(now = new Date()): string {
  return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
}

/** What day it is in the yard, where it was a day when this device had another: as many days on as have passed here since. */
export const yardDay = (told: string, toldOn: string, now = deviceDay()): string => isoOf(dayOf(told) + Math.max(0, dayOf(now) - dayOf(toldOn)));

let asked = false;
/** Asks the browser, once, not to clear away what waits on this device to be sent. */
export function askToKeep(): void {
  if (asked || typeof navigator === 'undefined') return;
  asked = true;
  void navigator.storage?.persist?.().catch(() => undefined);
}
