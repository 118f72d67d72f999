import type { PlanDocument, Tree } from '@ustle/core';

export const STAGE_KEYS = ['read', 'measure', 'front', 'remove', 'wire', 'watch'] as const;
export type StageKey = (typeof STAGE_KEYS)[number];

/** The stages that need nothing more for now. */
export function settledStages(tree: Tree, plan: PlanDocument | null): Set<StageKey> {
  const settled = new Set<StageKey>();
  if (!plan) return settled;
  if (plan.read.verdict === 'go') settled.add('read');
  if (tree.branches.length) settled.add('measure');
  if (tree.plan.front) settled.add('front');
  const decided = new Set(tree.plan.decisions.map((d) => d.branch));
  if (decided.size && plan.findings.every((f) => decided.has(f.branch))) settled.add('remove');
  const wired = new Set(plan.wires.map((w) => w.branch));
  if (wired.size && plan.runs.every((r) => r.branches.every((b) => wired.has(b.branch)))) settled.add('wire');
  if (plan.wires.length && plan.wires.every((w) => w.nextInspection > plan.on && w.advice !== 'remove-now')) settled.add('watch');
  return settled;
}
