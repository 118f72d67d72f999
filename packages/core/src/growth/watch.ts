import { keepNothing, type Keep } from '../units/index.js';
import { coilsOn, type Coil, type PlacedTree, woodIn } from '../tree/index.js';
import { nextInspection, race, type Race } from './advice.js';
import { courseOf, stateNow, stateOf } from './coil-state.js';
import { chanceOfStage, forecast, stretchesOf, type CoilState, type Forecast } from './forecast.js';
import { NOTHING_LEARNT, type Known } from './known.js';
import { learnedOf, type Learned } from './learned.js';
import { snoozedUntil } from './snoozed.js';
import { toleranceOf } from './tolerance.js';
import { quantile } from './unknown.js';

/** What is known when a coil would be put on. */
export interface IfWired {
  keep?: Keep;
  known?: Known;
  learned?: Learned;
}

/** The race that a coil would run if it were put on today: for choosing how far past its target a bend is left. */
export function raceIfWired(
  placed: PlacedTree,
  wire: Pick<Coil, 'branch' | 'metal' | 'size' | 'strands' | 'angle' | 'bentDeg' | 'targetDeg' | 'over' | 'gap'>,
  onDay: number,
  { keep = keepNothing, known = NOTHING_LEARNT, learned = learnedOf(placed, onDay, known) }: IfWired = {},
): Race {
  const coil: Coil = { ...wire, run: '', since: onDay, hand: 'cw', start: 'over', wrap: 'none', turns: null, fromHere: false, cut: null, seen: [] };
  const unknown = learned.of(wire.branch);
  const state = stateOf(placed, coil, unknown, { course: courseOf(placed, known), spring: learned.spring, heldBefore: learned.heldBefore(coil) });
  const tolerance = toleranceOf(placed.tree);
  const told = { ...state, species: state.species.key, unknown: [0.05, 0.1, 0.2, 0.5, 0.8, 0.9].map((p) => quantile(unknown, p)) };
  return keep(`race ${JSON.stringify([onDay, tolerance, told])}`, () => race(state, onDay, null, tolerance));
}

/** What a rubber tube or folded mesh gives before the bark beds into it, mm, and how thick it is; own estimates. */
const CUSHION = { gives: 1.5, thick: 6 };

/** When a cushion will press and mark: the race of a coil that lies loose by what the cushion gives. */
export function cushionDates(
  placed: PlacedTree,
  on: { branch: string; since: number; seen: CoilState['seen'] },
  known: Known = NOTHING_LEARNT,
  learned: Learned = learnedOf(placed, on.since, known),
): Pick<Forecast, 'touching' | 'marking'> {
  const coil: Coil = {
    ...on,
    run: '',
    metal: 'copper',
    size: CUSHION.thick,
    strands: 1,
    angle: 90,
    gap: CUSHION.gives,
    wrap: 'none',
    hand: 'cw',
    start: 'over',
    bentDeg: null,
    targetDeg: null,
    over: null,
    turns: null,
    fromHere: false,
    cut: null,
    seen: [...on.seen],
  };
  return forecast(stateOf(placed, coil, learned.of(on.branch), { course: courseOf(placed, known), spring: learned.spring, heldBefore: 0 }));
}

/** A part of a coil with the days from which one in ten, and one in two, of its like mark. */
export interface StretchDates {
  where: 'bend' | 'straight';
  p10: number | null;
  p50: number | null;
}

export interface Watched {
  coil: Coil;
  state: CoilState;
  race: Race;
  /** Its stretches apart, where they differ: the turns that mark first may come off alone. */
  stretches: StretchDates[];
  lastSeen: Coil['seen'][number] | null;
  nextInspection: number;
  /** The look was put off to that day, and why. */
  snoozed: { until: number; why: string } | null;
}

/** When each stretch of a coil marks by itself; none where all its turns are alike. */
function stretchDates(state: CoilState): StretchDates[] {
  if (!state.straight) return [];
  return stretchesOf(state).map((stretch, i) => {
    const { p10, p50 } = forecast({ ...state, ...stretch, straight: null, bend: null }).marking;
    return { where: i ? 'straight' : 'bend', p10, p50 };
  });
}

/** The day of a look on which, by what was known before it, the window of a coil stood open; null where none did. */
function openBefore(placed: PlacedTree, coil: Coil, look: number, known: Known): number | null {
  const before = look - 1;
  if (before < coil.since || coil.cut?.day === look) return null;
  const learned = learnedOf(placed, before, known);
  const seen = coil.seen.filter((s) => s.day <= before);
  const taken = { course: courseOf(placed, known), spring: learned.spring, heldBefore: learned.heldBefore(coil) };
  const { window } = race(stateNow(placed, { ...coil, seen }, learned.of(coil.branch), taken), look, seen.at(-1)?.stage ?? null, toleranceOf(placed.tree));
  return window && window.from <= look && look <= window.to ? look : null;
}

/** Every coil on the tree on a day, with its race and the day to look at it, most urgent first. */
export function watch(placed: PlacedTree, onDay: number, known: Known = NOTHING_LEARNT): Watched[] {
  const { of: unknownOf, spring, heldBefore } = learnedOf(placed, onDay, known);
  const course = courseOf(placed, known);
  const tolerance = toleranceOf(placed.tree);
  return coilsOn(placed.tree, onDay)
    .filter((coil) => woodIn(placed, coil.branch) !== undefined)
    .map((coil): Watched => {
      const state = stateNow(placed, coil, unknownOf(coil.branch), { course, spring, heldBefore: heldBefore(coil) });
      const lastSeen = state.seen[state.seen.length - 1] ?? null;
      const raced = race(state, onDay, lastSeen?.stage ?? null, tolerance);
      const since = lastSeen?.stage === 'clear' && !(raced.window && raced.window.from <= onDay) ? openBefore(placed, coil, lastSeen.day, known) : null;
      const found = since === null ? raced : race(state, onDay, 'clear', tolerance, since);
      const tender = state.species.bark === 'thin' || woodIn(placed, coil.branch)!.branch.stage === 'shoot';
      const byRule = nextInspection(state, found.limit, found.forecast, lastSeen?.day ?? null, tender);
      const snoozed = snoozedUntil(placed.tree, coil, onDay);
      return {
        coil,
        state,
        race: found,
        stretches: stretchDates(state),
        lastSeen,
        snoozed,
        nextInspection: snoozed ? Math.max(byRule, Math.min(snoozed.until, found.limit ?? Infinity)) : byRule,
      };
    })
    .sort((a, b) => dueDay(a, onDay) - dueDay(b, onDay) || (a.coil.branch < b.coil.branch ? -1 : 1));
}

/** The day by which something is to be done with a coil: a look, or taking it off. */
export function dueDay({ race: { advice, window }, nextInspection: look }: Watched, onDay: number): number {
  if (advice === 'remove-now') return Math.min(look, onDay);
  return advice === 'window' && window
    ? Math.min(look, Math.max(window.firm ?? window.to, Math.floor(window.from + OWN_WALK * (window.to - window.from))))
    : look;
}

/** So late in its window a coil is worth a walk of its own. */
const OWN_WALK = 0.9;
/** From this share of the time to a look on, it is taken along on a walk. */
export const WALKED_BY = 0.5;
/** From this share on where that saves a walk. */
export const SAVES_WALK = 0.05;

/** The days from which a look is worth it when one walks by anyway, and when it saves a walk; of what is to come off in its window, the day from which it can. */
export function lookFrom(watched: Watched, onDay: number): { first: number; early: number } {
  const from = watched.lastSeen?.day ?? watched.coil.since;
  const { advice, window } = watched.race;
  const due = dueDay(watched, onDay);
  if (advice === 'window' && window && due !== watched.nextInspection) {
    const first = Math.max(window.along, from + 1);
    return { first, early: first };
  }
  return { first: Math.ceil(from + WALKED_BY * (due - from)), early: Math.ceil(from + SAVES_WALK * (due - from)) };
}

/** The chance that a coil marks by a day, as far as its tree bears no such mark: deep marks where shallow ones grow out. */
export const riskBy = ({ state, race: { tolerance } }: Watched, day: number): number => chanceOfStage(state, tolerance === 'none' ? 'marking' : 'deep', day);
