import { groupedBy, leastOf, isoOf, sayDay, sayMonths } from '../units/index.js';
import { coilTask, watch, watchGuys, type CoilTask, type CoilTaskKind, type Known, type Watched, type WatchedGuy } from '../growth/index.js';
import { DEVICE_WORDS } from '../guy/index.js';
import { northernMonth, speciesOf, type Task } from '../species/index.js';
import { cutList } from '../removal/index.js';
import {
  agreedBranches,
  isCutting,
  MARK_STAGES,
  namesOf,
  placeTree,
  sayBranches,
  type MarkStage,
  type Names,
  type PlacedTree,
  type Tree,
  isRead,
  isTrunkMeasured,
} from '../tree/index.js';
import { asItStands } from '../stand/index.js';
import { heldDue, letGoDue, SPRINGS_BACK_DAYS } from './held-due.js';
import { promisesOf, type Promised } from './promises.js';
import { sayWorkLeft, sessionDue, stagesDue, vowsDue, workLeft } from './work-due.js';

/** Dates of the most urgent coil on a tree, ISO. */
export interface RaceBar {
  branch: string;
  setFrom: string | null;
  touchFrom: string | null;
  markFrom: string | null;
  markSure: string | null;
}

export type DueKind = 'look' | 'remove' | 'window' | 'held' | 'stage' | 'promise' | 'vow' | 'session' | 'plan';
/** The stage of the tree where a task is done. */
export type LeadsTo = 'measure' | 'read' | 'front' | 'remove' | 'pose' | 'wire' | 'guy' | 'work' | 'watch';

/** A task on one tree. */
export interface Due {
  on: string;
  /** The day by which it was to be done, where that is over. */
  since?: string;
  kind: DueKind;
  leadsTo: LeadsTo;
  branches: string[];
  /** What to do, and why. */
  title: string;
  text: string;
  /** What was last seen of the coil. */
  mark: MarkStage | null;
  /** The line of the record that promised it, where one did. */
  line?: string;
}

/** Coils of one tree due within this many days of each other are one walk. */
const ROUND_DAYS = 3;

const TITLES: Record<CoilTaskKind, (branches: string) => string> = {
  look: (b) => `${b}: look at the wire`,
  remove: (b) => `${b}: take the wire off`,
  window: (b) => `${b}: the wire can come off`,
};

/** What marks comes first, then the session that was broken off. */
const RANK: Record<DueKind, number> = { remove: 0, session: 1, look: 2, window: 3, held: 4, stage: 5, promise: 6, vow: 7, plan: 8 };
/** Sorts what is due: what is late the longest first, on one day what marks before what is only to be looked at; open plans last. */
export const urgency = ({ on, since = on, kind }: Pick<Due, 'on' | 'since' | 'kind'>): string => (kind === 'plan' ? 'plan' : since) + RANK[kind];

interface Group extends Pick<CoilTask, 'kind' | 'day'> {
  watched: Watched[];
}

/** A look that is near a removal on the same tree belongs to the same walk, but is a task of its own kind. */
function grouped(watched: readonly Watched[], onDay: number): Group[] {
  const items = watched.map((w) => ({ w, ...coilTask(w, onDay) })).sort((a, b) => a.day - b.day);
  const groups: Group[] = [];
  for (const { w, day, kind } of items) {
    const group = groups.find((g) => g.kind === kind && day - g.day <= ROUND_DAYS);
    if (group) group.watched.push(w);
    else groups.push({ kind, day, watched: [w] });
  }
  return groups;
}

/** The gravest of some stages that were seen; null where nothing was. */
const gravest = (seen: readonly MarkStage[]): MarkStage | null => [...MARK_STAGES].reverse().find((s) => seen.includes(s)) ?? null;

function wireDue(watched: readonly Watched[], names: Names, onDay: number): Due[] {
  return grouped(watched, onDay).map(({ kind, day, watched: these }): Due => {
    const branches = these.map((w) => w.coil.branch);
    const late = these.filter((w) => w.nextInspection < onDay).map((w) => w.nextInspection);
    return {
      on: isoOf(day),
      ...(late.length ? { since: isoOf(leastOf(late)) } : {}),
      kind,
      leadsTo: 'watch',
      branches,
      title: TITLES[kind](sayBranches(names, branches)),
      text: [...(late.length ? [`Due since ${sayDay(leastOf(late))}.`] : []), these[0]!.race.because.join(' ')].join(' '),
      mark: gravest(these.flatMap((w) => w.lastSeen?.stage ?? [])),
    };
  });
}

/** Cushions to look at, one walk for those near each other; and ties whose branch is likely to hold by itself. */
function guysDue(placed: PlacedTree, names: Names, onDay: number, known?: Known): Due[] {
  const groups: { kind: 'look' | 'window'; day: number; guys: WatchedGuy[] }[] = [];
  for (const guy of watchGuys(placed, onDay, known)) {
    const kind = guy.holds !== null && guy.holds <= onDay ? 'window' : 'look';
    const day = Math.max(onDay, guy.look);
    // Devices are looked at one by one: each has its own places that press.
    const group = guy.device ? undefined : groups.find((g) => g.kind === kind && !g.guys[0]!.device && day - g.day <= ROUND_DAYS);
    if (group) group.guys.push(guy);
    else groups.push({ kind, day, guys: [guy] });
  }
  return groups.map(({ kind, day, guys }): Due => {
    const branches = guys.map((g) => g.branch);
    const { holds, device } = guys[0]!;
    const name = device && DEVICE_WORDS[device].name;
    return {
      on: isoOf(day),
      ...(leastOf(guys.map((g) => g.look)) < onDay ? { since: isoOf(leastOf(guys.map((g) => g.look))) } : {}),
      kind,
      leadsTo: 'guy',
      branches,
      title: `${sayBranches(names, branches)}: ${kind === 'look' ? `look at ${name ? `where its ${name} presses` : 'the cushion of its tie'}` : `the ${name ?? 'tie'} can come off`}`,
      text: [
        `${name ? `The ${name} is on` : 'Tied'} since ${sayDay(guys[0]!.since)}.`,
        holds === null
          ? `Whether it ${name ? 'sits' : 'is taut'}, whether the cushion sits, how the bark is under it.`
          : holds <= onDay
            ? 'It is likely to hold by itself: let it out a little, and see whether it stays.'
            : `It is likely to hold by itself from ${sayDay(holds)} on.`,
      ].join(' '),
      mark: guys[0]!.bark,
    };
  });
}

const PROMISE_TITLES: Record<Promised['kind'], (b: string) => string> = {
  reserve: (b) => `${b}, in reserve: keep or take off?`,
  sacrifice: (b) => `${b}, sacrifice: thick enough below?`,
  'later cut': (b) => `${b}: cut, as left for now`,
};

/** Reserves, sacrifices and cuts that were put off: a task on the day they come back; those of one kind and day are one. */
function promisesDue(placed: PlacedTree, names: Names, onDay: number, known?: Known): Due[] {
  const groups = new Map<string, Promised[]>();
  for (const p of promisesOf(placed, onDay, known)) {
    if (p.on === null) continue;
    const on = p.ready ? isoOf(onDay) : p.on;
    groups.set(`${on} ${p.kind}`, [...(groups.get(`${on} ${p.kind}`) ?? []), { ...p, on }]);
  }
  return [...groups.values()].map((these): Due => {
    const branches = these.map((p) => p.branch);
    const text = [...new Set(these.map((p) => p.text))].join(' ');
    return {
      on: these[0]!.on!,
      kind: 'promise',
      leadsTo: 'remove',
      branches,
      title: PROMISE_TITLES[these[0]!.kind](sayBranches(names, branches)),
      text,
      mark: null,
    };
  });
}

/** Angles to measure some days after wire came off; those of one day are one task. */
function heldsDue(placed: PlacedTree, names: Names, onDay: number): Due[] {
  const byDay = [...groupedBy(heldDue(placed, onDay), (h) => h.on)].map(([day, of]) => [day, of.map((h) => h.coil.branch)] as const);
  return byDay.map(([day, branches]): Due => ({
    on: isoOf(Math.max(onDay, day)),
    kind: 'held',
    leadsTo: 'watch',
    branches,
    title: `${sayBranches(names, branches)}: measure the angle ${branches.length > 1 ? 'they hold' : 'it holds'}`,
    text: `The wire came off on ${sayDay(day - SPRINGS_BACK_DAYS)}; by now it has sprung back as far as it will. What it holds tells whether it is wired again, and teaches the next forecast.`,
    mark: null,
  }));
}

/** What is left of what a tie or a device did, some days after it came off. */
const letGosDue = (placed: PlacedTree, names: Names, onDay: number): Due[] =>
  letGoDue(placed, onDay).map(({ guy, on }): Due => ({
    on: isoOf(Math.max(onDay, on)),
    kind: 'held',
    leadsTo: 'guy',
    branches: [guy.branch],
    title: `${names(guy.branch)}: see how far it went back`,
    text: `The ${guy.device ? DEVICE_WORDS[guy.device].name : 'tie'} came off on ${sayDay(guy.offOn)}; by now it has gone back as far as it will. What is left tells whether it is held again.`,
    mark: null,
  }));

const TASK_OF: Partial<Record<LeadsTo, Task>> = { remove: 'pruning', pose: 'wiring', wire: 'wiring', work: 'wiring' };

/** Undated work: whether its owner agreed to it, and its good and bad months. */
function whenYouLike(tree: Tree, leadsTo: LeadsTo, onDay: number): string {
  const task = TASK_OF[leadsTo];
  const agreed = agreedBranches(tree);
  const open = leadsTo === 'remove' && agreed !== null && tree.plan.decisions.some((d) => isCutting(d) && !agreed.has(d.branch));
  const told = open ? `${tree.client} has not agreed yet.` : 'When you like: nothing is lost by waiting.';
  if (!task) return told;
  const { good, bad } = speciesOf(tree.species).months[task];
  const month = northernMonth(tree.site.hemisphere, onDay);
  const best = sayMonths(good.map((m) => (tree.site.hemisphere === 'south' ? m + 6 : m)));
  if (bad.includes(month)) return `${told} Not this month; good for it: ${best}.`;
  return good.includes(month) ? `${told} This month is good for it.` : `${told} Good months for it: ${best}.`;
}

/** The first step of the plan that is still open, and the stage where it is taken. */
function nextStep(placed: PlacedTree, onDay: number): Pick<Due, 'title' | 'leadsTo'> | null {
  const { tree } = placed;
  if (!tree.plan.front) {
    if (!isTrunkMeasured(tree) || !tree.branches.length) return { title: 'measure it', leadsTo: 'measure' };
    return isRead(tree) ? { title: 'choose the front', leadsTo: 'front' } : { title: 'read it: is it strong enough?', leadsTo: 'read' };
  }
  const open = tree.branches.filter((b) => !tree.plan.decisions.some((d) => d.branch === b.id)).length;
  if (open === tree.branches.length) return { title: 'decide what to remove', leadsTo: 'remove' };
  const cuts = cutList(placed, 1).length;
  if (cuts) return { title: `${cuts} ${cuts === 1 ? 'branch' : 'branches'} to cut, as decided`, leadsTo: 'remove' };
  if (tree.record.some((e) => e.kind === 'wired')) {
    const left = sayWorkLeft(workLeft(tree, onDay));
    return left ? { title: `${left}, as settled`, leadsTo: 'work' } : null;
  }
  const posed = new Set(tree.plan.poses.map((p) => p.branch));
  if (!posed.size) return { title: 'pose the branches that stay', leadsTo: 'pose' };
  const all = placed.branches.every((b) => b.order > 1 || b.branch.state === 'dead' || posed.has(b.branch.id));
  return all ? { title: 'wire the branches that stay', leadsTo: 'wire' } : { title: 'go on posing, then wire', leadsTo: 'pose' };
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

/** What is due on one tree, soonest first: looks at its coils, removals, promises, and else the next open step of its plan. */
export function dueOn(given: Tree, onDay: number, known?: Known): { due: Due[]; race: RaceBar | null; coils: number } {
  const tree = asItStands(given, onDay);
  const placed = placeTree(tree);
  const names = namesOf(tree);
  const watched = watch(placed, onDay, known);
  const session = sessionDue(tree, onDay);
  const step = session.length ? null : nextStep(placed, onDay);
  const open: Due[] = step ? [{ ...step, on: isoOf(onDay), kind: 'plan', branches: [], text: whenYouLike(tree, step.leadsTo, onDay), mark: null }] : [];
  const due = [
    ...wireDue(watched, names, onDay),
    ...guysDue(placed, names, onDay, known),
    ...heldsDue(placed, names, onDay),
    ...letGosDue(placed, names, onDay),
    ...stagesDue(tree, names, onDay),
    ...promisesDue(placed, names, onDay, known),
    ...vowsDue(tree, names, onDay),
    ...session,
    ...open,
  ];
  due.sort((a, b) => (urgency(a) < urgency(b) ? -1 : 1));
  return { due, race: watched[0] ? raceBar(watched[0]) : null, coils: watched.length };
}
