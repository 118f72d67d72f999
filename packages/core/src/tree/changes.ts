import type { View } from '../space/index.js';
import type { Act, Measured, ReadingNotes, Tree, TreePlan } from './types.js';

/** Changes as plain functions, the tree as it is in, the tree as it shall be out: the server stores with them, the page shows at once with them. */
export type Change = (tree: Tree) => Tree;

const inPlan =
  (change: (plan: TreePlan) => TreePlan): Change =>
  (tree) => ({ ...tree, plan: change(tree.plan) });

export const chooseFront = (front: View | null): Change => inPlan((plan) => ({ ...plan, front }));

export const noteReading = (reading: ReadingNotes): Change => inPlan((plan) => ({ ...plan, reading }));

/** What becomes of a branch; "undecided" takes the decision away. */
export const decide = (branch: string, { act, why }: { act: Act; why?: string | undefined }): Change =>
  inPlan((plan) => {
    const others = plan.decisions.filter((d) => d.branch !== branch);
    if (act === 'undecided') return { ...plan, decisions: others };
    const before = plan.decisions.find((d) => d.branch === branch);
    return { ...plan, decisions: [...others, { ...before, branch, act, ...(why === undefined ? {} : { why }) }] };
  });

/** Fronts kept open, in order of bearing; a view that is there already is let go of. */
export const togglePinned = (view: View): Change =>
  inPlan((plan) => {
    const same = (v: View): boolean => v.bearing === view.bearing && v.pitch === view.pitch && v.roll === view.roll;
    const before = plan.pinned ?? [];
    const pinned = before.some(same) ? before.filter((v) => !same(v)) : [...before, view].sort((a, b) => a.bearing - b.bearing);
    return { ...plan, pinned };
  });

/** The tree measured anew; the plan lets go of branches that are no longer there. */
export const measure =
  (measured: Partial<Measured>): Change =>
  (tree) => {
    const next = { ...tree, ...measured };
    const there = new Set(next.branches.map((b) => b.id));
    const { plan } = next;
    return {
      ...next,
      plan: {
        ...plan,
        decisions: plan.decisions.filter((d) => there.has(d.branch)),
        poses: plan.poses.filter((p) => there.has(p.branch)),
        runs: plan.runs.map((r) => ({ ...r, branches: r.branches.filter((b) => there.has(b.branch)) })).filter((r) => r.branches.length),
        guys: plan.guys.filter((g) => there.has(g.branch)),
      },
    };
  };
