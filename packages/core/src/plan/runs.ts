import type { Vec } from '../space/index.js';
import type { RunBranchPlan, RunPlan, WirePlace } from '../wire/index.js';
import { angle, digits } from './digits.js';

/** A piece of wire as the plan tells it; its way on the tree only where that was asked for. */
export type PlanRun = Omit<RunPlan, 'path'> & { path?: Vec[]; places?: WirePlace[] };

export function planRun({ path, ...run }: RunPlan, asked: { paths: boolean; places: boolean }, said: (part: RunBranchPlan) => string[] = () => []): PlanRun {
  return {
    ...run,
    size: digits(run.size, 2),
    length: digits(run.length, 0),
    mass: digits(run.mass, 1),
    route: run.route && { ...run.route, length: digits(run.route.length, 0), turnDeg: digits(run.route.turnDeg, 0) },
    anchor: run.anchor && { ...run.anchor, turns: digits(run.anchor.turns, 1), ...(run.anchor.soil === undefined ? {} : { soil: digits(run.anchor.soil, 0) }) },
    branches: run.branches.map((b) => ({
      ...b,
      because: [...b.because, ...said(b)],
      from: digits(b.from, 1),
      to: digits(b.to, 1),
      turns: digits(b.turns, 1),
      hold: digits(b.hold, 0),
      springBack: digits(b.springBack, 3),
      firmness: { pushChance: digits(b.firmness.pushChance, 2), overbend: digits(b.firmness.overbend, 2) },
      phaseMissDeg: b.phaseMissDeg === null ? null : digits(b.phaseMissDeg, 0),
      rule: { aluminium: digits(b.rule.aluminium, 1), copper: digits(b.rule.copper, 1) },
      bendTo: angle(b.bendTo),
      settles: angle(b.settles),
      target: angle(b.target),
      bendLength: digits(b.bendLength, 0),
      bends: b.bends.map(
        (held) => held && { bendTo: angle(held.bendTo), settles: angle(held.settles), spread: angle(held.spread), missDeg: digits(held.missDeg, 0) },
      ),
    })),
    ...(asked.paths ? { path: path.points.map((p): Vec => [digits(p[0], 2), digits(p[1], 2), digits(p[2], 2)]) } : {}),
    ...(asked.places ? { places: path.places } : {}),
  };
}
