import type { Branch } from './measures.js';
import type { Pose } from './plan-parts.js';
import { fittedPose } from './pose-fit.js';
import type { Tree } from './types.js';

/** The tree with other branches; its plan lets go of those that are no longer there, and of what no longer fits the others. */
export function withBranches(tree: Tree, branches: Branch[]): Tree {
  const there = new Map(branches.map((b) => [b.id, b]));
  const fitted = (poses: readonly Pose[]): Pose[] => poses.filter((p) => there.has(p.branch)).map((p) => fittedPose(there.get(p.branch)!, p));
  const { plan } = tree;
  const isThere = (id: string): boolean => id === 'trunk' || there.has(id);
  return {
    ...tree,
    branches,
    plan: {
      ...plan,
      decisions: plan.decisions.filter((d) => there.has(d.branch)),
      poses: fitted(plan.poses),
      runs: plan.runs.map((r) => ({ ...r, branches: r.branches.filter((b) => there.has(b.branch)) })).filter((r) => r.branches.length),
      guys: plan.guys.filter((g) => there.has(g.branch)),
      ...(plan.devices ? { devices: plan.devices.filter((d) => isThere(d.branch) && (!d.other || isThere(d.other.branch))) } : {}),
      ...(plan.worse ? { worse: plan.worse.filter((w) => there.has(w.branch)) } : {}),
      ...(plan.wiring ? { wiring: plan.wiring.filter((w) => there.has(w.branch)) } : {}),
      ...(plan.aside ? { aside: fitted(plan.aside) } : {}),
      ...(plan.either ? { either: plan.either.filter((pair) => pair.every((id) => there.has(id))) } : {}),
    },
  };
}

/** Branches that have a way back to the trunk; those on wood that is no longer listed are left out, with all that grows on them. */
export function rooted(branches: readonly Branch[]): Branch[] {
  const there = new Set(['trunk']);
  for (let more = true; more;) {
    const next = branches.filter((b) => !there.has(b.id) && there.has(b.parent));
    next.forEach((b) => there.add(b.id));
    more = next.length > 0;
  }
  return branches.filter((b) => there.has(b.id));
}
