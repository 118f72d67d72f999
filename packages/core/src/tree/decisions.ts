import { withChildren } from './geometry.js';
import { CUTTING, cutsAmong, takenOff } from './outcome.js';
import { detailsOf, type Decision, type DecisionDetails, type Fate } from './plan-parts.js';
import type { Tree } from './types.js';

/** What is decided for each branch; 'undecided' where nothing is. A branch that goes with another one counts as removed. */
export function decisionsOf(tree: Tree): Map<string, Fate> {
  const own = new Map(tree.plan.decisions.map((d) => [d.branch, d.act]));
  const { gone } = takenOff(tree, tree.plan.decisions);
  return new Map(tree.branches.map((b) => [b.id, gone.has(b.id) ? 'remove' : (own.get(b.id) ?? 'undecided')]));
}

/** Branches that go with another one that is cut, each with the one that takes it along. */
export function takenAlong(tree: Tree): Map<string, string> {
  const by = new Map<string, string>();
  for (const decision of cutsAmong(tree))
    for (const id of takenOff(tree, [decision]).gone)
      if (id !== decision.branch) by.set(id, by.has(id) ? lower(tree, by.get(id)!, decision.branch) : decision.branch);
  return by;
}

/** Of two branches on one line the one nearer the trunk. */
const lower = (tree: Tree, a: string, b: string): string => (withChildren(tree, a).has(b) ? a : b);

/** A decision with only the details that go with its fate, and none that is null. */
function decisionOf(branch: string, act: Fate, details: DecisionDetails): Decision {
  const own = detailsOf(act);
  const kept = Object.entries(details).filter(([key, v]) => own.includes(key) && v !== null && v !== undefined);
  return { branch, act, ...Object.fromEntries(kept) } as Decision;
}

const CUTS = new Set(CUTTING);

/** One decision set among the others. Another fate keeps only why and when; "undecided" takes it away. */
function set(decisions: readonly Decision[], branch: string, act: Fate, details: DecisionDetails): Decision[] {
  const others = decisions.filter((d) => d.branch !== branch);
  if (act === 'undecided') return others;
  const before = decisions.find((d) => d.branch === branch);
  const kept: DecisionDetails = before?.act === act ? before : { why: before?.why, session: before?.session };
  // A number that was taken along stays with the branch as long as it is to be cut.
  const tag = before?.tag && CUTS.has(act) ? { tag: before.tag } : {};
  // A cut goes to a length or to a shoot: the one that is said now takes the other's place.
  const instead: DecisionDetails = details.length ? { toShoot: null } : details.toShoot ? { length: null } : {};
  return [...others, { ...decisionOf(branch, act, { ...kept, ...instead, ...details }), ...tag }];
}

const AGAINST: Partial<Record<Fate, Fate>> = { remove: 'keep', keep: 'remove' };

/** The tree with what becomes of a branch decided. Of a pair of which one goes, the other one follows. */
export function decided(tree: Tree, branch: string, act: Fate, details: DecisionDetails = {}): Tree {
  const { plan } = tree;
  const own = set(plan.decisions, branch, act, details);
  const follows = AGAINST[act];
  const others = (plan.either ?? []).filter((pair) => pair.includes(branch)).map(([a, b]) => (a === branch ? b : a));
  const decisions = follows ? others.reduce((all, other) => set(all, other, follows, {}), own) : own;
  return { ...tree, plan: { ...plan, decisions } };
}
