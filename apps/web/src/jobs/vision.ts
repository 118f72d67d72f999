import exifr from 'exifr';
import { focalGuessOf, greenIn, loadVision, type Followed, type Picture } from '@ustle/vision';
import type { GreenMask, Px, SeenPhoto } from '@ustle/core';

/** A photo as it is taken in: made smaller where it is large, upright, with the cards in it; or why it cannot be. */
export type ReadPhoto = { jpeg: Blob; seen: Omit<SeenPhoto, 'photo'> } | { refused: string };

/** Longer sides than this, px, tell nothing more. */
const LONGEST = 3000;
const QUALITY = 0.9;
/** So many pictures are kept decoded: the one that is drawn over, and the one before. */
const KEPT = 2;

let vision: ReturnType<typeof loadVision> | null = null;
const ready = (): ReturnType<typeof loadVision> => (vision ??= loadVision());
const kept = new Map<string, Picture>();

function pixelsOf(bitmap: ImageBitmap): { canvas: OffscreenCanvas; picture: Picture } {
  const share = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [Math.round(bitmap.width * share), Math.round(bitmap.height * share)];
  const canvas = new OffscreenCanvas(width, height);
  const paint = canvas.getContext('2d', { willReadFrequently: true })!;
  paint.imageSmoothingQuality = 'high';
  paint.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  return { canvas, picture: { width, height, data: paint.getImageData(0, 0, width, height).data } };
}

/** What phones write that no browser here reads. */
async function isHeic(file: Blob): Promise<boolean> {
  const head = new TextDecoder('latin1').decode(await file.slice(4, 12).arrayBuffer());
  return /^ftyp(hei[cfxs]|hev[cx]|mif1|msf1)/.test(head);
}
const HEIC = 'HEIC pictures are not read. Set the phone to take JPEG ("most compatible"), or send them as JPEG.';
const NONE = 'It is no picture that can be read: JPEG, PNG or WebP.';

/** Looking at pictures, off the page's thread; its library comes with the first one. */
export const seer = {
  async read(file: Blob): Promise<ReadPhoto> {
    if (await isHeic(file)) return { refused: HEIC };
    const told = (await exifr.parse(file, ['FocalLengthIn35mmFormat']).catch(() => null)) as { FocalLengthIn35mmFormat?: number } | null;
    const bitmap = await createImageBitmap(file).catch(() => null);
    if (!bitmap) return { refused: NONE };
    const { canvas, picture } = pixelsOf(bitmap);
    const { width, height } = picture;
    const cards = (await ready()).findCards(picture);
    const focalGuess = focalGuessOf(picture, told?.FocalLengthIn35mmFormat ?? null);
    return { jpeg: await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY }), seen: { width, height, focalGuess, cards } };
  },

  /** Where a photo is green. */
  async green(address: string): Promise<GreenMask> {
    return greenIn(pixelsOf(await createImageBitmap(await (await fetch(address)).blob())).picture);
  },

  /** The way along the wood of a photo from a shoulder to a tip, px; the picture is asked for where it is not at hand. */
  async follow(photo: string, address: string, from: Px, to: Px, known: readonly Px[] | null): Promise<Followed> {
    let picture = kept.get(photo);
    if (!picture) {
      picture = pixelsOf(await createImageBitmap(await (await fetch(address)).blob())).picture;
      if (kept.size >= KEPT) kept.delete(kept.keys().next().value!);
      kept.set(photo, picture);
    }
    return (await ready()).follow(picture, from, to, known);
  },
};
export type Seer = typeof seer;
