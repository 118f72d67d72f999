import { createRequire } from 'node:module';
import { openSync, type Font } from 'fontkit';

const file = (name: string): string => createRequire(import.meta.url).resolve(`@fontsource/${name}.woff`);

/** A font with the letters of some scripts. */
interface Face {
  name: string;
  file: string;
  /** Read from right to left. */
  rightToLeft?: boolean;
}
const face = (name: string, path: string, rightToLeft = false): Face => ({ name, file: file(path), ...(rightToLeft ? { rightToLeft } : {}) });

const OTHERS = [
  face('Japanese', 'biz-udgothic/files/biz-udgothic-japanese-400-normal'),
  face('Arabic', 'noto-naskh-arabic/files/noto-naskh-arabic-arabic-400-normal', true),
  face('Devanagari', 'noto-sans/files/noto-sans-devanagari-400-normal'),
];
const scripts = (name: string, package_: string, weight: number, subsets: readonly string[]): Face[] =>
  subsets.map((s) => face(s === 'latin' ? name : `${name} ${s}`, `${package_}/files/${package_}-${s}-${weight}-normal`));

/** The fonts of running text and of names and headings: the first that has a letter sets it. */
export const CHAINS = {
  Read: [
    ...scripts('Read', 'atkinson-hyperlegible-next', 400, ['latin', 'latin-ext']),
    ...scripts('Sans', 'noto-sans', 400, ['vietnamese', 'cyrillic', 'cyrillic-ext', 'greek', 'greek-ext', 'latin-ext']),
    ...OTHERS,
  ],
  Names: [...scripts('Names', 'literata', 500, ['latin', 'latin-ext', 'vietnamese', 'cyrillic', 'cyrillic-ext', 'greek', 'greek-ext']), ...OTHERS],
} as const satisfies Record<string, readonly Face[]>;
export type Chain = keyof typeof CHAINS;
export const FACES: readonly Face[] = [...new Map(Object.values(CHAINS).flatMap((c) => c.map((f) => [f.name, f] as const))).values()];

const opened = new Map<string, Font>();
/** A font's letters; opened when the first letter is asked of it. */
function has({ file: path }: Face, letter: string): boolean {
  let font = opened.get(path);
  if (!font) opened.set(path, (font = openSync(path) as Font));
  return [...letter].every((c) => font.hasGlyphForCodePoint(c.codePointAt(0)!) || UNSEEN.test(c));
}

/** What is not seen by itself: joiners, marks of direction, variation selectors. */
const UNSEEN = /^[\p{Cf}\u{FE00}-\u{FE0F}]$/u;
/** Stands for a letter that no font here has. */
export const MISSING = '[?]';

export interface TextRun {
  text: string;
  font: string;
}

const graphemes = new Intl.Segmenter('en', { granularity: 'grapheme' });

/** A text in parts, each in a font that has its letters. Those that no font has are told to `missing`, and stand as a mark. */
export function inFonts(text: string, chain: Chain, missing: Set<string>): TextRun[] {
  const runs: (TextRun & { face: Face })[] = [];
  const faces: readonly Face[] = CHAINS[chain];
  for (const { segment } of graphemes.segment(text)) {
    const last = runs[runs.length - 1];
    // Spaces go on in the font of the word before them, where it has them.
    const going = last && /^\s$/.test(segment) && has(last.face, segment) ? last.face : undefined;
    const found = going ?? (/^\s$/.test(segment) ? faces[0]! : faces.find((f) => has(f, segment)));
    if (!found) for (const c of segment) if (!UNSEEN.test(c)) missing.add(c);
    const own = found ?? faces[0]!;
    const said = found ? segment : MISSING;
    if (last && last.face === own) last.text += said;
    else runs.push({ text: said, font: own.name, face: own });
  }
  // Words of a script that is read from the right stay together, so that they are set in its order.
  return runs.map(({ text: own, font, face: f }) => ({ text: f.rightToLeft ? own.replace(/ (?=\S)/g, '\u00a0') : own, font }));
}

const TEXT = /(<text\b[^>]*>)([^<]*)(<\/text>)/g;
const ENTITIES: Record<string, string> = { '&amp;': '&', '&lt;': '<', '&gt;': '>', '&quot;': '"', '&#39;': "'" };
const plain = (text: string): string => text.replace(/&(amp|lt|gt|quot|#39);/g, (e) => ENTITIES[e]!);
const escaped = (text: string): string => text.replace(/[&<>]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;' })[c]!);

/** A drawing with its words in fonts that have their letters. */
export const svgInFonts = (svg: string, missing: Set<string>): string =>
  svg.replace(TEXT, (whole, begin: string, text: string, end: string) => {
    const runs = inFonts(plain(text), 'Read', missing);
    if (runs.length <= 1 && runs[0]?.font === 'Read' && runs[0].text === plain(text)) return whole;
    return `${begin}${runs.map((r) => `<tspan font-family="${r.font}">${escaped(r.text)}</tspan>`).join('')}${end}`;
  });

/** What is said at the end of a paper that lacks letters. */
export function sayMissing(missing: ReadonlySet<string>): string | null {
  if (!missing.size) return null;
  const codes = [...missing].map((c) => `U+${c.codePointAt(0)!.toString(16).toUpperCase().padStart(4, '0')}`).sort();
  const shown = codes.length > 12 ? `${codes.slice(0, 12).join(', ')} and ${codes.length - 12} more` : codes.join(', ');
  return `Where ${MISSING} stands, no font that comes with Ustle has the letter (${shown}). On screen and in the files it is as it was typed.`;
}
