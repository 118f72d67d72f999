import { dayOf, isoOf, monthName, monthOf, sayDay, type Reasoned } from '../units/index.js';
import { nameInText, northernMonth, speciesOf } from '../species/index.js';
import { greenTally, cutsAmong, happenings, lastOn, sessionOf, VIGOUR_CAPACITY, type EventKind, type Tree } from '../tree/index.js';
import { SEASON_WORDS, signsFor } from './signs.js';

/** No tree bears more than this in one session. */
const MOST_CAPACITY = 1.4;

export type Verdict = 'go' | 'light' | 'leave';

/** One kind of work that the plan asks for in this session, in points of capacity. */
export interface Use {
  work: 'green' | 'heavy bends' | 'wiring' | 'deadwood';
  points: number;
  text: string;
}

export interface Reading {
  verdict: Verdict;
  /** 1 = a full session's work on a tree of ordinary strength. */
  capacity: number;
  used: number;
  /** What it would be if all that is only proposed were done too. */
  ifAll: number;
  /** What the plan uses, by kind of work; adds up to `used`. */
  uses: Use[];
  because: string[];
  /** The first day on which more is possible, by the calendar; null when all is possible now or nothing changes within two years. */
  moreFrom: { on: string; verdict: Verdict } | null;
}

const monthsBetween = (from: number, to: number): number => (to - from) / 30.44;

export const verdictOf = (capacity: number): Verdict => (capacity < 0.25 ? 'leave' : capacity < 0.6 ? 'light' : 'go');

/** A season noted by eye holds this long; then the calendar counts again. */
const NOTE_HOLDS_DAYS = 28;

/** What the season does to the work a tree bears: as seen on the tree when that was noted lately, else by the calendar. */
function seasonFactor(tree: Tree, onDay: number): { factor: number; because: string | null } {
  const { reading } = tree.plan;
  if (reading?.season && Math.abs(onDay - dayOf(reading.on)) <= NOTE_HOLDS_DAYS) {
    const { text, factor } = SEASON_WORDS[reading.season];
    return { factor, because: `${text}, as seen on ${sayDay(dayOf(reading.on))}${factor < 0.6 ? ': wait until it has hardened' : ''}.` };
  }
  const species = speciesOf(tree.species);
  const month = northernMonth(tree.site.hemisphere, onDay);
  const { good, bad } = species.months.wiring;
  const name = `${monthName(monthOf(onDay))}${tree.site.hemisphere === 'south' ? ' in the south' : ''}`;
  const leafless = species.bleeds && species.months.pruning.bad.includes(month);
  if (leafless)
    return {
      factor: 0.7,
      because: `${nameInText(species)[0]!.toUpperCase()}${nameInText(species).slice(1)} bleeds when cut before it is in leaf: cut after leafing, or late in summer.`,
    };
  if (bad.includes(month)) return { factor: 0.5, because: `${name} is a bad month to work on ${nameInText(species)}.` };
  if (!good.includes(month)) return { factor: 0.8, because: `${name} is not the best month for structural work on ${nameInText(species)}.` };
  return { factor: 1, because: `${name} is a good month for it.` };
}

/** What weighs on a tree while it lasts; repotting has terms of its own. Own estimates, see docs: Work budget. */
const STRAINS: Partial<Record<EventKind, { factor: number; say: (day: string) => string }>> = {
  ailing: { factor: 0.4, say: (day) => `Ailing since ${day}: let it recover first.` },
  defoliated: { factor: 0.8, say: (day) => `Its leaves came off on ${day}: it lives on what it has stored until it is in leaf again.` },
  pruned: { factor: 0.8, say: (day) => `Pruned hard on ${day}: let it answer with new growth.` },
};

/** What the record tells of a tree's strength on a day, the last of each kind. */
function strainOf(tree: Tree, onDay: number): { factor: number; because: string }[] {
  const lasting = happenings(tree).filter((h) => h.from <= onDay && h.to > onDay);
  return Object.entries(STRAINS).flatMap(([kind, { factor, say }]) => {
    const days = lasting.filter((h) => h.kind === kind).map((h) => h.from);
    return days.length ? [{ factor, because: say(sayDay(days.reduce((a, b) => Math.max(a, b)))) }] : [];
  });
}

/** How much work a tree bears on a day, and why. */
export function capacityOf(tree: Tree, onDay: number): Reasoned<number> {
  let value = VIGOUR_CAPACITY[tree.vigour];
  const because = [`${tree.vigour[0]!.toUpperCase()}${tree.vigour.slice(1)} growth.`];
  const ease = (factor: number, sentence: string | null): void => {
    value *= factor;
    if (sentence) because.push(sentence);
  };
  const seen = signsFor(speciesOf(tree.species).group).filter((s) => tree.plan.reading?.signs.includes(s.key));
  for (const sign of seen) ease(sign.factor, `${sign.text}.`);
  const since = (day: number | null): { months: number; on: string } =>
    day === null ? { months: Infinity, on: '' } : { months: monthsBetween(day, onDay), on: sayDay(day) };
  const repotted = since(lastOn(tree, 'repotted', onDay));
  if (repotted.months < 3) ease(0.3, `Repotted on ${repotted.on}: its roots are still taking hold.`);
  else if (repotted.months < 12) ease(0.6, `Repotted on ${repotted.on}: within a year of that, do less.`);
  const day = tree.collectedOn ? dayOf(tree.collectedOn) : null;
  const collected = since(day !== null && day <= onDay ? day : null);
  if (collected.months < 18) ease(0.15, `Collected on ${collected.on}: leave it to root.`);
  else if (collected.months < 36) ease(0.5, `Collected on ${collected.on}: first works only.`);
  const styled = since(lastOn(tree, 'styled', onDay));
  if (styled.months < 6) ease(0.6, `Styled on ${styled.on}: let it answer first.`);
  for (const { factor, because: why } of strainOf(tree, onDay)) ease(factor, why);
  const season = seasonFactor(tree, onDay);
  ease(season.factor, season.because);
  return { value: Math.min(value, MOST_CAPACITY), because };
}

/** The first day, in steps of a week over two years, on which the verdict is better. */
function moreFrom(tree: Tree, onDay: number, now: Verdict): Reading['moreFrom'] {
  const rank = { leave: 0, light: 1, go: 2 };
  for (let day = onDay + 7; now !== 'go' && day <= onDay + 730; day += 7) {
    const verdict = verdictOf(capacityOf(tree, day).value);
    if (rank[verdict] > rank[now]) return { on: isoOf(day), verdict };
  }
  return null;
}

/** Work of the other stages that counts against the session. */
export interface OtherWork {
  heavyBends: number;
  wiredShare: number;
}

export const HEAVY_BEND = 0.25;
export const ALL_WIRED = 0.3;
/** A jin made of a living branch wounds the vein below it. */
const LIVING_JIN = 0.08;

const count = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;

/** What this session's work uses of the capacity. */
function usesOf(tree: Tree, onDay: number, { heavyBends, wiredShare }: OtherWork): Use[] {
  const { sessions, cap, pastYear } = greenTally(tree, onDay);
  const now = sessions.find((x) => x.session === 1)?.removed ?? 0;
  const byId = new Map(tree.branches.map((b) => [b.id, b]));
  const jins = cutsAmong(tree).filter((d) => d.act === 'stub' && sessionOf(d) === 1 && byId.get(d.branch)!.state !== 'dead').length;
  const uses: Use[] = [
    {
      work: 'green',
      points: (now + pastYear) / cap,
      text: `${Math.round(now * 100)}% of the green now${pastYear > 0.005 ? `, ${Math.round(pastYear * 100)}% in the last twelve months` : ''}, of ${Math.round(cap * 100)}%`,
    },
    { work: 'heavy bends', points: HEAVY_BEND * heavyBends, text: count(heavyBends, 'heavy bend') },
    { work: 'wiring', points: ALL_WIRED * wiredShare, text: `${Math.round(wiredShare * 100)}% of the branches wired` },
    { work: 'deadwood', points: LIVING_JIN * jins, text: `${count(jins, 'jin')} made of living wood` },
  ];
  return uses.filter((u) => u.points > 0);
}

const NO_WORK: OtherWork = { heavyBends: 0, wiredShare: 0 };
const sumOf = (uses: readonly Use[]): number => uses.reduce((sum, u) => sum + u.points, 0);

/** Whether the tree is strong enough today, and how much may be done: what is decided and done counts, what is only proposed is told beside it. */
export function readTree(tree: Tree, onDay: number, work: OtherWork = NO_WORK, proposed: OtherWork = work): Reading {
  const { value: capacity, because } = capacityOf(tree, onDay);
  const uses = usesOf(tree, onDay, work);
  const used = sumOf(uses);
  const all = {
    heavyBends: Math.max(work.heavyBends, proposed.heavyBends),
    wiredShare: Math.max(work.wiredShare, proposed.wiredShare),
  };
  const ifAll = sumOf(usesOf(tree, onDay, all));
  if (used > capacity) because.push('The plan asks for more than this: leave part of it for the next session.');
  const verdict = verdictOf(capacity);
  return { verdict, capacity, used, ifAll, uses, because, moreFrom: moreFrom(tree, onDay, verdict) };
}
