import { dayOf, isoOf, sayDay } from '../units/index.js';
import {
  coilsOn,
  crackedOn,
  guysOn,
  heldShapeOf,
  openSession,
  SAME_SESSION_DAYS,
  sayBranches,
  standing,
  vowsOf,
  withLiveRuns,
  workSessions,
  type Names,
  type PromiseKind,
  type Tree,
} from '../tree/index.js';
import type { Due } from './due.js';

/** Next stages of bends, on the day from which they may be made; those of one day are one task. */
export function stagesDue(tree: Tree, names: Names, onDay: number): Due[] {
  const here = new Set(['trunk', ...tree.branches.map((b) => b.id)]);
  const cracked = crackedOn(tree, onDay);
  const next = new Map<string, string | null>();
  for (const line of standing(tree.record)) {
    if (dayOf(line.on) > onDay) break;
    if (line.kind === 'bent') next.set(line.branch, line.next ?? null);
    if (line.kind === 'unwired') next.delete(line.branch);
  }
  for (const tie of guysOn(tree, onDay)) if (tie.next !== null) next.set(tie.branch, isoOf(tie.next));
  const byDay = new Map<string, string[]>();
  for (const [branch, on] of next) if (on !== null && here.has(branch) && !cracked.has(branch)) byDay.set(on, [...(byDay.get(on) ?? []), branch]);
  return [...byDay].map(([on, branches]): Due => ({
    on: isoOf(Math.max(onDay, dayOf(on))),
    kind: 'stage',
    leadsTo: 'work',
    branches,
    title: `${sayBranches(names, branches)}: the next stage`,
    text: `It has rested since the last; from ${sayDay(dayOf(on))} on it may be bent or drawn farther. Look at it first, and listen.`,
    mark: null,
  }));
}

const VOW_TITLES: Record<PromiseKind, string> = {
  repot: 'repot it, as promised',
  graft: 'graft, as promised',
  reserve: 'decide on the reserve, as promised',
  deadwood: 'see to the deadwood, as promised',
  styling: 'the next styling, as promised',
  feed: 'feed it, as promised',
  other: 'as promised',
};

/** What was promised and is owed still, on the day from which it may be done. */
export const vowsDue = (tree: Tree, names: Names, onDay: number): Due[] =>
  vowsOf(tree).flatMap(({ line, ended }): Due[] => {
    if (ended) return [];
    const from = dayOf(line.from ?? line.on);
    const until = line.until ? ` By ${sayDay(dayOf(line.until))}.` : '';
    return [
      {
        on: isoOf(Math.max(onDay, from)),
        kind: 'vow',
        leadsTo: 'work',
        branches: line.branch ? [line.branch] : [],
        title: `${line.branch ? `${names(line.branch)}: ` : ''}${VOW_TITLES[line.what]}`,
        text: `Promised on ${sayDay(dayOf(line.on))}.${line.text ? ` ${line.text}` : ''}${until}`,
        mark: null,
        line: line.id!,
      },
    ];
  });

/** What is settled and not done: pieces that are not on, and branches whose wire or tie is on and that are not placed. */
export function workLeft(tree: Tree, onDay: number): { pieces: number; toPlace: number } {
  const on = new Set([...coilsOn(tree, onDay).map((c) => c.branch), ...guysOn(tree, onDay).map((g) => g.branch)]);
  const cracked = crackedOn(tree, onDay);
  const pieces = withLiveRuns(tree, onDay).plan.runs.filter((r) => r.branches.some((b) => !on.has(b.branch))).length;
  const isOpen = (branch: string): boolean => on.has(branch) && !cracked.has(branch) && !heldShapeOf(tree, branch)?.placed;
  return { pieces, toPlace: tree.plan.poses.filter((p) => !p.stays && isOpen(p.branch)).length };
}

/** What is left, in words; null where nothing is. */
export function sayWorkLeft({ pieces, toPlace }: ReturnType<typeof workLeft>): string | null {
  const said = [
    ...(pieces ? [`${pieces} ${pieces === 1 ? 'piece' : 'pieces'} of wire`] : []),
    ...(toPlace ? [`${toPlace} ${toPlace === 1 ? 'branch' : 'branches'} to bend and place`] : []),
  ];
  return said.length ? said.join(', ') : null;
}

/** A session that was begun and not closed, or closed lately with work left in it. */
export function sessionDue(tree: Tree, onDay: number): Due[] {
  const session = openSession(tree);
  const due = (title: string, text: string): Due => ({ on: isoOf(onDay), kind: 'session', leadsTo: 'work', branches: [], title, text, mark: null });
  if (session)
    return [
      due(
        'go on with the session, or close it',
        `Begun on ${sayDay(session.begun)}${session.by ? ` by ${session.by}` : ''}, last worked at on ${sayDay(session.last)}.`,
      ),
    ];
  const last = workSessions(tree).at(-1);
  const left = last && last.closed !== null && last.closed <= onDay && onDay - last.closed <= SAME_SESSION_DAYS ? sayWorkLeft(workLeft(tree, onDay)) : null;
  return left
    ? [due(`go on where the session ended: ${left}`, `It was closed on ${sayDay(last!.closed!)}${last!.by ? ` by ${last!.by}` : ''} with this left.`)]
    : [];
}
