import fc from 'fast-check';
import { WORDS, wordsIn } from '../src/words/glossary';

const said = (text: string): string[] => wordsIn(text).flatMap((p) => (typeof p === 'string' ? [] : [`${p.text}: ${p.word.word}`]));

test('words of the field are found in a sentence, each where it comes first, and the sentence stays what it was', () => {
  expect(said('From the shoulder clockwise, over the shoulder; its shoulders are wrapped, it springs back by 4°.')).toEqual([
    'shoulder: shoulder',
    'clockwise: hand',
    'over the shoulder: over, under',
    'wrapped: wrap',
    'springs back: spring-back',
  ]);
  expect(said('Set')).toEqual(['Set: set']);
  expect(said('A device is set up; the padding, a pieceful and wrapper are no such words.')).toEqual([]);
  const anyText = fc.array(fc.oneof(fc.constantFrom(...WORDS.map((w) => w.word), ' ', ', ', '-', '\n'), fc.string({ maxLength: 6 })), { maxLength: 12 });
  fc.assert(
    fc.property(anyText, (parts) => {
      const text = parts.join(' ');
      const found = wordsIn(text);
      expect(found.map((p) => (typeof p === 'string' ? p : p.text)).join('')).toBe(text);
      const words = found.flatMap((p) => (typeof p === 'string' ? [] : [p.word]));
      expect(new Set(words).size).toBe(words.length);
    }),
  );
  expect(WORDS.map((w) => w.word)).toEqual([...new Set(WORDS.map((w) => w.word))].sort());
});
