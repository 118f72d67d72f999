import { isoOf, type PastChoice } from '@ustle/core';
import { sayDate, sayWindow } from '../../shared/say';

/** What comes of leaving a branch so far past its target. */
export function sayRace({ race: { window, advice, limit } }: PastChoice): string {
  if (window) return `off ${sayWindow(isoOf(window.from), isoOf(window.to))}`;
  const by = limit === null ? '' : `, off by ${sayDate(isoOf(limit))}`;
  const then = {
    rewire: 'wire it again',
    guy: 'a guy after it',
    wrap: 'only over a wrap',
    'bend-further': 'bend further',
    wait: 'holds late',
    'remove-now': 'marks at once',
    window: '',
  };
  return `no clean day: ${then[advice]}${by}`;
}
