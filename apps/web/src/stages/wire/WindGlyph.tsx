import type { Hand, Start } from '@ustle/core';

const SAID: Record<Hand, string> = { cw: 'clockwise', ccw: 'counter-clockwise' };

/** How a coil goes round: the branch seen from the trunk along it, the first touch as a dot, and which way the wire leaves it. */
export function WindGlyph({ hand, start }: { hand: Hand; start: Start }) {
  const y = start === 'over' ? 10 : 54;
  // Seen from the parent along the branch, clockwise goes to the right over the top and to the left beneath.
  const right = (hand === 'cw') === (start === 'over');
  const x = right ? 54 : 10;
  const sweep = hand === 'cw' ? 1 : 0;
  return (
    <figure className="flex items-center gap-3">
      <svg width="64" height="64" viewBox="0 0 64 64" aria-hidden="true" className="shrink-0">
        <circle cx="32" cy="32" r="15" fill="var(--color-bark)" />
        <path d={`M32 ${y}A22 22 0 0 ${sweep} ${x} 32`} fill="none" stroke="var(--color-copper)" strokeWidth="4" strokeLinecap="round" />
        <path d={`M${x - 5} ${y < 32 ? 27 : 37}L${x} 32L${x + 5} ${y < 32 ? 27 : 37}`} fill="none" stroke="var(--color-copper)" strokeWidth="3" />
        <circle cx="32" cy={y} r="4" fill="var(--color-copper)" />
      </svg>
      <figcaption>
        {start === 'over' ? 'Over the shoulder' : 'From beneath the shoulder'}, then {SAID[hand]}.
        <span className="block text-quiet">Seen from the trunk along the branch.</span>
      </figcaption>
    </figure>
  );
}
