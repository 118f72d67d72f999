import { dayOf, sayDay, sayForce, sayPull } from '../units/index.js';
import { DEVICE_WORDS } from '../guy/index.js';
import type { PlanGuy } from '../plan/index.js';
import { drawnBy, forceAt, movedBy, nextStage, nextTwists } from './led.js';
import { MINUTES, type Laying, type Draft } from './draft.js';

type Device = Laying['plan']['devices'][number];

export function guyStep({ names, on }: Laying, guy: PlanGuy): Draft[] {
  if (guy.stages === null) return [];
  const { turns: first = 0, share, next } = nextTwists(guy) ?? { share: 1 };
  return [
    {
      key: `guy:${guy.branch}:${Math.round(guy.at)}`,
      kind: 'guy',
      branches: [guy.branch],
      title: `Tie ${names(guy.branch)}`,
      what: [
        `${guy.wire.toFixed(1)} mm copper, doubled${guy.rounds > 1 ? `, laid ${guy.rounds} times` : ''}: ${guy.wireLength.toFixed(0)} mm. At ${guy.at.toFixed(0)} mm of the branch, ${guy.cushion.kind} of ${guy.cushion.width.toFixed(0)} mm under it.`,
        `To the ${guy.anchor.kind.replace('-', ' ')}. Draw ${guy.byHand.toFixed(0)} mm in by hand, then ${first} twists today${guy.stages > 1 ? ` of ${guy.windlassTurns.toFixed(0)}, in ${guy.stages} stages, ${guy.rest} between them` : ''}: ${sayPull(guy.tension)}, when it is done.`,
        ...(guy.overWire ? [guy.overWire] : []),
        ...guy.checks.filter((c) => !c.ok).map((c) => c.said),
      ],
      rule: MINUTES.guy,
      of: guy.id,
      did: [
        {
          kind: 'tie',
          on,
          ...(guy.fixed ? { guy: guy.id } : {}),
          branch: guy.branch,
          at: guy.at,
          anchor: guy.anchor,
          wire: guy.wire,
          cushion: guy.cushion,
          twists: first,
          tension: Math.round(guy.tension),
          length: Math.round(guy.length - guy.shortening),
          bends: drawnBy(guy, share),
          ...(next ? { next } : {}),
        },
      ],
    },
  ];
}

/** A tie that stands between two stages, on the day of the next. */
export function twistStep({ names, on, onDay }: Laying, guy: PlanGuy): Draft[] {
  const stage = nextTwists(guy);
  if (!stage || guy.stages === null || guy.stages < 2 || !guy.dates[0] || dayOf(guy.dates[0]) > onDay) return [];
  const { turns: twists, share, next } = stage;
  return [
    {
      key: `guy:${guy.branch}:${Math.round(guy.at)}:${Math.round(guy.on!.twists)}`,
      kind: 'guy',
      branches: [guy.branch],
      title: `Twist the tie of ${names(guy.branch)} on`,
      what: [`${twists} twists today; ${guy.on!.twists.toFixed(0)} are in it, of ${guy.windlassTurns.toFixed(0)}. Look at its cushion.`],
      rule: MINUTES.guy / 3,
      of: guy.id,
      did: [
        {
          kind: 'guyed',
          on,
          branch: guy.branch,
          guy: guy.id,
          done: 'twisted',
          twists,
          bends: drawnBy(guy, share),
          ...(next ? { next } : {}),
        },
      ],
    },
  ];
}

/** What speaks against a device as it is planned; nothing where it may be set. */
const against = (d: Device): string[] => ('fault' in d ? [d.fault] : d.checks.flatMap((c) => (c.ok ? [] : c.said)));

/** A device to be set up, or turned on by its next stage on that one's day. One that a check speaks against is not begun. */
export function deviceSteps({ plan, names, on, onDay }: Laying): Draft[] {
  return plan.devices.flatMap((d): Draft[] => {
    const { name } = DEVICE_WORDS[d.device.kind];
    const branches = [d.device.branch, ...(d.device.other ? [d.device.other.branch] : [])];
    const why = against(d).join(' ');
    const set = {
      key: `device:${d.id}`,
      kind: 'device',
      branches,
      title: `Set the ${name} on ${names(d.device.branch)}`,
      rule: MINUTES.device,
      of: d.id,
    } as const;
    if (why && !('on' in d && d.on)) return [{ ...set, branches: [...branches], what: [], against: why }];
    if (why || 'fault' in d || d.stages === null) return [];
    const stage = nextStage(d);
    if (!stage || (d.on && (!d.dates[0] || dayOf(d.dates[0]) > onDay))) return [];
    const { turns, share, next } = stage;
    const tension = forceAt(d, share);
    const done = { ...(turns === undefined ? {} : { twists: turns }), tension, ...movedBy(d, share), ...(next ? { next } : {}) };
    return [
      {
        ...set,
        ...(d.on ? { key: `${set.key}:${Math.round(d.on.turns)}`, title: `Turn the ${name} on ${names(d.device.branch)} on`, rule: MINUTES.device / 3 } : {}),
        what: [
          d.on ? `${turns} turns today; ${d.on.turns.toFixed(0)} are in it, of ${d.turns!.toFixed(0)}. Look at where it presses.` : d.does,
          `${d.length.toFixed(0)} mm long when it has done its work, about ${sayForce(d.force)} then${next ? `, ${sayForce(tension)} today` : ''}${turns && !d.on ? `; ${turns} turns today` : ''}.`,
          ...(next
            ? [`Then ${d.rest} of rest: the next stage from ${sayDay(dayOf(next))} on.`]
            : d.stages > 1 && !d.on && d.rest
              ? [`In ${d.stages} stages, ${d.rest} of rest between them.`]
              : []),
          ...(d.on ? [] : [d.marks]),
        ],
        did: [
          d.on
            ? { kind: 'guyed', on, branch: d.device.branch, guy: d.id, device: d.device.kind, done: 'twisted', ...done }
            : { kind: 'set-up', on, device: d.id, ...done },
        ],
      },
    ];
  });
}
