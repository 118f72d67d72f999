import { crackedOn } from './bending.js';
import type { Run } from './plan-parts.js';
import { coilHistory } from './record.js';
import type { Tree } from './types.js';

/** Ids of pieces of wire that a plan or a record names: a new piece has another. */
export const runIdsOf = ({ plan, record }: Tree): Set<string> =>
  new Set([...plan.runs.map((r) => r.id), ...record.flatMap((line) => ('run' in line && line.run ? [line.run] : []))]);

/** The settled pieces of a plan as they are on a day: what was put on and came off again is done with, and so is what was to go on a branch that cracked; a piece of which one half is off is a piece of one. */
function liveRuns(tree: Tree, onDay: number): Run[] {
  const { runs } = tree.plan;
  if (!runs.length) return runs;
  const on = new Set<string>();
  const off = new Set<string>();
  for (const { run, branch, offOn } of coilHistory(tree, onDay)) (offOn === null ? on : off).add(`${run} ${branch}`);
  const cracked = crackedOn(tree, onDay);
  const isOff = (run: string, branch: string): boolean => (off.has(`${run} ${branch}`) || cracked.has(branch)) && !on.has(`${run} ${branch}`);
  if (!runs.some((r) => r.branches.some((b) => isOff(r.id, b.branch)))) return runs;
  return runs.map((r) => ({ ...r, branches: r.branches.filter((b) => !isOff(r.id, b.branch)) })).filter((r) => r.branches.length > 0);
}

/** A tree whose plan has only the settled pieces that are live on a day. */
export function withLiveRuns(tree: Tree, onDay: number): Tree {
  const runs = liveRuns(tree, onDay);
  return runs === tree.plan.runs ? tree : { ...tree, plan: { ...tree.plan, runs } };
}
