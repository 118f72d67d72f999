import { Type } from '@sinclair/typebox';
import { keptInRecord, MEASURES, namesOf, recordedBranches, withBranches, type Branch, type LineOf, type Measured, type Tree } from '../tree/index.js';
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

const SAID: Partial<Record<keyof Measured, string>> = {
  name: 'name it anew',
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
    return branches ? { tree: withBranches(next, branches), lines: unlistedLines(tree, branches, on) } : { tree: next, lines: [] };
  },
  say: ({ measured }) => {
    const parts = Object.keys(measured) as (keyof Measured)[];
    return (parts.length === 1 && SAID[parts[0]!]) || 'measure';
  },
});
