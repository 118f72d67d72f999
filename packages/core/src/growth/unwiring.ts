import { northernMonth, speciesOf } from '../species/index.js';
import type { UnwireMethod } from '../tree/index.js';
import { LEAST_DAYS } from './advice.js';
import { chanceOfStage, chanceSet } from './forecast.js';
import type { Watched } from './watch.js';

/** What of a coil to take off, and how. */
export interface Unwiring {
  take: 'none' | 'marking' | 'all';
  how: UnwireMethod;
  /** Pieces that there will be when each turn is cut, about; null where its turns were not noted. */
  pieces: number | null;
  because: string[];
  /** What the season makes of wounds that open now. */
  warnings: string[];
}

/** Wire that marks with a greater chance than this is cut, not unwound. */
const MAY_MARK = 0.1;
/** Wire thicker than this is not unwound from a branch: it would be bent with it, mm. */
const UNWINDS = 4;
/** Wire without a window comes off at a look within the last four weeks of its time, and not before two thirds of it. */
const LAST_SHARE = 1 / 3;
const LATE_MONTHS = [9, 10, 11];
const BLEEDING_MONTHS = [2, 3, 4];

/** What of a coil comes off on a day. */
export function whatToTake({ race: { advice, window, limit }, coil, state, lastSeen }: Watched, day: number): Unwiring['take'] {
  const grownIn = lastSeen !== null && lastSeen.stage !== 'clear' && lastSeen.stage !== 'touching';
  if (advice === 'remove-now') return grownIn && (chanceSet(state, day) ?? 1) < 0.5 ? 'marking' : 'all';
  if (window) return window.along <= day ? 'all' : 'none';
  return limit !== null && limit - day <= Math.min(LEAST_DAYS, LAST_SHARE * (limit - coil.since)) ? 'all' : 'none';
}

/** What to take off a coil on a day, how, and what to mind. docs: Taking off. */
export function unwiringOf(watched: Watched, day: number): Unwiring {
  const { coil, state, lastSeen } = watched;
  const { advice, window } = watched.race;
  const { species } = state;
  const take = whatToTake(watched, day);
  const marks = lastSeen !== null && (lastSeen.stage === 'marking' || lastSeen.stage === 'deep' || lastSeen.stage === 'swallowed');
  const cutWhy = marks
    ? 'It has grown in: cut each turn across, and lift the pieces out; unwinding tears the bark.'
    : coil.metal === 'copper'
      ? 'Copper has hardened: cut each turn and lift it off.'
      : species.bark === 'thin'
        ? 'The bark is thin: cut each turn and lift it off.'
        : chanceOfStage(state, 'marking', day) > MAY_MARK
          ? 'It may have marked where nobody sees: cut each turn and lift it off.'
          : coil.size > UNWINDS
            ? 'It is too thick to be unwound without bending the branch: cut each turn.'
            : null;
  const month = northernMonth(state.hemisphere, day);
  const wounds = marks || chanceOfStage(state, 'marking', day) > 0.5;
  return {
    take,
    how: cutWhy ? 'cut' : 'unwound',
    pieces: coil.turns === null ? null : Math.max(1, Math.round(coil.turns)) * coil.strands,
    because: [
      ...(take === 'all' && advice === 'window' && day < window!.from ? ['It has likely set, three chances in four: off, now that you are at it.'] : []),
      ...(take === 'marking' ? ['Take off the turns that mark, and leave those that lie free: they hold on.'] : []),
      cutWhy ?? 'It lies free: it may be unwound by hand from its end, cut shorter as you go.',
    ],
    warnings: [
      ...(wounds && LATE_MONTHS.includes(month)
        ? ['Wounds opened this late close next spring only: keep the tree out of hard frost, and take only what must come off.']
        : []),
      ...(wounds && speciesOf(species.key).bleeds && BLEEDING_MONTHS.includes(month)
        ? ['It bleeds before it is in leaf: where bark opens now, sap will run.']
        : []),
    ],
  };
}
