import { LARGEST_PHOTO_BYTES } from '@ustle/core';
import sharp from 'sharp';
import { ProblemException } from '../problem.js';
import { formatOf, type Format } from './format.js';
import { isPlainJpeg } from './plain-jpeg.js';

/** A photo has at most so many pixels, in all and a side; it is kept with at most so many a side. */
const MOST_PIXELS = 64_000_000;
const MOST_SIDE = 30_000;
const SIDE = 3600;
const SMALL_SIDE = 480;
const QUALITY = 86;

/** A photo as it is kept: turned upright, without what the camera wrote beside it, and small for lists. */
export interface ReadPhoto {
  full: Buffer;
  small: Buffer;
  width: number;
  height: number;
}

const no = (code: string, message: string): ProblemException => new ProblemException(400, { code, field: 'photo', message: `${message} Nothing was stored.` });

const NAMES: Record<Format, { ends: RegExp; name: string }> = {
  jpeg: { ends: /\.jpe?g$/i, name: 'JPEG' },
  png: { ends: /\.png$/i, name: 'PNG' },
  webp: { ends: /\.webp$/i, name: 'WebP' },
};

/** Reads a photo as somebody sent it; refuses with a sentence what is none, or is too large to be read safely. */
export async function readPhoto(file: Buffer, name: string): Promise<ReadPhoto> {
  if (!file.length) throw no('empty', 'This file is empty.');
  if (file.length > LARGEST_PHOTO_BYTES) throw no('too-large', `A photo has at most ${LARGEST_PHOTO_BYTES / 1048576} MB.`);
  const format = formatOf(file);
  if (!format) throw no('not-a-photo', 'This is no photo: JPEG, PNG and WebP are taken.');
  const ending = /\.[A-Za-z0-9]+$/.exec(name)?.[0];
  if (ending && !NAMES[format].ends.test(ending)) throw no('wrong-ending', `The file is called "${ending}", but it holds a ${NAMES[format].name} picture.`);
  try {
    const picture = sharp(file, { limitInputPixels: MOST_PIXELS, failOn: 'truncated', animated: false });
    const { width, height } = await picture.metadata();
    if (width * height > MOST_PIXELS)
      throw no('too-many-pixels', `The picture has ${Math.round((width * height) / 1e6)} megapixels; at most ${MOST_PIXELS / 1e6} are taken.`);
    if (Math.max(width, height) > MOST_SIDE) throw no('too-many-pixels', `The picture is ${width} by ${height} pixels; at most ${MOST_SIDE} a side are taken.`);
    const upright = picture.autoOrient().flatten({ background: '#faf7ef' });
    const full = await upright
      .clone()
      .resize(SIDE, SIDE, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: QUALITY })
      .toBuffer({ resolveWithObject: true });
    const small = await upright.clone().resize(SMALL_SIDE, SMALL_SIDE, { fit: 'inside', withoutEnlargement: true }).jpeg({ quality: 78 }).toBuffer();
    return { full: full.data, small, width: full.info.width, height: full.info.height };
  } catch (error) {
    if (error instanceof ProblemException) throw error;
    if (/pixel limit/i.test(String(error))) throw no('too-many-pixels', `The picture has more than ${MOST_PIXELS / 1e6} megapixels.`);
    throw no('damaged', 'This picture cannot be read: it may be damaged, or was not sent whole.');
  }
}

/** A picture that was kept before, as it comes back: decoded whole, and as it is where it is nothing but its picture; else encoded anew without the rest. Null where it is none. */
export async function keptAgain(bytes: Buffer): Promise<Buffer | null> {
  if (formatOf(bytes) !== 'jpeg') return null;
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'truncated' });
    const { width, height } = await picture.metadata();
    if (Math.max(width, height) > MOST_SIDE) return null;
    if (!isPlainJpeg(bytes)) return await picture.autoOrient().jpeg({ quality: QUALITY }).toBuffer();
    await picture.clone().resize(1, 1).raw().toBuffer();
    return bytes;
  } catch {
    return null;
  }
}
