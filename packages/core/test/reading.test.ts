import fc from 'fast-check';
import {
  allSpecies,
  dayOf,
  decided,
  isoOf,
  northernMonth,
  readTree,
  SEASON_STAGES,
  SEASON_WORDS,
  signsFor,
  speciesOf,
  VIGOURS,
  type Reading,
  type Tree,
  type Vigour,
} from '../src/index.js';
import { branch, tree } from './trees.js';

const OCTOBER = '2026-10-10';
const read = (own: Partial<Tree> = {}, on = OCTOBER, reading?: Tree['plan']['reading']): Reading => {
  const t = tree([], own);
  return readTree(reading ? { ...t, plan: { ...t.plan, reading } } : t, dayOf(on));
};

/** Capacity of an ordinary larch in October is 0.9; what each circumstance makes of it. */
const CIRCUMSTANCES: [name: string, own: Partial<Tree>, on: string, capacity: number, verdict: Reading['verdict'], reason: RegExp][] = [
  ['an ordinary tree in a good month', {}, OCTOBER, 0.9, 'go', /Normal growth/],
  ['a weak tree', { vigour: 'weak' }, OCTOBER, 0.3, 'light', /Weak growth/],
  ['a refined tree', { vigour: 'refined' }, OCTOBER, 0.8, 'go', /Refined growth/],
  ['a strong tree', { vigour: 'strong' }, OCTOBER, 1.1, 'go', /Strong growth/],
  ['a tree that grows free', { vigour: 'free' }, OCTOBER, 1.3, 'go', /Free growth/],
  ['repotted two months ago', { repottedOn: '2026-08-10' }, OCTOBER, 0.27, 'light', /roots are still taking hold/],
  ['repotted half a year ago', { repottedOn: '2026-04-01' }, OCTOBER, 0.54, 'light', /within a year of that, do less/],
  ['repotted two years ago', { repottedOn: '2024-09-01' }, OCTOBER, 0.9, 'go', /Normal growth/],
  ['repotted on a day to come', { repottedOn: '2027-03-01' }, OCTOBER, 0.9, 'go', /Normal growth/],
  ['collected a year ago', { collectedOn: '2025-10-01' }, OCTOBER, 0.135, 'leave', /leave it to root/],
  ['collected two years ago', { collectedOn: '2024-10-01' }, OCTOBER, 0.45, 'light', /first works only/],
  ['collected long ago', { collectedOn: '2019-10-01' }, OCTOBER, 0.9, 'go', /Normal growth/],
  ['worked hard in summer', { styledOn: '2026-07-01' }, OCTOBER, 0.54, 'light', /let it answer first/],
  ['worked hard and just repotted', { styledOn: '2026-09-01', repottedOn: '2026-09-01' }, OCTOBER, 0.162, 'leave', /Styled.*/],
  ['a bad month', {}, '2026-04-10', 0.45, 'light', /April is a bad month/],
  ['a middling month', {}, '2026-07-10', 0.72, 'go', /July is not the best month/],
  ['the same month in the south', { site: { hemisphere: 'south' } }, '2026-10-10', 0.45, 'light', /October in the south is a bad month/],
  ['a good month in the south', { site: { hemisphere: 'south' } }, '2026-04-10', 0.9, 'go', /April in the south is a good month/],
];

test.each(CIRCUMSTANCES)('%s', (_, own, on, capacity, verdict, reason) => {
  const found = read(own, on);
  expect([found.capacity, found.verdict]).toEqual([expect.closeTo(capacity, 9), verdict]);
  expect(found.because.join(' ')).toMatch(reason);
  if (verdict !== 'go') expect(found.moreFrom === null || dayOf(found.moreFrom.on) > dayOf(on)).toBe(true);
  else expect(found.moreFrom).toBeNull();
});

test('from when more is possible is a day on which it is, and none before it', () => {
  const on = dayOf(OCTOBER);
  const rank = { leave: 0, light: 1, go: 2 };
  for (const own of [{ repottedOn: '2026-08-10' }, { collectedOn: '2025-10-01' }, { styledOn: '2026-07-01' }] as Partial<Tree>[]) {
    const { moreFrom, verdict } = read(own);
    expect(rank[moreFrom!.verdict]).toBeGreaterThan(rank[verdict]);
    expect(read(own, moreFrom!.on).verdict).toBe(moreFrom!.verdict);
    for (let day = on + 7; day < dayOf(moreFrom!.on); day += 7) expect(rank[read(own, isoOf(day)).verdict]).toBeLessThanOrEqual(rank[verdict]);
  }
});

test('signs go by kind of tree: each is seen in the reasons and moves the capacity its way', () => {
  for (const key of ['larch', 'juniper-scale', 'maple-trident', 'olive']) {
    const signs = signsFor(speciesOf(key).group);
    expect(signs.map((s) => s.key)).toContain(key === 'larch' || key === 'juniper-scale' ? 'full-tips' : 'hard-leaves');
    const plain = read({ species: key }).capacity;
    for (const sign of signs) {
      const seen = read({ species: key }, OCTOBER, { on: OCTOBER, signs: [sign.key], season: null });
      expect(seen.because).toContain(`${sign.text}.`);
      expect(seen.capacity).toBeCloseTo(Math.min(1.4, plain * sign.factor), 9);
    }
  }
});

test.each(SEASON_STAGES.map((s) => [s] as const))('a tree seen "%s" goes before the calendar for four weeks, then the calendar counts again', (season) => {
  const noted = { on: OCTOBER, signs: [], season };
  expect(read({}, '2026-11-07', noted).capacity).toBeCloseTo(0.9 * SEASON_WORDS[season].factor, 9);
  expect(read({}, '2026-11-07', noted).because.join(' ')).toContain(SEASON_WORDS[season].text);
  expect(read({}, '2026-11-08', noted).because.join(' ')).toContain('November');
});

test('more vigour never bears less, and no tree bears more than its most', () => {
  const order: Vigour[] = ['weak', 'refined', 'normal', 'strong', 'free'];
  expect([...order].sort()).toEqual([...VIGOURS].sort());
  fc.assert(
    fc.property(fc.constantFrom(...allSpecies()), fc.integer({ min: 20000, max: 22000 }), fc.boolean(), (species, day, south) => {
      const own = { species: species.key, site: { hemisphere: south ? ('south' as const) : ('north' as const) } };
      const all = order.map((vigour) => read({ ...own, vigour }, isoOf(day)).capacity);
      all.forEach((c, i) => expect(c).toBeGreaterThanOrEqual(i ? all[i - 1]! : 0));
      expect(all[4]).toBeLessThanOrEqual(1.4);
      expect(northernMonth('south', day)).toBe(northernMonth('north', day + 182));
    }),
    { numRuns: 60 },
  );
});

test('what the plan uses adds up by kind of work, and is said when it is too much', () => {
  const t = decided(decided(tree([branch('a', { green: 0.3 }), branch('b', { green: 0.1, at: 300 })]), 'a', 'remove'), 'b', 'stub', { length: 40 });
  const found = readTree(t, dayOf(OCTOBER), { heavyBends: 2, wiredShare: 0.5 });
  expect(found.uses.map((u) => [u.work, Math.round(u.points * 1000) / 1000])).toEqual([
    ['green', 1],
    ['heavy bends', 0.5],
    ['wiring', 0.15],
    ['deadwood', 0.08],
  ]);
  expect(found.used).toBeCloseTo(1.73, 9);
  expect(found.because.join(' ')).toMatch(/asks for more than this/);
  expect(readTree(tree([]), dayOf(OCTOBER)).uses).toEqual([]);
});
