import { clamp, toRad } from '../units/index.js';

export type Protection = 'none' | 'raffia' | 'parallel' | 'both';
export type Band = 'calm' | 'careful' | 'heavy' | 'no';

const EASING: Record<Protection, number> = { none: 1, raffia: 0.75, parallel: 0.8, both: 0.65 };

/** Smallest safe R/d of a branch of this thickness (mm): k₀ grows with thickness and falls with protection. */
export const safeBendRatio = (k0: number, diameter: number, protection: Protection): number => k0 * (1 + 0.03 * Math.max(0, diameter - 8)) * EASING[protection];

/** Outer strain of a bend over the strain the wood takes; angle in degrees over a length in mm. docs: Wood, risk. */
export function bendRisk(bend: { diameter: number; angleDeg: number; length: number; k0: number; protection: Protection }): number {
  const radius = bend.length / toRad(Math.abs(bend.angleDeg));
  const strain = bend.diameter / (2 * radius);
  return strain * 2 * safeBendRatio(bend.k0, bend.diameter, bend.protection);
}

/** The length (mm) over which a bend stays calm, as far as the branch is long enough: what is meant where only an angle is noted. */
export function usualBendLength(of: { diameter: number; angleDeg: number; k0: number; branchLength: number }): number {
  const longest = of.branchLength * SPREAD_SHARE;
  const calm = (of.diameter * safeBendRatio(of.k0, of.diameter, 'none') * toRad(of.angleDeg)) / CALM_RISK;
  return clamp(calm, Math.min(3 * of.diameter, longest), longest);
}
/** The first part of a branch that one bend may be spread over. */
const SPREAD_SHARE = 0.5;
const CALM_RISK = 0.55;

/** Risk (under the hand) that wood bears in one go, and in the stages of one season. */
export const STAGE_RISK = 0.6;
/** By hand nothing is turned farther than that, degrees. */
export const MOST_BY_HAND_DEG = 110;
export const SEASON_RISK = 1.6;

export const bandOf = (risk: number): Band => (risk < STAGE_RISK ? 'calm' : risk < 1 ? 'careful' : risk <= SEASON_RISK ? 'heavy' : 'no');

/** Stages with rest between them for a risk; null above 1.6: not in one season. */
export const stagesFor = (risk: number): number | null => (risk <= STAGE_RISK ? 1 : risk <= SEASON_RISK ? Math.ceil(risk / STAGE_RISK) : null);
