import { existsSync, mkdirSync, readdirSync, renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { dataFolder } from '@ustle/data';
import { PhotoFiles } from './photo-files.js';

const PHOTOS = 'photos';

/** Where what comes in stands until it is taken over; at every start it is cleared. */
export const incomingFolder = (): string => join(dataFolder(), 'incoming');

/** A place beside the photos for those of one studio that comes in. */
export function stagedPhotos(name: string): PhotoFiles {
  const folder = join(incomingFolder(), name, PHOTOS);
  mkdirSync(folder, { recursive: true });
  return new PhotoFiles(folder);
}

/** Puts the staged photos where the studio's are, in one move; what lay there, nobody's, is kept beside it. Done already, it does nothing. */
export function takeOver(name: string, photos: PhotoFiles): void {
  const staged = join(incomingFolder(), name, PHOTOS);
  if (!existsSync(staged)) return;
  if (existsSync(photos.folder)) {
    if (readdirSync(photos.folder).length) {
      let n = 1;
      while (existsSync(`${photos.folder}.before-${n}`)) n++;
      renameSync(photos.folder, `${photos.folder}.before-${n}`);
    } else rmSync(photos.folder, { recursive: true });
  }
  renameSync(staged, photos.folder);
}

export const clearIncoming = (): void => rmSync(incomingFolder(), { recursive: true, force: true });
