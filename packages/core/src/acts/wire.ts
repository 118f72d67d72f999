import type { Static, TObject } from '@sinclair/typebox';
import {
  id,
  LINE_COMMON,
  LINE_FIELDS,
  list,
  optional,
  part,
  placeTree,
  RUN,
  runIdsOf,
  sayBranches,
  WINDING_FIELDS,
  WIRE_FIELDS,
  woodIn,
  type RecordLine,
  type Run,
  type Tree,
} from '../tree/index.js';
import { canBeWoundOn, THICKEST, whyNotJoined } from '../wire/index.js';
import { actKind, inPlan, missing, refuse, type Applied } from './act.js';

const { gap, wrap, bentDeg, targetDeg, over, at, toward, turns, anchor, length, roll } = LINE_FIELDS.wired;
const ON_BRANCH = { branch: id('which branch'), ...WINDING_FIELDS, wrap, bentDeg, targetDeg, over, at, toward, turns };
const FIELDS = {
  ...WIRE_FIELDS,
  ...ON_BRANCH,
  second: optional(part(ON_BRANCH, 'the branch that its other half is wound on')),
  along: optional(list(part(ON_BRANCH, 'a shoot that it goes on along'), 6, 'shoots that it goes on along')),
  gap,
  anchor,
  length,
  roll,
  text: LINE_COMMON.text,
};
type Wired = Static<TObject<typeof FIELDS>>;

const freeRunId = (tree: Tree): string => {
  const used = runIdsOf(tree);
  let n = 1;
  while (used.has(`w${n}`)) n++;
  return `w${n}`;
};

/** The runs with some branches taken off them; what is left without any is gone. */
const without = (runs: readonly Run[], branches: readonly string[]): Run[] =>
  runs.map((r) => ({ ...r, branches: r.branches.filter((b) => !branches.includes(b.branch)) })).filter((r) => r.branches.length > 0);

const isOn = (run: Run, branches: readonly string[]): boolean => branches.every((id) => run.branches.some((b) => b.branch === id));

/** The run that a piece belongs to: the plan's own with the same wire on them, also where one half goes on after the other, else a new one that takes its place. */
function runFor(tree: Tree, { metal, size, strands, angle, branch, hand, start, second, along = [] }: Wired): { id: string; runs: Run[] } {
  const branches = [{ branch, hand, start }, ...(second ? [second] : []), ...along].map((on) => ({ branch: on.branch, hand: on.hand, start: on.start }));
  const ids = branches.map((b) => b.branch);
  const { plan } = tree;
  const same = plan.runs.find((r) => r.metal === metal && r.size === size && r.strands === strands && isOn(r, ids));
  if (same) return { id: same.id, runs: plan.runs };
  const run: Run = { id: freeRunId(tree), metal, size, strands, angle, branches };
  return { id: run.id, runs: [...without(plan.runs, ids), run] };
}

/** A piece of wire was put on, on one branch or on more: the plan takes its run, the record a line for each. */
export const putWireOn = actKind({
  kind: 'wired',
  fields: FIELDS,
  guarded: true,
  apply: (tree, { id: _id, ...wired }) => {
    const { second, along = [], length: whole, roll: from, ...first } = wired;
    const gone =
      (first.branch === 'trunk' ? null : missing(tree, first.branch, 'branch')) ??
      (second ? missing(tree, second.branch, 'second') : null) ??
      along.map((on) => missing(tree, on.branch, 'along')).find((refused) => refused !== null) ??
      null;
    if (gone) return gone;
    const others = [...(second ? [second] : []), ...along];
    if (others.length && first.branch === 'trunk') return refuse('second', 'choice', "The trunk's wire is a piece of its own.");
    if (second?.branch === first.branch) return refuse('second', 'choice', 'The other half needs another branch; this is the same one.');
    const ids = [first, ...others].map((on) => on.branch);
    if (new Set(ids).size < ids.length) return refuse('along', 'choice', 'It goes on along a branch that it is on already.');
    const { id: run, runs } = runFor(tree, wired);
    const used = { ...(whole ? { length: whole } : {}), ...(from ? { roll: from } : {}) };
    const { branch: _b, hand: _h, start: _s, bentDeg: _a, targetDeg: _t, over: _o, at: _p, toward: _d, turns: _n, wrap: _w, ...common } = first;
    const lines: RecordLine[] = [
      { gap: 0, wrap: 'none', ...first, ...used, run },
      ...others.map((on) => ({ gap: 0, wrap: 'none' as const, ...common, ...on, run })),
    ];
    return { tree: runs === tree.plan.runs ? tree : { ...tree, plan: { ...tree.plan, runs } }, lines };
  },
  say: ({ branch, second, along = [] }, names) =>
    `wire ${sayBranches(names, [branch, ...(second ? [second.branch] : []), ...along.map((on) => on.branch)], 2)}`,
});

const { id: RUN_ID, ...RUN_FIELDS } = RUN.properties;

/** Settles a piece of wire as its artist wants it; the rest of the plan is made to go with it. */
export const settleRun = actKind({
  kind: 'run',
  fields: {
    ...RUN_FIELDS,
    branches: list(
      part({ branch: id('which branch'), ...WINDING_FIELDS }, 'a branch of a run'),
      6,
      'one branch or two, and shoots of theirs that it goes on along',
      1,
    ),
    run: optional(id('which run')),
  },
  guarded: true,
  apply: (tree, { run: asked, metal, size, strands, angle, branches, side, length: planned }) => {
    const ids = branches.map((b) => b.branch);
    for (const branch of ids) {
      const gone = branch === 'trunk' ? null : missing(tree, branch, 'branches');
      if (gone) return gone;
      const { d, state } = woodIn(placeTree(tree), branch)!.branch;
      if (state === 'dead') return refuse('branches', 'choice', 'Dead wood is not wired.');
      if (!canBeWoundOn(size, d))
        return refuse('size', 'range', `size: ${size} mm of wire cannot be wound on a branch of ${d} mm; at most ${(d * THICKEST).toFixed(1)} mm.`);
    }
    if (ids.length > 1 && ids.includes('trunk')) return refuse('branches', 'choice', "The trunk's wire is a piece of its own.");
    const given = { metal, size, strands, angle, branches, ...(side ? { side } : {}), ...(planned ? { length: planned } : {}) };
    const why = branches.length > 1 ? whyNotJoined(tree, given as Run) : null;
    if (why) return refuse('branches', 'no-way', why);
    const others = without(
      tree.plan.runs.filter((r) => r.id !== asked),
      ids,
    );
    const isFree = (run: string): boolean => tree.plan.runs.some((r) => r.id === run) || !runIdsOf(tree).has(run);
    const free = asked && !others.some((r) => r.id === asked) && isFree(asked) ? asked : freeRunId({ ...tree, plan: { ...tree.plan, runs: others } });
    return inPlan(tree, { runs: [...others, { id: free, ...given } as Run] });
  },
  say: ({ branches }, names) =>
    `settle the wire of ${sayBranches(
      names,
      branches.map((b) => b.branch),
      2,
    )}`,
});

/** Lets go of a settled piece that is not on yet: it is proposed again. */
export const letRunGo = actKind({
  kind: 'unrun',
  fields: { run: RUN_ID },
  guarded: true,
  apply: (tree, { run }): Applied | ReturnType<typeof refuse> => {
    if (!tree.plan.runs.some((r) => r.id === run)) return refuse('run', 'not-found', `Run "${run}" is not settled in this plan.`);
    return inPlan(tree, { runs: tree.plan.runs.filter((r) => r.id !== run) });
  },
  say: ({ run }) => `let ${run} be planned anew`,
});
