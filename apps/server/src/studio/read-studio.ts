import type { Readable } from 'node:stream';
import { open, type Entry, type ZipFile } from 'yauzl';
import { ProblemException } from '../problem.js';
import { entryOf, MOST_BYTES, MOST_ENTRIES, MOST_TEXT, MOST_TOTAL, type EntryKind } from './studio-file.js';

/** Something that is in the file, with what reads it. */
export interface Found {
  name: string;
  kind: EntryKind;
  id: string;
  size: 'full' | 'small';
  read: () => Promise<Buffer>;
}

const no = (code: string, message: string): ProblemException => new ProblemException(400, { code, field: 'file', message: `${message} Nothing was changed.` });

/** Why an entry cannot be taken, judged by what the ZIP says of it; null where it can. */
function faultOf(entry: Entry, kind: EntryKind | null): ProblemException | null {
  const name = entry.fileName.slice(0, 80);
  if (kind === null) return no('name', `"${name}" has no place in the file of a studio.`);
  if (entry.isEncrypted()) return no('encrypted', `"${name}" is locked with a password.`);
  if (entry.uncompressedSize > MOST_BYTES[kind])
    return no('too-large', `"${name}" unpacks to ${Math.round(entry.uncompressedSize / 1e6)} MB, more than such a part ever has.`);
  return null;
}

const bytesOf = async (stream: Readable): Promise<Buffer> => {
  const parts: Buffer[] = [];
  for await (const part of stream) parts.push(part as Buffer);
  return Buffer.concat(parts);
};

/** Opens the file of a studio and looks at all its names and sizes before anything is unpacked; refuses it whole. The caller closes it. */
export async function openStudio(file: string): Promise<{ zip: ZipFile; found: Found[] }> {
  const damaged = (error: unknown): ProblemException =>
    no(
      'not-a-studio',
      `This is not the file of a studio, or it is damaged${/(relative|absolute|characters)/i.test(String(error)) ? ': it names a path outside of itself' : ''}.`,
    );
  // What unpacks to more than it says is broken off by the reader.
  const zip = await new Promise<ZipFile>((done, fail) =>
    open(file, { lazyEntries: true, autoClose: false, strictFileNames: true, validateEntrySizes: true }, (error, opened) =>
      error ? fail(damaged(error)) : done(opened),
    ),
  );
  const found: Found[] = [];
  const names = new Set<string>();
  let [total, text] = [0, 0];
  const read = (entry: Entry): Promise<Buffer> =>
    new Promise<Buffer>((done, fail) =>
      zip.openReadStream(entry, (error, stream) => (error ? fail(damaged(error)) : bytesOf(stream).then(done, (e: unknown) => fail(damaged(e))))),
    );
  try {
    await new Promise<void>((done, fail) => {
      zip.on('error', (error) => fail(damaged(error)));
      zip.on('end', done);
      zip.on('entry', (entry: Entry) => {
        const of = entryOf(entry.fileName);
        total += entry.uncompressedSize;
        if (of?.kind !== 'photo') text += entry.uncompressedSize;
        const own = entry.fileName.toLowerCase();
        const fault =
          faultOf(entry, of?.kind ?? null) ??
          (names.has(own) ? no('twice', `"${entry.fileName.slice(0, 80)}" is in it twice.`) : null) ??
          (names.size >= MOST_ENTRIES || text > MOST_TEXT || total > MOST_TOTAL ? no('too-large', 'It unpacks to more than a studio ever has.') : null);
        if (fault) return fail(fault);
        names.add(own);
        found.push({ name: entry.fileName, ...of!, read: () => read(entry) });
        return zip.readEntry();
      });
      zip.readEntry();
    });
  } catch (error) {
    zip.close();
    throw error;
  }
  return { zip, found };
}
