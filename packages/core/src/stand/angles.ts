import { toDeg, toRad } from '../units/index.js';
import { pointAt, type Limb } from '../space/index.js';
import { woodOf, type Species } from '../species/index.js';
import { coilHold, curvatureHeld, gripOf, type Wood } from '../wood/index.js';
import type { KeptOf } from '../growth/index.js';
import type { Coil } from '../tree/index.js';
import type { HandBend } from './made-bends.js';

/** How far a hand and an eye are off in a bend, degrees; and what springs back, as a share of what was computed. Own estimates. */
const BY_HAND_DEG = 3;
const SPRING_SD = 0.3;
/** Four in five lie within so many standard deviations. */
const FOUR_IN_FIVE = 1.28;

/** What a coil holds of wood so thick, N·mm. */
const holdOn = ({ size, strands, angle, gap, metal }: Coil, diameter: number): number =>
  coilHold({ diameter, wireDiameter: size, strands, coilAngleDeg: angle, grip: gripOf(gap), metal });

/** The angle that stays of a bend by hand: under a coil where what the branch pulls meets what the wire holds, with none what does not spring back. docs: Letting go. */
export function settledDeg({ handDeg, length }: Pick<HandBend, 'handDeg' | 'length'>, diameter: number, wood: Wood, coil: Coil | null): number {
  if (handDeg <= 0) return 0;
  const curvature = curvatureHeld({ diameter, curvature: toRad(handDeg) / length, wood, hold: coil ? holdOn(coil, diameter) : 0 });
  return toDeg(curvature * length);
}

/** Beside its shoulder a branch is as thick as it was measured there. */
const thicknessAt = (line: Limb, at: number): number => (at <= line.diameters[0]! ? line.diameters[0]! : pointAt(line, at).diameter);

/** The angle that a bend has on a day, and how far it may be off, degrees to either side. */
export function angleNow(bend: HandBend, line: Limb, species: Species, onDay: number, kept: KeptOf): { angle: number; unsure: number } {
  const settled = settledDeg(bend, thicknessAt(line, bend.at), woodOf(species), bend.coil);
  const byHand = FOUR_IN_FIVE * BY_HAND_DEG;
  const off = bend.coil && bend.coil.offOn !== null && bend.coil.offOn <= onDay ? kept(bend.coil) : null;
  if (!off) return { angle: settled, unsure: byHand };
  const angle = settled * off.share;
  return { angle, unsure: off.measured ? byHand : Math.hypot(byHand, FOUR_IN_FIVE * SPRING_SD * Math.max(0, settled - angle)) };
}
