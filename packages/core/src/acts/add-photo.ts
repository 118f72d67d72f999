import { KEPT_PHOTO, MOST_SIGHT_PHOTOS, type KeptSight } from '../tree/index.js';
import { actKind, refuse } from './act.js';

/** The side of the cards as they are printed, mm. */
export const PRINTED_SIDE = 60;
const NONE_YET: KeptSight = { cardSide: PRINTED_SIDE, photos: [], drawn: [] };

/** A further photo that the tree is measured by. */
export const addPhoto = actKind({
  kind: 'add-photo',
  fields: { of: KEPT_PHOTO },
  guarded: true,
  apply: (tree, { of, on }) => {
    const sight = tree.sight ?? NONE_YET;
    if (sight.photos.some((p) => p.photo === of.photo)) return refuse('of', 'duplicate', 'The tree is measured by this photo already.');
    if (sight.photos.length >= MOST_SIGHT_PHOTOS) return refuse('of', 'limit', `A tree is measured by ${MOST_SIGHT_PHOTOS} photos at most.`);
    return { tree: { ...tree, sight: { ...sight, on: sight.on ?? on, photos: [...sight.photos, of] } }, lines: [] };
  },
  say: () => 'bring in a photo to measure by',
});
