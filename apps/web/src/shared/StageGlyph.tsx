import type { MarkStage } from '@ustle/core';

/** `unseen`: wire is on, and nobody looked at it yet; what is only foreseen is not drawn. */
export type Glyph = MarkStage | 'none' | 'unseen' | 'guy';

const RING: Record<Glyph, string> = {
  none: 'var(--color-quiet)',
  unseen: 'var(--color-quiet)',
  clear: 'var(--color-moss)',
  touching: 'var(--color-ochre)',
  marking: 'var(--color-madder)',
  deep: 'var(--color-madder)',
  swallowed: 'var(--color-madder)',
  guy: 'var(--color-indigo)',
};
const NAMES: Record<Glyph, string> = {
  none: 'no wire',
  unseen: 'not looked at yet',
  clear: 'clear',
  touching: 'touching',
  marking: 'marking',
  deep: 'deep',
  swallowed: 'swallowed',
  guy: 'guy',
};

/** Radius of the stem and of the wire's ring round it: apart, touching, then ever deeper inside the bark. */
const RADII: Record<MarkStage, [stem: number, ring: number]> = {
  clear: [4, 8.4],
  touching: [5.6, 7],
  marking: [8.6, 6.4],
  deep: [9, 4.6],
  swallowed: [9.4, 2.6],
};

/** A stem seen from its end with its wire. The shape tells the stage, the colour helps. */
export function StageGlyph({ stage, size = 20 }: { stage: Glyph; size?: number }) {
  const ring = RING[stage];
  return (
    <svg width={size} height={size} viewBox="0 0 20 20" role="img" aria-label={NAMES[stage]} className="shrink-0">
      {stage === 'none' && <circle cx="10" cy="10" r="5" fill="none" stroke={ring} strokeWidth="1.6" />}
      {stage === 'unseen' && (
        <>
          <circle cx="10" cy="10" r="4" fill="var(--color-bark)" opacity="0.45" />
          <circle cx="10" cy="10" r="8" fill="none" stroke={ring} strokeWidth="1.6" strokeDasharray="1.6 2.2" />
        </>
      )}
      {stage === 'guy' && <path d="M10 10L18 18" stroke={ring} strokeWidth="2" />}
      {stage !== 'none' && stage !== 'unseen' && stage !== 'guy' && (
        <>
          <circle cx="10" cy="10" r={RADII[stage][0]} fill="var(--color-bark)" opacity={stage === 'clear' || stage === 'touching' ? 1 : 0.55} />
          <circle
            cx="10"
            cy="10"
            r={RADII[stage][1]}
            fill="none"
            stroke={ring}
            strokeWidth="2.4"
            strokeDasharray={stage === 'swallowed' ? '2.2 1.6' : undefined}
          />
        </>
      )}
    </svg>
  );
}
