import { CARD_SIDE, list, OVER_PHOTO, part, SEEN_FIELDS, words } from '../tree/index.js';

const PHOTO = words(200, 'name of a photo', 1);
const LINE = words(64, 'what is drawn: trunk, or a branch', 1);

/** A set of photos as numbers, as it comes from a file or another program. */
export const SIGHT_SET = part(
  {
    cardSide: CARD_SIDE,
    photos: list(part({ photo: PHOTO, ...SEEN_FIELDS }, 'a photo'), 200, 'the photos'),
    drawn: list(part({ line: LINE, photo: PHOTO, ...OVER_PHOTO }, 'a line drawn over a photo'), 5000, 'the lines drawn over them'),
  },
  'photos of a tree as numbers',
);
