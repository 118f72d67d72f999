import { dayOf } from '../units/index.js';
import { rooted, withBranches } from './branches.js';
import { placeTree, withChildren } from './geometry.js';
import { cutsAmong, isCutting, outcomeOf, takenOff } from './outcome.js';
import { standing } from './record.js';
import { broughtBack, takenFromPlan } from './let-go.js';
import type { LineOf, RecordLine } from './lines.js';
import type { Decision } from './plan-parts.js';
import type { Branch } from './measures.js';
import { namesOf } from './names.js';
import type { Tree } from './types.js';

/** A line of the record that tells of wood that went. */
export type CutLine = LineOf<'removed'> | LineOf<'shortened'>;

/** The lines of the record for cutting branches as the plan decided, in order from below; each holds the wood as it was. */
export function cutLines(tree: Tree, ids: readonly string[], on: string): CutLine[] {
  const { gone } = takenOff(tree, tree.plan.decisions);
  const decided = new Map(cutsAmong(tree).map((d) => [d.branch, d]));
  const placed = placeTree(tree);
  const heightOf = (id: string): number => placed.byId.get(id)!.line.points[0]![2];
  // What goes along with another branch is told with that one.
  const along = (id: string): boolean => gone.has(id) && ids.some((other) => other !== id && decided.has(other) && withChildren(tree, other).has(id));
  const own = ids.filter((id) => decided.has(id) && !along(id));
  const called = namesOf(tree);
  let now = tree;
  return own
    .sort((a, b) => heightOf(a) - heightOf(b) || (a < b ? -1 : 1))
    .map((id): CutLine => {
      const decision = decided.get(id)!;
      const { tree: after, gone: off, cut, green } = outcomeOf(now, [decision]);
      const was = now.branches.filter((b) => b.id === id || off.has(b.id));
      const left = cut.get(id);
      const rest = after.plan.decisions.filter((d) => d.branch !== id);
      const planned = takenFromPlan(now, { ...after, plan: { ...after.plan, decisions: rest } });
      now = after;
      const told = { on, branch: id, was, planned, green, called: called(id), ...(decision.why ? { text: decision.why } : {}) };
      if (!left) return { kind: 'removed', ...told };
      return { kind: 'shortened', ...told, length: left.kept, ...(decision.act === 'stub' ? { stub: decision.stub ?? 'jin' } : {}) };
    });
}

/** The tree after the decisions on some branches were carried out: wood and green as they are now, those decisions done with. */
export function afterCut(tree: Tree, ids: readonly string[]): Tree {
  const done = new Set(cutsAmong(tree).flatMap((d) => (ids.includes(d.branch) ? d.branch : [])));
  const { tree: after } = outcomeOf(
    tree,
    tree.plan.decisions.filter((d) => done.has(d.branch)),
  );
  const measured = withBranches(tree, after.branches);
  return { ...measured, plan: { ...measured.plan, decisions: measured.plan.decisions.filter((d) => !done.has(d.branch)) } };
}

const isCut = (line: RecordLine): line is CutLine => (line.kind === 'removed' || line.kind === 'shortened') && Array.isArray(line.was);

/** The tree with a cut taken back: its wood as it was, and what was planned for it where nothing else was since. */
export function cutBack(tree: Tree, line: CutLine): Tree {
  const back = beforeCut(tree, line);
  return { ...back, plan: broughtBack(back, line.planned ?? { decisions: [decisionBefore(line)] }, tree.branches) };
}

/** The tree with the wood of one line of the record put back as it was. */
export function beforeCut(tree: Tree, { was = [], green = 0 }: CutLine): Tree {
  const back = new Set(was.map((b) => b.id));
  const others = tree.branches.filter((b) => !back.has(b.id)).map((b): Branch => ({ ...b, green: b.green * (1 - green) }));
  return { ...tree, branches: [...others, ...was] };
}

/** The cuts that stand in the record, oldest first. */
export const cutsOf = (tree: Tree): CutLine[] => standing(tree.record).filter(isCut);

/** Cuts of the list that is being worked which are made already, by their numbers; none once a new list has begun. */
export function cutsMade(tree: Tree): CutLine[] {
  const { cutting, decisions } = tree.plan;
  const open = decisions.filter(isCutting);
  if (!cutting || (open.length && !open.some((d) => d.tag))) return [];
  const own = new Set(tree.record.slice(cutting.since).map((line) => line.id));
  return cutsOf(tree)
    .filter((line) => line.tag && own.has(line.id))
    .sort((a, b) => a.tag! - b.tag!);
}

/** What was decided of a branch before it was cut, as the record tells it. */
function decisionBefore({ kind, branch, length, text, tag, ...line }: CutLine): Decision {
  const common = { branch, ...(text ? { why: text } : {}), ...(tag ? { tag } : {}) };
  if (kind === 'removed') return { ...common, act: 'remove' };
  const left = length === undefined ? {} : { length };
  return 'stub' in line && line.stub ? { ...common, act: 'stub', stub: line.stub, ...left } : { ...common, act: 'shorten', ...left };
}

/** The tree before one line of the record: what was cut is back on, where there still is what it grew on; what was measured anew is as it was measured before. */
function beforeLine(tree: Tree, line: RecordLine): Tree {
  if (isCut(line)) return beforeCut(tree, line);
  if (line.kind !== 'measured') return tree;
  const was = new Map((line.was ?? []).map((b) => [b.id, b]));
  return { ...tree, trunk: line.trunkWas ?? tree.trunk, branches: was.size ? tree.branches.map((b) => was.get(b.id) ?? b) : tree.branches };
}

/** The tree as it was measured on a day. */
export function treeOn(tree: Tree, onDay: number): Tree {
  const before = standing(tree.record)
    .filter((line) => dayOf(line.on) > onDay && (isCut(line) || (line.kind === 'measured' && (line.was || line.trunkWas))))
    .reverse()
    .reduce(beforeLine, tree);
  return before === tree ? tree : { ...before, branches: rooted(before.branches) };
}

const YEAR = 365;

/** Share of the green that was cut in the twelve months to a day. Each cut's share is of what was there then. */
export function greenCutInYear(tree: Tree, onDay: number): number {
  const left = cutsOf(tree)
    .filter(({ on }) => dayOf(on) <= onDay && dayOf(on) > onDay - YEAR)
    .reduce((whole, { green = 0 }) => whole * (1 - green), 1);
  return 1 - left;
}
