import { dayOf, isoOf, sayDay } from '../units/index.js';
import { bendingOf, openSession, sayBranches, standing, vowsOf, type Names, type PromiseKind, type Tree } from '../tree/index.js';
import type { Due } from './due.js';

/** Next stages of bends, on the day from which they may be made; those of one day are one task. */
export function stagesDue(tree: Tree, names: Names, onDay: number): Due[] {
  const here = new Set(['trunk', ...tree.branches.map((b) => b.id)]);
  const cracked = new Set([...bendingOf(tree, onDay)].flatMap(([branch, { crack }]) => (crack === 'across' ? [branch] : [])));
  const next = new Map<string, string | null>();
  for (const line of standing(tree.record)) {
    if (dayOf(line.on) > onDay) break;
    if (line.kind === 'bent') next.set(line.branch, line.next ?? null);
    if (line.kind === 'unwired') next.delete(line.branch);
  }
  const byDay = new Map<string, string[]>();
  for (const [branch, on] of next) if (on !== null && here.has(branch) && !cracked.has(branch)) byDay.set(on, [...(byDay.get(on) ?? []), branch]);
  return [...byDay].map(([on, branches]): Due => ({
    on: isoOf(Math.max(onDay, dayOf(on))),
    kind: 'stage',
    leadsTo: 'work',
    branches,
    title: `${sayBranches(names, branches)}: the next stage of the bend`,
    text: `It has rested since the last; from ${sayDay(dayOf(on))} on it may be bent farther. Look at it first, and listen.`,
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

/** A session that was begun and not closed. */
export function sessionDue(tree: Tree, onDay: number): Due[] {
  const session = openSession(tree);
  if (!session) return [];
  return [
    {
      on: isoOf(onDay),
      kind: 'session',
      leadsTo: 'work',
      branches: [],
      title: 'go on with the session, or close it',
      text: `Begun on ${sayDay(session.begun)}${session.by ? ` by ${session.by}` : ''}, last worked at on ${sayDay(session.last)}.`,
      mark: null,
    },
  ];
}
