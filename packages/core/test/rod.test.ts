import fc from 'fast-check';
import {
  compaction,
  curvatureIn,
  distance,
  drawTipTo,
  energyOf,
  equilibrium,
  lengthOf,
  letGo,
  limb,
  modulus,
  recoverable,
  rodOf,
  secondMoment,
  sectionMoment,
  sectionState,
  shapeOf,
  slopeOf,
  solveCholesky,
  speciesOf,
  woodOf,
  yieldCurvature,
  type Limb,
  type Pull,
  type Rod,
  type Vec,
} from '../src/index.js';
import reference from './reference-values.json';

const finite = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const WOODS = ['larch', 'juniper-scale', 'maple-trident', 'spruce'].map((key) => woodOf(speciesOf(key)));
const HEFT = 1e-5;

/** A crooked, tapered branch. */
const crooked: fc.Arbitrary<Limb> = fc
  .record({ d: finite(3, 16), slender: finite(8, 30), at: fc.array(fc.tuple(finite(-0.4, 0.4), finite(-0.4, 0.4)), { minLength: 3, maxLength: 5 }) })
  .map(({ d, slender, at }) => {
    const step = (d * slender) / at.length;
    const points: Vec[] = [[0, 0, 0]];
    for (const [y, z] of at)
      points.push([points[points.length - 1]![0] + step, points[points.length - 1]![1] + y * step, points[points.length - 1]![2] + z * step]);
    return limb(points, points.map((_, i) => d * (1 - (0.6 * i) / at.length))); // prettier-ignore
  });
const tip = (rod: Rod, bends: Float64Array): Vec => shapeOf(rod, bends).points.at(-1)!;
const lengthNow = (rod: Rod, bends: Float64Array): number => shapeOf(rod, bends).points.reduce((sum, p, i, all) => sum + (i ? distance(p, all[i - 1]!) : 0), 0);

test('work, moment and stiffness of a section belong together, below and above yield', () => {
  fc.assert(
    fc.property(fc.constantFrom(...WOODS), finite(2, 30), finite(0.05, 40), (wood, diameter, times) => {
      const curvature = times * yieldCurvature(diameter, wood.elasticStrain);
      const at = (c: number) => sectionState({ diameter, curvature: c, wood });
      const small = curvature * 1e-5;
      const { moment, stiffness, work } = at(curvature);
      expect(moment / sectionMoment({ diameter, curvature, wood })).toBeCloseTo(1, 9);
      expect((at(curvature + small).work - at(curvature - small).work) / (2 * small) / moment).toBeCloseTo(1, 5);
      fc.pre(Math.abs(times - 1) > 0.01);
      expect((at(curvature + small).moment - at(curvature - small).moment) / (2 * small) / (stiffness + 1e-3 * moment / curvature)).toBeCloseTo(stiffness / (stiffness + 1e-3 * moment / curvature), 2); // prettier-ignore
      expect(work).toBeGreaterThan(0);
    }),
  );
});

test.each(reference.elastica.map((e) => [e.load, e] as const))(
  'a springy rod under a load of %d at its tip lies as the elastica does, nearer with every halving',
  (load, e) => {
    const springy = { elasticStrain: 10, strength: 100, recovery: 0 };
    const [d, length] = [10, 200];
    const misses = [20, 40, 80].map((segments) => {
      const rod = rodOf(limb([[0, 0, 0], [length, 0, 0]], [d, d]), springy, { segments }); // prettier-ignore
      const { bends, atRest } = equilibrium(rod, { tip: [0, 0, (-load * modulus(springy) * secondMoment(d)) / length ** 2] });
      expect(atRest).toBe(true);
      const [x, y, z] = tip(rod, bends);
      expect(Math.abs(y)).toBeLessThan(1e-9);
      expect(Math.abs(curvatureIn(rod, bends, 0) * length - e.baseCurvature)).toBeLessThan(0.02 * e.baseCurvature);
      return Math.hypot(x / length - e.reach, z / length + e.deflection);
    });
    expect(misses[2]).toBeLessThan(1.2e-4);
    for (const i of [0, 1]) expect(misses[i]! / misses[i + 1]!).toBeGreaterThan(3.5);
  },
);

test('no accepted step raises the energy, the length stays, and at rest no small bend lowers it', () => {
  fc.assert(
    fc.property(crooked, fc.constantFrom(...WOODS), finite(0.1, 1.1), finite(0, 6.3), finite(-1, 1), (line, wood, pull, turn, rise) => {
      const rod = rodOf(line, wood, { segments: 24, heft: HEFT });
      const total = rod.segment * 24;
      const force = (pull * sectionMoment({ diameter: rod.diameters[0]!, curvature: yieldCurvature(rod.diameters[0]!, wood.elasticStrain), wood })) / total;
      const pulls: Pull = { tip: [0, Math.cos(turn) * force, Math.sin(turn) * force + rise * force * 0.2] };
      const { bends, energies, atRest } = equilibrium(rod, pulls);
      expect(atRest).toBe(true);
      energies.forEach((e, i) => expect(i === 0 || e <= energies[i - 1]! + 1e-9 * Math.abs(energies[i - 1]!)).toBe(true));
      expect(Math.abs(lengthNow(rod, bends) - total)).toBeLessThan(1e-6);
      const rest = energyOf(rod, bends, pulls);
      bends.forEach((_, k) => {
        for (const by of [-1e-3, 1e-3]) {
          const other = bends.slice();
          other[k]! += by;
          expect(energyOf(rod, other, pulls)).toBeGreaterThanOrEqual(rest - 1e-9 * Math.abs(rest));
        }
      });
    }),
    { numRuns: 30 },
  );
});

test('a tip is drawn where it can go, mirrored the same; out of reach it stops near the nearest place', () => {
  fc.assert(
    fc.property(crooked, fc.constantFrom(...WOODS), finite(0.6, 0.92), finite(-0.9, 0.9), finite(-0.9, 0.9), (line, wood, share, side, up) => {
      const rod = rodOf(line, wood, { segments: 20 });
      const total = rod.segment * 20;
      const way = Math.hypot(1, side, up);
      const to: Vec = [(total * share) / way, (total * share * side) / way, (total * share * up) / way];
      const reached = drawTipTo(rod, to);
      expect(reached.missed).toBeLessThan(0.1);
      expect(distance(tip(rod, reached.bends), to)).toBeCloseTo(reached.missed, 9);
      const flip = ([x, y, z]: Vec): Vec => [x, -y, z];
      const mirrored = rodOf({ ...line, points: line.points.map(flip) }, wood, { segments: 20 });
      const other = drawTipTo(mirrored, flip(to));
      const [a, b] = [shapeOf(rod, reached.bends).points, shapeOf(mirrored, other.bends).points];
      a.forEach((p, i) => expect(distance(flip(p), b[i]!)).toBeLessThan(0.05 * total * 0.01 + 0.1));
      const far: Vec = [to[0] * 3, to[1] * 3, to[2] * 3];
      const beyond = drawTipTo(rod, far);
      expect(beyond.missed).toBeLessThan(distance([0, 0, 0], far) - total + 0.01 * total);
      expect(Math.abs(lengthNow(rod, beyond.bends) - total)).toBeLessThan(1e-6);
    }),
    { numRuns: 15 },
  );
});

test('how finely a branch is cut into segments hardly changes its shape, crooked and bent beyond its limit', () => {
  const apart = fc.sample(fc.tuple(crooked, fc.constantFrom(...WOODS), finite(-0.5, 0.5)), { numRuns: 40, seed: 3 }).map(([line, wood, side]) => {
    const [coarse, fine] = [40, 80].map((segments) => {
      const rod = rodOf(line, wood, { segments });
      const total = rod.segment * segments;
      const { bends } = drawTipTo(rod, [total * 0.75, total * side, -total * 0.25]);
      return shapeOf(rod, bends).points[segments / 2]!;
    });
    return distance(coarse!, fine!) / lengthOf(line);
  });
  // The median: a branch pushed back on itself may fold either way.
  expect(apart.sort((a, b) => a - b)[20]).toBeLessThan(1e-3);
});

test('let go of a pure bend, what stays is the closed form', () => {
  const [wood] = WOODS;
  const rod = rodOf(limb([[0, 0, 0], [200, 0, 0]], [8, 8]), wood!); // prettier-ignore
  for (const times of [0.5, 1, 3, 10]) {
    const curvature = times * yieldCurvature(8, wood!.elasticStrain);
    const bends = Float64Array.from({ length: 80 }, (_, k) => (k % 2 ? 0 : curvature * rod.lengths[k >> 1]!));
    const left = letGo(rod, bends);
    for (const j of [0, 7, 39]) expect(curvatureIn(rod, left, j)).toBeCloseTo(curvature - recoverable({ diameter: 8, curvature, wood: wood! }), 12);
  }
  expect(letGo(rod, new Float64Array(80))).toEqual(new Float64Array(80));
});

test.each(reference.compaction.map((c) => [c] as const))('compaction agrees with the published value for %j', ({ expect: wanted, ...given }) => {
  const { halfAngleDeg, radius } = compaction(given);
  expect(halfAngleDeg).toBeCloseTo(wanted.halfAngleDeg, 6);
  expect(radius / wanted.radius).toBeCloseTo(1, 8);
});

test('a system of equations is solved, or is said to have no bottom', () => {
  const a = Float64Array.of(4, 2, 0, 2, 5, 3, 0, 3, 6);
  const b = Float64Array.of(8, 21, 24);
  expect(solveCholesky(a, b)).toBe(true);
  [1, 2, 3].forEach((x, i) => expect(b[i]).toBeCloseTo(x, 12));
  expect(solveCholesky(Float64Array.of(1, 2, 2, 1), Float64Array.of(1, 1))).toBe(false);
});

test('gradient and Hessian are what differences of the energy and of the gradient say, with ties, however far the joints are bent', () => {
  fc.assert(
    fc.property(crooked, fc.integer({ min: 1, max: 5 }), fc.constantFrom(0.002, 0.1, 0.6), finite(20, 300), (line, joint, most, length) => {
      const rod = rodOf(line, WOODS[0]!, { segments: 5, heft: HEFT });
      const bends = Float64Array.from({ length: 10 }, (_, i) => most * Math.sin(3 * i + 1));
      const pull: Pull = { tip: [1, -2, 0.5], ties: [{ joint, anchor: [60, -50, -90], length, stiffness: 2 }] };
      const slope = (at: Float64Array) => slopeOf(rod, at, pull, shapeOf(rod, at));
      const { gradient, hessian } = slope(bends);
      const step = 1e-6;
      const beside = (k: number, by: number) => bends.map((b, i) => (i === k ? b + by : b));
      const scale = Math.max(...gradient.map(Math.abs), ...hessian.map(Math.abs));
      for (let k = 0; k < 10; k++) {
        const rise = (energyOf(rod, beside(k, step), pull) - energyOf(rod, beside(k, -step), pull)) / (2 * step);
        expect(Math.abs(gradient[k]! - rise)).toBeLessThan(1e-4 * scale);
        const [up, down] = [slope(beside(k, step)).gradient, slope(beside(k, -step)).gradient];
        for (let i = k; i < 10; i++) expect(Math.abs(hessian[i * 10 + k]! - (up[i]! - down[i]!) / (2 * step))).toBeLessThan(1e-5 * scale);
      }
    }),
    { numRuns: 30 },
  );
});
