import fc from 'fast-check';
import type { Px } from '@ustle/core';
import { ledThrough } from '../src/stages/measure/photographs/drawn-line';

test('a line led through a press beside it: what strayed there goes, a gentle arc stays as it is, and so do its ends', () => {
  const strayed: Px[] = [[0, 0], [20, 2], [40, 40], [60, 42], [42, 6], [70, 3], [100, 0]]; // prettier-ignore
  expect(ledThrough(strayed, [45, 0])).toEqual([[0, 0], [20, 2], [45, 0], [70, 3], [100, 0]]); // prettier-ignore
  fc.assert(
    fc.property(fc.integer({ min: 3, max: 30 }), fc.double({ min: 0.2, max: 0.8, noNaN: true }), (count, share) => {
      const arc = Array.from({ length: count }, (_, i): Px => [(300 * i) / (count - 1), 40 * Math.sin((Math.PI * i) / (count - 1))]);
      const led = ledThrough(arc, [300 * share, 40 * Math.sin(Math.PI * share) + 4]);
      expect(led.filter((p) => arc.includes(p)).length).toBeGreaterThanOrEqual(count - 2);
      expect([led[0], led.at(-1)]).toEqual([arc[0], arc.at(-1)]);
    }),
  );
});
