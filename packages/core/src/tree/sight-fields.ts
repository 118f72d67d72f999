import type { Static } from '@sinclair/typebox';
import type { Vec } from '../space/index.js';
import { bearing, day, figure, id, list, mm, optional, part, tuple, whole, words } from './describe.js';

/** A place in a picture, px from its upper left corner, y downward. */
export type Px = readonly [x: number, y: number];

export const LARGEST_PX = 30_000;
export const MOST_SIGHT_PHOTOS = 60;
export const MOST_DRAWN = 3000;
export const PX = tuple<Px>(2, figure(-LARGEST_PX, 2 * LARGEST_PX, 'px', 'a place in a picture'), 'x to the right and y down from its upper left corner');
const CARD = part(
  {
    card: whole(0, 49, '', 'its number'),
    corners: tuple<[Px, Px, Px, Px]>(4, PX, 'its corners, clockwise from its own upper left'),
  },
  'a card found in a photo',
);
export const CARD_SIDE = mm(5, 500, 'side of a card, as it is printed', 0.1);
/** What is seen in a photo: how large it is, by which lens, and the cards in it. */
export const SEEN_FIELDS = {
  width: whole(16, LARGEST_PX, 'px', 'its width'),
  height: whole(16, LARGEST_PX, 'px', 'its height'),
  focalGuess: figure(10, 10 * LARGEST_PX, 'px', 'its focal length, roughly'),
  cards: list(CARD, 50, 'the cards found in it'),
};
/** A line as it was drawn over a photo. */
export const OVER_PHOTO = {
  points: list(PX, 400, 'along it, from its shoulder to its tip', 2),
  widths: optional(list(tuple<[number, number]>(2, figure(0, LARGEST_PX, '', 'a share of it, and how wide the wood is there, px'), 'a width'), 20, 'widths')),
};

const AWAY = tuple<Vec>(3, mm(-50_000, 50_000, 'coordinate', 0.01), 'x, y, z in the tree’s own space');
const WAY = tuple<Vec>(3, figure(-1, 1, '', 'part of a direction', 0.000001), 'a direction of length 1');
export const KEPT_CAMERA = part(
  {
    at: AWAY,
    forward: WAY,
    up: WAY,
    focal: figure(10, 10 * LARGEST_PX, 'px', 'its focal length'),
    k1: figure(-5, 5, '', 'its one radial term', 0.0001),
    centre: PX,
  },
  'where it was taken from, as the tree was measured by it',
);
export type KeptCamera = Static<typeof KEPT_CAMERA>;

export const KEPT_LINE = part(
  { line: id('what is drawn: trunk, a branch, root-1, shari-1, pot (its width), or plumb'), photo: id('the photo it is drawn over'), ...OVER_PHOTO },
  'a line drawn over a photo',
);
export type KeptLine = Static<typeof KEPT_LINE>;

export const KEPT_PHOTO = part(
  {
    photo: id('the picture, as it is stored'),
    name: optional(words(120, 'what its file was called')),
    bearing: optional(bearing('to which the table was turned, where that is known')),
    ...SEEN_FIELDS,
    camera: optional(KEPT_CAMERA),
  },
  'a photo that the tree is measured by',
);
export type KeptPhoto = Static<typeof KEPT_PHOTO>;

const ROUND = {
  on: optional(day('the day they were brought in')),
  cardSide: CARD_SIDE,
  photos: list(KEPT_PHOTO, MOST_SIGHT_PHOTOS, 'the photos'),
  drawn: list(KEPT_LINE, MOST_DRAWN, 'what is drawn over them'),
};
export const MOST_ROUNDS = 12;

/** The photos that a tree is measured by, with what is drawn over them; and those of earlier rounds. */
export const KEPT_SIGHT = part(
  { ...ROUND, earlier: optional(list(part(ROUND, 'an earlier round of photos'), MOST_ROUNDS, 'earlier rounds, oldest first')) },
  'the photos that it is measured by',
);
export type KeptSight = Static<typeof KEPT_SIGHT>;
