import { Type } from '@sinclair/typebox';
import {
  keptInRecord,
  MEASURES,
  namesOf,
  recordedBranches,
  standing,
  withBranches,
  type Branch,
  type LineOf,
  type Measured,
  type Tree,
} from '../tree/index.js';
import { actKind } from './act.js';

const SOME = Type.Partial(Type.Object(MEASURES), { additionalProperties: false, description: 'parts of the tree file, each whole' });

/** Lines for branches that are taken out of the measures while the record speaks of them: they keep how those were. */
export function unlistedLines(tree: Tree, branches: readonly Branch[], on: string): LineOf<'removed'>[] {
  const there = new Set(branches.map((b) => b.id));
  const told = recordedBranches(tree.record);
  const kept = keptInRecord(tree.record);
  const names = namesOf(tree);
  return tree.branches
    .filter((b) => !there.has(b.id) && told.has(b.id) && !kept.has(b.id))
    .map((b) => ({ kind: 'removed', on, branch: b.id, was: [b], green: 0, called: names(b.id), unlisted: true }));
}

const LINE_PARTS = ['parent', 'at', 'bearing', 'elevation', 'length', 'path'] as const satisfies readonly (keyof Branch)[];

/** Lines for branches of which the record tells bends and whose line is measured anew: they begin from there, and keep how they were measured before. */
export function lineAnew(tree: Tree, branches: readonly Branch[], on: string): LineOf<'measured'>[] {
  const bent = new Set(standing(tree.record).flatMap((line) => (line.kind === 'bent' || line.kind === 'placed' ? line.branch : [])));
  const after = new Map(branches.map((b) => [b.id, b]));
  return tree.branches.flatMap((was) => {
    const now = after.get(was.id);
    return now && bent.has(was.id) && LINE_PARTS.some((part) => now[part] !== was[part]) ? [{ kind: 'measured' as const, on, branch: was.id, was: [was] }] : [];
  });
}

/** The same of the trunk. */
const trunkAnew = (tree: Tree, on: string): LineOf<'measured'>[] =>
  standing(tree.record).some((line) => (line.kind === 'bent' || line.kind === 'placed') && line.branch === 'trunk')
    ? [{ kind: 'measured', on, branch: 'trunk', trunkWas: tree.trunk }]
    : [];

const SAID: Partial<Record<keyof Measured, string>> = {
  name: 'name it anew',
  species: 'say which kind of tree it is',
  client: 'say whom it belongs to',
  pot: 'measure the pot',
  vigour: 'note its vigour',
  site: 'say where it stands',
  trunk: 'measure the trunk',
  roots: 'measure the roots',
  features: 'note features',
  branches: 'measure branches',
};

/** The tree measured anew, in whole parts of the tree file. The plan lets go of branches that are no longer there. */
export const measure = actKind({
  kind: 'measure',
  fields: { measured: SOME },
  guarded: true,
  apply: (tree, { measured, on }) => {
    const { branches, ...others } = measured;
    const next = { ...tree, ...others };
    const trunk = measured.trunk && measured.trunk !== tree.trunk ? trunkAnew(tree, on) : [];
    if (!branches) return { tree: next, lines: trunk };
    return { tree: withBranches(next, branches), lines: [...unlistedLines(tree, branches, on), ...lineAnew(tree, branches, on), ...trunk] };
  },
  say: ({ measured }) => {
    const parts = Object.keys(measured) as (keyof Measured)[];
    return (parts.length === 1 && SAID[parts[0]!]) || 'measure';
  },
});
