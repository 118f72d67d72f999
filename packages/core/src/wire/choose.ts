import { toRad } from '../units/index.js';
import {
  bandOf,
  bendRisk,
  coilHold,
  GRIP,
  METAL_DATA,
  overbend,
  ruleOfThumb,
  safeBendRatio,
  springBack,
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
}

export interface WireChoice {
  metal: MetalName;
  size: number;
  strands: number;
  /** What it holds, N·mm. */
  hold: number;
  /** Share of the hand's bend that springs back. */
  springBack: number;
  /** Angle to bend to by hand, and the angle it settles at under the wire, degrees. */
  bendToDeg: number;
  settlesDeg: number;
  /** Risk of the bend by hand. */
  risk: number;
  band: Band;
}

/** The branch is left a little past its target, so that what it loses on unwiring brings it there. */
export const SETTLE_ABOVE = 1.09;
/** More overbend than this is a wire too thin. */
export const MOST_OVERBEND = 1.35;
export const COIL_ANGLE = 45;
const MOST_STRANDS = 3;
/** A coil thicker than this against its branch crowds it and cannot be wound. */
const THICKEST = 0.6;

/** What one wire would do with a bend. */
export function tryWire(bend: BendToHold, wire: { metal: MetalName; size: number; strands: number; coilAngleDeg: number; grip: number }): WireChoice {
  const hold = coilHold({
    diameter: bend.diameter,
    wireDiameter: wire.size,
    strands: wire.strands,
    coilAngleDeg: wire.coilAngleDeg,
    grip: wire.grip,
    metal: wire.metal,
  });
  const usable = Math.max(0, hold - bend.weightMoment);
  const wired = (toRad(bend.angleDeg) * SETTLE_ABOVE) / bend.length;
  const bent = overbend({ diameter: bend.diameter, curvature: wired, wood: bend.wood, hold: usable });
  const bendToDeg = bend.angleDeg * SETTLE_ABOVE * (bent / wired);
  const risk = bendRisk({ diameter: bend.diameter, angleDeg: bendToDeg, length: bend.length, k0: bend.k0, protection: bend.protection });
  return {
    metal: wire.metal,
    size: wire.size,
    strands: wire.strands,
    hold,
    springBack: springBack({ diameter: bend.diameter, curvature: bent, wood: bend.wood, hold: usable }),
    bendToDeg,
    settlesDeg: bend.angleDeg * SETTLE_ABOVE,
    risk,
    band: bandOf(risk),
  };
}

/** Fewest strands, then the thinnest size, that holds the bend with a bearable overbend; null: no coil does, use a guy. docs: Choosing. */
export function chooseWire(bend: BendToHold, metal: MetalName, sizes: readonly number[] = METAL_DATA[metal].sizes): WireChoice | null {
  for (let strands = 1; strands <= MOST_STRANDS; strands++) {
    for (const size of [...sizes].sort((a, b) => a - b)) {
      if (size > bend.diameter * THICKEST) break;
      const choice = tryWire(bend, { metal, size, strands, coilAngleDeg: COIL_ANGLE, grip: GRIP.snug });
      if (choice.bendToDeg <= choice.settlesDeg * MOST_OVERBEND && choice.hold > bend.weightMoment) return choice;
    }
  }
  return null;
}

/** The choice in words: the number, then the reason. */
export function sayChoice(bend: BendToHold, choice: WireChoice | null): string[] {
  const rule = ruleOfThumb(bend.diameter);
  const rules = `By the rules of thumb: aluminium ${rule.aluminium.toFixed(1)} mm (a third), copper ${rule.copper.toFixed(1)} mm (a quarter).`;
  if (!choice) return [`No coil of the sizes sold holds ${bend.angleDeg.toFixed(0)}° on ${bend.diameter.toFixed(1)} mm of wood: a guy would.`, rules];
  const radius = bend.length / toRad(bend.angleDeg);
  const least = safeBendRatio(bend.k0, bend.diameter, bend.protection) * bend.diameter;
  return [
    `Bend to ${choice.bendToDeg.toFixed(0)}°; it springs to ${choice.settlesDeg.toFixed(0)}° under the wire and loses a little more when that comes off, to stay near ${bend.angleDeg.toFixed(0)}°.`,
    `Radius ${radius.toFixed(0)} mm over ${bend.length.toFixed(0)} mm of branch; the wood bears ${least.toFixed(0)} mm.`,
    rules,
  ];
}
