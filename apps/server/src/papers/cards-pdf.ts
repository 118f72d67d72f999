import { CARD_CODES, CARD_FIELDS, isWhite } from '@ustle/core';
import type { CanvasElement, Content } from 'pdfmake/interfaces.js';
import { printed } from './as-pdf.js';

/** Points of print in a millimetre. */
const MM = 72 / 25.4;
const SIDE = 60;
/** Between two cards; they are cut along the middle, so that white stays round each. */
const APART = 22;
const ROWS = 3;
const COLUMNS = 2;
const [LEFT, TOP] = [(210 - COLUMNS * SIDE - APART) / 2, 34];
const RULER = 100;

const BLACK = '#000000';
const GREY = '#8a8678';

const box = (x: number, y: number, w: number, h: number): CanvasElement => ({
  type: 'rect',
  x: x * MM,
  y: y * MM,
  w: w * MM,
  h: h * MM,
  color: BLACK,
  lineWidth: 0,
});
const line = (x1: number, y1: number, x2: number, y2: number): CanvasElement => ({
  type: 'line',
  x1: x1 * MM,
  y1: y1 * MM,
  x2: x2 * MM,
  y2: y2 * MM,
  lineWidth: 0.4,
  lineColor: GREY,
});

/** A card's dark fields, its upper left corner at a place of the page, mm; fields beside each other in one piece, so that no printer leaves a gap. */
function cardAt(card: number, x: number, y: number): CanvasElement[] {
  const field = SIDE / CARD_FIELDS;
  return Array.from({ length: CARD_FIELDS }, (_, row) => {
    const dark = Array.from({ length: CARD_FIELDS }, (_, column) => !isWhite(card, row, column));
    return dark.flatMap((is, from) => {
      if (!is || dark[from - 1]) return [];
      const end = dark.findIndex((d, i) => i > from && !d);
      return [box(x + from * field, y + row * field, ((end < 0 ? CARD_FIELDS : end) - from) * field, field + (row < CARD_FIELDS - 1 ? 0.02 : 0))];
    });
  }).flat();
}

function page(cards: readonly number[], last: boolean): Content[] {
  const places = cards.map((card, i) => ({ card, x: LEFT + (i % COLUMNS) * (SIDE + APART), y: TOP + Math.floor(i / COLUMNS) * (SIDE + APART) }));
  const ruler = 297 - 22;
  const marks = [
    line(LEFT, ruler, LEFT + RULER, ruler),
    ...Array.from({ length: 11 }, (_, i) => line(LEFT + 10 * i, ruler - (i % 5 ? 1.5 : 3), LEFT + 10 * i, ruler)),
  ];
  const at = (x: number, y: number): { absolutePosition: { x: number; y: number } } => ({ absolutePosition: { x: x * MM, y: y * MM } });
  return [
    { ...at(LEFT, 14), text: 'Cards to lay round a pot', font: 'Names', fontSize: 15 },
    {
      ...at(LEFT, 22),
      text: 'Print at full size, not fitted to the page. Cut them out with white all round. Card 0 lies at the pot’s mark.',
      fontSize: 9,
      color: GREY,
    },
    { ...at(0, 0), canvas: [...places.flatMap(({ card, x, y }) => cardAt(card, x, y)), ...marks] },
    ...places.map(({ card, x, y }): Content => ({ ...at(x, y + SIDE + 1.5), text: `${card}`, fontSize: 8, color: GREY })),
    {
      ...at(LEFT, ruler + 2),
      text: `This line is ${RULER} mm long and the cards have sides of ${SIDE} mm. If it is longer or shorter, measure a card and say its side where the photos are brought in.`,
      fontSize: 8.5,
      color: GREY,
      ...(last ? {} : { pageBreak: 'after' as const }),
    },
  ];
}

/** The cards as a PDF file, at their size on A4. */
export async function cardsPdf(): Promise<Buffer> {
  const all = CARD_CODES.map((_, i) => i);
  const pages = Array.from({ length: Math.ceil(all.length / (ROWS * COLUMNS)) }, (_, i) => all.slice(i * ROWS * COLUMNS, (i + 1) * ROWS * COLUMNS));
  return printed({
    pageSize: 'A4',
    pageMargins: [0, 0, 0, 0],
    info: { title: 'Cards to lay round a pot', creator: 'Ustle' },
    defaultStyle: { font: 'Read', fontSize: 10 },
    content: pages.map((cards, i) => page(cards, i === pages.length - 1)),
  });
}
