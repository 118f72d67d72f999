import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import exifr from 'exifr';
import jpeg from 'jpeg-js';
import type { SeenPhoto } from '@ustle/core';
import { focalGuessOf } from './focal.js';
import type { Picture, Vision } from './vision.js';

/** A picture of more would not fit beside all else. */
const MOST_MEGAPIXELS = 60;
const MOST_MEMORY_MB = 1024;

/** Quarter turns to the right that bring a picture upright, by how its camera says it was held. */
const QUARTERS: Record<number, number> = { 3: 2, 6: 1, 8: 3 };

function turned({ width, height, data }: Picture, quarters: number): Picture {
  if (!quarters) return { width, height, data };
  const [w, h] = quarters === 2 ? [width, height] : [height, width];
  const to = new Uint8Array(data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [u, v] = quarters === 1 ? [height - 1 - y, x] : quarters === 2 ? [width - 1 - x, height - 1 - y] : [y, width - 1 - x];
      to.set(data.subarray(4 * (y * width + x), 4 * (y * width + x) + 4), 4 * (v * w + u));
    }
  return { width: w, height: h, data: to };
}

/** A JPEG file as pixels, upright, with the focal length it tells (as on 35 mm film); throws where it is none. */
export async function readPicture(file: string): Promise<{ picture: Picture; on35mm: number | null }> {
  const bytes = readFileSync(file);
  const told = ((await exifr.parse(bytes, { pick: ['FocalLengthIn35mmFormat', 'Orientation'], translateValues: false }).catch(() => null)) ?? {}) as Record<
    string,
    number
  >;
  const picture = jpeg.decode(bytes, { useTArray: true, maxResolutionInMP: MOST_MEGAPIXELS, maxMemoryUsageInMB: MOST_MEMORY_MB });
  return { picture: turned(picture, QUARTERS[told.Orientation ?? 1] ?? 0), on35mm: told.FocalLengthIn35mmFormat ?? null };
}

/** A photo of a file as numbers: its cards, its size, a guess of its focal length. */
export async function seePhoto(vision: Vision, file: string): Promise<SeenPhoto> {
  const { picture, on35mm } = await readPicture(file);
  const { width, height } = picture;
  return { photo: basename(file), width, height, focalGuess: focalGuessOf(picture, on35mm), cards: vision.findCards(picture) };
}
