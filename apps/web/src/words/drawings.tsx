import type { ReactNode } from 'react';

const WOOD = { fill: 'none', stroke: 'var(--color-bark)', strokeLinecap: 'round' } as const;
const WIRE = { fill: 'none', stroke: 'var(--color-copper)', strokeWidth: 3, strokeLinecap: 'round' } as const;
const LABEL = { fill: 'var(--color-ink)', fontSize: 12 } as const;

/** A branch along the picture, with a coil that leans one way or the other. */
const coiled = (x: number, lean: 1 | -1): ReactNode => (
  <g transform={`translate(${x} 0)`}>
    <path d="M6 38H92" {...WOOD} strokeWidth="16" />
    {[18, 36, 54, 72].map((at) => (
      <path key={at} d={`M${at - 6 * lean} 49Q${at} 38 ${at + 6 * lean} 27`} {...WIRE} />
    ))}
  </g>
);

const DRAWINGS = {
  shoulder: (
    <>
      <path d="M52 90C50 60 54 30 50 4" {...WOOD} strokeWidth="18" />
      <path d="M56 52C84 44 116 30 168 30" {...WOOD} strokeWidth="9" />
      <circle cx="62" cy="50" r="13" fill="none" stroke="var(--color-copper)" strokeWidth="2.5" />
      <text x="74" y="76" {...LABEL}>
        shoulder
      </text>
    </>
  ),
  hand: (
    <>
      {coiled(0, 1)}
      {coiled(104, -1)}
      <text x="8" y="76" {...LABEL}>
        clockwise
      </text>
      <text x="104" y="76" {...LABEL}>
        counter-clockwise
      </text>
    </>
  ),
  start: (
    <>
      {[0, 104].map((x, i) => (
        <g key={x} transform={`translate(${x} 0)`}>
          <path d="M14 80V4" {...WOOD} strokeWidth="16" />
          <path d="M20 40H92" {...WOOD} strokeWidth="13" />
          <path d={i ? 'M22 50C34 54 40 48 44 38' : 'M22 30C34 26 40 32 44 42'} {...WIRE} />
          <circle cx="23" cy={i ? 50 : 30} r="4" fill="var(--color-copper)" />
          <text x="34" y="76" {...LABEL}>
            {i ? 'under' : 'over'}
          </text>
        </g>
      ))}
    </>
  ),
  settles: (
    <>
      <path d="M22 86V4" {...WOOD} strokeWidth="14" />
      <path d="M26 24C70 18 110 12 150 8" {...WOOD} strokeWidth="5" opacity="0.35" />
      <path d="M26 24C70 34 104 52 128 82" {...WOOD} strokeWidth="3" strokeDasharray="5 6" />
      <path d="M26 24C70 30 112 42 144 64" {...WOOD} strokeWidth="6" />
      <text x="154" y="14" {...LABEL}>
        as it grew
      </text>
      <text x="150" y="66" {...LABEL}>
        settles
      </text>
      <text x="84" y="88" {...LABEL} textAnchor="end">
        by hand
      </text>
    </>
  ),
  windlass: (
    <>
      <path d="M12 14C60 18 120 16 200 8" {...WOOD} strokeWidth="9" />
      <path d="M6 86H206" stroke="var(--color-ink)" strokeWidth="4" />
      <path d="M104 22C96 34 112 40 104 50C96 60 112 66 104 84" {...WIRE} />
      <path d="M104 22C112 34 96 40 104 50C112 60 96 66 104 84" {...WIRE} />
      <path d="M84 50H126" stroke="var(--color-ink)" strokeWidth="3" strokeLinecap="round" />
      <text x="134" y="54" {...LABEL}>
        a nail turned
      </text>
    </>
  ),
} satisfies Record<string, ReactNode>;

export type DrawnWord = keyof typeof DRAWINGS;

/** A word of the glossary in a small drawing. */
export function WordDrawing({ of }: { of: DrawnWord }) {
  return (
    <svg viewBox="0 0 220 92" width="220" height="92" aria-hidden="true" className="mt-2 max-w-full">
      {DRAWINGS[of]}
    </svg>
  );
}
