import { drawnBy, nextTwists, type LineOf, type PlanGuy } from '@ustle/core';
import { sayDate } from '../../shared/say';
import { useDesk } from '../desk';
import { OnTree } from './OnTree';
import { sayMarks } from './words';

/** How a tie leads its branch with so many twists more, and when the next may be made. */
function madeBy(guy: PlanGuy, twists: number | undefined): Pick<LineOf<'guyed'>, 'bends' | 'next'> {
  const stage = nextTwists(guy);
  if (!stage) return {};
  const share = guy.windlassTurns > 0 && twists !== undefined ? Math.min(1, ((guy.on?.twists ?? 0) + twists) / guy.windlassTurns) : stage.share;
  return { bends: drawnBy(guy, share), ...(stage.next ? { next: stage.next } : {}) };
}

/** What is done with a tie. */
export function TieActs({ guy }: { guy: PlanGuy }) {
  const { act, names, today } = useDesk();
  const { id, branch, at, anchor, wire, cushion, tension } = guy;
  const taut = Math.round(guy.length - guy.shortening);
  const pull = { tension: Math.round(tension), length: taut };
  return (
    <OnTree
      on={
        guy.on && {
          head: `On since ${sayDate(guy.on.since)}`,
          told: [
            `${guy.on.twists.toFixed(0)} twists in it.`,
            guy.on.holds
              ? `The branch is likely to hold by itself from ${sayDate(guy.on.holds)} on.`
              : 'When it will hold by itself is not known: note how far it came.',
            `Look at its cushion by ${sayDate(guy.on.look)}.`,
            sayMarks(guy.on.marks, today),
          ].join(' '),
        }
      }
      words={{ turns: 'Twists', shorter: 'Twisted shorter', back: 'Let out a little', put: `${names(branch)} is tied` }}
      turns={nextTwists(guy)?.turns ?? 1}
      onPut={({ on, moved }) =>
        void act({ kind: 'tie', on, ...(guy.fixed ? { guy: id } : {}), branch, at, anchor, wire, cushion, ...madeBy(guy, moved.twists), ...pull, ...moved })
      }
      onDone={(done, { on, moved, bark }) =>
        void act({
          kind: 'guyed',
          on,
          branch,
          guy: id,
          done,
          ...(done === 'looked' ? { bark } : moved),
          ...(done === 'twisted' ? { ...madeBy(guy, moved.twists), ...pull } : {}),
        })
      }
      onOff={({ on }) => void act({ kind: 'untie', on, guy: id })}
    />
  );
}
