import { dayOf, turnDeg } from '../units/index.js';
import { angleBetween, cross, dot, pointAt, scale, sub, type Vec } from '../space/index.js';
import { rooted } from './branches.js';
import { childrenOf, parentsFirst, placeTree, slope, type PlacedBranch, type PlacedTree } from './geometry.js';
import type { Branch } from './measures.js';
import { standing } from './record.js';
import type { Tree } from './types.js';

/** What a branch is called, by its id. */
export type Names = (branch: string) => string;

const ORDINALS = 'first second third fourth fifth sixth seventh eighth ninth tenth eleventh twelfth'.split(' ');
export const ordinal = (n: number): string => ORDINALS[n - 1] ?? `${n}th`;

type Side = 'left' | 'right' | 'back' | 'front' | 'crown';
/** Within this of the viewer's line a branch is called after it, not after a side. */
const AHEAD_DEG = 30;
/** Above this share of the height the branches are the crown. */
const CROWN = 0.88;

function sideOf(b: PlacedBranch, front: number, height: number): Side {
  if (b.line.points[0]![2] > CROWN * height) return 'crown';
  const off = turnDeg(front, slope(b).bearing);
  if (Math.abs(off) <= AHEAD_DEG) return 'front';
  if (Math.abs(off) >= 180 - AHEAD_DEG) return 'back';
  // A bearing runs clockwise from above: what lies before the viewer's own bearing is to the right.
  return off < 0 ? 'right' : 'left';
}

interface Called {
  name: string;
  short: string;
}

const SHORT: Record<Side, string> = { left: 'L', right: 'R', back: 'back', front: 'front', crown: 'crown' };

/** Branches on the trunk, counted from below on each side as seen from the front. */
function primaries(placed: PlacedTree, front: number): Map<string, Called> {
  const sides = new Map<Side, PlacedBranch[]>();
  const fromBelow = placed.branches
    .filter((b) => b.branch.parent === 'trunk')
    .sort((a, b) => a.line.points[0]![2] - b.line.points[0]![2] || (a.branch.id < b.branch.id ? -1 : 1));
  for (const b of fromBelow) {
    const side = sideOf(b, front, placed.height);
    sides.set(side, [...(sides.get(side) ?? []), b]);
  }
  const called = new Map<string, Called>();
  for (const [side, these] of sides) {
    these.forEach((b, i) => {
      const alone = these.length === 1 && side !== 'left' && side !== 'right';
      called.set(b.branch.id, {
        name: alone ? side : `${ordinal(i + 1)} ${side}`,
        short: alone ? SHORT[side] : `${i + 1} ${SHORT[side]}`,
      });
    });
  }
  return called;
}

/** On which side of its parent a shoot stands, seen along the parent from the trunk. */
function sideOfParent(b: PlacedBranch, parent: PlacedBranch): string {
  const along = pointAt(parent.line, b.branch.at).direction;
  const out = sub(b.line.points[b.line.points.length - 1]!, b.line.points[0]!);
  const up: Vec = [0, 0, 1];
  const square = sub(up, scale(along, dot(up, along)));
  const lift = angleBetween(out, square);
  if (lift < Math.PI / 4) return 'upper';
  if (lift > (3 * Math.PI) / 4) return 'under';
  return dot(out, cross(along, up)) > 0 ? 'right' : 'left';
}

/** A twig's own words: the farther out, the fewer. Twigs of twigs go by their limb and the file's id. */
function callShoot(b: PlacedBranch, parent: PlacedBranch, nth: number, on: Called, limb: Called): Called {
  if (b.order === 2) return { name: `${on.name}, ${ordinal(nth)} from the trunk on its ${sideOfParent(b, parent)} side`, short: `${on.short} · ${nth}` };
  if (b.order === 3) return { name: `${on.name}, ${ordinal(nth)} twig`, short: `${on.short} · ${nth}` };
  return { name: `${limb.name}, twig ${b.branch.id}`, short: `${limb.short} · ${b.branch.id}` };
}

/** So long what was cut is counted still, days: nobody calls another branch by its name in that time. */
const COUNTED_DAYS = 365;

/** Branches cut in the year before the newest line of the record, as they were. */
function cutOfLate({ branches, record }: Tree): Branch[] {
  const there = new Set(branches.map((b) => b.id));
  const lines = standing(record);
  const newest = lines.length ? dayOf(lines.at(-1)!.on) : 0;
  return lines.flatMap((line) => {
    if (line.kind !== 'removed' || line.unlisted || dayOf(line.on) <= newest - COUNTED_DAYS) return [];
    const gone = (line.was ?? []).filter((b) => !there.has(b.id));
    gone.forEach((b) => there.add(b.id));
    return gone;
  });
}

/** The tree on the lines that its branches are called by, what was cut of late on it still. */
function asCalled(tree: Tree): Tree {
  const { calledBy } = tree;
  const there = new Set(tree.branches.map((b) => b.id));
  const living = calledBy ? calledBy.branches.filter((b) => there.has(b.id)) : tree.branches;
  return { ...tree, trunk: calledBy?.trunk ?? tree.trunk, branches: rooted([...living, ...cutOfLate(tree)]) };
}

function nameAll(now: Tree): Map<string, Called> {
  const tree = asCalled(now);
  const placed = placeTree(tree);
  const called = primaries(placed, tree.plan.front?.bearing ?? 0);
  const limbOf = new Map<string, string>();
  const nth = new Map<string, number>();
  for (const { id: parent } of [{ id: 'trunk' }, ...tree.branches]) {
    const shoots = [...childrenOf(tree, parent)].sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));
    shoots.forEach((shoot, i) => nth.set(shoot.id, i + 1));
  }
  for (const { id, parent, name } of parentsFirst(tree.branches)) {
    limbOf.set(id, parent === 'trunk' ? id : limbOf.get(parent)!);
    if (parent !== 'trunk')
      called.set(id, callShoot(placed.byId.get(id)!, placed.byId.get(parent)!, nth.get(id)!, called.get(parent)!, called.get(limbOf.get(id)!)!));
    const own = name?.trim();
    if (own) called.set(id, { name: own, short: own.length > 14 ? `${own.slice(0, 13)}…` : own });
  }
  return called;
}

/** Trees are values: what the branches of one are called is found once for each front. */
const remembered = new WeakMap<readonly Branch[], { tree: Tree; called: Map<string, Called> }>();
function calledIn(tree: Tree): Map<string, Called> {
  const before = remembered.get(tree.branches);
  if (before && before.tree.trunk === tree.trunk && before.tree.record === tree.record && before.tree.plan.front?.bearing === tree.plan.front?.bearing)
    return before.called;
  const called = nameAll(tree);
  remembered.set(tree.branches, { tree, called });
  return called;
}

/** What a branch was called when it went, for one that is no longer on the tree. */
function calledBefore(tree: Tree, id: string): string | undefined {
  for (const line of [...tree.record].reverse()) {
    if ((line.kind === 'removed' || line.kind === 'shortened') && line.branch === id && line.called) return line.called;
  }
  return undefined;
}

/** What the branches of a tree are called: by their owner, else by their place as seen from the chosen front, counted from below. docs: Names by place. */
export function namesOf(tree: Tree): Names {
  const called = calledIn(tree);
  return (id) => called.get(id)?.name ?? calledBefore(tree, id) ?? (id === 'trunk' ? 'the trunk' : id);
}

/** The same, short enough for a label on the tree: "1 L", "2 R · 3". */
export function shortNamesOf(tree: Tree): Names {
  const called = calledIn(tree);
  return (id) => called.get(id)?.short ?? calledBefore(tree, id) ?? id;
}

/** Several branches in a sentence: "first left, back and two more". */
export function sayBranches(names: Names, ids: readonly string[], most = 3): string {
  const shown = ids.length <= most ? ids : ids.slice(0, most - 1);
  const rest = ids.length - shown.length;
  const all = [...shown.map(names), ...(rest ? [`${rest} more`] : [])];
  const comma = all.some((name) => name.includes(',')) ? '; ' : ', ';
  return all.length < 2 ? (all[0] ?? '') : `${all.slice(0, -1).join(comma)} and ${all[all.length - 1]}`;
}
