import { dayOf, speciesOf, type PastChoice, type Race } from '@ustle/core';
import { goodMonths } from '../src/season/good-months';
import { sayRace } from '../src/stages/wire/say-race';

const DAYS = 548;

test('the good months of a lane are those of the species’ calendar, half a year on in the south', () => {
  const larch = speciesOf('larch');
  const from = '2026-05-01';
  for (const [hemisphere, shift] of [
    ['north', 0],
    ['south', 6],
  ] as const) {
    const stretches = goodMonths(larch, 'repotting', hemisphere, from);
    const monthAt = (share: number): number => new Date((dayOf(from) + (share / 100) * DAYS) * 86_400_000).getUTCMonth() + 1;
    const good = larch.months.repotting.good.map((m) => ((m - 1 + shift) % 12) + 1);
    expect(stretches.length).toBeGreaterThan(0);
    for (const [a, b] of stretches) expect(good).toContain(monthAt((a + b) / 2));
    // Together they are about as long as so many months in eighteen.
    const sum = stretches.reduce((all, [a, b]) => all + b - a, 0);
    expect(sum).toBeGreaterThan((good.length / 18) * 100 * 0.8);
    expect(sum).toBeLessThan(((2 * good.length) / 18) * 100 * 1.2);
  }
});

test('each way of settling past the target is told by its dates, or by what must follow', () => {
  const choice = (own: Partial<Race>): PastChoice => ({
    past: 0.1,
    handDeg: 50,
    risk: 0.6,
    race: { window: null, limit: dayOf('2026-06-20'), advice: 'rewire', ...own } as Race,
  });
  expect(sayRace(choice({ window: { from: dayOf('2026-06-20'), to: dayOf('2026-08-10'), along: 0, firm: null } }))).toBe('off 20 June to 10 August 2026');
  expect(sayRace(choice({ window: { from: dayOf('2026-06-20'), to: dayOf('2026-06-22'), along: 0, firm: null } }))).toBe('off in the week of 20 June 2026');
  expect(sayRace(choice({}))).toBe('no clean day: wire it again, off by 20 June 2026');
  expect(sayRace(choice({ advice: 'guy', limit: null }))).toBe('no clean day: a guy after it');
});
