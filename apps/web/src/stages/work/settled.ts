import { coilsOn, cutsAmong, dayOf, openSession, sessionOf, workSessions, type PlanDocument, type Tree } from '@ustle/core';

/** Nothing that was decided waits to be done: a session was closed, no cut of this one is open, and every settled piece is on. */
export function settled(tree: Tree, plan: PlanDocument): boolean {
  if (openSession(tree) || !workSessions(tree).length) return false;
  const on = new Set(coilsOn(tree, dayOf(plan.on)).map((c) => c.branch));
  const cuts = cutsAmong(tree).some((d) => sessionOf(d) === 1);
  return !cuts && tree.plan.runs.every((r) => r.branches.every((b) => on.has(b.branch)));
}
