import { Injectable } from '@nestjs/common';
import { RACK_LINE } from '@ustle/core';
import { readTreeFile, shapeFaults } from '@ustle/files';
import type { EntityManager } from 'typeorm';
import type { ZipFile } from 'yazl';
import { PhotoFiles, type PhotoSize } from '../photos/photo-files.js';
import { formatOf, isPolyglot } from '../photos/format.js';
import { ProblemException } from '../problem.js';
import { ActRow, BeforeRow, BenchRow, ForgottenRow, MailRow, RackLineRow, StandsRow, TreeRow } from '../store/entities.js';
import { Settings } from '../store/settings.service.js';
import { Store } from '../store/store.service.js';
import { insertTree } from '../trees/tree-rows.js';
import { openStudio, type Found } from './read-studio.js';
import { FORMAT, SETTINGS_KEPT, STUDIO, VERSION, type ActEntry, type StudioDocument } from './studio-file.js';
import { writeStudio } from './write-studio.js';

const no = (code: string, message: string): ProblemException => new ProblemException(400, { code, field: 'file', message: `${message} Nothing was changed.` });

function parsed<T>(bytes: Buffer, name: string): T {
  try {
    return JSON.parse(bytes.toString('utf8')) as T;
  } catch {
    throw no('not-json', `"${name}" in it is not JSON.`);
  }
}

const isList = (value: unknown): value is unknown[] => Array.isArray(value);

/** The studio's own document, once it is seen to be one. */
function studioOf(bytes: Buffer): StudioDocument {
  const studio = parsed<StudioDocument>(bytes, STUDIO);
  if (studio?.format !== FORMAT) throw no('format', `"${STUDIO}" in it does not say that this is the file of a studio.`);
  if (studio.version !== VERSION) throw no('version', `It was written by another version (${String(studio.version)}); this one reads ${VERSION}.`);
  const lists = [studio.trees, studio.benches, studio.rack, studio.mail, studio.forgotten];
  if (!lists.every(isList) || typeof studio.settings !== 'object' || studio.settings === null) throw no('format', `"${STUDIO}" in it lacks one of its lists.`);
  for (const { line } of studio.rack) if (shapeFaults(RACK_LINE, line).length) throw no('rack', 'A line of its rack is not as one should be.');
  return studio;
}

/** One size of a photo, once it is seen to be one. */
async function photoIn(found: readonly Found[], id: string, size: PhotoSize): Promise<Buffer> {
  const entry = found.find((f) => f.kind === 'photo' && f.id === id && f.size === size);
  if (!entry) throw no('photo', `Of the photo "${id}" only one size is in it.`);
  const bytes = await entry.read();
  if (formatOf(bytes) !== 'jpeg' || isPolyglot(bytes)) throw no('photo', `"${entry.name}" is no photo.`);
  return bytes;
}

/** The whole studio as one file, and back from it. */
@Injectable()
export class StudioService {
  constructor(
    private readonly store: Store,
    private readonly settings: Settings,
    private readonly photos: PhotoFiles,
  ) {}

  pack(): Promise<ZipFile> {
    return this.store.read((db) => writeStudio(db, this.photos));
  }

  /** Takes a studio in, where nothing is yet: all of it, or none. Resolves to how much came. */
  async restore(file: string): Promise<{ trees: number; photos: number }> {
    const { zip, found } = await openStudio(file);
    const taken: string[] = [];
    try {
      return await this.store.write(async ({ db }) => {
        await this.refuseUnlessEmpty(db);
        const byName = new Map(found.map((f) => [f.name, f]));
        const own = byName.get(STUDIO);
        if (!own) throw no('format', `There is no "${STUDIO}" in it.`);
        const studio = studioOf(await own.read());
        for (const id of new Set(found.flatMap((f) => (f.kind === 'photo' ? [f.id] : [])))) {
          const sizes = { full: await photoIn(found, id, 'full'), small: await photoIn(found, id, 'small') };
          taken.push(id);
          this.photos.save(id, sizes);
        }
        await this.insert(db, studio, found);
        return { trees: studio.trees.length, photos: taken.length };
      });
    } catch (error) {
      taken.forEach((id) => this.photos.remove(id));
      if (error instanceof ProblemException) throw error;
      throw /SQLITE_CONSTRAINT|NOT NULL|UNIQUE|FOREIGN KEY/i.test(String(error)) ? no('format', 'What it says does not fit together.') : error;
    } finally {
      zip.close();
    }
  }

  private async refuseUnlessEmpty(db: EntityManager): Promise<void> {
    const some = (await db.exists(TreeRow)) || (await db.exists(RackLineRow)) || this.photos.list().length > 0;
    if (some)
      throw new ProblemException(409, {
        code: 'not-empty',
        field: 'file',
        message:
          'There is something here already: a studio is taken in only where no tree, no wire and no photo is. Start Ustle with a new data folder. Nothing was changed.',
      });
  }

  private async insert(db: EntityManager, studio: StudioDocument, found: readonly Found[]): Promise<void> {
    const of = (kind: Found['kind'], id: string): Found | undefined => found.find((f) => f.kind === kind && f.id === id);
    for (const [ordinal, { id, name }] of studio.benches.entries()) await db.insert(BenchRow, { id, ordinal, name });
    for (const { id, revision, asideOn, bench } of studio.trees) {
      const entry = of('tree', id);
      if (!entry) throw no('tree', `The tree "${id}" is listed, and its file is not in it.`);
      const read = readTreeFile((await entry.read()).toString('utf8'));
      if ('faults' in read) throw no('tree', `"${entry.name}": ${read.faults[0]!.message}`);
      await insertTree(db, id, read.tree);
      await db.update(TreeRow, { id }, { revision, asideOn });
      if (bench !== null) await db.insert(StandsRow, { treeId: id, benchId: bench });
      const acts = of('acts', id);
      for (const act of acts ? parsed<ActEntry[]>(await acts.read(), acts.name) : []) {
        await db.insert(ActRow, { id: act.id, treeId: id, kind: act.kind, document: JSON.stringify(act.document), lines: act.lines, of: act.of });
        if (act.before !== null) await db.insert(BeforeRow, { act: act.id, treeId: id, document: JSON.stringify(act.before) });
      }
    }
    for (const { line, recorded } of studio.rack) {
      const { id, on, kind } = line as { id: string; on: string; kind: string };
      await db.insert(RackLineRow, { id, on, kind, document: JSON.stringify(line), recorded });
    }
    for (const mail of studio.mail) await db.insert(MailRow, mail);
    for (const treeId of studio.forgotten) await db.insert(ForgottenRow, { treeId });
    for (const [name, value] of Object.entries(studio.settings)) if (SETTINGS_KEPT.includes(name)) await this.settings.write(db, name, value);
  }
}
