import { clamp, toRad } from '../units/index.js';
import { lengthOf } from '../space/index.js';
import { growthByThickness, speciesOf, woodOf } from '../species/index.js';
import { bendRisk, coilHold, gripOf, curvatureHeld, stored, usualBendLength } from '../wood/index.js';
import { howKnown, VIGOUR_FACTOR, woodIn, type Coil, type PlacedTree } from '../tree/index.js';
import { spellsOf, type Course } from './course.js';
import { whatIsLeft, type CoilState, type Stretch } from './forecast.js';
import type { Known } from './known.js';
import { allowance, MARK_LIMIT, markLimitFor } from './marking.js';
import { thicknessOn } from './thickness.js';
import type { Guess, Unknown } from './unknown.js';

const SHOOT = 1.5;
const APEX = 1.2;
const LOW_INTERIOR = 0.7;

/** How thick wood was when a coil went on, mm. */
const thickUnder = (placed: PlacedTree, { branch, since }: Coil): number => thicknessOn(placed, branch, since) ?? woodIn(placed, branch)!.branch.d;

/** Length of the bend that a coil holds, mm; the usual one where only its angle is noted, null where nothing is. */
function bendLength(placed: PlacedTree, coil: Coil): number | null {
  if (!coil.bentDeg) return null;
  if (coil.over) return coil.over;
  const k0 = speciesOf(placed.tree.species).bendRatio.value;
  const branchLength = lengthOf(woodIn(placed, coil.branch)!.line);
  return usualBendLength({ diameter: thickUnder(placed, coil), angleDeg: coil.bentDeg, k0, branchLength });
}

/** Known part x of a branch's growth on straight wood: vigour, thickness, stage, position. docs: Season and growth. */
export function growthFactor(placed: PlacedTree, id: string): number {
  const { branch, line, order } = woodIn(placed, id)!;
  const share = line.points[0]![2] / placed.height;
  const position = share > 0.85 ? APEX : share < 0.3 && order > 1 ? LOW_INTERIOR : 1;
  return VIGOUR_FACTOR[placed.tree.vigour] * growthByThickness({ diameter: branch.d }) * (branch.stage === 'shoot' ? SHOOT : 1) * position;
}

/** How much faster a branch thickens where a coil bends it: on the outside wood is laid the sooner the nearer the bend came to breaking it. */
function swelling(placed: PlacedTree, coil: Coil): number {
  const species = speciesOf(placed.tree.species);
  const over = bendLength(placed, coil);
  const risk =
    coil.bentDeg && over
      ? bendRisk({
          diameter: thickUnder(placed, coil),
          angleDeg: coil.bentDeg,
          length: over,
          k0: species.bendRatio.value,
          protection: coil.wrap === 'none' ? 'none' : 'raffia',
        })
      : 0;
  return 1 + 0.5 * Math.min(1, risk);
}

/** The curvature a recorded coil holds and the one wanted, 1/mm; null when the record has no angle. */
function heldBend(placed: PlacedTree, coil: Coil): CoilState['bend'] {
  const over = bendLength(placed, coil);
  if (!coil.bentDeg || !over) return null;
  const diameter = thickUnder(placed, coil);
  const species = speciesOf(placed.tree.species);
  const hold = coilHold({
    diameter,
    wireDiameter: coil.size,
    strands: coil.strands,
    coilAngleDeg: coil.angle,
    grip: gripOf(coil.gap),
    metal: coil.metal,
    ...(coil.turns === null ? {} : { turns: coil.turns }),
  });
  const held = { diameter, curvature: toRad(coil.bentDeg) / over, wood: woodOf(species), hold };
  const wired = curvatureHeld(held);
  const target = toRad(coil.targetDeg ?? coil.bentDeg) / over;
  return wired > 0 ? { wired, stored: stored(held), target, storedSd: 0, assumedLength: coil.over ? null : over } : null;
}

/** The turns on straight wood, where wrap and swelling at the bend make them differ from those there; null where there is no such difference. */
function straightOf(coil: Coil, factor: number, swells: number): Stretch | null {
  if (!coil.bentDeg || (coil.wrap === 'none' && swells === 1)) return null;
  return { factor, allowance: allowance(coil.gap, 'none') };
}

/** What made, and makes, the growth of a tree other than usual. */
export const courseOf = ({ tree }: PlacedTree, { ahead, aheadIn }: Pick<Known, 'ahead' | 'aheadIn'>): Course => ({
  spells: spellsOf(tree),
  ahead: aheadIn === tree.site.hemisphere ? ahead : [],
});

/** What is taken of a coil beside its own line of the record. */
export interface Taken {
  course: Course;
  /** The logarithm of how much more than computed springs back. */
  spring: Guess;
  /** The angle that the branch held already when the coil went on, degrees: only what it is bent beyond that is stored anew. */
  heldBefore: number;
}

/** All that a forecast of what is on of a coil rests on: of what was cut off of it nothing more is foreseen. */
export function stateNow(placed: PlacedTree, coil: Coil, unknown: Unknown, taken: Taken): CoilState {
  const state = stateOf(placed, coil, unknown, taken);
  return coil.cut ? whatIsLeft(state, coil.cut.day, coil.turns) : state;
}

/** All that a forecast of a coil rests on, as it went on. */
export function stateOf(placed: PlacedTree, coil: Coil, unknown: Unknown, { course, spring, heldBefore }: Taken): CoilState {
  const species = speciesOf(placed.tree.species);
  const factor = growthFactor(placed, coil.branch);
  const swells = swelling(placed, coil);
  const bend = heldBend(placed, coil);
  const { known } = woodIn(placed, coil.branch)!.branch;
  return {
    species,
    hemisphere: placed.tree.site.hemisphere,
    since: coil.since,
    diameter: thickUnder(placed, coil),
    wireDiameter: coil.size,
    factor: factor * swells,
    allowance: allowance(coil.gap, coil.wrap),
    straight: straightOf(coil, factor, swells),
    course,
    markLimit: markLimitFor({ limit: MARK_LIMIT[species.bark], wireDiameter: coil.size }),
    bend: bend && {
      ...bend,
      stored: Math.min(bend.wired, bend.stored * Math.exp(spring.mean) * (coil.bentDeg ? clamp(1 - heldBefore / coil.bentDeg, 0, 1) : 1)),
      storedSd: Math.hypot(spring.sd, known ? howKnown(placed.tree, coil.branch).d / thickUnder(placed, coil) : 0),
    },
    unknown,
    seen: coil.seen,
    cut: null,
  };
}
