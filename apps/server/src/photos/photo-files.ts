import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Injectable, Optional } from '@nestjs/common';
import { dataFolder } from '@ustle/data';
import { storeProblem } from '../problem.js';
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

  /** Puts a photo on the disk: both sizes whole, or nothing of it. */
  save(id: string, photo: Record<PhotoSize, Buffer>): void {
    const sizes = ['small', 'full'] as const;
    const fresh = (size: PhotoSize): string => `${this.path(id, size)}.new`;
    try {
      mkdirSync(this.folder, { recursive: true });
      for (const size of sizes) {
        const open = openSync(fresh(size), 'w');
        try {
          writeFileSync(open, photo[size]);
          fsyncSync(open);
        } finally {
          closeSync(open);
        }
      }
      for (const size of sizes) renameSync(fresh(size), this.path(id, size));
    } catch (error) {
      for (const size of sizes) rmSync(fresh(size), { force: true });
      this.remove(id);
      throw storeProblem(error) ?? error;
    }
  }

  remove(id: string): void {
    for (const size of ['full', 'small'] as const) rmSync(this.path(id, size), { force: true });
  }
}
