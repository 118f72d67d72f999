import { sayForce, sayPull, type PlanGuy } from '@ustle/core';
import { Caution, Facts, Quiet } from '../../shared/parts';
import { percent, sayDate } from '../../shared/say';
import { Worded } from '../../words/Worded';
import { useDesk } from '../desk';
import { useKit } from './kit';
import { Checks } from './Checks';
import { DrawIt } from './DrawIt';
import { TieActs } from './TieActs';
import { BANDS, sayAnchor, sayStrain } from './words';

/** One tie, opened: how it is made, drawn with a slider, checked, and what is done with it. */
export function OpenTie({ guy }: { guy: PlanGuy }) {
  const { act, names } = useDesk();
  const { share, setShare, drawn, own } = useKit();
  const i = own.findIndex((g) => g.id === guy.id);
  const { id, branch, at, anchor, wire, cushion } = guy;
  // What is on for long has drawn its branch already: there is nothing to be seen by drawing it again.
  const drawsOn = guy.shortening >= 1;
  const pulls = Math.max(1, guy.stages ?? 1);
  const stages =
    guy.stages === null
      ? 'More than one season: as far as it goes now, the rest in another year.'
      : guy.stages > 1
        ? `In ${guy.stages} pulls, ${guy.rest} of rest between them${guy.dates.length ? `: ${guy.dates.map(sayDate).join(', ')}` : ''}.`
        : '';
  const facts: [string, string][] = [
    ['Tied at', `${at.toFixed(0)} mm from the shoulder`],
    ['Tie', `${wire.toFixed(1)} mm copper, doubled${guy.rounds > 1 ? `, laid round ${guy.rounds} times` : ''}; ${guy.wireLength.toFixed(0)} mm with its ends`],
    ['Cushion', `${cushion.kind}, ${cushion.width} mm along the branch`],
    ['Pull', `${sayPull(guy.tension)}, when it is there`],
    ...(drawsOn
      ? ([
          [
            'Drawn in',
            `${guy.byHand >= 1 ? `${(guy.byHand / pulls).toFixed(0)} mm by hand and tied taut, then ` : ''}${guy.windlassTurns.toFixed(0)} twists${pulls > 1 ? `: today's of ${pulls} pulls` : ''}`,
          ],
          ['Strain', `${percent(guy.strain)} at ${guy.strainAt.toFixed(0)} mm, where it is ${guy.diameter.toFixed(0)} mm thick. ${BANDS[guy.band]}`],
          ['Arch', `${guy.arch.toFixed(0)} mm from its chord, drawn; ${guy.archWired.toFixed(0)} mm as posed`],
        ] as [string, string][])
      : []),
  ];
  return (
    <div className="space-y-4 px-2 pb-3">
      {guy.because.map((b) => (
        <p key={b}>
          <Worded>{b}</Worded>
        </p>
      ))}
      {drawsOn && !guy.coil && guy.arch > guy.archWired + 4 && (
        <p className="text-quiet">
          A pull alone makes an even arch: a light coil for the drop at the shoulder and the movement, the tie for the position, looks truer.
        </p>
      )}
      {guy.overWire && <p>{guy.overWire}</p>}
      {stages && <p>{stages}</p>}
      {drawsOn && (
        <DrawIt
          label="Draw it, from nothing to full"
          share={share}
          onShare={setShare}
          said={drawn && i >= 0 ? `${sayForce(drawn.tensions[i] ?? 0)}, ${sayStrain(drawn)}` : null}
        />
      )}
      <Facts rows={facts} />
      <Checks checks={guy.checks} />
      <Caution>A taut tie stores its pull: stay out of its line, twist and let go slowly, and protect your eyes.</Caution>
      <TieActs key={`${id}${guy.on?.twists ?? ''}`} guy={guy} />
      {!guy.on && (
        <div className="flex flex-wrap gap-x-5">
          {guy.fixed ? (
            <Quiet onClick={() => void act({ kind: 'unguy', guy: id })}>let it be planned anew</Quiet>
          ) : (
            <Quiet onClick={() => void act({ kind: 'guy', branch, at, anchor, wire, cushion })}>fix it as it is</Quiet>
          )}
        </div>
      )}
      <p className="text-quiet">
        {names(branch)} to {sayAnchor(anchor, names)}.
      </p>
    </div>
  );
}
