import type { RaceBar } from '@ustle/core';
import { daysBetween } from '../shared/say';

const BEFORE = 20;
const SPAN = 400;

/** A year of one coil against today: set and free to come off, may press, may mark. */
export function RaceStrip({ race, today, width = 330 }: { race: RaceBar; today: string; width?: number }) {
  const x = (iso: string): number => Math.min(width, Math.max(0, ((daysBetween(today, iso) + BEFORE) / SPAN) * width));
  const band = (from: string | null, to: string | null, colour: string, y: number, height: number, key: string) => {
    if (!from) return null;
    const [a, b] = [x(from), to ? x(to) : width];
    return b - a < 0.5 ? null : <rect key={key} x={a} y={y} width={b - a} height={height} fill={colour} />;
  };
  const { setFrom, touchFrom, markFrom, markSure } = race;
  return (
    <svg
      width="100%"
      viewBox={`0 0 ${width} 30`}
      className="block max-w-[330px]"
      role="img"
      aria-label={`may be touching from ${touchFrom ?? 'never'}, marking from ${markFrom ?? 'never'}, set by ${setFrom ?? 'unknown'}`}
    >
      <line x1="0" x2={width} y1="16" y2="16" stroke="var(--color-rule)" />
      {band(touchFrom, markFrom, 'var(--color-ochre)', 11, 10, 'touch')}
      {band(markFrom, markSure, 'var(--color-madder)', 11, 10, 'mark')}
      {band(setFrom, null, 'var(--color-moss)', 23, 4, 'set')}
      <line x1={x(today)} x2={x(today)} y1="3" y2="29" stroke="var(--color-copper)" strokeWidth="2" />
    </svg>
  );
}
