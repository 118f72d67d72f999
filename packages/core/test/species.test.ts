import fc from 'fast-check';
import { allSpecies, dayOf, findSpecies, growingDays, growthShare, isGrowing, isoOf, speciesFaults, speciesOf } from '../src/index.js';

const anySpecies = fc.constantFrom(...allSpecies());
const hemisphere = fc.constantFrom('north' as const, 'south' as const);
const day = fc.integer({ min: dayOf('2020-01-01'), max: dayOf('2035-12-31') });

test('there are some forty species, each with figures, units and confidence', () => {
  expect(allSpecies().length).toBeGreaterThanOrEqual(40);
  for (const s of allSpecies()) expect([s.strength.unit, s.yearlyGrowth.unit, s.relaxationDays.unit]).toEqual(['MPa', 'mm/year', 'growing days']);
  expect(findSpecies('no-such-tree')).toBeUndefined();
});

test('the check at load finds what is wrong with a table', () => {
  const larch = speciesOf('larch');
  expect(speciesFaults([larch])).toEqual([]);
  const bad = { ...larch, elasticStrain: { ...larch.elasticStrain, value: 0.5 }, flushes: [{ from: '06-01', to: '05-01', share: 0.5 }] };
  expect(speciesFaults([larch, bad])).toHaveLength(4);
});

test('growth adds up over time, a year is one year, and dormancy lays down nothing', () => {
  fc.assert(
    fc.property(anySpecies, hemisphere, day, fc.nat(900), fc.nat(900), (s, side, from, a, b) => {
      const whole = growthShare(s, side, from, from + a + b);
      expect(whole).toBeCloseTo(growthShare(s, side, from, from + a) + growthShare(s, side, from + a, from + a + b), 9);
      expect(whole).toBeGreaterThanOrEqual(0);
      expect(growingDays(s, side, from, from + a)).toBeLessThanOrEqual(a);
      if (!isGrowing(s, side, from)) expect(growthShare(s, side, from, from + 1)).toBeLessThan(1e-3);
    }),
  );
  const larch = speciesOf('larch');
  expect(growthShare(larch, 'north', dayOf('2026-01-15'), dayOf('2027-01-15'))).toBeCloseTo(1, 9);
  expect(growthShare(larch, 'north', dayOf('2026-11-01'), dayOf('2027-04-01'))).toBe(0);
  expect(isGrowing(larch, 'south', dayOf('2026-12-20'))).toBe(true);
});

test('dates are calendar dates', () => {
  expect(isoOf(dayOf('2028-02-29'))).toBe('2028-02-29');
  for (const wrong of ['2026-02-30', '2026-13-01', 'yesterday', '']) expect(dayOf(wrong)).toBeNaN();
});
