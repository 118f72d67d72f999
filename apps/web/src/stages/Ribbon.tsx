import { useDrag } from '@use-gesture/react';
import { useRef, type KeyboardEvent } from 'react';
import { addDays, daysBetween, sayDate, sayWindow } from '../shared/say';
import { useSeasonCurve } from '../jobs/use-planner';
import { useDesk } from './desk';

const WEEKS = 105;
const DAYS = WEEKS * 7;
const BEFORE = 40;
/** Room that the word for a day takes, thousandths of the ribbon. */
const DAY_LABEL = 90;
const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'short', timeZone: 'UTC' });

function months(from: string): { iso: string; name: string }[] {
  const start = new Date(`${from}T00:00:00Z`);
  return Array.from({ length: 24 }, (_, i) => {
    const first = new Date(Date.UTC(start.getUTCFullYear(), start.getUTCMonth() + 1 + i, 1));
    const january = first.getUTCMonth() === 0;
    return { iso: first.toISOString().slice(0, 10), name: january ? `Jan ${String(first.getUTCFullYear()).slice(2)}` : MONTH.format(first) };
  });
}

/** Two years of time: when the tree grows, when its wires may come off or mark. Drawn along, the tree shows that day. */
export function Ribbon() {
  const { tree, plan, today, day, setDay, branch, short } = useDesk();
  const from = addDays(today, -BEFORE);
  const curve = useSeasonCurve(tree, from, WEEKS);
  const box = useRef<HTMLDivElement>(null);
  const x = (iso: string): number => (daysBetween(from, iso) / DAYS) * 1000;
  const held = (v: number): number => Math.min(1000, Math.max(0, v));

  const wire = plan?.wires.find((w) => w.branch === branch) ?? plan?.wires[0];
  const grow = curve ? `M0 64${curve.map((v, i) => `L${((i + 0.5) / WEEKS) * 1000} ${64 - v * 24}`).join('')}L1000 64Z` : '';

  const drawing = useDrag(
    ({ xy: [at] }) => {
      const { left, width } = box.current!.getBoundingClientRect();
      const picked = addDays(from, Math.round(Math.min(1, Math.max(0, (at - left) / width)) * DAYS));
      setDay(Math.abs(daysBetween(today, picked)) < 5 ? today : picked);
    },
    { pointer: { capture: true, keys: false } },
  );
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = { ArrowLeft: -7, ArrowRight: 7, PageDown: -30, PageUp: 30, Home: daysBetween(day, today) }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    const next = addDays(day, by);
    if (daysBetween(from, next) >= 0 && daysBetween(from, next) <= DAYS) setDay(next);
  };

  const bands: [string | null | undefined, string | null | undefined, string][] = wire
    ? [
        [wire.cleanWindow?.from ?? wire.set.p90, null, 'var(--color-moss)'],
        [wire.touching.p50, wire.marking.p10, 'var(--color-ochre)'],
        [wire.marking.p10, wire.marking.p90, 'var(--color-madder)'],
      ]
    : [];
  return (
    <div
      ref={box}
      role="slider"
      tabIndex={0}
      aria-label="Day shown on the tree"
      aria-valuetext={sayDate(day)}
      aria-valuemin={0}
      aria-valuemax={DAYS}
      aria-valuenow={Math.max(0, daysBetween(from, day))}
      className="relative h-16 shrink-0 cursor-ew-resize touch-none select-none overflow-hidden border-t border-rule"
      {...drawing()}
      onKeyDown={onKeyDown}
    >
      <svg viewBox="0 0 1000 64" preserveAspectRatio="none" className="absolute inset-0 h-full w-full" aria-hidden="true">
        <path d={grow} fill="var(--color-moss)" opacity="0.28" />
        {bands.map(([a, b, colour], i) =>
          a ? (
            <rect key={i} x={held(x(a))} y={i === 0 ? 31 : 24} width={Math.max(0, held(b ? x(b) : 1000) - held(x(a)))} height={i === 0 ? 3 : 7} fill={colour} />
          ) : null,
        )}
        <line x1={x(today)} x2={x(today)} y1="0" y2="64" stroke="var(--color-copper)" strokeWidth="2" vectorEffect="non-scaling-stroke" />
        {day !== today && (
          <line
            x1={held(x(day))}
            x2={held(x(day))}
            y1="0"
            y2="64"
            stroke="var(--color-ink)"
            strokeWidth="2"
            strokeDasharray="3 3"
            vectorEffect="non-scaling-stroke"
          />
        )}
      </svg>
      {months(from).map((m, i) => (
        <span
          key={m.iso}
          className={`${i % 3 ? 'hidden md:block' : ''} absolute bottom-0.5 border-l border-rule pl-1 text-[0.94rem] leading-4 text-quiet`}
          style={{ left: `${x(m.iso) / 10}%` }}
        >
          {m.name}
        </span>
      ))}
      {!(day < today && x(today) - held(x(day)) < DAY_LABEL) && (
        <span className="absolute top-0.5 pl-1.5 text-[0.94rem] font-bold text-copper" style={{ left: `${x(today) / 10}%` }}>
          today
        </span>
      )}
      {day !== today && (
        <span
          className="absolute top-0.5 whitespace-nowrap bg-base-100 px-1 text-[0.94rem] font-bold"
          style={x(day) > 850 ? { right: `${100 - x(day) / 10}%` } : { left: `${held(x(day)) / 10 + 0.2}%` }}
        >
          {sayDate(day)}
        </span>
      )}
      {wire && day === today && (
        <span
          className="absolute top-0.5 whitespace-nowrap text-[0.94rem] text-quiet"
          style={{ left: `${Math.max(x(today) / 10 + 6, Math.min(60, held(x(wire.marking.p10 ?? today)) / 10))}%` }}
        >
          {short(wire.branch)}:{' '}
          {wire.cleanWindow
            ? `off ${sayWindow(wire.cleanWindow.from, wire.cleanWindow.to)}`
            : wire.marking.p10
              ? `may mark from ${sayDate(wire.marking.p10)}`
              : 'no mark in sight'}
        </span>
      )}
    </div>
  );
}
