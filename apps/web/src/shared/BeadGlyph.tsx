import type { Band } from '@ustle/core';

const TONES: Record<Band, string> = { calm: 'var(--color-moss)', careful: 'var(--color-ochre)', heavy: 'var(--color-madder)', no: 'var(--color-madder)' };
/** Size of a bead, and how many notches it has: state is not by colour alone. */
const SHAPES: Record<Band, { radius: number; notches: number }> = {
  calm: { radius: 6, notches: 0 },
  careful: { radius: 8, notches: 2 },
  heavy: { radius: 10, notches: 4 },
  no: { radius: 11, notches: 8 },
};

/** A bead drawn by itself: round when calm, larger and notched towards heavy. */
export function BeadGlyph({ band, chosen = false }: { band: Band; chosen?: boolean }) {
  const { radius, notches } = SHAPES[band];
  return (
    <svg width="26" height="26" viewBox="-13 -13 26 26" aria-hidden="true">
      <circle r={radius} fill={TONES[band]} stroke={chosen ? 'var(--color-ink)' : 'var(--color-sheet)'} strokeWidth={chosen ? 2.5 : 1.5} />
      {Array.from({ length: notches }, (_, i) => {
        const turn = (i / notches) * 2 * Math.PI + Math.PI / 4;
        return (
          <path
            key={i}
            d={`M${Math.cos(turn) * radius * 1.15} ${Math.sin(turn) * radius * 1.15}L${Math.cos(turn) * radius * 0.45} ${Math.sin(turn) * radius * 0.45}`}
            stroke="var(--color-sheet)"
            strokeWidth="2.5"
          />
        );
      })}
    </svg>
  );
}
