import { PRINTED_SIDE, type KeptPhoto, type KeptSight } from '@ustle/core';
import { visionWorker } from '../../../jobs/use-vision';
import { addPhoto } from '../../../photos/photo-queue';

export const NO_SIGHT: KeptSight = { cardSide: PRINTED_SIDE, photos: [], drawn: [] };

/** A photo that comes in: its picture, what it is called, and to where the table was turned, where that is known. */
export interface Coming {
  picture: Blob;
  name: string;
  bearing?: number;
}

/** Reads a photo, keeps it to be sent, and says what is seen in it; or why it is none. */
export async function takeIn(tree: string, today: string, { picture, name, bearing }: Coming): Promise<KeptPhoto | { refused: string }> {
  const read = await visionWorker().read(picture);
  if ('refused' in read) return { refused: read.refused };
  const at = bearing === undefined ? {} : { bearing };
  const photo = await addPhoto(tree, today, { when: 'measuring', ...at }, read.jpeg, name.replace(/\.\w+$/, '.jpg'));
  return { photo, name: name.slice(0, 120), ...at, ...read.seen, cards: read.seen.cards.map((c) => ({ ...c, corners: [...c.corners] })) };
}
