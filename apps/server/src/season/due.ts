import { cutList, dueDay, isoOf, placeTree, promisesOf, sayDay, watch, type PlacedTree, type Promised, type Tree, type Watched } from '@ustle/core';
import type { DueKind, DueView, RaceBar } from '@ustle/contract';

/** Coils of one tree due within this many days of each other are one walk. */
const ROUND_DAYS = 3;

const TITLES: Record<DueKind, (branches: string) => string> = {
  look: (b) => `${b}: look at the wire`,
  remove: (b) => `${b}: take wire off`,
  window: (b) => `${b}: wire can come off`,
  promise: (b) => b,
  plan: (b) => b,
};

/** Sorts what is due: by day, what marks before what is only to be looked at; open plans last. */
export const urgency = ({ on, kind }: DueView): string => (kind === 'plan' ? 'plan' : on) + { remove: 0, look: 1, window: 2, promise: 3, plan: 4 }[kind];

const kindOf = (w: Watched, onDay: number): DueKind =>
  w.race.advice === 'remove-now' ? 'remove' : w.race.window && w.race.window.from <= onDay ? 'window' : 'look';

const list = (ids: readonly string[]): string => (ids.length <= 3 ? ids.join(', ') : `${ids.slice(0, 2).join(', ')} and ${ids.length - 2} more`);

/** A look that is near a removal on the same tree belongs to the same walk, but is a task of its own kind. */
function grouped(items: readonly { w: Watched; day: number; kind: DueKind }[]): { kind: DueKind; day: number; watched: Watched[] }[] {
  const groups: { kind: DueKind; day: number; watched: Watched[] }[] = [];
  for (const { w, day, kind } of [...items].sort((a, b) => a.day - b.day)) {
    const group = groups.find((g) => g.kind === kind && day - g.day <= ROUND_DAYS);
    if (group) group.watched.push(w);
    else groups.push({ kind, day, watched: [w] });
  }
  return groups;
}

const PROMISE_TITLES: Record<Promised['kind'], (b: string) => string> = {
  reserve: (b) => `${b}, in reserve: keep or take off?`,
  sacrifice: (b) => `${b}, sacrifice: thick enough below?`,
  'later cut': (b) => `${b}: cut, as left for now`,
};

/** Reserves, sacrifices and cuts that were put off: a task on the day they come back; those of one kind and day are one. */
function promised(id: string, placed: PlacedTree, onDay: number): DueView[] {
  const groups = new Map<string, Promised[]>();
  for (const p of promisesOf(placed, onDay)) {
    if (p.on === null) continue;
    const on = p.ready ? isoOf(onDay) : p.on;
    groups.set(`${on} ${p.kind}`, [...(groups.get(`${on} ${p.kind}`) ?? []), { ...p, on }]);
  }
  return [...groups.values()].map((these): DueView => {
    const branches = these.map((p) => p.branch);
    return {
      tree: id,
      treeName: placed.tree.name,
      on: these[0]!.on!,
      kind: 'promise',
      branches,
      title: PROMISE_TITLES[these[0]!.kind](list(branches)),
      text: [...new Set(these.map((p) => p.text))].join(' '),
      stage: null,
    };
  });
}

/** What is due on one tree, soonest first: looks at its coils, removals, and else the next open step of its plan. */
export function dueOn(id: string, tree: Tree, onDay: number): { due: DueView[]; race: RaceBar | null; coils: number } {
  const placed = placeTree(tree);
  const watched = watch(placed, onDay);
  const groups = grouped(watched.map((w) => ({ w, day: Math.max(onDay, dueDay(w, onDay)), kind: kindOf(w, onDay) })));
  const due = groups.map(({ kind, day, watched: these }): DueView => {
    const ids = these.map((w) => w.coil.branch);
    const late = these.filter((w) => w.nextInspection < onDay).map((w) => w.nextInspection);
    return {
      tree: id,
      treeName: tree.name,
      on: isoOf(day),
      kind,
      branches: ids,
      title: TITLES[kind](list(ids)),
      text: [...(late.length ? [`Due since ${sayDay(Math.min(...late))}.`] : []), these[0]!.race.because.join(' ')].join(' '),
      stage: these[0]!.lastSeen?.stage ?? null,
    };
  });
  due.push(...promised(id, placed, onDay));
  const step = nextStep(placed);
  if (step)
    due.push({
      tree: id,
      treeName: tree.name,
      on: isoOf(onDay),
      kind: 'plan',
      branches: [],
      title: step,
      text: 'When you like: nothing is lost by waiting.',
      stage: null,
    });
  due.sort((a, b) => (urgency(a) < urgency(b) ? -1 : 1));
  return { due, race: watched[0] ? raceBar(watched[0]) : null, coils: watched.length };
}

/** The first stage of the plan that is still open. */
function nextStep(placed: PlacedTree): string | null {
  const { tree } = placed;
  if (!tree.plan.front) return 'choose the front';
  const open = tree.branches.filter((b) => !tree.plan.decisions.some((d) => d.branch === b.id)).length;
  if (open === tree.branches.length) return 'decide what to remove';
  const cuts = cutList(placed, 1).length;
  if (cuts) return `${cuts} ${cuts === 1 ? 'branch' : 'branches'} to cut, as decided`;
  return tree.record.some((e) => e.kind === 'wired') ? null : 'wire the branches that stay';
}

function raceBar({ coil, race: { window, forecast } }: Watched): RaceBar {
  const iso = (day: number | null): string | null => (day === null ? null : isoOf(day));
  return {
    branch: coil.branch,
    setFrom: iso(window?.from ?? forecast.setSure),
    touchFrom: iso(forecast.firstTouch),
    markFrom: iso(forecast.marking.p10),
    markSure: iso(forecast.marking.p90),
  };
}
