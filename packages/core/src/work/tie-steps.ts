import { dayOf } from '../units/index.js';
import { DEVICE_WORDS } from '../guy/index.js';
import type { PlanGuy } from '../plan/index.js';
import { drawnBy, movedBy } from './led.js';
import { MINUTES, type Laying, type Draft } from './draft.js';

export function guyStep({ names, on }: Laying, guy: PlanGuy): Draft[] {
  if (guy.stages === null) return [];
  const first = guy.stages > 1 ? Math.max(1, Math.round(guy.windlassTurns / guy.stages)) : Math.round(guy.windlassTurns);
  return [
    {
      key: `guy:${guy.branch}:${Math.round(guy.at)}`,
      kind: 'guy',
      branches: [guy.branch],
      title: `Tie ${names(guy.branch)}`,
      what: [
        `${guy.wire.toFixed(1)} mm copper, doubled${guy.rounds > 1 ? `, laid ${guy.rounds} times` : ''}: ${guy.wireLength.toFixed(0)} mm. At ${guy.at.toFixed(0)} mm of the branch, ${guy.cushion.kind} of ${guy.cushion.width.toFixed(0)} mm under it.`,
        `To the ${guy.anchor.kind.replace('-', ' ')}. Draw ${guy.byHand.toFixed(0)} mm in by hand, then ${first} twists today${guy.stages > 1 ? ` of ${guy.windlassTurns.toFixed(0)}, in ${guy.stages} stages, ${guy.rest} between them` : ''}: about ${guy.tension.toFixed(0)} N when it is done.`,
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
          bends: drawnBy(guy, guy.windlassTurns > 0 ? first / guy.windlassTurns : 1),
        },
      ],
    },
  ];
}

/** A tie that stands between two stages, on the day of the next. */
export function twistStep({ names, on, onDay }: Laying, guy: PlanGuy): Draft[] {
  const left = guy.windlassTurns - guy.on!.twists;
  if (guy.stages === null || guy.stages < 2 || left < 0.5 || !guy.dates[0] || dayOf(guy.dates[0]) > onDay) return [];
  const twists = Math.max(1, Math.min(Math.round(left), Math.round(guy.windlassTurns / guy.stages)));
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
        { kind: 'guyed', on, branch: guy.branch, guy: guy.id, done: 'twisted', twists, bends: drawnBy(guy, (guy.on!.twists + twists) / guy.windlassTurns) },
      ],
    },
  ];
}

export function deviceSteps({ plan, names, on }: Laying): Draft[] {
  return plan.devices.flatMap((d): Draft[] => {
    if ('fault' in d || d.on || d.stages === null) return [];
    const turns = d.turns === null ? null : Math.max(1, Math.round(d.turns / (d.stages ?? 1)));
    return [
      {
        key: `device:${d.id}`,
        kind: 'device',
        branches: [d.device.branch, ...(d.device.other ? [d.device.other.branch] : [])],
        title: `Set the ${DEVICE_WORDS[d.device.kind].name} on ${names(d.device.branch)}`,
        what: [
          d.does,
          `${d.length.toFixed(0)} mm long when it has done its work, about ${d.force.toFixed(0)} N${turns ? `; ${turns} turns today` : ''}.`,
          d.marks,
        ],
        rule: MINUTES.device,
        of: d.id,
        did: [
          {
            kind: 'set-up',
            on,
            device: d.id,
            tension: Math.round(d.force),
            ...(turns ? { twists: turns } : {}),
            ...movedBy(d, turns && d.turns ? turns / d.turns : 1),
          },
        ],
      },
    ];
  });
}
