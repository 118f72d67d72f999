import { keepNothing, toRad } from '../units/index.js';
import { lengthOf } from '../space/index.js';
import { speciesOf, woodOf } from '../species/index.js';
import { bendRisk, coilHold, gripOf, settled, stored, usualBendLength } from '../wood/index.js';
import { coilsOn, coilHistory, VIGOUR_FACTOR, woodIn, type Coil, type MarkStage, type PlacedTree } from '../tree/index.js';
import { nextInspection, race, type Race } from './advice.js';
import { allowance, MARK_LIMIT } from './marking.js';
import { expectedGrowth, forecast, type CoilState, type Forecast } from './forecast.js';
import { learn, type Sighting } from './learn.js';
import { toleranceOf } from './tolerance.js';
import { NOTHING_KNOWN, type Unknown } from './unknown.js';

const SHOOT = 1.5;
const APEX = 1.2;
const LOW_INTERIOR = 0.7;

/** Length of the bend that a coil holds, mm; the usual one where only its angle is noted, null where nothing is. */
function bendLength(placed: PlacedTree, { branch, bentDeg, over }: Coil): number | null {
  if (!bentDeg) return null;
  if (over) return over;
  const b = woodIn(placed, branch)!;
  const k0 = speciesOf(placed.tree.species).bendRatio.value;
  return usualBendLength({ diameter: b.branch.d, angleDeg: bentDeg, k0, branchLength: lengthOf(b.line) });
}

/** Known part x of a branch's growth: vigour, stage, position, swelling at the bend. docs: Growth. */
function growthFactor(placed: PlacedTree, coil: Coil): number {
  const { branch, line, order } = woodIn(placed, coil.branch)!;
  const share = line.points[0]![2] / placed.height;
  const position = share > 0.85 ? APEX : share < 0.3 && order > 1 ? LOW_INTERIOR : 1;
  const species = speciesOf(placed.tree.species);
  const over = bendLength(placed, coil);
  const risk =
    coil.bentDeg && over
      ? bendRisk({
          diameter: branch.d,
          angleDeg: coil.bentDeg,
          length: over,
          k0: species.bendRatio.value,
          protection: coil.wrap === 'none' ? 'none' : 'raffia',
        })
      : 0;
  return VIGOUR_FACTOR[placed.tree.vigour] * (branch.stage === 'shoot' ? SHOOT : 1) * position * (1 + 0.5 * Math.min(1, risk));
}

/** The curvature a recorded coil holds and the one wanted, 1/mm; null when the record has no angle. */
function heldBend(placed: PlacedTree, coil: Coil): CoilState['bend'] {
  const over = bendLength(placed, coil);
  if (!coil.bentDeg || !over) return null;
  const { branch } = woodIn(placed, coil.branch)!;
  const species = speciesOf(placed.tree.species);
  const hold = coilHold({
    diameter: branch.d,
    wireDiameter: coil.size,
    strands: coil.strands,
    coilAngleDeg: coil.angle,
    grip: gripOf(coil.gap),
    metal: coil.metal,
  });
  const held = { diameter: branch.d, curvature: toRad(coil.bentDeg) / over, wood: woodOf(species), hold };
  const wired = settled(held);
  const target = toRad(coil.targetDeg ?? coil.bentDeg) / over;
  return wired > 0 ? { wired, stored: stored(held), target, assumedLength: coil.over ? null : over } : null;
}

function stateOf(placed: PlacedTree, coil: Coil, unknown: Unknown): CoilState {
  const species = speciesOf(placed.tree.species);
  return {
    species,
    hemisphere: placed.tree.site.hemisphere,
    since: coil.since,
    diameter: woodIn(placed, coil.branch)!.branch.d,
    wireDiameter: coil.size,
    factor: growthFactor(placed, coil),
    allowance: allowance(coil.gap, coil.wrap),
    markLimit: MARK_LIMIT[species.bark],
    bend: heldBend(placed, coil),
    unknown,
    seen: coil.seen,
  };
}

/** What every inspection on the tree says of its branches' growth, coils already off included. */
function learned(placed: PlacedTree, onDay: number): (branch: string) => Unknown {
  const sightings = coilHistory(placed.tree, onDay)
    .filter((coil) => woodIn(placed, coil.branch) !== undefined)
    .flatMap((coil): Sighting[] => {
      const state = stateOf(placed, coil, NOTHING_KNOWN);
      return coil.seen.map(({ day, stage }) => ({
        branch: coil.branch,
        stage,
        expected: expectedGrowth(state, day),
        allowance: state.allowance,
        markLimit: state.markLimit,
        wireDiameter: coil.size,
      }));
    });
  return learn(sightings);
}

/** The race that a coil would run if it were put on today: for choosing how far past its target a bend is left. */
export function raceIfWired(
  placed: PlacedTree,
  wire: Pick<Coil, 'branch' | 'metal' | 'size' | 'strands' | 'angle' | 'bentDeg' | 'targetDeg' | 'over' | 'gap'>,
  onDay: number,
  keep = keepNothing,
): Race {
  const coil: Coil = { ...wire, run: '', since: onDay, hand: 'cw', start: 'over', wrap: 'none', seen: [] };
  const state = stateOf(placed, coil, NOTHING_KNOWN);
  const tolerance = toleranceOf(placed.tree);
  return keep(`race ${JSON.stringify([onDay, tolerance, { ...state, species: state.species.key }])}`, () => race(state, onDay, null, tolerance));
}

/** What a rubber tube or folded mesh gives before the bark beds into it, mm, and how thick it is; own estimates. */
const CUSHION = { gives: 1.5, thick: 6 };

/** When a cushion will press and mark: the race of a coil that lies loose by what the cushion gives. */
export function cushionDates(placed: PlacedTree, on: { branch: string; since: number; seen: CoilState['seen'] }): Pick<Forecast, 'touching' | 'marking'> {
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
    seen: [...on.seen],
  };
  return forecast(stateOf(placed, coil, NOTHING_KNOWN));
}

export interface Watched {
  coil: Coil;
  state: CoilState;
  race: Race;
  lastSeen: { day: number; stage: MarkStage } | null;
  nextInspection: number;
}

/** Every coil on the tree on a day, with its race and the day to look at it, most urgent first. */
export function watch(placed: PlacedTree, onDay: number): Watched[] {
  const unknownOf = learned(placed, onDay);
  const tolerance = toleranceOf(placed.tree);
  return coilsOn(placed.tree, onDay)
    .filter((coil) => woodIn(placed, coil.branch) !== undefined)
    .map((coil): Watched => {
      const state = stateOf(placed, coil, unknownOf(coil.branch));
      const lastSeen = coil.seen[coil.seen.length - 1] ?? null;
      const found = race(state, onDay, lastSeen?.stage ?? null, tolerance);
      const tender = state.species.bark === 'thin' || woodIn(placed, coil.branch)!.branch.stage === 'shoot';
      return { coil, state, race: found, lastSeen, nextInspection: nextInspection(state, found.limit, found.forecast, lastSeen?.day ?? null, tender) };
    })
    .sort((a, b) => dueDay(a, onDay) - dueDay(b, onDay) || (a.coil.branch < b.coil.branch ? -1 : 1));
}

/** The day by which something is to be done with a coil: a look, or taking it off. */
export function dueDay({ race: { advice, window }, nextInspection: look }: Watched, onDay: number): number {
  if (advice === 'remove-now') return Math.min(look, onDay);
  return advice === 'window' && window && window.from >= onDay ? Math.min(look, window.from) : look;
}
