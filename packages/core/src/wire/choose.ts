import { sayByHand, toDeg, toRad } from '../units/index.js';
import type { Firmness } from '../tree/index.js';
import {
  bandOf,
  bendRisk,
  coilHold,
  GRIP,
  METAL_DATA,
  overbend,
  pushChance,
  ruleOfThumb,
  curvatureHeld,
  springBack,
  STIFFNESS_SD,
  UNTESTED,
  type Band,
  type MetalName,
  type Protection,
  type Wood,
} from '../wood/index.js';

/** One bend to be held: target angle in degrees over a length in mm, on wood of a thickness in mm. */
export interface BendToHold {
  diameter: number;
  angleDeg: number;
  length: number;
  wood: Wood;
  k0: number;
  protection: Protection;
  /** Moment of the branch's own weight that the wire must carry, N·mm; 0 where the weight helps. */
  weightMoment: number;
  /** How much of its branch is wound from where it begins on, mm; left out, enough. */
  beyond?: number;
  /** Spread of the logarithm of its stiffness, once it or its tree was pressed. */
  sd?: number;
}

export interface WireChoice {
  metal: MetalName;
  size: number;
  strands: number;
  /** What it holds, N·mm. */
  hold: number;
  /** Chance that it would move the branch when pressed against it. */
  pushChance: number;
  /** Share of the hand's bend that springs back. */
  springBack: number;
  /** Angle to bend to by hand, and the angle it settles at under the wire, degrees. */
  bendToDeg: number;
  settlesDeg: number;
  /** How much farther the hand bends than it settles; 1 is not at all. */
  overbend: number;
  /** Risk of the bend by hand. */
  risk: number;
  band: Band;
}

/** The branch is left a little past its target, so that what it loses on unwiring brings it there; how far is chosen by the window that it opens. */
export const USUAL_PAST = 0.1;
/** The hand bends at most so much farther than the branch settles, by the tree's firmness. */
export const MOST_OVERBEND: Record<Firmness, number> = { firm: 1.25, usual: 1.4, light: 1.6 };
/** Chance of moving the branch in the push test that a wire must have: for structure, and where it only places while a tie does the pulling. */
export const PUSH_WANTED = { structure: 0.5, placing: 0.3 } as const;
export const COIL_ANGLE = 45;
/** On a short branch turns lie closer together, so that it has enough of them. */
export const CLOSE_ANGLE = 58;
const MOST_STRANDS = 3;
/** None is chosen thicker than this against its branch: it crowds it. */
const THICKEST_CHOSEN = 0.6;
/** A wire thicker than this against its branch cannot be wound. */
export const THICKEST = 0.64;
export const canBeWoundOn = (size: number, branchDiameter: number): boolean => size <= branchDiameter * THICKEST;

export interface WireToTry {
  metal: MetalName;
  size: number;
  strands: number;
  coilAngleDeg: number;
  grip: number;
}

/** Turns of a wire on so much wood (mm), as thick all along as where the bend is: no more than there are. */
const turnsAlong = (length: number, diameter: number, { size, coilAngleDeg }: WireToTry): number =>
  (Math.max(0, length) * Math.tan(toRad(coilAngleDeg))) / (Math.PI * (diameter + size));

/** What one wire would do with a bend that settles a share past its target. */
export function tryWire(bend: BendToHold, wire: WireToTry, past: number = USUAL_PAST): WireChoice {
  const { diameter, wood, length, k0, protection } = bend;
  const turns = bend.beyond === undefined ? {} : { turns: turnsAlong(bend.beyond, diameter, wire) };
  const hold = coilHold({
    diameter,
    wireDiameter: wire.size,
    strands: wire.strands,
    coilAngleDeg: wire.coilAngleDeg,
    grip: wire.grip,
    metal: wire.metal,
    ...turns,
  });
  const usable = Math.max(0, hold - bend.weightMoment);
  const settlesDeg = bend.angleDeg * (1 + past);
  const wired = toRad(settlesDeg) / length;
  const bent = overbend({ diameter, curvature: wired, wood, hold: usable });
  const bendToDeg = settlesDeg * (bent / wired);
  const risk = bendRisk({ diameter, angleDeg: bendToDeg, length, k0, protection });
  return {
    metal: wire.metal,
    size: wire.size,
    strands: wire.strands,
    hold,
    pushChance: pushChance({ diameter, wood, metal: wire.metal, wireDiameter: wire.size, strands: wire.strands, meanLog: 0, sd: bend.sd ?? UNTESTED.sd }),
    springBack: Number.isFinite(bent) ? springBack({ diameter, curvature: bent, wood, hold: usable }) : 1,
    bendToDeg,
    settlesDeg,
    overbend: bent / wired,
    risk,
    band: bandOf(risk),
  };
}

/** Between a stiff and a soft branch of a kind: how much else of a bend comes back. */
const RECOVERY_SPREAD = 0.1;

/** By how many degrees, up or down, what stays of a bend may differ: the wood is stiffer or softer than its kind, and gives more or less of it back. docs: Letting go. */
export function spreadOf(bend: BendToHold, choice: Pick<WireChoice, 'hold' | 'bendToDeg'>): number {
  const { diameter, length, wood, weightMoment } = bend;
  if (!Number.isFinite(choice.bendToDeg)) return 0;
  const curvature = toRad(choice.bendToDeg) / length;
  const hold = Math.max(0, choice.hold - weightMoment);
  const unsure = (STIFFNESS_SD.branch * (bend.sd ?? UNTESTED.sd)) / UNTESTED.sd;
  const [stiff, soft] = [1, -1].map((sign) =>
    curvatureHeld({
      diameter,
      curvature,
      hold,
      wood: { ...wood, strength: wood.strength * Math.exp(sign * unsure), recovery: Math.max(0, wood.recovery + sign * RECOVERY_SPREAD) },
    }),
  ) as [number, number];
  return toDeg(((soft - stiff) / 2) * length);
}

/** Whether a wire is firm enough: it would move the branch when pressed, needs no more overbend than the firmness allows, and carries the weight. docs: Choosing. */
export const isFirmEnough = (bend: BendToHold, choice: WireChoice, firmness: Firmness, does: keyof typeof PUSH_WANTED = 'structure'): boolean =>
  choice.pushChance >= PUSH_WANTED[does] && choice.overbend <= MOST_OVERBEND[firmness] && choice.hold > bend.weightMoment;

/** Fewest strands, then the thinnest size that is firm enough, also for a branch's other bends; null: no coil is, use a guy. docs: Choosing. */
export function chooseWire(
  bend: BendToHold,
  metal: MetalName,
  firmness: Firmness = 'usual',
  {
    sizes = METAL_DATA[metal].sizes,
    others = [],
    grip = GRIP.snug,
    does = 'structure',
    angle = COIL_ANGLE,
  }: { sizes?: readonly number[]; others?: readonly BendToHold[]; grip?: number; does?: keyof typeof PUSH_WANTED; angle?: number } = {},
): WireChoice | null {
  for (let strands = 1; strands <= MOST_STRANDS; strands++) {
    for (const size of [...sizes].sort((a, b) => a - b)) {
      if (size > bend.diameter * THICKEST_CHOSEN) break;
      const wire: WireToTry = { metal, size, strands, coilAngleDeg: angle, grip };
      const choice = tryWire(bend, wire);
      if (isFirmEnough(bend, choice, firmness, does) && others.every((other) => isFirmEnough(other, tryWire(other, wire), firmness, does))) return choice;
    }
  }
  return null;
}

/** How many sizes a wire is off the school's rule; positive is thicker. Strands together count as one wire of their strength. */
function sizesOff({ metal, size, strands }: WireChoice, diameter: number): number {
  const { sizes } = METAL_DATA[metal];
  const nearest = (to: number): number => sizes.reduce((best, s, i) => (Math.abs(s - to) < Math.abs(sizes[best]! - to) ? i : best), 0);
  return (sizes[0]! < sizes[1]! ? 1 : -1) * (nearest(size * Math.cbrt(strands)) - nearest(ruleOfThumb(diameter)[metal]));
}

/** A length said to the tenth, rounded as everywhere else: 0.95 is 1.0. */
const tenths = (mm: number): string => (Math.round(mm * 10) / 10).toFixed(1);

/** Why a wire is thicker than its branch by itself would be given: its piece is for another one as well, or the tree is wired with few sizes. */
export type ThickerFor = 'other' | 'few sizes' | null;
const THICKER: Record<NonNullable<ThickerFor>, string> = {
  other: 'the piece is for a thicker branch as well',
  'few sizes': 'so the tree is wired with a few sizes',
};

/** The choice in words: the number, then the reason. */
export function sayChoice(bend: BendToHold, choice: WireChoice | null, thickerFor: ThickerFor = null): string[] {
  const rule = ruleOfThumb(bend.diameter);
  const rules = `By the rules of thumb: aluminium ${tenths(rule.aluminium)} mm (a third), copper ${tenths(rule.copper)} mm (a quarter).`;
  if (!choice) return [`No coil of the sizes sold holds ${bend.angleDeg.toFixed(0)}° on ${bend.diameter.toFixed(1)} mm of wood.`, rules];
  const off = sizesOff(choice, bend.diameter);
  const why =
    off > 1
      ? [`Thicker than the rule of thumb: ${thickerFor ? THICKER[thickerFor] : 'this wood is stiff, or comes back far from so tight a bend'}.`]
      : off < -1
        ? ['Thinner than the rule of thumb: this wood gives easily, or the bend is gentle.']
        : [];
  return [
    `Bend to about ${sayByHand(choice.bendToDeg)}; under the wire it settles at ${choice.settlesDeg.toFixed(0)}°, and it stays near ${bend.angleDeg.toFixed(0)}° when that comes off in its time.`,
    rules,
    ...why,
  ];
}
