import { readFileSync } from 'node:fs';
import { ON_PAPER, onPhotoSvg, stripSvg, type Paper, type Section, type Silhouette } from '@ustle/core';
import pdfmake from 'pdfmake';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces.js';
import { FACES, inFonts, sayMissing, svgInFonts, type Chain } from './letters.js';

pdfmake.addFonts(Object.fromEntries(FACES.map(({ name, file }) => [name, { normal: file, bold: file, italics: file, bolditalics: file }])));
// Nothing is fetched for a paper, and of the disk only its fonts are read.
const FONT_FILES = new Set(FACES.map((f) => f.file));
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => FONT_FILES.has(path));

const INK = '#24251f';
const QUIET = '#5f5d52';
const RULE = '#d3cab7';
const MADDER = '#a03a34';

const svgOf = ({ wood, foliage, pot }: Silhouette): string =>
  `<svg viewBox="-2 -2 104 116"><path d="${wood}" fill="#6e5844"/><path d="${foliage}" fill="#566e43" fill-opacity="0.75"/><path d="${pot}" fill="#8a5a44"/></svg>`;

/** Two by two beside each other. */
const inPairs = <T>(all: readonly T[]): T[][] => Array.from({ length: Math.ceil(all.length / 2) }, (_, i) => all.slice(2 * i, 2 * i + 2));

/** A part of a paper as it is set. */
function partOf(section: Section, photoFile: (id: string) => string | null): Content[] {
  const { head, text = [], facts = [], list = [], ticks = [], pictures = [], photos = [], caution = [], drawing, pieces = [] } = section;
  const shown = photos.flatMap(({ photo, caption, over }) => {
    const path = photoFile(photo);
    if (!path) return [];
    const image = `data:image/jpeg;base64,${readFileSync(path).toString('base64')}`;
    return [{ picture: over ? { svg: onPhotoSvg(over, image) } : { image }, side: over ? 300 : 230, caption }];
  });
  const parts: Content[] = [
    ...caution.map((c): Content => ({ text: c, color: MADDER, margin: [0, 0, 0, 3] })),
    ...(pictures.length
      ? [
          {
            columns: pictures.map((p) => ({
              stack: [
                { svg: svgOf(p.picture), width: 190 },
                { text: p.caption, color: QUIET },
              ],
              width: 210,
            })),
            margin: [0, 2, 0, 6],
          } as Content,
        ]
      : []),
    ...(drawing ? [{ svg: drawing, font: 'Read', fit: [440, 440], margin: [0, 2, 0, 6] } as Content] : []),
    ...text.map((t): Content => ({ text: t, margin: [0, 0, 0, 4] })),
    ...facts.map(([name, value]): Content => ({
      columns: [
        { text: name, width: 110, color: QUIET },
        { text: value, width: '*' },
      ],
      margin: [0, 0, 0, 3],
    })),
    ...list.map((l): Content => ({ ul: [l], margin: [0, 0, 0, 2] })),
    ...ticks.map((t): Content => ({
      columns: [
        { canvas: [{ type: 'rect', x: 0, y: 2, w: 10, h: 10, lineColor: INK }], width: 18 },
        { stack: [{ text: t.head, fontSize: 11.5 }, ...t.text.map((line): Content => ({ text: line, color: QUIET, fontSize: 9.5 }))], width: '*' },
      ],
      margin: [0, 0, 0, 6],
      unbreakable: true,
    })),
    ...inPairs(shown).map((pair): Content => ({
      columns: pair.map(({ picture, side, caption }) => ({
        stack: [
          { ...picture, fit: [side, side] },
          { text: caption, color: QUIET, fontSize: 9 },
        ],
        width: side + 15,
      })),
      margin: [0, 4, 0, 4],
    })),
    ...inPairs(pieces).map((pair): Content => ({
      columns: pair.map((piece) => ({
        stack: [
          { text: piece.head, fontSize: 11.5 },
          ...piece.text.map((line): Content => ({ text: line, color: QUIET, fontSize: 9.5 })),
          ...(piece.strip ? [{ svg: stripSvg(piece.strip, ON_PAPER), font: 'Read', fit: [235, 600] } as Content] : []),
        ],
        width: 245,
      })),
      columnGap: 9,
      margin: [0, 4, 0, 10],
      unbreakable: true,
    })),
  ];
  // No heading stays alone at the foot of a page, nor with what only leads over to the next line.
  const beside = parts.length > 1 && text.length === 1 ? 2 : 1;
  return [{ stack: [{ text: head, style: 'head' }, ...parts.slice(0, beside)], unbreakable: true }, ...parts.slice(beside)];
}

/** A part of a document with its words in fonts that have their letters; `chain` is what it is set in where it does not say. */
function lettered(part: unknown, chain: Chain, missing: Set<string>): unknown {
  if (typeof part === 'string') return { text: inFonts(part, chain, missing) };
  if (Array.isArray(part)) return part.map((p) => lettered(p, chain, missing));
  if (typeof part !== 'object' || part === null) return part;
  const { font, style, text, svg, ...rest } = part as Record<string, unknown>;
  const own: Chain = font === 'Names' || style === 'head' ? 'Names' : chain;
  const inner = Object.fromEntries(
    Object.entries(rest).map(([key, value]) => [key, ['stack', 'columns', 'ul'].includes(key) ? lettered(value, own, missing) : value]),
  );
  return {
    ...inner,
    ...(font ? { font } : {}),
    ...(style ? { style } : {}),
    ...(typeof text === 'string' ? { text: inFonts(text, own, missing) } : text === undefined ? {} : { text }),
    ...(typeof svg === 'string' ? { svg: svgInFonts(svg, missing) } : {}),
  };
}

/** A document as a PDF file, its fonts those of every paper. */
export const printed = (document: TDocumentDefinitions): Promise<Buffer> => pdfmake.createPdf(document).getBuffer();

/** A paper as a PDF file; `photoFile` gives where a photo is, null where it is not here. */
export async function asPdf(paper: Paper, yard: string, photoFile: (id: string) => string | null): Promise<Buffer> {
  const missing = new Set<string>();
  const words = lettered(
    [
      { text: paper.title, font: 'Names', fontSize: 20 },
      { text: paper.under, color: QUIET, margin: [0, 2, 0, 6] },
      { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 499, y2: 0, lineColor: RULE }] },
      ...paper.sections.flatMap((s) => partOf(s, photoFile)),
    ],
    'Read',
    missing,
  ) as Content[];
  inFonts(yard, 'Read', missing);
  const without = sayMissing(missing);
  const document: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: [48, 44, 48, 48],
    info: { title: paper.title, creator: 'Ustle' },
    defaultStyle: { font: 'Read', fontSize: 10.5, color: INK, lineHeight: 1.15 },
    styles: { head: { font: 'Names', fontSize: 13.5, margin: [0, 10, 0, 4] } },
    content: [...words, ...(without ? [{ text: without, color: QUIET, fontSize: 9, margin: [0, 12, 0, 0] } as Content] : [])],
    footer: (page, pages) => ({ text: inFonts(`${yard}, page ${page} of ${pages}`, 'Read', missing), alignment: 'center', fontSize: 8.5, color: QUIET }),
  };
  return printed(document);
}
