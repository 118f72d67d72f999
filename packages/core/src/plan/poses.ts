import { isoOf, toRad } from '../units/index.js';
import { bandOf, bendRisk } from '../wood/index.js';
import { afterBending, bendRatioOf, BY_HAND, isHeavy, restFor, stageDates, stagesBy, worseWood } from '../pose/index.js';
import type { BendingSoFar, PlannedBend, PlannedPose, PoseSource, Tree } from '../tree/index.js';
import type { RunBranchPlan } from '../wire/index.js';
import { angle, digits } from './digits.js';
import { bendsToGo } from './rest.js';

/** A planned bend with what the hand does; stages and protection are as its record asks. */
export interface PlanBend extends PlannedBend {
  /** Whether it counts against the session as heavy. */
  heavy: boolean;
  /** Degrees of it that are made: `angle` is what is left to go, all else is told of the whole bend. */
  made: number;
  /** Rest between its stages, in words; empty where it is made at once. */
  rest: string;
  /** Minutes of it; 0 where it takes days, or none is needed. */
  restMinutes: number;
  /** Days of its stages to come, ISO; none where they all fit into a day. */
  dates: string[];
  /** What the hand bends to and what stays under the wire, degrees; null where no coil holds it. */
  handDeg: number | null;
  settlesDeg: number | null;
  /** By how much what stays may differ, degrees to either side. */
  spreadDeg: number | null;
}

export interface PlanPose {
  branch: string;
  bearing: number;
  elevation: number;
  from: PoseSource;
  reach: number;
  now: { bearing: number; elevation: number };
  because: string[];
  bends: PlanBend[];
  /** Whether it was asked what makes its wood worse. */
  woodAsked: boolean;
  /** How far bending has come: stages done, the day of the next one (null: none), and what was heard and seen means. */
  bending: { done: number; next: string | null; told: string[] } | null;
}

/** A bend with its figures as they are told. */
export const plainBend = (b: PlannedBend): PlannedBend => ({
  ...b,
  start: { bearing: angle(b.start.bearing), elevation: angle(b.start.elevation) },
  diameter: digits(b.diameter, 1),
  radius: digits(b.radius, 0),
  strain: digits(b.strain, 3),
  risk: digits(b.risk, 2),
});

const NO_REST = { minutes: 0, days: 0, text: '' };

/** What the hand does at the bends of a branch or the trunk: with the wire's own figures where there is one, and what its bending so far means. */
export function planBends(
  tree: Tree,
  { branch, bends: planned }: Pick<PlannedPose, 'branch' | 'bends'>,
  wire: RunBranchPlan | undefined,
  soFar: BendingSoFar | undefined,
  onDay: number,
): Pick<PlanPose, 'bends' | 'bending'> {
  const k0 = bendRatioOf(tree, branch);
  const heard = soFar ? afterBending(soFar, NO_REST) : null;
  const described = planned.map((b, i) => {
    const hand = wire?.bends[i];
    const handDeg = hand && Number.isFinite(hand.bendTo) ? hand.bendTo : null;
    const protection = heard?.moreProtection ? 'both' : b.protection;
    const riskOf = (angleDeg: number): number => bendRisk({ diameter: b.diameter, angleDeg, length: b.length, k0, protection });
    const handRisk = handDeg === null ? riskOf(b.angle) * BY_HAND : riskOf(handDeg);
    const told = handDeg === null ? b.angle : handDeg;
    const strain = (b.diameter * toRad(told)) / (2 * b.length);
    const band = b.nearest ? ('no' as const) : bandOf(riskOf(told));
    return { b, hand, handDeg, protection, risk: riskOf(told), strain, band, stages: stagesBy(b.diameter, handRisk), rest: restFor(b.diameter, handRisk) };
  });
  // The next stage waits for the rest that the bend needs which needs most.
  const longest = described.reduce((most, { rest }) => (rest.days > most.days ? rest : most), NO_REST);
  const after = soFar ? afterBending(soFar, longest) : null;
  const bends = described.map(({ b, hand, handDeg, protection, risk, strain, band, stages, rest }): PlanBend => {
    const from = Math.max(onDay, after?.notBefore ?? onDay);
    const stopped = after !== null && after.notBefore === null;
    return {
      ...plainBend({ ...b, risk, strain, band }),
      made: 0,
      heavy: isHeavy(b),
      stages,
      rest: stages !== null && stages > 1 ? rest.text : '',
      restMinutes: stages !== null && stages > 1 ? rest.minutes : 0,
      dates: stopped || stages === null || stages < 2 || !rest.days ? [] : stageDates(tree, Math.max(1, stages - (soFar?.stages ?? 0)), rest.days, from),
      protection,
      handDeg: handDeg === null ? null : angle(handDeg),
      settlesDeg: hand && handDeg !== null ? angle(hand.settles) : null,
      spreadDeg: hand && handDeg !== null ? angle(hand.spread) : null,
    };
  });
  const next = after && after.notBefore !== null ? isoOf(Math.max(onDay, after.notBefore)) : null;
  return { bends, bending: soFar && after ? { done: soFar.stages, next, told: after.told } : null };
}

/** A pose as the plan tells it: of bends of which some degrees are made, what is left. */
export function planPose(
  tree: Tree,
  pose: PlannedPose,
  wire: RunBranchPlan | undefined,
  soFar: BendingSoFar | undefined,
  onDay: number,
  made: readonly number[] = [],
): PlanPose {
  const { bends, bending } = planBends(tree, pose, wire, soFar, onDay);
  return {
    branch: pose.branch,
    bearing: angle(pose.bearing),
    elevation: angle(pose.elevation),
    from: pose.from,
    reach: digits(pose.reach, 0),
    now: { bearing: angle(pose.now.bearing), elevation: angle(pose.now.elevation) },
    because: pose.because,
    bends: bendsToGo(bends, made).map((b) => ({ ...b, angle: angle(b.angle), made: angle(b.made) })),
    woodAsked: worseWood(tree, pose.branch).asked,
    bending,
  };
}
