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

/** What a decision leaves of a branch, mm from its shoulder, or why that cannot be said: such a cut is unfinished and nobody makes it. */
export type LeftOfBranch = { kept: number } | { unfinished: string };

const mm = (x: number): string => `${Math.round(x)} mm`;
const toLength = (kept: number, { length }: Branch, otherwise: string): LeftOfBranch =>
  kept < length ? { kept } : { unfinished: `${otherwise} The branch is ${mm(length)} long.` };

/** Just past the side shoot that a branch is shortened to, so that nothing of it is hurt. */
function pastShoot({ branches, plan }: Tree, branch: Branch, id: string): LeftOfBranch {
  const shoot = branches.find((b) => b.id === id && b.parent === branch.id);
  if (!shoot) return { unfinished: 'The shoot that it was to be cut to is not there any more: choose another, or say a length.' };
  if (plan.decisions.some((d) => d.branch === id && d.act === 'remove'))
    return { unfinished: 'The shoot that it is to be cut to goes as well: choose another, or say a length.' };
  return toLength(shoot.at + shoot.d, branch, 'Its shoot sits at the end, so nothing would come off: choose another, or say a length.');
}

/** What a decision leaves of a branch of the tree; null for what is no cut, or is about no branch. Nothing is taken off for want of a figure. */
export function leftBy(tree: Tree, decision: Decision): LeftOfBranch | null {
  const branch = branchOf(tree, decision.branch);
  if (!branch || !isCutting(decision)) return null;
  if (decision.act === 'remove') return { kept: 0 };
  const { length } = decision;
  const toShoot = decision.act === 'shorten' ? decision.toShoot : null;
  if (toShoot && length) return { unfinished: `It is to be cut to ${mm(length)} and to a shoot: say which of the two.` };
  if (toShoot) return pastShoot(tree, branch, toShoot);
  if (!length) return { unfinished: 'Say how much is left: a cut without a length is not made.' };
  return toLength(length, branch, `What is left would be ${mm(length)}: say a shorter length.`);
}

/** Why a decided cut cannot be made; null where it can, and for what is no cut. */
export function unfinishedCut(tree: Tree, decision: Decision): string | null {
  const left = leftBy(tree, decision);
  return left && 'unfinished' in left ? left.unfinished : null;
}

/** Branches of which a cut is decided that cannot be made, each with why. */
export const unfinishedCuts = (tree: Tree): { branch: string; why: string }[] =>
  tree.plan.decisions.flatMap((d) => {
    const why = unfinishedCut(tree, d);
    return why ? [{ branch: d.branch, why }] : [];
  });

/** The cuts among decisions that can be made on a tree. */
export const cutsAmong = (tree: Tree, decisions: readonly Decision[] = tree.plan.decisions): Cutting[] =>
  decisions.filter(isCutting).filter((d) => {
    const left = leftBy(tree, d);
    return left !== null && 'kept' in left;
  });

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
    const left = leftBy(tree, decision);
    if (!left || 'unfinished' in left) continue;
    const { kept } = left;
    const branch = branchOf(tree, decision.branch)!;
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
