import { toDeg, toRad } from '../units/index.js';
import { pointAt, type Limb } from '../space/index.js';
import { speciesOf, woodOf } from '../species/index.js';
import { coilHold, curvatureHeld, gripOf, type Wood } from '../wood/index.js';
import type { KeptOf, KeptOfTie } from '../growth/index.js';
import { woodIn, type Coil, type PlacedTree } from '../tree/index.js';
import type { HandBend } from './made-bends.js';

/** How far a hand and an eye are off in a bend, degrees; and what springs back, as a share of what was computed. Own estimates. */
const BY_HAND_DEG = 3;
const SPRING_SD = 0.3;
/** Four in five lie within so many standard deviations. */
const FOUR_IN_FIVE = 1.28;

/** What a coil holds of wood so thick, N·mm. */
const holdOn = ({ size, strands, angle, gap, metal, turns }: Coil, diameter: number): number =>
  coilHold({ diameter, wireDiameter: size, strands, coilAngleDeg: angle, grip: gripOf(gap), metal, ...(turns === null ? {} : { turns }) });

/** The angle that stays of a bend by hand: under a coil where what the branch pulls meets what the wire holds, with none what does not spring back. docs: Letting go. */
function settledDeg({ handDeg, length }: Pick<HandBend, 'handDeg' | 'length'>, diameter: number, wood: Wood, coil: Coil | null): number {
  if (handDeg <= 0) return 0;
  const curvature = curvatureHeld({ diameter, curvature: toRad(handDeg) / length, wood, hold: coil ? holdOn(coil, diameter) : 0 });
  return toDeg(curvature * length);
}

/** Beside its shoulder a branch is as thick as it was measured there. */
const thicknessAt = (line: Limb, at: number): number => (at <= line.diameters[0]! ? line.diameters[0]! : pointAt(line, at).diameter);

/** What branches kept of their bends once coils, or ties, came off. */
export interface Kept {
  kept: KeptOf;
  keptOfTie: KeptOfTie;
}

export interface AngleNow {
  angle: number;
  /** How far it may be off, degrees to either side. */
  unsure: number;
}

/** The angle that a bend has: as the hand left it under its coil, or once that came off. */
function angleNow(branch: string, bend: HandBend, line: Limb, wood: Wood, { kept, keptOfTie }: Kept): AngleNow {
  if (bend.tie !== null) return ledBy(branch, bend, line, keptOfTie);
  const settled = settledDeg(bend, thicknessAt(line, bend.at), wood, bend.coil);
  const byHand = FOUR_IN_FIVE * BY_HAND_DEG;
  const off = bend.released && bend.coil ? kept(bend.coil) : null;
  if (!off) return { angle: settled, unsure: byHand };
  const angle = settled * off.share;
  return { angle, unsure: off.measured ? byHand : Math.hypot(byHand, FOUR_IN_FIVE * SPRING_SD * Math.max(0, settled - angle)) };
}

/** The angle of a bend that a tie makes: as it leads its branch, or what was left once it came off. */
function ledBy(branch: string, { handDeg, at, length, tie, released }: HandBend, line: Limb, keptOfTie: KeptOfTie): AngleNow {
  if (!released) return { angle: handDeg, unsure: FOUR_IN_FIVE * BY_HAND_DEG };
  const { share, measured } = keptOfTie(tie!, branch, { diameter: thicknessAt(line, at), curvature: toRad(handDeg) / length });
  const angle = handDeg * share;
  return { angle, unsure: FOUR_IN_FIVE * Math.hypot(BY_HAND_DEG, measured ? 0 : SPRING_SD * (handDeg - angle)) };
}

/** The angles of bends, each worked out once for what the hand made of it and whether its coil is on. */
export function anglesOf(placed: PlacedTree, kept: Kept): (branch: string, bend: HandBend) => AngleNow {
  const wood = woodOf(speciesOf(placed.tree.species));
  const known = new Map<HandBend, { handDeg: number; released: boolean; now: AngleNow }>();
  return (branch, bend) => {
    const { handDeg, released } = bend;
    const before = known.get(bend);
    if (before && before.handDeg === handDeg && before.released === released) return before.now;
    const now = angleNow(branch, bend, woodIn(placed, branch)!.line, wood, kept);
    known.set(bend, { handDeg, released, now });
    return now;
  };
}
