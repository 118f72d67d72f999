import { toDeg, toRad } from '../units/index.js';
import { bearingAndElevation, lengthOf, pointAt, type Limb, type Vec } from '../space/index.js';
import { bandOf, bendRisk, MOST_BY_HAND_DEG, safeBendRatio, SEASON_RISK, stagesFor, type Protection } from '../wood/index.js';
import type { BendInSpace, BendKind, PlannedBend } from '../tree/index.js';
import { Bender } from './bent.js';
import type { Frame } from '../rod/index.js';

/** The hand bends farther than what stays: about so much, until the wire is chosen. docs: Choosing. */
export const BY_HAND = 1.5;
/** A bend of which the hand asks so much of the wood is heavy. */
export const HEAVY_BY_HAND = 1;
/** Whether the hand makes a heavy bend of one: it counts against the session. */
export const isHeavy = ({ risk }: Pick<PlannedBend, 'risk'>): boolean => risk * BY_HAND >= HEAVY_BY_HAND;
/** What a bend asks of the wood under the hand, the gentlest first: bare and calm, slower, wrapped, in stages. docs: Bends of a pose. */
export interface Rung {
  risk: number;
  protection: Protection;
}
export const CALM: Rung = { risk: 0.64, protection: 'none' };
const LADDER: readonly Rung[] = [
  CALM,
  { risk: 0.92, protection: 'none' },
  { risk: 0.92, protection: 'raffia' },
  { risk: 0.92, protection: 'both' },
  { risk: 1.6, protection: 'both' },
];
/** Twigs thinner than this are bent in one motion, and never wrapped; what is thinner than that in two stages at most, mm. */
const TWIG_MM = 5;
const SLENDER_MM = 8;
const TWO_STAGES = 1.15;
/** More than this the wood does not take in one season. */
export const MOST_RISK = SEASON_RISK / BY_HAND;
/** So far a bend goes at most, so that the hand comes to no more than it can. */
export const MOST_DEG = MOST_BY_HAND_DEG / (1.1 * BY_HAND);

/** The rungs that wood so thick may be taken to. */
export function ladderFor(diameter: number): readonly Rung[] {
  if (diameter < TWIG_MM) return LADDER.slice(0, 2);
  return diameter < SLENDER_MM ? [...LADDER.slice(0, 4), { risk: TWO_STAGES, protection: 'both' }] : LADDER;
}

/** Stages with rest between them for what the hand asks of wood so thick; null where it does not take it in one season. */
export function stagesBy(diameter: number, handRisk: number): number | null {
  const stages = stagesFor(handRisk);
  if (stages === null || diameter >= SLENDER_MM) return stages;
  return diameter < TWIG_MM ? 1 : Math.min(2, stages);
}

/** What a branch's wood bears. */
export interface Bending {
  line: Limb;
  /** Smallest safe bend ratio k₀, worse where something makes the wood worse. */
  k0: number;
  /** Where its line leaves the bark of what it grows on, mm along it: before that nothing is bent. */
  clear?: number;
}

/** What the wood would take in place of a bend that is more than it takes. */
function nearestFor({ line, k0 }: Bending, bend: BendInSpace & { diameter: number }): string {
  const safe = safeBendRatio(k0, bend.diameter, 'both') / MOST_RISK;
  const length = (bend.diameter * safe * bend.angle * Math.PI) / 180;
  const most = (bend.length / (bend.diameter * safe)) * (180 / Math.PI);
  const room = lengthOf(line) - bend.at;
  const longer = length <= room ? `, or ${bend.angle.toFixed(0)}° over ${Math.ceil(length)} mm` : '';
  return `${bend.angle.toFixed(0)}° over ${bend.length.toFixed(0)} mm is more than this wood takes in one season, wrapped and with parallel wires: up to ${Math.floor(most)}° there${longer}.`;
}

/** A bend with what it does to the wood, and the lightest protection that keeps it below heavy under the hand. docs: Wood, risk. */
function describeBend({ line, k0 }: Bending, bend: BendInSpace & Pick<PlannedBend, 'kind' | 'start'>): PlannedBend {
  // Beside the shoulder a branch is as thick as it was measured there.
  const diameter = bend.at <= line.diameters[0]! ? line.diameters[0]! : pointAt(line, bend.at).diameter;
  const riskWith = (protection: Protection): number => bendRisk({ diameter, angleDeg: bend.angle, length: bend.length, k0, protection });
  const { protection } = ladderFor(diameter).find((r) => riskWith(r.protection) * BY_HAND <= r.risk * 1.02) ?? ladderFor(diameter).at(-1)!;
  const risk = riskWith(protection);
  const radius = bend.length / toRad(bend.angle);
  const nearest = risk > MOST_RISK * 1.001 ? nearestFor({ line, k0 }, { ...bend, diameter }) : null;
  return {
    ...bend,
    diameter,
    radius,
    strain: diameter / (2 * radius),
    risk,
    band: nearest ? 'no' : bandOf(risk),
    stages: stagesBy(diameter, risk * BY_HAND),
    protection,
    nearest,
  };
}

/** Bends in order from the shoulder, each with which way the branch goes there and what it does to the wood. */
export function describeBends(of: Bending, bends: readonly (BendInSpace & { kind: BendKind })[], carried?: { turn: Frame; point: Vec }): PlannedBend[] {
  const bender = new Bender(of.line, carried);
  return bends.map((bend) => {
    bender.to(bend.at);
    const start = bearingAndElevation(bender.tangent);
    bender.bend(bend);
    return describeBend(of, { ...bend, start });
  });
}

/** The most degrees that a length of branch takes at a risk, and the least length that an angle takes. */
export const mostAngle = (diameter: number, k0: number, length: number, risk: number, protection: Protection): number =>
  toDeg((risk * length) / (diameter * safeBendRatio(k0, diameter, protection)));
export const leastLength = (diameter: number, k0: number, angle: number, risk: number, protection: Protection): number =>
  (diameter * safeBendRatio(k0, diameter, protection) * toRad(angle)) / risk;
