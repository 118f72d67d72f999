import type { Static, TObject } from '@sinclair/typebox';
import { list, optional, part, tuple, id } from './describe.js';
import { MOST_BRANCHES } from './measures.js';
import { DECISION, DEVICE, GUY, MOST_PAIRS, POSE, RUN, WIRING_MANNER, WORSE_WOOD, type Pose } from './plan-parts.js';
import { fittedPose } from './pose-fit.js';
import type { Tree } from './types.js';

const some = <T extends Parameters<typeof list>[0]>(of: T, what: string) => optional(list(of, MOST_BRANCHES, what));
const LET_GO_FIELDS = {
  decisions: some(DECISION, 'what was decided of it'),
  poses: some(POSE, 'where it was to go'),
  aside: some(POSE, 'other poses of it'),
  runs: some(RUN, 'pieces of wire planned on it'),
  guys: some(GUY, 'ties planned on it'),
  devices: some(DEVICE, 'devices planned on it'),
  worse: some(WORSE_WOOD, 'what makes its wood worse'),
  wiring: some(WIRING_MANNER, 'how it was to be wired'),
  either: optional(list(tuple<[string, string]>(2, id('a branch'), 'two branches'), MOST_PAIRS, 'pairs of which one was to go')),
};
export const LET_GO = part(LET_GO_FIELDS, 'what the plan held for the wood that went');
/** The parts of a plan that went with wood that was cut. */
export type LetGo = Static<TObject<typeof LET_GO_FIELDS>>;

const LISTS = Object.keys(LET_GO_FIELDS) as (keyof LetGo)[];
type Entry = { branch?: string; id?: string };
/** What tells entries of one list apart: the id of a piece, tie or device, a pair's branches, else the branch. */
const keyOf = (entry: unknown): string => (Array.isArray(entry) ? [...entry].sort().join('|') : ((entry as Entry).id ?? (entry as Entry).branch)!);
const byKey = (entries: readonly unknown[] = []): Map<string, unknown> => new Map(entries.map((e) => [keyOf(e), e]));

/** What a plan lets go of from one tree to the next: entries that are gone, or not as they were. */
export function takenFromPlan(before: Tree, after: Tree): LetGo {
  const gone = LISTS.flatMap((name): [string, unknown[]][] => {
    const now = byKey(after.plan[name]);
    const lost = (before.plan[name] ?? []).filter((e) => now.get(keyOf(e)) !== e && JSON.stringify(now.get(keyOf(e))) !== JSON.stringify(e));
    return lost.length ? [[name, lost]] : [];
  });
  return Object.fromEntries(gone) as LetGo;
}

const isThere = ({ branches }: Tree, branch: string): boolean => branch === 'trunk' || branches.some((b) => b.id === branch);
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

/** A piece of wire with the branches back on it that it lost; each branch lies under one piece only. */
function runBack(tree: Tree, run: Tree['plan']['runs'][number]): Tree['plan']['runs'][number] | null {
  const elsewhere = new Set(tree.plan.runs.filter((r) => r.id !== run.id).flatMap((r) => r.branches.map((b) => b.branch)));
  const branches = run.branches.filter((b) => isThere(tree, b.branch) && !elsewhere.has(b.branch));
  return branches.length ? { ...run, branches } : null;
}

/**
 * A plan with what it let go of back in it, on a tree whose wood is back. What was planned anew since stays: an entry comes back
 * only where there is none now, or where what is there is no more than what the cut left of it. `cut` are the branches as they were cut.
 */
export function broughtBack(tree: Tree, gone: LetGo, cut: Tree['branches']): Tree['plan'] {
  const stump = new Map(cut.map((b) => [b.id, b]));
  const posed = (was: Pose, now: Pose | undefined): boolean => {
    const short = stump.get(was.branch);
    return now === undefined || (short !== undefined && same(fittedPose(short, was), now));
  };
  let { plan } = tree;
  for (const name of LISTS) {
    const now = byKey(plan[name]);
    const back = (gone[name] ?? []).flatMap((was): unknown[] => {
      const there = now.get(keyOf(was));
      if (Array.isArray(was)) return there === undefined && was.every((b) => isThere(tree, b as string)) ? [was] : [];
      if (name === 'runs') return [runBack(tree, was as Tree['plan']['runs'][number]) ?? []].flat();
      if (!isThere(tree, (was as { branch: string }).branch)) return [];
      return (name === 'poses' || name === 'aside' ? posed(was as Pose, there as Pose | undefined) : there === undefined) ? [was] : [];
    });
    if (!back.length) continue;
    const keys = new Set(back.map(keyOf));
    plan = { ...plan, [name]: [...(plan[name] ?? []).filter((e) => !keys.has(keyOf(e))), ...back] };
  }
  return plan;
}
