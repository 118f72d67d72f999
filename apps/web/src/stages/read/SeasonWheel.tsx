import { northernMonth, dayOf, type Hemisphere, type Species, type Task } from '@ustle/core';

const TASKS: [Task, string][] = [
  ['repotting', 'repot'],
  ['pruning', 'prune'],
  ['wiring', 'wire'],
  ['heavyBending', 'bend hard'],
];
const LETTERS = 'JFMAMJJASOND';
const CENTER = 120;

/** A ring's sector between two months, as a path. */
function sector(month: number, inner: number, outer: number): string {
  const at = (turn: number, r: number): string => `${CENTER + Math.sin(turn) * r} ${CENTER - Math.cos(turn) * r}`;
  const [a, b] = [((month - 1) / 12) * 2 * Math.PI + 0.02, (month / 12) * 2 * Math.PI - 0.02];
  return `M${at(a, inner)}L${at(a, outer)}A${outer} ${outer} 0 0 1 ${at(b, outer)}L${at(b, inner)}A${inner} ${inner} 0 0 0 ${at(a, inner)}Z`;
}

/** The months of a species' year, a ring for each kind of work: filled where it is good, hatched where it is bad. */
export function SeasonWheel({ species, hemisphere, today }: { species: Species; hemisphere: Hemisphere; today: string }) {
  // The calendar is kept for the north; in the south each month is six further on.
  const month = (m: number): number => (hemisphere === 'south' ? ((m + 5) % 12) + 1 : m);
  const now = northernMonth('north', dayOf(today));
  return (
    <div className="flex items-center gap-4">
      <svg
        viewBox="0 0 240 240"
        className="w-52 shrink-0"
        role="img"
        aria-label={TASKS.map(([t, n]) => `${n}: good in months ${species.months[t].good.map(month).join(', ')}`).join('; ')}
      >
        <defs>
          <pattern id="bad" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" x2="0" y1="0" y2="5" stroke="var(--color-madder)" strokeWidth="2" />
          </pattern>
        </defs>
        {TASKS.map(([task], i) => {
          const outer = 98 - i * 18;
          return Array.from({ length: 12 }, (_, m) => {
            const { good, bad } = species.months[task];
            const is = (list: number[]): boolean => list.map(month).includes(m + 1);
            return (
              <path
                key={`${task}${m}`}
                d={sector(m + 1, outer - 15, outer)}
                fill={is(good) ? 'var(--color-moss)' : is(bad) ? 'url(#bad)' : 'var(--color-rule)'}
                opacity={is(good) || is(bad) ? 0.9 : 0.45}
              />
            );
          });
        })}
        {[...LETTERS].map((letter, m) => {
          const turn = ((m + 0.5) / 12) * 2 * Math.PI;
          return (
            <text
              key={m}
              x={CENTER + Math.sin(turn) * 109}
              y={CENTER - Math.cos(turn) * 109 + 5}
              textAnchor="middle"
              fontSize="14"
              fontWeight={m + 1 === now ? 700 : 400}
              fill={m + 1 === now ? 'var(--color-copper)' : 'var(--color-ink)'}
            >
              {letter}
            </text>
          );
        })}
      </svg>
      <ol className="space-y-1 text-[0.94rem]">
        {TASKS.map(([task, name], i) => (
          <li key={task}>
            {i === 0 ? 'outermost: ' : i === TASKS.length - 1 ? 'innermost: ' : ''}
            {name}
          </li>
        ))}
        <li className="text-quiet">filled: good; hatched: bad</li>
      </ol>
    </div>
  );
}
