import { dayOf, sayDay, sayForce } from '../units/index.js';
import { DEVICE_WORDS } from '../guy/index.js';
import { type DeedToAgree, type LineKind, type LineOf, type Names, type PromiseKind, type RecordLine, type StepAnswer, type TieAct } from '../tree/index.js';

const percent = (share: number): string => `${Math.round(share * 100)}%`;
const whole = (x: number | undefined): string => (x === undefined ? '?' : x.toFixed(0));
const remark =
  (word: string) =>
  (line: RecordLine): string =>
    `${word}${line.text ? `: ${line.text}` : ''}`;

const sayTie = (done: TieAct): string =>
  ({ placed: 'tied', twisted: 'tie twisted shorter', loosened: 'tie let out', looked: 'cushion looked at', removed: 'tie taken off' })[done];
const sayDevice = (name: string, done: TieAct): string =>
  ({
    placed: `${name} set up`,
    twisted: `${name} turned on`,
    loosened: `${name} let back`,
    looked: `${name} looked at`,
    removed: `${name} taken off`,
  })[done];

const STEP_SAID: Record<StepAnswer, string> = {
  done: 'done',
  otherwise: 'done otherwise',
  skipped: 'left out',
  cracked: 'it cracked',
  'ran-out': 'the wire ran out',
  changed: 'the plan was changed',
};
/** What is promised, in words. */
export const PROMISE_WORDS: Record<PromiseKind, string> = {
  repot: 'repot it',
  graft: 'graft',
  reserve: 'decide on the reserve',
  deadwood: 'see to the deadwood',
  styling: 'the next styling',
  feed: 'feed it',
  other: 'something else',
};
/** A time in minutes as a person says it. */
export const sayMinutes = (minutes: number): string => {
  const m = Math.round(minutes);
  return m < 60 ? `${m} ${m === 1 ? 'minute' : 'minutes'}` : `${Math.floor(m / 60)} h${m % 60 ? ` ${m % 60} min` : ''}`;
};

/** The same of a time that is only reckoned: no finer than is known. */
export const sayAbout = (minutes: number): string => {
  const step = minutes < 20 ? 1 : minutes < 90 ? 5 : 15;
  return sayMinutes(Math.max(step, Math.round(minutes / step) * step));
};

/** What each kind of line says, after the day and the branch's name. */
const SAID: { [K in LineKind]: (line: LineOf<K>, names: Names) => string } = {
  wired: ({ size, metal, strands, bentDeg, turns, anchor }) =>
    `wired, ${size?.toFixed(1) ?? '?'} mm ${metal ?? ''}${strands && strands > 1 ? ` × ${strands}` : ''}${turns ? `, ${turns.toFixed(1)} turns` : ''}${bentDeg ? `, bent to ${whole(bentDeg)}°` : ''}${anchor === 'slipping' ? ', its anchor slips' : ''}`,
  bent: ({ bentDeg, sound, crack }) =>
    `bent${bentDeg ? ` to ${whole(bentDeg)}°` : ''}${crack && crack !== 'none' ? `, cracked ${crack} the fibre` : sound && sound !== 'none' ? `, the ${sound} was heard` : ''}`,
  placed: ({ bearing, elevation }) =>
    `placed${elevation === undefined ? '' : `, its tip ${whole(Math.abs(elevation))}° ${elevation < 0 ? 'below' : 'above'} level${bearing === undefined ? '' : `, towards ${whole(bearing)}°`}`}`,
  guyed: ({ done = 'placed', device, twists, tension, cameDeg, bark, backMm, text }) =>
    [
      device ? sayDevice(DEVICE_WORDS[device].name, done) : sayTie(done),
      twists ? `, ${twists} ${device ? 'turns' : 'twists'}` : '',
      tension ? `, about ${sayForce(tension)}` : '',
      cameDeg ? `, it came ${whole(cameDeg)}°` : '',
      bark ? `, bark ${bark}` : '',
      backMm ? `, it went back by ${backMm.toFixed(1)} mm` : '',
      text ? `: ${text}` : '',
    ].join(''),
  pushed: ({ size, metal, gave }) => `press test with ${size?.toFixed(1) ?? '?'} mm ${metal ?? 'wire'}${gave ? `: the ${gave} gave way` : ''}`,
  measured: ({ d, heldDeg, guy, backMm, was, trunkWas }) =>
    [
      was || trunkWas ? 'its line measured anew' : 'measured',
      d ? `, ${d.toFixed(1)} mm thick` : '',
      heldDeg !== undefined ? `, holds ${whole(heldDeg)}°` : '',
      backMm !== undefined ? `, went back by ${backMm.toFixed(1)} mm` : '',
      guy ? ` without what held it` : '',
    ].join(''),
  inspected: ({ stage }) => `seen ${stage}`,
  cut: ({ pieces, left }) => `wire cut where it marked${pieces ? `, ${pieces} pieces` : ''}${left === undefined ? '' : `, ${left} turns left on`}`,
  unwired: ({ method, heldDeg }) => `wire ${method === 'unwound' ? 'unwound' : 'cut off'}${heldDeg !== undefined ? `, holds ${whole(heldDeg)}°` : ''}`,
  removed: ({ green, unlisted }) => (unlisted ? 'taken out of the measures' : `taken off, ${percent(green ?? 0)} of the green`),
  shortened: ({ stub, length }) => `${stub ? 'cut to a stub of' : 'shortened to'} ${whole(length)} mm`,
  agreed: ({ by, branches, cuts = [], to = [] }, names) =>
    `${by} agreed to ${[
      ...branches.map((b) => {
        const as = cuts.find((c) => c.branch === b)?.as;
        return `cut ${names(b)}${as && as !== 'remove' ? ` (${as})` : ''}`;
      }),
      ...to.map((deed) => AGREED_WORDS[deed]),
    ].join(', ')}`,
  repotted: remark('repotted'),
  fed: remark('fed'),
  styled: remark('styled'),
  pruned: remark('pruned hard'),
  defoliated: remark('leaves taken off'),
  ailing: (line) => remark(`a weak spell${line.weeks ? ` of ${line.weeks === 1 ? 'a week' : `${line.weeks} weeks`}` : ''}`)(line),
  snoozed: ({ until, text }) => `look put off to ${sayDay(dayOf(until))}${text ? `: ${text}` : ''}`,
  session: ({ done, by, hours, text }) =>
    `session ${done}${by ? ` by ${by}` : ''}${hours && done === 'begun' ? `, ${hours} hours meant for it` : ''}${text ? `: ${text}` : ''}`,
  worked: ({ answer, title, step, minutes, by, text }) =>
    `${title ?? step}: ${STEP_SAID[answer]}${minutes ? `, ${sayMinutes(minutes)}` : ''}${by ? `, by ${by}` : ''}${text ? `. ${text}` : ''}`,
  promised: ({ what, from, text }) => `promised: ${PROMISE_WORDS[what]}${from ? `, from ${sayDay(dayOf(from))}` : ''}${text ? `. ${text}` : ''}`,
  fulfilled: ({ how, text }) => `${how === 'done' ? 'a promise kept' : 'a promise let go of'}${text ? `: ${text}` : ''}`,
  note: ({ text }) => text?.trim() || 'a note',
  photo: ({ when, bearing, text }) =>
    `photo${when ? ` ${when} the work` : ''}${bearing === undefined ? '' : ` from ${whole(bearing)}°`}${text ? `: ${text}` : ''}`,
  hours: ({ hours, by, text }) => `${hours ?? '?'} hours${by ? ` by ${by}` : ''}${text ? `: ${text}` : ''}`,
  withdrawn: () => 'a line taken back',
};

/** What else is agreed to, in words that stand after "agreed to". */
export const AGREED_WORDS: Record<DeedToAgree, string> = {
  trunk: 'bending the trunk',
  repotting: 'repotting',
  leaves: 'taking the leaves off',
  pruning: 'hard pruning',
  unlisting: 'branches being taken out of the list',
};

/** Who did or saw what a line tells; a line of work names that itself. */
export const byWhom = (line: RecordLine): string => (line.who && !('by' in line && line.by) ? `, by ${line.who}` : '');

/** A line of the record in words. */
export const sayLine = (line: RecordLine, names: Names): string => (SAID[line.kind] as (line: RecordLine, names: Names) => string)(line, names);
