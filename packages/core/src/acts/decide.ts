import {
  decided,
  DECISION_DETAILS,
  FATE_NAMES,
  id,
  list,
  MOST_BRANCHES,
  oneOf,
  orNull,
  sayBranches,
  day,
  unfinishedCut,
  whole,
  type Fate,
} from '../tree/index.js';
import { actKind, inPlan, missing, refuse } from './act.js';

const DONE: Record<Fate, string> = {
  keep: 'keep',
  remove: 'take off',
  shorten: 'shorten',
  stub: 'leave a stub of',
  reserve: 'hold in reserve:',
  sacrifice: 'let run free:',
  undecided: 'leave open:',
};

/** Decides what becomes of a branch. A detail that is null is taken back; of a pair of which one goes, the other one follows. */
export const decide = actKind({
  kind: 'decide',
  fields: { branch: id('which branch'), act: oneOf(FATE_NAMES as readonly Fate[], 'what becomes of it'), ...DECISION_DETAILS },
  guarded: true,
  apply: (tree, { id: _id, on: _on, kind: _kind, branch, act, ...details }) => {
    const gone = missing(tree, branch, 'branch');
    if (gone) return gone;
    const { length } = tree.branches.find((b) => b.id === branch)!;
    if (details.length && details.toShoot) return refuse('toShoot', 'choice', 'A branch is cut to a length or to a shoot: say one of them.');
    if (details.length && details.length >= length)
      return refuse('length', 'value', `The branch is ${length} mm long: what is left must be shorter; it is ${details.length} mm.`);
    if (details.toShoot && !tree.branches.some((b) => b.id === details.toShoot && b.parent === branch))
      return refuse('toShoot', 'value', `"${details.toShoot}" does not grow on that branch.`);
    if (details.untilSet === branch) return refuse('untilSet', 'value', 'A branch cannot wait for its own bend.');
    const gonePartner = details.untilSet ? missing(tree, details.untilSet, 'untilSet') : null;
    if (gonePartner) return gonePartner;
    const after = decided(tree, branch, act as Fate, details);
    const made = after.plan.decisions.find((d) => d.branch === branch);
    const unfinished = details.toShoot && made && unfinishedCut(after, made);
    return unfinished ? refuse('toShoot', 'value', unfinished) : { tree: after, lines: [] };
  },
  say: ({ act, branch }, names) => `${DONE[act as Fate]} ${names(branch)}`,
});

/** Leaves cuts for a later session and the day they come back, or with session 1 brings them into this one. */
export const putOff = actKind({
  kind: 'put-off',
  fields: {
    branches: list(id('a branch'), MOST_BRANCHES, 'which branches', 1),
    session: whole(1, 20, 'sessions', 'which session'),
    until: orNull(day('the day they come back')),
  },
  guarded: true,
  apply: (tree, { branches, session, until }) => {
    for (const branch of branches) {
      const gone = missing(tree, branch, 'branches');
      if (gone) return gone;
    }
    const decisions = tree.plan.decisions.map((d) => {
      if (!branches.includes(d.branch)) return d;
      const { until: _until, ...rest } = d as typeof d & { until?: string | null };
      const dated = until !== null && d.act !== 'keep' && d.act !== 'undecided' ? { until } : {};
      return { ...rest, session, ...dated } as typeof d;
    });
    return inPlan(tree, { decisions });
  },
  say: ({ branches, session }, names) =>
    session > 1 ? `leave ${sayBranches(names, branches, 4)} for session ${session}` : `cut ${sayBranches(names, branches, 4)} in this session`,
});

/** Of two branches one goes, which one is open; said again, it is taken back. */
export const either = actKind({
  kind: 'either',
  fields: { a: id('a branch'), b: id('the other one') },
  guarded: true,
  apply: (tree, { a, b }) => {
    if (a === b) return refuse('b', 'choice', 'Either needs two branches; these are one.');
    const gone = missing(tree, a, 'a') ?? missing(tree, b, 'b');
    if (gone) return gone;
    const same = (pair: readonly string[]): boolean => pair.includes(a) && pair.includes(b);
    const before = tree.plan.either ?? [];
    return inPlan(tree, { either: before.some(same) ? before.filter((pair) => !same(pair)) : [...before, [a, b]] });
  },
  say: ({ a, b }, names) => `either ${names(a)} or ${names(b)}`,
});
