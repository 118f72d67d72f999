import { createReadStream } from 'node:fs';
import type { Readable } from 'node:stream';
import { writeTreeFile } from '@ustle/files';
import type { RackLine } from '@ustle/core';
import type { EntityManager } from 'typeorm';
import { ZipFile } from 'yazl';
import type { PhotoFiles } from '../photos/photo-files.js';
import { ActRow, BeforeRow, BenchRow, ForgottenRow, MailRow, RackLineRow, SettingRow, StandsRow, TreeRow } from '../store/entities.js';
import { loadTree, UnreadableTree } from '../trees/tree-rows.js';
import { actsName, FORMAT, photoName, SETTINGS_KEPT, STUDIO, treeName, VERSION, type ActEntry, type StudioDocument } from './studio-file.js';

/** The same studio makes the same bytes: every entry is of one day. */
const ENTRY = { mtime: new Date(1980, 0, 1), mode: 0o100644, forceDosTimestamp: true };

async function documentOf(db: EntityManager): Promise<StudioDocument> {
  const trees = await db.find(TreeRow, { select: { id: true, revision: true, asideOn: true }, order: { id: 'ASC' } });
  const stands = new Map((await db.find(StandsRow)).map((s) => [s.treeId, { bench: s.benchId, place: s.ordinal }]));
  const settings = (await db.find(SettingRow, { order: { name: 'ASC' } })).filter((s) => SETTINGS_KEPT.includes(s.name));
  return {
    format: FORMAT,
    version: VERSION,
    trees: trees.map(({ id, revision, asideOn }) => ({ id, revision, asideOn, ...(stands.get(id) ?? { bench: null }) })),
    benches: (await db.find(BenchRow, { order: { ordinal: 'ASC', id: 'ASC' } })).map(({ id, name }) => ({ id, name })),
    settings: Object.fromEntries(settings.map((s) => [s.name, JSON.parse(s.document) as unknown])),
    rack: (await db.find(RackLineRow, { order: { ordinal: 'ASC' } })).map(({ document, recorded }) => ({ line: JSON.parse(document) as RackLine, recorded })),
    mail: (await db.find(MailRow, { order: { on: 'ASC', id: 'ASC' } })).map(({ id, on, subject, text }) => ({ id, on, subject, text })),
    forgotten: (await db.find(ForgottenRow, { order: { treeId: 'ASC' } })).map((f) => f.treeId),
  };
}

async function actsOf(db: EntityManager, treeId: string): Promise<ActEntry[]> {
  const before = new Map((await db.find(BeforeRow, { where: { treeId } })).map((b) => [b.act, JSON.parse(b.document) as unknown]));
  const acts = await db.find(ActRow, { where: { treeId }, order: { ordinal: 'ASC' } });
  return acts.map(({ id, kind, document, lines, of, revision }) => ({
    ...{ id, kind, document: JSON.parse(document) as unknown, lines, of, before: before.get(id) ?? null },
    ...(revision === null ? {} : { revision }),
  }));
}

/** Packs the whole studio; the ZIP is ended and can be piped. Photos are read as they are sent. */
export async function writeStudio(db: EntityManager, photos: PhotoFiles): Promise<ZipFile> {
  const zip = new ZipFile();
  zip.on('error', (error) => (zip.outputStream as Readable).destroy(error as Error));
  const json = (name: string, value: unknown): void => zip.addBuffer(Buffer.from(`${JSON.stringify(value)}\n`), name, ENTRY);
  const studio = await documentOf(db);
  const leftOut: NonNullable<StudioDocument['leftOut']> = [];
  for (const { id } of studio.trees) {
    const found = await loadTree(db, id).catch((error: unknown) => {
      if (!(error instanceof UnreadableTree)) throw error;
      leftOut.push({ id, why: error.problem.message });
    });
    if (!found) continue;
    zip.addBuffer(Buffer.from(writeTreeFile(found.tree)), treeName(id), ENTRY);
    json(actsName(id), await actsOf(db, id));
  }
  const out = new Set(leftOut.map((l) => l.id));
  json(STUDIO, { ...studio, trees: studio.trees.filter((t) => !out.has(t.id)), ...(leftOut.length ? { leftOut } : {}) });
  for (const id of photos.list())
    for (const size of ['full', 'small'] as const)
      // Opened when its turn comes; what has vanished by then breaks the file off, not the server.
      zip.addReadStreamLazy(photoName(id, size), { ...ENTRY, compress: false }, (done) => {
        const stream = createReadStream(photos.path(id, size));
        stream.once('open', () => done(null, stream)).once('error', (error) => done(error, stream));
      });
  zip.end();
  return zip;
}
