import type { Branch } from './measures.js';
import type { Tree } from './types.js';

/** The tree with other branches; its plan lets go of those that are no longer there. */
export function withBranches(tree: Tree, branches: Branch[]): Tree {
  const there = new Set(branches.map((b) => b.id));
  const { plan } = tree;
  return {
    ...tree,
    branches,
    plan: {
      ...plan,
      decisions: plan.decisions.filter((d) => there.has(d.branch)),
      poses: plan.poses.filter((p) => there.has(p.branch)),
      runs: plan.runs.map((r) => ({ ...r, branches: r.branches.filter((b) => there.has(b.branch)) })).filter((r) => r.branches.length),
      guys: plan.guys.filter((g) => there.has(g.branch)),
      ...(plan.worse ? { worse: plan.worse.filter((w) => there.has(w.branch)) } : {}),
      ...(plan.aside ? { aside: plan.aside.filter((p) => there.has(p.branch)) } : {}),
      ...(plan.either ? { either: plan.either.filter((pair) => pair.every((id) => there.has(id))) } : {}),
    },
  };
}
