import { groupedBy, dayOf, isoOf, toDeg } from '../units/index.js';
import { growingDaysAlong, grownAlong, type Course } from './course.js';
import { settingOf, speciesOf } from '../species/index.js';
import { heldShare } from '../wood/index.js';
import { calipersOf, coilHistory, standing, woodIn, type Coil, type CoilOnce, type PlacedTree, type RecordLine, type Tree } from '../tree/index.js';
import { courseOf, growthFactor, stateOf } from './coil-state.js';
import { expectedGrowth, growthBetween, stretchesOf, type CoilState } from './forecast.js';
import { after, NOTHING_LEARNT, type Known, type Said } from './known.js';
import { learn, type Learnt, type SeenStage, type Sighting } from './learn.js';
import { NOTHING_KNOWN, type Guess, withBranch, type Unknown } from './unknown.js';

/** What a tree's record taught. */
export interface Learned extends Learnt {
  /** The logarithm of how much more than computed springs back when wire comes off. */
  spring: Guess;
  /** The angle that a branch held when a coil went on: what was measured, or foreseen, when the one before it came off; degrees. */
  heldBefore: (coil: Pick<Coil, 'branch' | 'since' | 'fromHere'>) => number;
  /** What was measured of springing back, beside what others said; and at how many coils. */
  springSaid: Said;
  /** Looks, gaps and thicknesses that growth was learnt from. */
  looks: number;
}

/** How well a gap, and a caliper on bark, tell growth; mm of radius. */
const GAP_ERROR = 0.15;
const CALIPER_ERROR = 0.15;
/** A season comes early or late, and its flush is steeper or flatter, by about so many days; own estimate, see the simulated yards. */
const SEASON_DAYS = 14;
/** A pace said by the artist is taken nearly as said. */
const SAID_SD = 0.08;
/** How well a bend's angle is measured, degrees; and how far one bend differs from another of its tree. */
const ANGLE_ERROR = 3;
const BEND_SD = 0.3;
/** The angle that a branch holds is what is measured within so many days of unwiring. */
const HOLDS_WITHIN = 60;
const LEAST_SPRING = 0.3;

const NO_SPRING: Guess = { mean: 0, sd: 0 };

const yearOf = (day: number): number => Number(isoOf(day).slice(0, 4));

type History = ReturnType<typeof coilHistory>;

/** The looks that tell something of their own: the last at which a coil was still clear, and of each later stage the first and the last. */
const telling = (seen: Coil['seen']): Coil['seen'] =>
  seen.filter((s, i) => {
    const same = (other: Coil['seen'][number] | undefined): boolean => other?.stage === s.stage;
    return !same(seen[i + 1]) || (s.stage !== 'clear' && !same(seen[i - 1])) || s.gap !== undefined;
  });

/** Stages and gaps seen on coils, those off included, and thicknesses measured again. */
function sightingsOf(placed: PlacedTree, history: History, states: ReadonlyMap<Coil, CoilState>, since: number, onDay: number): Sighting[] {
  const seen = history.flatMap((coil): Sighting[] => {
    const state = states.get(coil)!;
    // Early, the season was as far on when the coil went on as well, if that was in the same year.
    const off = (day: number): number => {
      const shifted = (days: number): number => growthBetween(state, yearOf(state.since) === yearOf(day) ? state.since + days : state.since, day + days);
      return (shifted(SEASON_DAYS) - shifted(-SEASON_DAYS)) / 2;
    };
    const expectedBy = (day: number): SeenStage['expected'] =>
      stretchesOf(state).map((s) => ({
        growth: (expectedGrowth(state, day) / state.factor) * s.factor,
        off: (off(day) / state.factor) * s.factor,
        allowance: s.allowance,
      }));
    // Of what was left after a cut nobody knows which turns are looked at.
    return telling(coil.seen.filter(({ day }) => day >= since && (!coil.cut || day <= coil.cut.day))).flatMap(({ day, stage, gap }): Sighting[] => [
      { branch: coil.branch, year: yearOf(day), stage, expected: expectedBy(day), markLimit: state.markLimit, wireDiameter: coil.size },
      ...(gap !== undefined && gap > 0 && coil.gap > 0
        ? [
            {
              branch: coil.branch,
              year: yearOf(day),
              expected: expectedGrowth(state, day),
              off: off(day),
              grown: Math.max(0, coil.gap - gap),
              within: GAP_ERROR,
            },
          ]
        : []),
    ]);
  });
  return [...seen, ...thicknesses(placed, since, onDay)];
}

/** Two measures of a thickness within so many days tell no growth: the later one corrects the other. */
const APART_DAYS = 14;

/** Growth between two measurements of one branch's thickness. */
function thicknesses(placed: PlacedTree, since: number, onDay: number): Sighting[] {
  const { tree } = placed;
  const species = speciesOf(tree.species);
  const course = courseOf(placed, NOTHING_LEARNT);
  return placed.branches.flatMap(({ branch: { id } }) => {
    const readings = calipersOf(tree, id).flatMap(({ d, day }) => (day === null || day > onDay ? [] : [{ d, day }]));
    return readings.slice(1).flatMap((now, i): Sighting[] => {
      const before = readings[i]!;
      if (before.day < since || now.day - before.day < APART_DAYS) return [];
      const expected = species.yearlyGrowth.value * growthFactor(placed, id) * grownAlong(species, tree.site.hemisphere, course, before.day, now.day);
      return [{ branch: id, year: yearOf(now.day), expected, off: 0, grown: (now.d - before.d) / 2, within: CALIPER_ERROR }];
    });
  });
}

interface Angle {
  branch: string;
  day: number;
  deg: number;
}
const angles = new WeakMap<readonly RecordLine[], Map<string, Angle[]>>();
/** The angles that branches were measured to hold, oldest first; not those of ties. */
function anglesIn(record: readonly RecordLine[]): ReadonlyMap<string, readonly Angle[]> {
  let found = angles.get(record);
  if (!found) {
    const told = standing(record).flatMap((line) =>
      line.kind === 'measured' && line.branch && line.heldDeg !== undefined && !line.guy
        ? [{ branch: line.branch, day: dayOf(line.on), deg: line.heldDeg }]
        : [],
    );
    angles.set(record, (found = groupedBy(told, (t) => t.branch)));
  }
  return found;
}

/** The bend that a branch held after its wire came off, degrees: the last measured within two months; null where none was. */
export function heldAfter(placed: PlacedTree, { branch, offOn, off }: History[number], onDay: number): number | null {
  if (offOn === null || offOn > onDay) return null;
  const later = (anglesIn(placed.tree.record).get(branch) ?? []).flatMap(({ day, deg }) =>
    day >= offOn && day <= Math.min(onDay, offOn + HOLDS_WITHIN) ? [deg] : [],
  );
  return later[later.length - 1] ?? off?.heldDeg ?? null;
}

/** The bend that the forecast has a branch hold after its wire came off on a day, degrees, by median growth; null without a noted bend. */
export function heldByForecast(state: CoilState, coil: Coil, day: number): { wiredDeg: number; heldDeg: number } | null {
  if (!state.bend || !coil.bentDeg) return null;
  const { species, hemisphere, course, since, diameter } = state;
  const wiredDeg = toDeg(state.bend.wired * (coil.over ?? state.bend.assumedLength ?? 0));
  const share = heldShare({
    diameter,
    curvature: state.bend.wired,
    recoverable: state.bend.stored,
    growingDays: growingDaysAlong(species, hemisphere, course, since, day),
    ...settingOf(species, diameter),
    radialGrowth: expectedGrowth(state, day),
  });
  return { wiredDeg, heldDeg: wiredDeg * share };
}

/** What the angles measured after unwiring say of how much springs back: logarithm of the share of what was computed. docs: Learning. */
function springSaid(placed: PlacedTree, history: History, states: ReadonlyMap<Coil, CoilState>, since: number, onDay: number): Said {
  let [sum, precision] = [0, 0];
  for (const coil of history) {
    const held = heldAfter(placed, coil, onDay);
    const computed = held === null || coil.offOn! < since ? null : heldByForecast(states.get(coil)!, coil, coil.offOn!);
    if (held === null || !computed) continue;
    const lost = computed.wiredDeg - computed.heldDeg;
    if (lost < 0.5) continue;
    const weight = 1 / ((ANGLE_ERROR / lost) ** 2 + BEND_SD ** 2);
    sum += weight * Math.log(Math.max(LEAST_SPRING * lost, computed.wiredDeg - held) / lost);
    precision += weight;
  }
  return { mean: precision ? sum / precision : 0, precision };
}

/** What a tree's growth is taken for before its own looks count: what its artist said, else what others of its kind showed; a normal law about a logarithm. */
const firstGuess = (tree: Tree, known: Known): { about: number; guess: Guess } =>
  tree.plan.pace ? { about: Math.log(tree.plan.pace), guess: { mean: 0, sd: SAID_SD } } : { about: 0, guess: known.growth };

/** What is taken of any branch of a tree before its own looks count. */
export function beforeLooks(tree: Tree, known: Known): Unknown {
  const { about, guess } = firstGuess(tree, known);
  return withBranch({ ...guess, mean: about + guess.mean });
}

/** Wire that goes on again within so many days goes on to the shape that the one before it left. */
const AGAIN_WITHIN = 400;

/** The angle that each branch holds from the coil before, by the coil's day; 0 where there was none. */
function heldBeforeOf(placed: PlacedTree, history: History, course: Course, onDay: number): Learned['heldBefore'] {
  const held = new Map<CoilOnce, number>();
  const byBranch = groupedBy(history, (coil) => coil.branch);
  const before = ({ branch, since, fromHere }: Pick<Coil, 'branch' | 'since' | 'fromHere'>): number => {
    if (fromHere) return 0;
    const last = (byBranch.get(branch) ?? []).filter((c) => c.offOn !== null && c.offOn <= since && c.since < since && since - c.offOn <= AGAIN_WITHIN).pop();
    // What was bent under that one, and is told with where it turns, is in the line of the branch.
    return last && !last.fromHere ? angleOf(last) : 0;
  };
  const angleOf = (coil: CoilOnce): number => {
    if (!held.has(coil)) {
      const state = (): CoilState => stateOf(placed, coil, NOTHING_KNOWN, { course, spring: NO_SPRING, heldBefore: before(coil) });
      held.set(coil, heldAfter(placed, coil, onDay) ?? heldByForecast(state(), coil, coil.offOn!)?.heldDeg ?? 0);
    }
    return held.get(coil)!;
  };
  return before;
}

/** Share of its bend under the wire that a branch kept when that came off, and whether it was measured; null while the wire is on, or where no bend was noted. */
export type KeptOf = (coil: CoilOnce) => { share: number; measured: boolean } | null;

/** What branches kept of their bends when their wire came off: as measured by a day, else as foreseen by median growth. */
export function keptOf(placed: PlacedTree, history: History, onDay: number): KeptOf {
  const course = courseOf(placed, NOTHING_LEARNT);
  const heldBefore = heldBeforeOf(placed, history, course, onDay);
  const known = new Map<CoilOnce, ReturnType<KeptOf>>();
  return (coil) => {
    if (!known.has(coil)) known.set(coil, ofCoil(coil));
    return known.get(coil)!;
  };

  function ofCoil(coil: CoilOnce): ReturnType<KeptOf> {
    if (coil.offOn === null) return null;
    const state = stateOf(placed, coil, NOTHING_KNOWN, { course, spring: NO_SPRING, heldBefore: heldBefore(coil) });
    const foreseen = heldByForecast(state, coil, coil.offOn);
    if (!foreseen || foreseen.wiredDeg <= 0) return null;
    const measured = heldAfter(placed, coil, onDay);
    return { share: Math.max(0, (measured ?? foreseen.heldDeg) / foreseen.wiredDeg), measured: measured !== null };
  }
}

/** What every look, gap, thickness and spring-back on the tree says of its branches, coils already off included. */
export function learnedOf(placed: PlacedTree, onDay: number, known: Known = NOTHING_LEARNT): Learned {
  const { tree } = placed;
  const since = tree.plan.learnFrom ? dayOf(tree.plan.learnFrom) : -Infinity;
  const course = courseOf(placed, known);
  const history = coilHistory(tree, onDay).filter((coil) => woodIn(placed, coil.branch) !== undefined);
  const heldBefore = heldBeforeOf(placed, history, course, onDay);
  const states = new Map<Coil, CoilState>(
    history.map((coil) => [coil, stateOf(placed, coil, NOTHING_KNOWN, { course, spring: NO_SPRING, heldBefore: heldBefore(coil) })]),
  );
  const sightings = sightingsOf(placed, history, states, since, onDay);
  const spring = springSaid(placed, history, states, since, onDay);
  const { about, guess } = firstGuess(tree, known);
  return {
    ...learn(sightings, guess, about),
    spring: after(known.spring, spring),
    springSaid: spring,
    heldBefore,
    looks: sightings.length,
  };
}
