import { Quiet } from '../../../shared/parts';
import { sayDate } from '../../../shared/say';
import { useDesk } from '../../desk';
import type { Photographs } from './use-photographs';

/** What turned less than this, degrees, is within what a hand draws. */
const STEADY_DEG = 3;

/** What the branches did since the round of photos before: how far each turned, and how much thicker it is. */
export function SinceBefore({ ph }: { ph: Photographs }) {
  const { stored } = useDesk();
  const { earlier, answer } = ph;
  if (!earlier) return null;
  const when = earlier.on ? sayDate(earlier.on) : 'before';
  const again = answer?.again;
  if (!again)
    return (
      <p className="mb-3 text-quiet">
        A new round: the photos of {earlier.on ? sayDate(earlier.on) : 'before'} are kept. Draw the trunk and three branches or more as in those.
      </p>
    );
  const wired = new Set(stored.tree.record.flatMap((l) => (l.kind === 'wired' && (!earlier.on || l.on >= earlier.on) ? [l.branch] : [])));
  return (
    <section className="mb-3 border-l-4 border-indigo px-3 py-1" aria-label={`Since ${when}`}>
      <h3 className="font-semibold">Since {when}</h3>
      <p className="text-quiet">The new photos stand on those of before within {again.rmsMm.toFixed(0)} mm.</p>
      <ul>
        {again.since.map((s) => (
          <li key={s.line}>
            {ph.nameOf(s.line)}: {s.turned < STEADY_DEG ? 'as it was' : `turned by ${s.turned.toFixed(0)}°`}
            {s.thicker !== null && Math.abs(s.thicker) >= 0.3 ? `, ${Math.abs(s.thicker).toFixed(1)} mm ${s.thicker > 0 ? 'thicker' : 'thinner'}` : ''}{' '}
            {wired.has(s.line) && s.turned >= STEADY_DEG && (
              <Quiet onClick={() => ph.noteHeld(s.line, s.turned)} label={`Note that ${ph.nameOf(s.line)} holds ${s.turned.toFixed(0)}°`}>
                note that it holds {s.turned.toFixed(0)}°
              </Quiet>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
