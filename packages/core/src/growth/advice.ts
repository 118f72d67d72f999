import { GROWING_WEEKS, lookAfter, TENDER_WEEKS } from './looks.js';
import { sayDay } from '../units/index.js';
import type { MarkStage, Tolerance } from '../tree/index.js';
import { allowance } from './marking.js';
import { chanceOfStage, forecast, type CoilState, type Forecast } from './forecast.js';

export type RaceAdvice = 'window' | 'rewire' | 'guy' | 'wrap' | 'bend-further' | 'remove-now' | 'wait';

/** Day numbers between which a coil comes off clean. */
export interface Window {
  /** From "set, four chances in five" to the day that it should be off by. */
  from: number;
  to: number;
  /** From when it is taken off where one walks by anyway. */
  along: number;
  /** From when it is worth a walk of its own: set, nine chances in ten; null where it should be off before. */
  firm: number | null;
}

export interface Race {
  forecast: Forecast;
  /** How much of a mark this tree bears, and the day that follows from it by which the wire should be off; null beyond fifteen years. */
  tolerance: Tolerance;
  limit: number | null;
  /** When it comes off clean; null where it should be off before it is set. */
  window: Window | null;
  advice: RaceAdvice;
  because: string[];
}

/** One or two coils more are usual on wood up to so thick (mm), one more on what is thicker; what is too thin for a tie is wired however often it takes. */
const MOST_COILS = 3;
const MOST_ON_THICK = 2;
const WIRED_AGAIN = 15;
const TOO_THIN_TO_TIE = 4;
/** Less than a turn is no coil. */
const LEAST_LEFT = 1;
/** Without a noted bend there is nothing to wait for once marking is so near, days. */
const NEAR_DAYS = 42;

/** The day it should be off by. On thin wire deep follows so soon on marking that its risk may come first: bearing a mark never shortens the time. */
function limitOf({ marking, deepRisk }: Forecast, tolerance: Tolerance): number | null {
  if (tolerance === 'none') return marking.p10;
  return marking.p10 === null || deepRisk === null ? null : Math.max(marking.p10, deepRisk);
}

function windowOf({ setAlong, set, ...found }: Forecast, tolerance: Tolerance, openSince: number | null = null): Window | null {
  const limit = limitOf({ setAlong, set, ...found }, tolerance);
  // A look that saw it clear tells of slower growth; it does not shut a window that stood open.
  const setSure = openSince === null ? found.setSure : Math.min(openSince, found.setSure ?? Infinity);
  if (setSure === null || (limit !== null && setSure > limit)) return null;
  const to = limit ?? setSure + 365;
  return { from: setSure, to, along: Math.min(setAlong ?? setSure, setSure), firm: set.p90 !== null && set.p90 <= to ? set.p90 : null };
}

const firstMark: Record<Tolerance, { stage: 'marking' | 'deep'; said: string; does: string }> = {
  none: { stage: 'marking', said: 'mark', does: 'marks' },
  fading: { stage: 'deep', said: 'mark deeply', does: 'marks deeply' },
};

/** No forecast of wood is good to the day. */
const sayWindow = ({ from, to }: Window): string => (to - from < 7 ? `in the week of ${sayDay(from)}` : `between ${sayDay(from)} and ${sayDay(to)}`);

/** What was seen decides before any forecast; null where nothing seen asks for it to come off. */
function bySight(last: MarkStage | null, tolerance: Tolerance): string[] | null {
  if (last === 'deep' || last === 'swallowed')
    return [`It was seen ${last}. Cut it off turn by turn, across the wire, without unwinding; the turns that lie free may stay.`];
  if (last !== 'marking') return null;
  if (tolerance === 'none') return ['It was seen marking. Cut off the turns that mark, across the wire, without unwinding; the rest may stay.'];
  return null;
}

/** The race of one coil as it stands on a day, with advice. `last` is what was last seen of it, `openSince` the day on which its window was seen to stand open. docs: The race. */
export function race(coil: CoilState, onDay: number, last: MarkStage | null, tolerance: Tolerance, openSince: number | null = null): Race {
  const found = forecast(coil);
  const limit = limitOf(found, tolerance);
  const window = windowOf(found, tolerance, openSince);
  const { setSure } = found;
  const { stage, said, does } = firstMark[tolerance];
  const fade = coil.species.markFadeYears;
  const notes = [
    ...(last === 'marking' && tolerance === 'fading'
      ? [`It marks; on this bark a shallow mark grows out in about ${fade === 1 ? 'a year' : `${fade ?? 3} years`}.`]
      : []),
    ...(coil.bend?.assumedLength ? [`The length of its bend was not noted: ${coil.bend.assumedLength.toFixed(0)} mm are taken.`] : []),
  ];
  const result = (advice: RaceAdvice, ...because: string[]): Race => ({ forecast: found, tolerance, limit, window, advice, because: [...because, ...notes] });

  if (coil.cut && coil.cut.left !== null && coil.cut.left < LEAST_LEFT)
    return result('remove-now', 'Less than a turn is left of it, and that holds nothing: take the rest off.');
  const seen = bySight(last, tolerance);
  if (seen) return result('remove-now', ...seen);
  const risk = chanceOfStage(coil, stage, onDay);
  if (risk >= 0.5)
    return result('remove-now', `By now it ${risk >= 0.9 ? 'almost surely' : 'more likely than not'} ${does}. Look today, and cut it off where it does.`);
  if (window) {
    return onDay > window.to
      ? result('remove-now', `Set, and since ${sayDay(window.to)} it may ${said}.`)
      : result('window', `Off ${sayWindow(window)}: set by then, and not likely to ${said} yet.`);
  }
  if (!coil.bend) {
    const near = limit !== null && limit - onDay <= NEAR_DAYS;
    const why = 'No bend is noted for this coil, so only marking is forecast. Note the angle to know when it holds.';
    return near
      ? result('rewire', `It may ${said} from ${sayDay(limit)}: cut it off before that, and wire again if it does not hold.`, why)
      : result('wait', why);
  }
  if (limit === null) return result('wait', `It neither holds nor is likely to ${said} within fifteen years.`);
  const span = Math.max(1, limit - coil.since);
  const coils = setSure === null ? Infinity : Math.ceil((setSure - coil.since) / span);
  const mayMark = `It may ${said} from ${sayDay(limit)}`;
  if (coils <= (coil.diameter <= WIRED_AGAIN ? MOST_COILS : MOST_ON_THICK))
    return result('rewire', `${mayMark} and holds by ${sayDay(setSure!)}: cut it off before it does and wire again between its marks, ${coils} coils in all.`);
  if (allowance(0, 'raffia') > coil.allowance) {
    const wrapped = windowOf(forecast({ ...coil, allowance: allowance(0, 'raffia') }), tolerance);
    if (wrapped)
      return result('wrap', `It would ${said} before it holds. Over a wrap of raffia there is a window from ${sayDay(wrapped.from)} to ${sayDay(wrapped.to)}.`);
  }
  const never = setSure === null ? 'would not hold within fifteen years' : `holds only by ${sayDay(setSure)}`;
  if (coil.diameter < TOO_THIN_TO_TIE)
    return result(
      'rewire',
      `${mayMark} but ${never}, and it is too thin to be tied: cut it off before it does and wire it again, or let it grow and cut it to shape.`,
    );
  return result('guy', `${mayMark} but ${never}: once the shape is in, let a tie hold it where one can be set, else wire it again each time.`);
}

/** No coil is looked at again sooner than after so many days, unless it should be off by then: what would mark before the next look comes off at this one. */
export const LEAST_DAYS = 28;
/** Shares of the time to the day that it should be off by: until the first look, and between later ones, which rest on what was seen. */
const FIRST_SHARE = 0.5;
const SOONEST = 3;
const LATER_SHARE = 0.95;
/** That the bark presses is nothing to hurry for: not sooner than after so many days. */
const TOUCH_DAYS = 14;
/** Thin bark and shoots are looked at as often as they need once it may mark within so many days of the last look; till then every four weeks. */
const TENDER_NEAR = 28;
const TENDER_FAR_WEEKS = 4;

/** The day to look at a coil next: counted from the last look (or from putting it on), never later than half the time to the day that it should be off. */
export function nextInspection(coil: CoilState, limit: number | null, found: Forecast, lastLook: number | null, tender: boolean): number {
  const from = lastLook ?? coil.since;
  const near = limit !== null && limit - from <= TENDER_NEAR;
  const rule = lookAfter(coil.species, coil.hemisphere, from, !tender ? GROWING_WEEKS : near ? TENDER_WEEKS : TENDER_FAR_WEEKS);
  const left = limit === null ? Infinity : Math.max(SOONEST, limit - from);
  if (lastLook !== null) return Math.min(rule, from + Math.min(left, Math.max(LEAST_DAYS, Math.floor(left * LATER_SHARE))));
  const touch = found.firstTouch === null ? Infinity : Math.max(found.firstTouch, from + TOUCH_DAYS);
  return Math.min(rule, from + Math.max(SOONEST, Math.floor(left * FIRST_SHARE)), touch);
}
