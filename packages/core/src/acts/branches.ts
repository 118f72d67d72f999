import { Type } from '@sinclair/typebox';
import {
  BRANCH,
  greenFault,
  id,
  keptInRecord,
  list,
  MOST_BRANCHES,
  orNull,
  RESERVED_IDS,
  reshaped,
  sayBranches,
  withBranches,
  withChildren,
  type Branch,
  type Tree,
} from '../tree/index.js';
import { lineAnew, notToUnlist, thicknessAnew, unlistedLines } from './measure.js';
import { actKind, missing, refuse, type Refusal } from './act.js';

const { id: _id, ...FIELDS } = BRANCH.properties;
const CHANGES = Type.Partial(Type.Object(FIELDS), { additionalProperties: false, description: 'what was measured anew' });

/** Why a branch cannot be as it would be now; null where it can. */
function impossible(tree: Tree, branch: Branch): { refused: Refusal[] } | null {
  if (branch.tipD > branch.d) return refuse('tipD', 'range', `The tip (${branch.tipD} mm) would be thicker than the base (${branch.d} mm).`);
  if (branch.path && branch.path[0]!.some((x) => x !== 0)) return refuse('path', 'range', 'The path must begin at [0, 0, 0], the shoulder.');
  const green = greenFault(tree.branches);
  if (green) return refuse('green', green.code, green.message);
  if (branch.parent === 'trunk') return null;
  const gone = missing(tree, branch.parent, 'parent');
  if (gone) return gone;
  const parentOf = new Map(tree.branches.map((b) => [b.id, b.parent]));
  for (let at: string | undefined = branch.parent; at !== undefined; at = parentOf.get(at)) {
    if (at === branch.id) return refuse('parent', 'cycle', 'A branch cannot grow on itself.');
  }
  return null;
}

/** Some values of one branch measured anew; a crooked one keeps its shape and is turned and stretched to them. */
export const remeasure = actKind({
  kind: 'remeasure',
  fields: { branch: id('which branch'), changes: CHANGES },
  guarded: true,
  apply: (tree, { branch, changes, on }) => {
    const gone = missing(tree, branch, 'branch');
    if (gone) return gone;
    const branches = tree.branches.map((b) => (b.id === branch ? reshaped(b, changes as Partial<Branch>) : b));
    const changed = branches.find((b) => b.id === branch)!;
    const thick = thicknessAnew(tree, branches, on, (id) => id === branch && 'known' in changes);
    return impossible({ ...tree, branches }, changed) ?? { tree: withBranches(tree, thick.branches), lines: [...lineAnew(tree, branches, on), ...thick.lines] };
  },
  say: ({ branch, changes }, names) => ('name' in changes && Object.keys(changes).length === 1 ? `name ${names(branch)}` : `measure ${names(branch)}`),
});

/** A further branch in the list of measures, behind another one or in front of all. */
export const listBranch = actKind({
  kind: 'list-branch',
  fields: { branch: BRANCH, after: orNull(id('the branch that it stands behind')) },
  guarded: true,
  apply: (tree, { branch, after, on }) => {
    if (RESERVED_IDS.includes(branch.id) || tree.branches.some((b) => b.id === branch.id) || keptInRecord(tree.record).has(branch.id))
      return refuse('branch', 'duplicate', `"${branch.id}" is used already.`);
    const at = after === null ? 0 : tree.branches.findIndex((b) => b.id === after) + 1;
    if (after !== null && at === 0) return refuse('after', 'not-found', `Branch "${after}" is not on this tree.`);
    const branches = [...tree.branches.slice(0, at), branch as Branch, ...tree.branches.slice(at)];
    return impossible({ ...tree, branches }, branch as Branch) ?? { tree: { ...tree, branches: thicknessAnew(tree, branches, on).branches }, lines: [] };
  },
  say: () => 'add a branch',
});

/** Branches taken out of the list of measures, with all that is listed on them. */
export const unlist = actKind({
  kind: 'unlist',
  fields: { branches: list(id('a branch'), MOST_BRANCHES, 'which branches', 1) },
  guarded: true,
  apply: (tree, { branches, on }) => {
    for (const branch of branches) {
      const gone = missing(tree, branch, 'branches');
      if (gone) return gone;
    }
    const out = new Set(branches.flatMap((b) => [...withChildren(tree, b)]));
    const notYet = notToUnlist(
      tree,
      tree.branches.filter((b) => out.has(b.id)),
    );
    if (notYet) return notYet;
    const rest = tree.branches.filter((b) => !out.has(b.id));
    return { tree: withBranches(tree, rest), lines: unlistedLines(tree, rest, on) };
  },
  say: ({ branches }, names) => `take ${sayBranches(names, branches, 4)} out of the list`,
});
