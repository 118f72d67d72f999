import type { PlanDocument } from '../plan/index.js';
import { coilsOn, namesOf, outcomeOf, sayBranches, type Tree, type WorkSession } from '../tree/index.js';
import { asItStands } from '../stand/index.js';

/** What of the work done a plan that was changed since touches: wire on wood that now goes, ties and pieces that lose what holds them, branches placed otherwise than is wanted now. */
export function touchedWork(given: Tree, plan: PlanDocument, onDay: number, session: WorkSession): string[] {
  const tree = asItStands(given, onDay);
  const names = namesOf(tree);
  const { gone } = outcomeOf(tree);
  const worn = coilsOn(tree, onDay).filter((c) => c.since >= session.begun && gone.has(c.branch));
  const placed = session.answers.filter((a) => a.step.startsWith('place:') && a.answer !== 'skipped' && a.branch);
  const moved = placed.flatMap(({ branch, as = '' }) => {
    const pose = plan.poses.find((p) => p.branch === branch);
    return pose && pose.from === 'plan' && as !== `${Math.round(pose.bearing)}/${Math.round(pose.elevation)}` ? [branch!] : [];
  });
  return [
    ...(worn.length
      ? [
          `Wire that went on in this session is on wood that now goes: ${sayBranches(names, [...new Set(worn.map((c) => c.branch))], 4)}. Take it off before you cut.`,
        ]
      : []),
    ...(moved.length ? [`Placed already, and now wanted otherwise: ${sayBranches(names, [...new Set(moved)], 4)}. Those steps are open again.`] : []),
    ...plan.coverage.said.filter((s) => /was anchored on/.test(s)),
    ...plan.lostTies,
  ];
}
