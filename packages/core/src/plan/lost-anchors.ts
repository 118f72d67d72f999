import { standing, type Names, type Tree } from '../tree/index.js';
import type { RunPlan } from '../wire/index.js';

/** What holds the loose half of a piece now, in words. */
function sayAnchor(run: RunPlan | undefined, names: Names): string {
  if (!run) return 'there is no room to anchor it anew: take it off, or let a guy hold the branch';
  const turns = (run.anchor?.turns ?? 2).toFixed(1);
  const beside = run.anchor?.beside;
  return `anchor it by ${turns} turns ${beside ? `beside the wire of ${names(beside)}` : 'round the limb'}`;
}

/** Pieces of wire, settled or on, whose other half was on a branch that goes or is gone: what holds them instead. */
export function lostAnchors(tree: Tree, after: Tree, runs: readonly RunPlan[], names: Names): string[] {
  const here = new Set(after.branches.map((b) => b.id));
  const shared = new Map<string, Set<string>>();
  const add = (run: string, branch: string): void => void shared.set(run, (shared.get(run) ?? new Set()).add(branch));
  for (const run of tree.plan.runs) run.branches.forEach((b) => add(run.id, b.branch));
  const parentOf = new Map(tree.branches.map((b) => [b.id, b.parent]));
  const settled = new Set(tree.plan.runs.map((r) => r.id));
  for (const line of standing(tree.record)) if (line.kind === 'wired' && line.run && settled.has(line.run)) add(line.run, line.branch);
  return [...shared].flatMap(([id, branches]) => {
    const left = [...branches].filter((b) => here.has(b));
    // What its wire only went on along held nothing.
    const gone = [...branches].filter((b) => b !== 'trunk' && !here.has(b) && !branches.has(parentOf.get(b)!));
    if (left.length !== 1 || gone.length === 0) return [];
    const run = runs.find((r) => r.branches.some((b) => b.branch === left[0]));
    return [`The wire of ${names(left[0]!)} (${id}) was anchored on ${names(gone[0]!)}, which goes: ${sayAnchor(run, names)}.`];
  });
}
