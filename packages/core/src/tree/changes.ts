import type { View } from '../space/index.js';
import type { Act, Decision, Measured, ReadingNotes, RemovalChoice, Tree, TreePlan } from './types.js';

/** Changes as plain functions, the tree as it is in, the tree as it shall be out: the server stores with them, the page shows at once with them. */
export type Change = (tree: Tree) => Tree;

const inPlan =
  (change: (plan: TreePlan) => TreePlan): Change =>
  (tree) => ({ ...tree, plan: change(tree.plan) });

export const chooseFront = (front: View | null): Change => inPlan((plan) => ({ ...plan, front }));

export const noteReading = (reading: ReadingNotes): Change => inPlan((plan) => ({ ...plan, reading }));

/** The details of a decision that may be given; one that is null is taken back. */
export type DecisionDetails = Partial<Omit<Decision, 'branch' | 'act'>>;

const withoutNulls = <T extends object>(value: T): T => Object.fromEntries(Object.entries(value).filter(([, v]) => v !== null && v !== undefined)) as T;

/** One decision set among the others. Another act keeps only why and when; "undecided" takes it away. */
function set(decisions: readonly Decision[], branch: string, act: Act, details: DecisionDetails): Decision[] {
  const others = decisions.filter((d) => d.branch !== branch);
  if (act === 'undecided') return others;
  const before = decisions.find((d) => d.branch === branch);
  const kept = before?.act === act ? before : { ...(before?.why ? { why: before.why } : {}), ...(before?.session ? { session: before.session } : {}) };
  return [...others, withoutNulls({ ...kept, branch, act, ...details })];
}

const AGAINST: Partial<Record<Act, Act>> = { remove: 'keep', keep: 'remove' };

/** What becomes of a branch. Of a pair of which one goes, the other one follows. */
export const decide = (branch: string, { act, ...details }: { act: Act } & DecisionDetails): Change =>
  inPlan((plan) => {
    const own = set(plan.decisions, branch, act, details);
    const follows = AGAINST[act];
    const others = (plan.either ?? []).filter((pair) => pair.includes(branch)).map(([a, b]) => (a === branch ? b : a));
    return { ...plan, decisions: follows ? others.reduce((all, other) => set(all, other, follows, {}), own) : own };
  });

/** Leaves cuts for a later session: the number of it, and the day they come back. */
export const putOff = (branches: readonly string[], session: number, until: string | null): Change =>
  inPlan((plan) => ({
    ...plan,
    decisions: plan.decisions.map((d) => (branches.includes(d.branch) ? withoutNulls({ ...d, session, until }) : d)),
  }));

/** One of two branches goes, which one is open; said again, it is taken back. */
export const toggleEither = (a: string, b: string): Change =>
  inPlan((plan) => {
    const same = (pair: readonly string[]): boolean => pair.includes(a) && pair.includes(b);
    const before = plan.either ?? [];
    return { ...plan, either: before.some(same) ? before.filter((pair) => !same(pair)) : [...before, [a, b]] };
  });

/** Which rules look at the tree, and how strictly. */
export const chooseRules = (removal: RemovalChoice): Change => inPlan((plan) => ({ ...plan, removal }));

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
        ...(plan.either ? { either: plan.either.filter((pair) => pair.every((id) => there.has(id))) } : {}),
      },
    };
  };
