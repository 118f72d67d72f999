import { sayDay } from '../units/index.js';
import { isGrowing } from '../species/index.js';
import type { MarkStage } from '../tree/index.js';
import { allowance } from './marking.js';
import { chanceOfStage, forecast, type CoilState, type Forecast } from './forecast.js';

export type RaceAdvice = 'window' | 'rewire' | 'guy' | 'wrap' | 'bend-further' | 'remove-now' | 'wait';

export interface Race {
  forecast: Forecast;
  /** From "set, four chances in five" to "marking, one in ten"; null where the second comes first. */
  window: { from: number; to: number } | null;
  advice: RaceAdvice;
  because: string[];
}

const MARKED: readonly MarkStage[] = ['marking', 'deep', 'swallowed'];
/** Wire that must go on more often than this is the wrong device. */
const MOST_COILS = 4;

function windowOf({ setSure, marking }: Forecast): Race['window'] {
  return setSure !== null && (marking.p10 === null || setSure <= marking.p10) ? { from: setSure, to: marking.p10 ?? setSure + 365 } : null;
}

/** The race of one coil as it stands on a day, with advice. `last` is what was last seen of it. */
export function race(coil: CoilState, onDay: number, last: MarkStage | null): Race {
  const found = forecast(coil);
  const window = windowOf(found);
  const { marking, setSure } = found;
  const result = (advice: RaceAdvice, ...because: string[]): Race => ({ forecast: found, window, advice, because });

  if (last && MARKED.includes(last)) {
    return result('remove-now', `It was seen ${last}. Cut off the turns that mark, across the wire, without unwinding; the rest may stay.`);
  }
  const risk = chanceOfStage(coil, 'marking', onDay);
  if (risk >= 0.5) return result('remove-now', `By now it marks with ${percent(risk)}. Look today, and cut it off where it presses.`);
  if (window) {
    return onDay > window.to
      ? result('remove-now', `Set, and since ${sayDay(window.to)} the chance of a mark is over one in ten.`)
      : result('window', `Off between ${sayDay(window.from)} and ${sayDay(window.to)}: set by then, not yet marking.`);
  }
  if (!coil.bend) return result('wait', 'No bend is noted for this coil, so only marking is forecast. Note the angle to know when it holds.');
  if (marking.p10 === null) return result('wait', 'It neither marks nor holds within fifteen years.');
  const markSpan = Math.max(1, marking.p10 - coil.since);
  const coils = setSure === null ? Infinity : Math.ceil((setSure - coil.since) / markSpan);
  if (coils <= MOST_COILS) {
    return result(
      'rewire',
      `It may mark from ${sayDay(marking.p10)} and holds by ${sayDay(setSure!)}: cut it off before it marks and wire again, ${coils} coils in all.`,
    );
  }
  if (allowance(0, 'raffia') > coil.allowance) {
    const wrapped = windowOf(forecast({ ...coil, allowance: allowance(0, 'raffia') }));
    if (wrapped)
      return result('wrap', `It would mark before it holds. Over a wrap of raffia there is a window from ${sayDay(wrapped.from)} to ${sayDay(wrapped.to)}.`);
  }
  return result(
    'guy',
    setSure === null
      ? `It may mark from ${sayDay(marking.p10)} and would not hold within fifteen years: once the shape is in, let a guy hold it.`
      : `It may mark from ${sayDay(marking.p10)} but holds only by ${sayDay(setSure)}: once the shape is in, let a guy hold it.`,
  );
}

const percent = (p: number): string => `${Math.round(p * 100)}% likelihood`;

const DORMANT_WEEKS = 12;
const GROWING_WEEKS = 6;
const TENDER_WEEKS = 2;

/** The day to look at a coil next: counted from the last look (or from putting it on), never later than half the time to marking. */
export function nextInspection(coil: CoilState, found: Forecast, lastLook: number | null, tender: boolean): number {
  const from = lastLook ?? coil.since;
  const weeks = tender ? TENDER_WEEKS : GROWING_WEEKS;
  // Each day uses up its share of the longest interval; dormant days count less.
  let used = 0;
  let day = from;
  while (used < 1 - 1e-9 && day < from + DORMANT_WEEKS * 7) {
    used += 1 / (7 * (isGrowing(coil.species, coil.hemisphere, day) ? weeks : DORMANT_WEEKS));
    day++;
  }
  const halfway = found.marking.p10 === null ? Infinity : from + Math.max(3, Math.floor((found.marking.p10 - from) / 2));
  const touch = lastLook === null && found.firstTouch !== null ? Math.max(found.firstTouch, from + 3) : Infinity;
  return Math.min(day, halfway, touch);
}
