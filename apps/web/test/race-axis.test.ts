import { addDays } from '../src/shared/say';
import { monthTicks, weekOf, weeksOfRace } from '../src/stages/watch/race-axis';

const weeks = (from: string, count: number): string[] => Array.from({ length: count }, (_, i) => addDays(from, 7 * i));
const dates = (p90: string | null): { p10: null; p50: null; p90: string | null } => ({ p10: null, p50: null, p90 });

test('the chart of a race ends a little after the last of its dates, and not before today', () => {
  const days = weeks('2026-05-01', 79);
  const until = (touching: string | null, set: string | null, today = '2026-05-20'): string => {
    const shown = weeksOfRace(days, { touching: dates(touching), marking: dates(null), set: dates(set) }, today);
    return days[shown - 1]!;
  };
  expect(until(null, null)).toBe(days[15]);
  for (const last of ['2026-10-01', '2027-03-01']) {
    expect(until('2026-06-01', last) > addDays(last, 20)).toBe(true);
    expect(until('2026-06-01', last) < addDays(last, 42)).toBe(true);
    expect(until(null, null, last) > last).toBe(true);
  }
  // What lies beyond the forecast is cut, not invented.
  expect(until(null, '2031-01-01')).toBe(days.at(-1));
  expect(weekOf(days, '2031-01-01')).toBe(78);
});

test('months are named where they begin, each once, and never crowd', () => {
  for (const count of [16, 30, 79]) {
    const ticks = monthTicks(weeks('2026-09-11', count));
    const named = ticks.filter(Boolean);
    expect(named.length).toBeGreaterThan(2);
    expect(named.length).toBeLessThanOrEqual(7);
    expect(named[0]).toBe('Oct 26');
  }
  const short = monthTicks(weeks('2026-09-11', 24));
  expect(short.filter(Boolean)).toEqual(['Oct 26', 'Nov', 'Dec', 'Jan 27', 'Feb']);
  expect(short.indexOf('Nov')).toBe(8);
});
