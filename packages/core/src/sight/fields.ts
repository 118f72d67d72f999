import { figure, list, mm, optional, part, tuple, whole, words } from '../tree/describe.js';
import type { Px } from './camera.js';

const LARGEST_PX = 30_000;
const PX = tuple<Px>(2, figure(-LARGEST_PX, 2 * LARGEST_PX, 'px', 'a place in a picture'), 'x to the right and y down from its upper left corner');
const PHOTO = words(200, 'name of a photo', 1);
const LINE = words(64, 'what is drawn: trunk, or a branch', 1);

const CARD = part(
  {
    card: whole(0, 49, '', 'its number'),
    corners: tuple<[Px, Px, Px, Px]>(4, PX, 'its corners, clockwise from its own upper left'),
  },
  'a card found in a photo',
);

/** A set of photos as numbers, as it comes from a file or another program. */
export const SIGHT_SET = part(
  {
    cardSide: mm(5, 500, 'side of a card, as it is printed', 0.1),
    photos: list(
      part(
        {
          photo: PHOTO,
          width: whole(16, LARGEST_PX, 'px', 'its width'),
          height: whole(16, LARGEST_PX, 'px', 'its height'),
          focalGuess: figure(10, 10 * LARGEST_PX, 'px', 'its focal length, roughly'),
          cards: list(CARD, 50, 'the cards found in it'),
        },
        'a photo',
      ),
      200,
      'the photos',
    ),
    drawn: list(
      part(
        {
          line: LINE,
          photo: PHOTO,
          points: list(PX, 400, 'along it, from its shoulder to its tip', 2),
          widths: optional(
            list(tuple<[number, number]>(2, figure(0, LARGEST_PX, '', 'a share of it, and how wide the wood is there, px'), 'a width'), 20, 'widths'),
          ),
        },
        'a line drawn over a photo',
      ),
      5000,
      'the lines drawn over them',
    ),
  },
  'photos of a tree as numbers',
);
