import fc from 'fast-check';
import { openSync, type Font } from 'fontkit';
import { FACES, inFonts, MISSING, sayMissing, svgInFonts, type Chain } from '../src/papers/letters';

const NAMES = {
  Czech: 'Žluťoučký kůň úpěl',
  Polish: 'Zażółć gęślą jaźń',
  Turkish: 'Şığınak ağacı İğne',
  Greek: 'Ελιά του Νότου',
  Cyrillic: 'Лиственница старая, Їжак',
  Japanese: '五葉松 からまつ ヒノキ',
  Arabic: 'شجرة الزيتون القديمة',
  Vietnamese: 'Thông đuôi ngựa',
  'English, with signs': 'Old “Ferry”, 3½ × 20° – it’s £5',
};
const fonts = new Map<string, Font>(FACES.map((f) => [f.name, openSync(f.file) as Font]));
const CHAINS: Chain[] = ['Read', 'Names'];

test.each(Object.entries(NAMES))('%s is set whole, each letter in a font that has it', (_, name) => {
  for (const chain of CHAINS) {
    const missing = new Set<string>();
    const runs = inFonts(name, chain, missing);
    expect([...missing]).toEqual([]);
    expect(runs.map((r) => r.text.replaceAll('\u00a0', ' ')).join('')).toBe(name);
    for (const { text, font } of runs) for (const c of text) expect([c, fonts.get(font)!.hasGlyphForCodePoint(c.codePointAt(0)!)]).toEqual([c, true]);
  }
});

test('plain words stay in one font, words read from the right stay together, figures after them do not', () => {
  expect(inFonts('Shorten to 120 mm.', 'Read', new Set())).toEqual([{ text: 'Shorten to 120 mm.', font: 'Read' }]);
  const runs = inFonts('شجرة الزيتون, 12 mm', 'Read', new Set());
  expect(runs.map((r) => r.font)).toEqual(['Arabic', 'Read']);
  expect(runs[0]!.text).not.toContain(' ');
});

test('whatever is typed, no letter is dropped: it is set, or stands as a mark and is told', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 30 }), (text) => {
      const missing = new Set<string>();
      const runs = inFonts(text, 'Read', missing);
      const set = runs.map((r) => r.text.replaceAll('\u00a0', ' ')).join('');
      if (!missing.size) expect(set).toBe(text.replaceAll('\u00a0', ' '));
      else expect(set).toContain(MISSING);
      expect(sayMissing(missing) === null).toBe(missing.size === 0);
    }),
    { numRuns: 300 },
  );
  const missing = new Set<string>();
  inFonts('홍 fir', 'Names', missing);
  expect(sayMissing(missing)).toMatch(/^Where \[\?\] stands, no font .* \(U\+D64D\)/);
});

test('a drawing’s words are set in fonts that have their letters, and nothing else of it changes', () => {
  const svg = '<svg><path d="M0 0"/><text x="1">plain &amp; simple</text><text x="2">Větev &lt;枝&gt;</text></svg>';
  const set = svgInFonts(svg, new Set());
  expect(set).toContain('<text x="1">plain &amp; simple</text>');
  expect(set).toContain('<tspan font-family="Read latin-ext">ě</tspan>');
  expect(set).toContain('<tspan font-family="Japanese">枝</tspan>');
  expect(set.replace(/<\/?tspan[^>]*>/g, '')).toBe(svg);
});
