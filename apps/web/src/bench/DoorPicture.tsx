export type Door = 'wire' | 'draw' | 'photos' | 'ruler' | 'try';

const WOOD = { fill: 'none', stroke: 'var(--color-bark)', strokeLinecap: 'round' } as const;

/** Turns of wire round a branch that rises to the right. */
const Coiled = () => (
  <>
    <path d="M8 58 C30 50 62 44 104 18" {...WOOD} strokeWidth={9} />
    {[
      [20, 55],
      [36, 52],
      [52, 46],
      [68, 39],
      [84, 31],
    ].map(([x, y]) => (
      <path
        key={x}
        d={`M${x! - 5} ${y! - 5} C ${x! - 2} ${y! - 9} ${x! + 4} ${y! + 6} ${x! + 6} ${y! + 4}`}
        fill="none"
        stroke="var(--color-copper)"
        strokeWidth={3}
        strokeLinecap="round"
      />
    ))}
  </>
);

/** A branch beside a rule with its marks. */
const Ruled = () => (
  <>
    <path d="M8 34 C36 30 70 24 104 20" {...WOOD} strokeWidth={9} />
    <path d="M8 56 H104" stroke="var(--color-ink)" strokeWidth={1} />
    {Array.from({ length: 13 }, (_, i) => (
      <path key={i} d={`M${8 + 8 * i} 56 v${i % 5 ? 5 : 10}`} stroke="var(--color-ink)" strokeWidth={1} />
    ))}
  </>
);

/** A branch that is pulled out of a trunk. */
const Pulled = () => (
  <>
    <path d="M30 66 C27 48 34 32 29 10" {...WOOD} strokeWidth={9} />
    <path d="M32 42 C50 38 66 32 84 22" {...WOOD} strokeWidth={5} />
    <circle cx="84" cy="22" r="6" fill="none" stroke="var(--color-copper)" strokeWidth={2.5} />
    <path d="M92 19 l12 -4 m-5 -3 l5 3 l-3 5" fill="none" stroke="var(--color-copper)" strokeWidth={2} strokeLinecap="round" />
  </>
);

/** A tree in a picture's frame, with a card before it. */
const Photographed = () => (
  <>
    <rect x="22" y="6" width="68" height="60" fill="none" stroke="var(--color-ink)" strokeWidth={1.5} />
    <path d="M52 54 C50 42 58 34 54 20" {...WOOD} strokeWidth={6} />
    <path d="M53 40 C44 36 40 34 34 33 M56 31 C64 28 70 26 77 27" {...WOOD} strokeWidth={4} />
    <path d="M38 54 H68" stroke="var(--color-bark)" strokeWidth={4} />
    <path d="M70 60 l10 -3 l5 4 l-10 3 z" fill="var(--color-ink)" />
    <path d="M28 62 l9 1 l-1 -5 l-8 -1 z" fill="var(--color-ink)" />
  </>
);

/** A small tree of dots: nobody's. */
const MadeUp = () => (
  <>
    <path d="M56 66 C54 50 62 40 56 24" {...WOOD} strokeWidth={6} strokeDasharray="1 7" />
    <path d="M57 46 C44 44 36 40 28 40 M58 36 C70 34 78 30 86 30" {...WOOD} strokeWidth={4} strokeDasharray="1 6" />
    {[
      [26, 36, 14],
      [88, 26, 13],
      [56, 16, 16],
    ].map(([x, y, r]) => (
      <ellipse key={x} cx={x} cy={y} rx={r} ry={r! / 2.4} fill="none" stroke="var(--color-moss)" strokeWidth={2} strokeDasharray="2 4" />
    ))}
  </>
);

const PICTURES: Record<Door, () => React.ReactNode> = { wire: Coiled, draw: Pulled, photos: Photographed, ruler: Ruled, try: MadeUp };

/** What a way of bringing a tree in is about, drawn. */
export function DoorPicture({ door }: { door: Door }) {
  const Picture = PICTURES[door];
  return (
    <svg viewBox="0 0 112 72" width="112" height="72" aria-hidden="true">
      <Picture />
    </svg>
  );
}
