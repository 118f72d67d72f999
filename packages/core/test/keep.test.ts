import fc from 'fast-check';
import { Kept, serialOf, serialsAnyhow, serialsOf } from '../src/index.js';

test('what is kept is made once for its key, and again only when six rounds in a row have not asked for it', () => {
  fc.assert(
    fc.property(fc.array(fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 4 }), { minLength: 1, maxLength: 30 }), (rounds) => {
      const kept = new Kept();
      const lastAsked = new Map<string, number>();
      const given = new Map<string, object>();
      rounds.forEach((keys, round) => {
        kept.nextRound();
        for (const key of keys) {
          let made = false;
          const got = kept.keep(key, () => ((made = true), { key }));
          const last = lastAsked.get(key);
          expect(made).toBe(last === undefined || round - last > 6);
          if (!made) expect(got).toBe(given.get(key));
          lastAsked.set(key, round);
          given.set(key, got);
        }
      });
    }),
  );
});

test('with a thing all that it was made with is kept, though only the thing itself is asked for', () => {
  const kept = new Kept();
  const part = (): object => kept.keep('part', () => ({}));
  const whole = (): object => kept.keep('whole', () => ({ part: kept.keep('middle', () => ({ part: part() })) }));
  kept.nextRound();
  const first = part();
  whole();
  for (let round = 0; round < 20; round++) {
    kept.nextRound();
    whole();
  }
  expect(part()).toBe(first);
  for (let round = 0; round < 7; round++) kept.nextRound();
  expect(part()).not.toBe(first);
  // What fails while it is made is not kept, and leaves all as it was.
  expect(() => kept.keep('bad', () => { throw new Error('no'); })).toThrow('no'); // prettier-ignore
  expect(kept.keep('bad', () => 1)).toBe(1);
});

test('an object has one number for good, no two the same; many are told apart by order, or not', () => {
  const objects = Array.from({ length: 12 }, (_, i) => ({ i }));
  const numbers = objects.map(serialOf);
  expect(new Set(numbers).size).toBe(12);
  expect(objects.map(serialOf)).toEqual(numbers);
  fc.assert(
    fc.property(fc.shuffledSubarray(objects, { minLength: 2 }), (some) => {
      const turned = [...some].reverse();
      expect(serialsAnyhow(turned)).toBe(serialsAnyhow(some));
      expect(serialsOf(turned)).not.toBe(serialsOf(some));
    }),
  );
});
