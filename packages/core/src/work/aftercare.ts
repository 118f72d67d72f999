import { dayOf, isoOf, monthName, monthOf } from '../units/index.js';
import { nameInText, northernMonth, speciesOf, type Task } from '../species/index.js';
import { standing, vowsOf, workSessions, type LineOf, type PromiseKind, type RecordLine, type Tree } from '../tree/index.js';

/** What was done to a tree since a day, as far as its care asks. */
interface Done {
  cuts: number;
  wired: number;
  bent: number;
  cracked: boolean;
}
const count = (lines: readonly RecordLine[]): Done => ({
  cuts: lines.filter((l) => l.kind === 'removed' || l.kind === 'shortened').length,
  wired: lines.filter((l) => l.kind === 'wired').length,
  bent: lines.filter((l) => l.kind === 'bent' || (l.kind === 'placed' && l.bends.length > 0)).length,
  cracked: lines.some((l) => l.kind === 'bent' && l.crack !== undefined && l.crack !== 'none'),
});

/** Weeks in which a tree is let alone after such work. */
const weeksAlone = ({ cuts, wired, bent, cracked }: Done): number => (cracked ? 6 : bent || wired > 4 ? 4 : cuts ? 2 : 1);

/** The day until which the last closed session asks for a tree to be let alone; null where that is past. */
export function aloneUntil(tree: Tree, onDay: number): number | null {
  const closed = workSessions(tree).filter((s) => s.closed !== null);
  const last = closed[closed.length - 1];
  if (!last) return null;
  const lines = standing(tree.record).filter((l) => dayOf(l.on) >= last.begun && dayOf(l.on) <= last.last);
  const until = last.last + 7 * weeksAlone(count(lines));
  return until > onDay ? until : null;
}

/** How to keep a tree after a session, by its kind, the season and what was done since a day. Rules of ours after practice. */
export function aftercareOf(tree: Tree, onDay: number, since: number): string[] {
  const { cuts, wired, bent, cracked } = count(standing(tree.record).filter((l) => dayOf(l.on) >= since && dayOf(l.on) <= onDay));
  const species = speciesOf(tree.species);
  const month = northernMonth(tree.site.hemisphere, onDay);
  const warm = month >= 5 && month <= 9;
  const cold = month >= 11 || month <= 2;
  const weeks = weeksAlone({ cuts, wired, bent, cracked });
  return [
    `Leave it alone: no repotting, no feeding and no further work for ${weeks === 1 ? 'a week' : `${weeks} weeks`}.`,
    warm ? 'Half shade and out of the wind; mist in the evening, and water as the soil asks: with less green it drinks less.' : '',
    cold ? 'Keep it from frost: bent and cut wood freezes back. A cool place, hardly above freezing, is enough.' : '',
    !warm && !cold ? 'Out of drying wind and noon sun until it shows that it goes on growing.' : '',
    cracked ? 'Where it cracked, look each week whether what lies beyond stays firm and green.' : '',
    wired ? 'No hose or can against the wire. The first look at it is in Season.' : '',
    cuts && !species.group.includes('conifer') ? 'Look after a week whether the cuts stay closed.' : '',
  ].filter(Boolean);
}

/** A promise that follows from a plan. */
export type Suggested = Pick<LineOf<'promised'>, 'what'> & { from: string; text: string };

/** The first day on or after one, by weeks within two years, in whose month a kind of work is good for a tree. */
function firstGood(tree: Tree, task: Task, from: number): number | null {
  const { good } = speciesOf(tree.species).months[task];
  for (let day = from; day < from + 730; day += 7) if (good.includes(northernMonth(tree.site.hemisphere, day))) return day;
  return null;
}

const FEED_DAYS = 35;
const REPOT_REST_DAYS = 120;
const STYLING_REST_DAYS = 270;

/** Promises that a tree's plan calls for and that nobody has made yet: repot at the new angle, deadwood, feed, the next styling. */
export function suggestedPromises(tree: Tree, onDay: number): Suggested[] {
  const owed = new Set<PromiseKind>(vowsOf(tree).flatMap((v) => (v.ended ? [] : v.line.what)));
  const front = tree.plan.front;
  const name = nameInText(speciesOf(tree.species));
  const on = (what: PromiseKind, day: number | null, text: (month: string) => string): Suggested[] =>
    day === null || owed.has(what) ? [] : [{ what, from: isoOf(day), text: text(monthName(monthOf(day))) }];
  const tilted = front && Math.hypot(front.pitch, front.roll) >= 2;
  const jins = standing(tree.record).some((l) => l.kind === 'shortened' && l.stub === 'jin' && dayOf(l.on) > onDay - 365);
  return [
    ...on('feed', onDay + FEED_DAYS, () => 'Feed it again once it has rested.'),
    ...(tilted
      ? on(
          'repot',
          firstGood(tree, 'repotting', onDay + REPOT_REST_DAYS),
          (m) => `Repot at the new planting angle: ${front.pitch.toFixed(0)}° to the front, ${front.roll.toFixed(0)}° to the right. ${m} suits ${name}.`,
        )
      : []),
    ...(jins ? on('deadwood', onDay + 60, () => 'See to the deadwood once it has dried.') : []),
    ...on('styling', firstGood(tree, 'wiring', onDay + STYLING_REST_DAYS), (m) => `The next styling: ${m} suits ${name}.`),
  ];
}
