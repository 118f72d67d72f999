import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readdirSync, renameSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import { Injectable, Optional } from '@nestjs/common';
import { dataFolder } from '@ustle/data';
import { PHOTO_ID } from './photo-id.js';

export type PhotoSize = 'full' | 'small';

/** The photos: files beside the database, each by its id, whole and small. */
@Injectable()
export class PhotoFiles {
  constructor(@Optional() readonly folder: string = join(dataFolder(), 'photos')) {}

  /** Where a photo is, or would be. */
  path(id: string, size: PhotoSize): string {
    if (!PHOTO_ID.test(id)) throw new Error(`"${id}" is no photo's id.`);
    return join(this.folder, `${id}.${size}.jpg`);
  }

  has(id: string): boolean {
    return PHOTO_ID.test(id) && existsSync(this.path(id, 'full')) && existsSync(this.path(id, 'small'));
  }

  /** Ids of all photos that are there, in order. */
  list(): string[] {
    if (!existsSync(this.folder)) return [];
    const ids = readdirSync(this.folder).flatMap((name) => /^(.+)\.full\.jpg$/.exec(name)?.[1] ?? []) as string[];
    return ids.filter((id) => this.has(id)).sort();
  }

  /** Puts a photo on the disk: whole, or not at all. */
  save(id: string, photo: Record<PhotoSize, Buffer>): void {
    mkdirSync(this.folder, { recursive: true });
    for (const size of ['small', 'full'] as const) {
      const file = this.path(id, size);
      const fresh = `${file}.new`;
      const open = openSync(fresh, 'w');
      try {
        writeSync(open, photo[size]);
        fsyncSync(open);
      } finally {
        closeSync(open);
      }
      renameSync(fresh, file);
    }
  }

  remove(id: string): void {
    for (const size of ['full', 'small'] as const) rmSync(this.path(id, size), { force: true });
  }
}
