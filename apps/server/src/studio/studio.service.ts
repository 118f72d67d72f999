import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { rackFault, type KeptRackLine } from '@ustle/core';
import { readTreeFile } from '@ustle/files';
import type { EntityManager } from 'typeorm';
import type { ZipFile } from 'yazl';
import { PhotoFiles, type PhotoSize } from '../photos/photo-files.js';
import { clearIncoming, incomingFolder, stagedPhotos, takeOver } from '../photos/incoming.js';
import { keptAgain } from '../photos/read-photo.js';
import { ProblemException, storeProblem } from '../problem.js';
import { ActRow, BeforeRow, BenchRow, ForgottenRow, LineRow, MailRow, RackLineRow, SettingRow, StandsRow, TreeRow } from '../store/entities.js';
import { Settings } from '../store/settings.service.js';
import { Store } from '../store/store.service.js';
import { insertTree } from '../trees/tree-rows.js';
import { openStudio, type Found } from './read-studio.js';
import { actsFrom, FORMAT, SETTINGS_KEPT, STUDIO, studioFaults, VERSION, type StudioDocument } from './studio-file.js';
import { writeStudio } from './write-studio.js';

const no = (code: string, message: string): ProblemException => new ProblemException(400, { code, field: 'file', message: `${message} Nothing was changed.` });

function parsed<T>(bytes: Buffer, name: string): T {
  try {
    return JSON.parse(bytes.toString('utf8')) as T;
  } catch {
    throw no('not-json', `"${name}" in it is not JSON.`);
  }
}

/** The studio's own document, once it is seen to be one. */
function studioOf(bytes: Buffer): StudioDocument {
  const studio = parsed<StudioDocument>(bytes, STUDIO);
  if (studio?.format !== FORMAT) throw no('format', `"${STUDIO}" in it does not say that this is the file of a studio.`);
  if (studio.version !== VERSION) throw no('version', `It was written by another version (${String(studio.version)}); this one reads ${VERSION}.`);
  const [fault] = studioFaults(studio);
  if (fault) throw no(fault.path.startsWith('/rack') ? 'rack' : 'format', `"${STUDIO}" in it: ${fault.path}: ${fault.message}`);
  return studio;
}

/** One size of a photo, once it is seen to be one: nothing but the picture. */
async function photoIn(found: readonly Found[], id: string, size: PhotoSize): Promise<Buffer> {
  const entry = found.find((f) => f.kind === 'photo' && f.id === id && f.size === size);
  if (!entry) throw no('photo', `Of the photo "${id}" only one size is in it.`);
  const picture = await keptAgain(await entry.read());
  if (!picture) throw no('photo', `"${entry.name}" is no photo.`);
  return picture;
}

/** The setting that says which staged photos belong to what was stored: until they are taken over. */
const INCOMING = 'incoming';

/** The whole studio as one file, and back from it. */
@Injectable()
export class StudioService implements OnApplicationBootstrap {
  constructor(
    private readonly store: Store,
    private readonly settings: Settings,
    private readonly photos: PhotoFiles,
  ) {}

  pack(): Promise<ZipFile> {
    return this.store.read((db) => writeStudio(db, this.photos));
  }

  /** What was stored and whose photos were not yet taken over when the power went is finished; all else that lies about is cleared. */
  async onApplicationBootstrap(): Promise<void> {
    const name = (await this.store.read((db) => this.settings.read(db, INCOMING, null))) as string | null;
    if (name) await this.finish(name);
    clearIncoming();
  }

  /** Takes a studio in, where nothing is yet: all of it, or none. Resolves to how much came. */
  async restore(file: string): Promise<{ trees: number; photos: number }> {
    const { zip, found } = await openStudio(file);
    const name = randomUUID();
    try {
      await this.store.read((db) => this.refuseUnlessEmpty(db));
      const own = found.find((f) => f.name === STUDIO);
      if (!own) throw no('format', `There is no "${STUDIO}" in it.`);
      const studio = studioOf(await own.read());
      const listed = new Set(studio.trees.map((t) => t.id));
      const stray = found.find((f) => (f.kind === 'tree' || f.kind === 'acts') && !listed.has(f.id));
      if (stray) throw no('tree', `"${stray.name}" is in it, and its tree is not in the list.`);
      const staged = stagedPhotos(name);
      const ids = new Set(found.flatMap((f) => (f.kind === 'photo' ? [f.id] : [])));
      for (const id of ids) staged.save(id, { full: await photoIn(found, id, 'full'), small: await photoIn(found, id, 'small') });
      await this.store.write(async ({ db }) => {
        await this.refuseUnlessEmpty(db);
        await this.insert(db, studio, found);
        await this.settings.write(db, INCOMING, name);
      });
      await this.finish(name);
      return { trees: studio.trees.length, photos: ids.size };
    } catch (error) {
      if (error instanceof ProblemException) throw error;
      throw /SQLITE_CONSTRAINT|NOT NULL|UNIQUE|FOREIGN KEY/i.test(String(error))
        ? no('format', 'What it says does not fit together.')
        : (storeProblem(error) ?? error);
    } finally {
      zip.close();
      rmSync(join(incomingFolder(), name), { recursive: true, force: true });
    }
  }

  private async finish(name: string): Promise<void> {
    takeOver(name, this.photos);
    await this.store.write(({ db }) => db.delete(SettingRow, { name: INCOMING }));
  }

  private async refuseUnlessEmpty(db: EntityManager): Promise<void> {
    const some = (await db.exists(TreeRow)) || (await db.exists(RackLineRow));
    if (some)
      throw new ProblemException(409, {
        code: 'not-empty',
        field: 'file',
        message:
          'There is something here already: a studio is taken in only where no tree and no wire is. Start Ustle with a new data folder. Nothing was changed.',
      });
  }

  private async insert(db: EntityManager, studio: StudioDocument, found: readonly Found[]): Promise<void> {
    const of = (kind: Found['kind'], id: string): Found | undefined => found.find((f) => f.kind === kind && f.id === id);
    for (const [ordinal, { id, name }] of studio.benches.entries()) await db.insert(BenchRow, { id, ordinal, name });
    for (const [i, { id, revision, asideOn, bench, place }] of studio.trees.entries()) {
      const entry = of('tree', id);
      if (!entry) throw no('tree', `The tree "${id}" is listed, and its file is not in it.`);
      const read = readTreeFile((await entry.read()).toString('utf8'));
      if ('faults' in read) throw no('tree', `"${entry.name}": ${read.faults[0]!.message}`);
      await insertTree(db, id, read.tree);
      await db.update(TreeRow, { id }, { revision, asideOn });
      if (bench !== null) await db.insert(StandsRow, { treeId: id, benchId: bench, ordinal: place ?? i });
      const entries = of('acts', id);
      const stored = await db.find(LineRow, { where: { treeId: id }, select: { lineId: true } });
      const acts = entries ? actsFrom(parsed<unknown>(await entries.read(), entries.name), new Set(stored.map((l) => l.lineId))) : { acts: [] };
      if ('fault' in acts) throw no('acts', `"${entries!.name}": ${acts.fault}`);
      for (const act of acts.acts) {
        const { desk } = act.document as { desk?: unknown };
        const whose = { desk: typeof desk === 'string' ? desk : null, revision: act.revision ?? null };
        await db.insert(ActRow, { id: act.id, treeId: id, kind: act.kind, document: JSON.stringify(act.document), lines: act.lines, of: act.of, ...whose });
        if (act.before !== null) await db.insert(BeforeRow, { act: act.id, treeId: id, document: JSON.stringify(act.before) });
      }
    }
    const rack: KeptRackLine[] = [];
    for (const { line, recorded } of studio.rack) {
      const { id, on, kind } = line;
      const fault = rackFault(line, rack);
      if (fault) throw no('rack', `A line of its rack ("${id}"): ${fault.message}`);
      rack.push({ line, recorded });
      await db.insert(RackLineRow, { id, on, kind, document: JSON.stringify(line), recorded });
    }
    for (const mail of studio.mail) await db.insert(MailRow, mail);
    for (const treeId of studio.forgotten) await db.insert(ForgottenRow, { treeId });
    for (const [name, value] of Object.entries(studio.settings)) if (SETTINGS_KEPT.includes(name)) await this.settings.write(db, name, value);
  }
}
