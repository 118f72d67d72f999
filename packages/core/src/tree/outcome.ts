import { clamp } from '../units/index.js';
import { lengthOf, pointAt, stretch, sub, type Limb } from '../space/index.js';
import { withBranches } from './branches.js';
import { addShares, branchOf, childrenOf, placeTree, withChildren } from './geometry.js';
import type { Branch } from './measures.js';
import type { Decision, Fate } from './plan-parts.js';
import type { Tree } from './types.js';

/** Fates that take wood off. */
export type Cutting = Extract<Decision, { act: 'remove' | 'shorten' | 'stub' }>;
export const CUTTING: readonly Fate[] = ['remove', 'shorten', 'stub'];
export const isCutting = (decision: Decision): decision is Cutting => CUTTING.includes(decision.act);
export const sessionOf = ({ session }: Decision): number => session ?? 1;

const tenth = (x: number): number => Math.round(x * 10) / 10;

/** A stub without a length of its own: three times its thickness, at most two fifths of the branch. */
export const usualStub = ({ d, length }: Branch): number => tenth(Math.min(0.4 * length, Math.max(10, 3 * d)));

/** What a decision leaves of a branch, mm from its shoulder; null where nothing is cut off it. */
export function keptLength(branch: Branch, decision: Decision, shoot?: Branch): number | null {
  switch (decision.act) {
    case 'remove':
      return 0;
    case 'stub':
      return Math.min(branch.length, decision.length ?? usualStub(branch));
    case 'shorten': {
      // Just past the side shoot, so that nothing of it is hurt.
      const to = decision.length ?? (shoot ? shoot.at + shoot.d : null);
      return to === null || to >= branch.length ? null : to;
    }
    default:
      return null;
  }
}

/** Share of a branch's own green that a cut to a length leaves. */
const leafyLeft = ({ bareTo, length }: Branch, kept: number): number => (bareTo < 1 ? clamp((kept - bareTo * length) / (length - bareTo * length), 0, 1) : 0);

/** A branch cut to a length: path, thickness at the cut and foliage follow; a stub dies. */
function cutTo(branch: Branch, line: Limb, { kept, dies }: Cut): Branch {
  const at = clamp(kept / branch.length, 0, 1) * lengthOf(line);
  const short: Branch = {
    ...branch,
    length: tenth(kept),
    tipD: tenth(pointAt(line, at).diameter),
    bareTo: Math.round(Math.min(1, (branch.bareTo * branch.length) / kept) * 1000) / 1000,
    green: branch.green * leafyLeft(branch, kept),
    ...(dies ? { state: 'dead', green: 0, bareTo: 1, backBuds: false } : {}),
  };
  if (!branch.path) return short;
  const { points } = stretch(line, 0, at);
  return { ...short, path: points.map((p) => sub(p, points[0]!)).map(([x, y, z]) => [tenth(x), tenth(y), tenth(z)] as const) };
}

interface Cut {
  /** What is left, mm from the shoulder. */
  kept: number;
  /** What is left is deadwood. */
  dies: boolean;
}

/** What decisions take off a tree. */
export interface TakenOff {
  /** Ids of branches that are wholly gone, those that went with another included. */
  gone: Set<string>;
  /** Branches that were cut to a length. */
  cut: Map<string, Cut>;
  /** Share of the tree's green that comes off. */
  green: number;
}

/** What these decisions take off a tree, all at once; others are left open. docs: Outcome. */
export function takenOff(tree: Tree, decisions: readonly Decision[]): TakenOff {
  const gone = new Set<string>();
  const cut = new Map<string, Cut>();
  for (const decision of decisions) {
    const branch = branchOf(tree, decision.branch);
    const kept = branch ? keptLength(branch, decision, branchOf(tree, (decision.act === 'shorten' && decision.toShoot) || '')) : null;
    if (!branch || kept === null) continue;
    const dies = decision.act === 'stub';
    if (kept > 0) cut.set(branch.id, { kept, dies });
    else gone.add(branch.id);
    for (const child of childrenOf(tree, branch.id)) if (kept === 0 || dies || child.at > kept) for (const id of withChildren(tree, child.id)) gone.add(id);
  }
  for (const id of gone) cut.delete(id);
  const greenOf = (id: string): number => branchOf(tree, id)!.green;
  let green = [...gone].reduce((sum, id) => addShares(sum, greenOf(id)), 0);
  for (const [id, { kept, dies }] of cut) green = addShares(green, greenOf(id) * (dies ? 1 : 1 - leafyLeft(branchOf(tree, id)!, kept)));
  return { gone, cut, green };
}

/** A tree after decisions: what is left, with the green counted anew, and what went. */
export interface Outcome extends TakenOff {
  tree: Tree;
}

/** What is left of a tree after decisions; by itself, after all those of its plan. */
export function outcomeOf(tree: Tree, decisions: readonly Decision[] = tree.plan.decisions): Outcome {
  const off = takenOff(tree, decisions);
  const { gone, cut, green } = off;
  if (!gone.size && !cut.size) return { tree, ...off };
  const placed = cut.size ? placeTree(tree) : null;
  const whole = Math.max(1e-9, 1 - green);
  const branches = tree.branches
    .filter((b) => !gone.has(b.id))
    .map((b) => (cut.has(b.id) ? cutTo(b, placed!.byId.get(b.id)!.line, cut.get(b.id)!) : b))
    .map((b) => (green ? { ...b, green: Math.min(1, b.green / whole) } : b));
  return { tree: withBranches(tree, branches), ...off };
}

/** The decisions of a plan up to a session. */
export const upToSession = (tree: Tree, session: number): Decision[] => tree.plan.decisions.filter((d) => sessionOf(d) <= session);
