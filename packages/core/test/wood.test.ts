import fc from 'fast-check';
import {
  bandOf,
  bendRisk,
  coil,
  coilHold,
  modulus,
  METAL_DATA,
  overbend,
  pushChance,
  recoverable,
  secondMoment,
  sectionMoment,
  curvatureHeld,
  springBack,
  stagesFor,
  stored,
  yieldCurvature,
  yieldMoment,
} from '../src/index.js';

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const wood = fc.record({ elasticStrain: between(0.01, 0.03), strength: between(15, 35), recovery: between(0, 0.5) });

test('the section is elastic up to yield, then flattens to 16/3π times the yield moment', () => {
  fc.assert(
    fc.property(wood, between(2, 40), between(0.05, 30), (w, diameter, times) => {
      const curvature = times * yieldCurvature(diameter, w.elasticStrain);
      const moment = sectionMoment({ diameter, curvature, wood: w });
      const most = (16 / (3 * Math.PI)) * yieldMoment(diameter, w.strength);
      if (times <= 1) expect(moment / (modulus(w) * secondMoment(diameter) * curvature)).toBeCloseTo(1, 9);
      expect(moment).toBeLessThan(most * (1 + 1e-12));
      expect(sectionMoment({ diameter, curvature: curvature * 1.01, wood: w })).toBeGreaterThan(moment);
    }),
  );
});

test('what was overbent settles where it should; more hold springs back less', () => {
  fc.assert(
    fc.property(wood, between(3, 25), between(0.2, 4), between(0, 0.9), (w, diameter, times, share) => {
      const target = times * yieldCurvature(diameter, w.elasticStrain);
      const hold = share * sectionMoment({ diameter, curvature: target, wood: w });
      const bent = overbend({ diameter, curvature: target, wood: w, hold });
      if (bent === Infinity) return;
      expect(curvatureHeld({ diameter, curvature: bent, wood: w, hold }) / target).toBeCloseTo(1, 5);
      expect(springBack({ diameter, curvature: target, wood: w, hold: hold * 1.2 })).toBeLessThanOrEqual(
        springBack({ diameter, curvature: target, wood: w, hold }),
      );
    }),
  );
});

test('what comes back is between the elastic part and all; what the wire stores and what it frees add up to it', () => {
  fc.assert(
    fc.property(wood, between(3, 25), between(0.2, 6), between(0, 0.9), (w, diameter, times, share) => {
      const curvature = times * yieldCurvature(diameter, w.elasticStrain);
      const moment = sectionMoment({ diameter, curvature, wood: w });
      const back = recoverable({ diameter, curvature, wood: w });
      const elastic = moment / (modulus(w) * secondMoment(diameter));
      expect(back).toBeCloseTo(elastic + w.recovery * (curvature - elastic), 9);
      const held = { diameter, curvature, wood: w, hold: share * moment };
      expect(curvature - curvatureHeld(held) + stored(held)).toBeCloseTo(back, 9);
    }),
  );
});

test('the push test is even where the press that bends the wire just moves the branch; a thicker wire moves it surely', () => {
  const w = { elasticStrain: 0.02, strength: 24, recovery: 0.3 };
  const of = (wireDiameter: number, meanLog = 0) => pushChance({ diameter: 9, wood: w, metal: 'copper', wireDiameter, strands: 1, meanLog, sd: 0.4 });
  const even = [...Array(4000).keys()].map((i) => 0.5 + i / 1000).find((size) => of(size) >= 0.5)!;
  expect((METAL_DATA.copper.strength * even ** 3) / 6).toBeCloseTo((modulus(w) * 0.003 * Math.PI * 9 ** 3) / 32, -1);
  expect(of(even * 2)).toBeGreaterThan(0.98);
  expect(of(even, Math.log(2))).toBeLessThan(0.1);
});

test('the turns of a coil are the integral of tan α over the girth, whatever the taper', () => {
  fc.assert(
    fc.property(between(2, 20), between(0.1, 1), between(20, 500), between(0.8, 6), between(30, 70), (base, taper, length, wire, angle) => {
      const tip = base * taper;
      const steps = 2000;
      let turns = 0;
      for (let i = 0; i < steps; i++)
        turns += (Math.tan((angle * Math.PI) / 180) * (length / steps)) / (Math.PI * (base + ((tip - base) * (i + 0.5)) / steps + wire));
      expect(coil({ baseDiameter: base, tipDiameter: tip, length, wireDiameter: wire, coilAngleDeg: angle }).turns / turns).toBeCloseTo(1, 4);
    }),
  );
});

test('risk falls with protection and with length; the bands and stages follow it', () => {
  const bend = { diameter: 12, angleDeg: 60, length: 60, k0: 5 };
  const risks = (['none', 'parallel', 'raffia', 'both'] as const).map((protection) => bendRisk({ ...bend, protection }));
  expect(risks).toEqual([...risks].sort((a, b) => b - a));
  expect(bendRisk({ ...bend, length: 120, protection: 'none' })).toBeCloseTo(risks[0]! / 2, 9);
  expect([0.5, 0.9, 1.5, 1.7].map(bandOf)).toEqual(['calm', 'careful', 'heavy', 'no']);
  expect([0.5, 0.7, 1.6, 1.7].map(stagesFor)).toEqual([1, 2, 3, null]);
});

test('aluminium of a third and copper of a quarter of the branch hold about alike', () => {
  const of = (metal: 'aluminium' | 'copper', wireDiameter: number) => coilHold({ diameter: 12, wireDiameter, strands: 1, coilAngleDeg: 45, grip: 0.8, metal });
  const ratio = of('aluminium', 4) / of('copper', 3);
  expect(ratio).toBeGreaterThan(0.8);
  expect(ratio).toBeLessThan(1.25);
});
