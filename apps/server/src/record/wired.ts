import type { WiredBody } from '@ustle/contract';
import type { RecordEntry, Run, Tree, TreePlan } from '@ustle/core';

const freeRunId = (plan: TreePlan): string => {
  const used = new Set(plan.runs.map((r) => r.id));
  let n = 1;
  while (used.has(`w${n}`)) n++;
  return `w${n}`;
};

/** The run that a coil belongs to: the plan's own for that branch with the same wire, else a new one. */
export function runFor(tree: Tree, body: WiredBody): { id: string; plan: TreePlan } {
  const { plan } = tree;
  const same = plan.runs.find(
    (r) => r.metal === body.metal && r.size === body.size && r.strands === body.strands && r.branches.some((b) => b.branch === body.branch),
  );
  if (same) return { id: same.id, plan };
  const id = freeRunId(plan);
  const run: Run = {
    id,
    metal: body.metal,
    size: body.size,
    strands: body.strands,
    angle: body.angle,
    branches: [{ branch: body.branch, hand: body.hand, start: body.start }],
  };
  // A branch has one run: what the plan had for it gives way to what was really put on.
  const others = plan.runs.map((r) => ({ ...r, branches: r.branches.filter((b) => b.branch !== body.branch) })).filter((r) => r.branches.length > 0);
  return { id, plan: { ...plan, runs: [...others, run] } };
}

export function wiredEntry(run: string, body: WiredBody): RecordEntry {
  const { revision: _revision, ...rest } = body;
  return { kind: 'wired', run, ...rest };
}
