import type { MarkStage } from '@ustle/core';

export type Glyph = MarkStage | 'none' | 'guy';

const RING: Record<Glyph, string> = {
  none: 'var(--color-quiet)', clear: 'var(--color-moss)', touching: 'var(--color-ochre)', marking: 'var(--color-madder)', deep: 'var(--color-madder)',
  swallowed: 'var(--color-madder)', guy: 'var(--color-indigo)',
};
const NAMES: Record<Glyph, string> = { none: 'no wire', clear: 'clear', touching: 'touching', marking: 'marking', deep: 'deep', swallowed: 'swallowed', guy: 'guy' };

/** A stem seen from its end with its wire: an open gap, touching, notched, grown over. The shape tells it, the colour helps. */
export function StageGlyph({ stage, size = 18 }: { stage: Glyph; size?: number }) {
  const ring = RING[stage];
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" role="img" aria-label={NAMES[stage]} className="shrink-0">
      {stage === 'none' && <circle cx="10" cy="10" r="5" fill="none" stroke={ring} strokeWidth="1.6" />}
      {stage === 'clear' && <circle cx="10" cy="10" r="8.4" fill="none" stroke={ring} strokeWidth="1.9" />}
      {stage === 'touching' && <circle cx="10" cy="10" r="6.2" fill="none" stroke={ring} strokeWidth="2.6" />}
      {stage === 'guy' && <path d="M10 10L18 18" stroke={ring} strokeWidth="2" />}
      {stage !== 'none' && <circle cx="10" cy="10" r={stage === 'clear' ? 4.6 : stage === 'touching' ? 5 : 7.4} fill="var(--color-bark)" />}
      {(stage === 'marking' || stage === 'deep') && (
        <path d={stage === 'marking' ? 'M16.8 6.2L11.8 10L16.8 13.8' : 'M18 4L8 10L18 16'} fill="none" stroke={ring} strokeWidth="2.6" strokeLinejoin="round" />
      )}
      {stage === 'swallowed' && <circle cx="10" cy="10" r="2.6" fill="none" stroke={ring} strokeWidth="2.2" />}
    </svg>
  );
}
