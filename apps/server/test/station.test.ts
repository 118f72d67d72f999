import { believed, dayOf, seasonsAhead, usualMean } from '@ustle/core';
import { simulatedStation } from '../src/devices/station';

const FROM = dayOf('2023-01-01');
const DAYS = 1200;

test('the simulated station says the same of a day whenever it is asked, has gaps and faults as a real one, and is believed for the rest', async () => {
  const station = simulatedStation('north');
  const all = await station.means(FROM, FROM + DAYS - 1);
  expect(all.map((r) => r.day)).toEqual(Array.from({ length: DAYS }, (_, i) => FROM + i));
  expect(await simulatedStation('north').means(FROM + 200, FROM + 260)).toEqual(all.slice(200, 261));
  expect(await station.means(FROM, FROM - 1)).toEqual([]);
  const gaps = all.filter((r) => r.mean === null).length;
  expect(gaps).toBeGreaterThan(5);
  expect(all.some((r) => r.mean !== null && r.mean > 50)).toBe(true);
  const good = believed(all, station.monthly).filter((r) => r.mean !== null);
  expect(good.length).toBeGreaterThan(DAYS * 0.9);
  expect(good.length).toBeLessThan(DAYS - gaps);
  for (const { day, mean } of good) expect(Math.abs(mean! - usualMean(station.monthly, day))).toBeLessThan(18);
  // Its years are a little early or late, as years are.
  const ahead = seasonsAhead(all, station.monthly, 'north').map((a) => a.days);
  expect(Math.max(...ahead.map(Math.abs))).toBeGreaterThan(1);
  expect(Math.max(...ahead.map(Math.abs))).toBeLessThanOrEqual(35);
  // South of the equator January is high summer.
  const south = simulatedStation('south');
  expect(south.monthly[0]).toBe(station.monthly[6]);
  const [january, july] = [dayOf('2025-01-15'), dayOf('2025-07-15')].map(async (d) => (await south.means(d, d + 14)).map((r) => r.mean ?? 9));
  const mean = async (of: Promise<number[]>): Promise<number> => (await of).reduce((sum, m) => sum + m, 0) / 15;
  expect(await mean(january!)).toBeGreaterThan((await mean(july!)) + 5);
});
