import { dayOf, EMPTY_LOG, namesOf, perform, sayAct, type Act, type Log, type Tree } from '@ustle/core';
import type { FileFault } from '@ustle/files';

/** A tree after some acts in turn, each said; or the first one that is refused, with its place in the list. */
export function runActs(tree: Tree, acts: readonly Act[]): { tree: Tree; said: string[] } | { faults: FileFault[] } {
  let now = tree;
  let log: Log = EMPTY_LOG;
  const said: string[] = [];
  for (const [i, act] of acts.entries()) {
    const done = perform(now, log, act, dayOf(act.on));
    if ('refused' in done) return { faults: done.refused.map((r) => ({ path: `/${i}/${r.field.replace(/^\//, '')}`, code: r.code, message: r.message })) };
    said.push(sayAct(act, namesOf(now)));
    ({ tree: now, log } = done);
  }
  return { tree: now, said };
}
