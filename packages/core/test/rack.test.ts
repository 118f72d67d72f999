import fc from 'fast-check';
import { cutPieces } from '../src/index.js';
import reference from './reference-values.json';

test.each(reference.cutting)('as few rolls as were found elsewhere for $pieces', ({ pieces, rollLength, expectRolls }) => {
  const { rolls, exact } = cutPieces(pieces, rollLength);
  expect(rolls).toHaveLength(expectRolls);
  expect(exact).toBe(true);
});

/** The fewest rolls by trying every roll for every piece. */
function byTrying(lengths: readonly number[], roll: number, left: number[] = []): number {
  const [next, ...rest] = lengths;
  if (next === undefined) return left.length;
  const tries = left.flatMap((l, i) =>
    l >= next
      ? [
          byTrying(
            rest,
            roll,
            left.map((x, k) => (k === i ? x - next : x)),
          ),
        ]
      : [],
  );
  return Math.min(...tries, byTrying(rest, roll, [...left, roll - next]));
}

test('no fewer rolls would do for few pieces; every piece is cut once, and no roll gives more than it has', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 60, max: 950 }), { maxLength: 7 }), (pieces) => {
      const { rolls, bound, exact } = cutPieces(pieces, 1000);
      expect(rolls).toHaveLength(byTrying(pieces, 1000));
      expect(exact).toBe(true);
      expect(bound).toBeLessThanOrEqual(rolls.length);
      expect(rolls.flat().sort((a, b) => a - b)).toEqual(pieces.map((_, i) => i));
      for (const roll of rolls) expect(roll.reduce((sum, i) => sum + pieces[i]!, 0)).toBeLessThanOrEqual(1000);
    }),
    { numRuns: 200 },
  );
});

test('many pieces are fitted, with a bound that no cutting is below', () => {
  const pieces = Array.from({ length: 80 }, (_, i) => 100 + ((i * 379) % 700));
  const { rolls, bound } = cutPieces(pieces, 1000);
  expect(rolls.length).toBeGreaterThanOrEqual(bound);
  expect(rolls.length).toBeLessThanOrEqual(Math.ceil(bound * 1.3));
});
