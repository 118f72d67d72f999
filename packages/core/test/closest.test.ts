import fc from 'fast-check';
import { boxesApart, boxOf, closestBetween, distance, lengthOf, limb, pointAt, type Limb, type Vec } from '../src/index.js';

const coordinate = fc.double({ min: -80, max: 80, noNaN: true });
const point = fc.tuple(coordinate, coordinate, coordinate) as fc.Arbitrary<Vec>;
const line: fc.Arbitrary<Limb> = fc
  .array(fc.tuple(point, fc.double({ min: 0.5, max: 14, noNaN: true })), { minLength: 2, maxLength: 5 })
  .map((list) =>
    limb(
      list.map(([p]) => p),
      list.map(([, d]) => d),
    ),
  )
  .filter((l) => l.along.every((s, i) => i === 0 || s - l.along[i - 1]! > 5));

const SAMPLES = 160;
const gapAt = (a: Limb, sa: number, b: Limb, sb: number): number => {
  const [p, q] = [pointAt(a, sa), pointAt(b, sb)];
  return distance(p.point, q.point) - (p.diameter + q.diameter) / 2;
};

test('the least gap of two tapered polylines is that of brute-force sampling, and is really there', () => {
  fc.assert(
    fc.property(line, line, (a, b) => {
      const found = closestBetween(a, b)!;
      let sampled = Infinity;
      for (let i = 0; i <= SAMPLES; i++)
        for (let k = 0; k <= SAMPLES; k++) sampled = Math.min(sampled, gapAt(a, (lengthOf(a) * i) / SAMPLES, b, (lengthOf(b) * k) / SAMPLES));
      const step = (lengthOf(a) + lengthOf(b)) / SAMPLES;
      expect(found.gap).toBeLessThanOrEqual(sampled + 1e-4);
      expect(found.gap).toBeGreaterThan(sampled - step);
      expect(gapAt(a, found.alongA, b, found.alongB)).toBeCloseTo(found.gap, 3);
      expect(closestBetween(b, a)!.gap).toBeCloseTo(found.gap, 3);
      expect(closestBetween(a, b, found.gap - 0.01)).toBeNull();
      if (boxesApart(boxOf(a), boxOf(b), 3)) expect(found.gap).toBeGreaterThan(3);
    }),
    { numRuns: 60 },
  );
});
