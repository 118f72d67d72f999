import type { Static, TObject, TProperties } from '@sinclair/typebox';
import { day, id, LINE_COMMON, optional, unreadable, type Names, type RecordLine, type Tree } from '../tree/index.js';

/** Why an act is not done: the field, a code for programs, and a sentence for people. */
export interface Refusal {
  field: string;
  code: string;
  message: string;
}

/** What an act makes of a tree: its measured part and plan, and what it adds to the record (ids are given later). */
export interface Applied {
  tree: Tree;
  lines: RecordLine[];
}

export type Outcome = Applied | { refused: Refusal[] };

export const refuse = (field: string, code: string, message: string): { refused: Refusal[] } => ({ refused: [{ field, code, message }] });
export const isRefused = (outcome: Outcome): outcome is { refused: Refusal[] } => 'refused' in outcome;

/** Every act is made somewhere, on a day, and carries an id from there: what arrives twice is done once. */
export const ACT_COMMON = {
  id: id('made where the act is made'),
  on: day('the day it was decided, done or seen'),
  who: LINE_COMMON.who,
  desk: optional(id('the device that it was made on: what one did, no other takes back')),
};
type Common = Static<TObject<typeof ACT_COMMON>>;

/** All there is to know of one way to change a tree. */
export interface ActKind<K extends string = string, F extends TProperties = TProperties> {
  kind: K;
  fields: F;
  /** Whether it overwrites what somebody else may have changed meanwhile; then it names the revision that it was made on. */
  guarded: boolean;
  apply(tree: Tree, act: Common & { kind: K } & Static<TObject<F>>): Outcome;
  /** In a few words, to stand after "Take back:". */
  say(act: Common & { kind: K } & Static<TObject<F>>, names: Names): string;
}

export const actKind = <K extends string, F extends TProperties>(of: ActKind<K, F>): ActKind<K, F> => of;

/** The tree with parts of its plan replaced. */
export const inPlan = (tree: Tree, changes: Partial<Tree['plan']>): Applied => ({ tree: { ...tree, plan: { ...tree.plan, ...changes } }, lines: [] });

/** The refusal of an act about a branch that is not on the tree; null where it is. */
export const missing = (tree: Tree, branch: string, field: string): { refused: Refusal[] } | null =>
  tree.branches.some((b) => b.id === branch) ? null : refuse(field, 'not-found', `Branch "${branch}" is not on this tree.`);

/** The outcome of an act on a tree, unless it made a tree that could not be written and read again: then refused with every fault. */
export function readable(before: Tree, { tree, lines }: Applied): Outcome {
  const faults = unreadable(before, lines.length ? { ...tree, record: [...before.record, ...lines] } : tree);
  return faults.length ? { refused: faults.map(({ path, code, message }) => ({ field: path, code, message })) } : { tree, lines };
}
