import type { Static } from '@sinclair/typebox';
import { byTag, day, figure, id, mm, oneOf, optional, WIRE_FIELDS, words, yesNo } from '../tree/index.js';

export const STOCK_FORMS = ['roll', 'offcut'] as const;
/** Wire on a roll, or a loose piece of it. */
export type StockForm = (typeof STOCK_FORMS)[number];
export const STOCK_ORIGINS = ['bought', 'left-over', 'straightened'] as const;
/** New, cut off and not used, or taken off a tree and straightened. */
export type StockOrigin = (typeof STOCK_ORIGINS)[number];

const GRAMS = figure(1, 20000, 'g', 'weight on the scale, the empty reel with it', 0.1);
const LENGTH = mm(1, 5_000_000, 'length of wire');
const ABOUT_ROLL = { roll: id('which roll or offcut') };

/** What can happen on the rack, each kind with the fields of its own. What is cut for a tree stands in the tree's record. */
export const RACK_LINE_FIELDS = {
  in: {
    ...ABOUT_ROLL,
    form: oneOf(STOCK_FORMS, 'on a roll, or a loose piece'),
    origin: oneOf(STOCK_ORIGINS, 'new, left over, or straightened after it was on a tree'),
    metal: WIRE_FIELDS.metal,
    size: WIRE_FIELDS.size,
    length: optional(LENGTH),
    grams: optional(GRAMS),
    reel: optional(figure(0, 5000, 'g', 'weight of the empty reel', 0.1)),
    soft: yesNo('annealed; copper is wound soft'),
    price: optional(figure(0, 100_000, '', 'what it cost', 0.01)),
  },
  weighed: { ...ABOUT_ROLL, grams: GRAMS },
  measured: { ...ABOUT_ROLL, length: mm(0, 5_000_000, 'length of wire that is left') },
  annealed: { ...ABOUT_ROLL },
  gone: { ...ABOUT_ROLL },
  withdrawn: { corrects: id('the line that is taken back') },
};
export type RackLineKind = keyof typeof RACK_LINE_FIELDS;

export const RACK_COMMON = {
  id: id('made where it is written; sent twice, it is written once'),
  on: day('the day it was done'),
  text: optional(words(500, 'a remark')),
};

/** A line of the rack's history: lines are only ever added. */
export const RACK_LINE = byTag('kind', RACK_COMMON, RACK_LINE_FIELDS, 'a line of the rack’s history');
export type RackLine = Static<typeof RACK_LINE>;
export type RackLineOf<K extends RackLineKind> = Extract<RackLine, { kind: K }>;
