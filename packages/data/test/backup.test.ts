import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'libsql';
import { backupTo, DATA_FILE, FolderLock, restoreFrom } from '../src/index.js';

const fresh = (): string => mkdtempSync(join(tmpdir(), 'ustle-data-'));

/** A folder with data in it: one tree by the given name. */
function withTree(name: string): string {
  const folder = fresh();
  const db = new Database(join(folder, DATA_FILE));
  db.exec('PRAGMA journal_mode = WAL; CREATE TABLE migrations (name text); CREATE TABLE tree (name text)');
  db.prepare('INSERT INTO tree VALUES (?)').run(name);
  db.close();
  return folder;
}
function namesIn(file: string): string[] {
  const db = new Database(file, { readonly: true });
  const names = (db.prepare('SELECT name FROM tree').all() as { name: string }[]).map((t) => t.name);
  db.close();
  return names;
}
/** What is in a folder, but for what SQLite keeps beside a file while somebody reads it. */
const filesIn = (folder: string): string[] =>
  readdirSync(folder)
    .filter((f) => !/-(wal|shm)$/.test(f))
    .sort();

test('a copy is made while the data is in use, holds what was committed and not what was not, and is one file', () => {
  const folder = withTree('Squall');
  const user = new Database(join(folder, DATA_FILE));
  user.prepare('INSERT INTO tree VALUES (?)').run('Lantern');
  user.exec('BEGIN IMMEDIATE');
  user.prepare('INSERT INTO tree VALUES (?)').run('half done');
  const copies = fresh();
  backupTo(folder, join(copies, 'copy.sqlite'));
  user.exec('ROLLBACK');
  user.close();
  expect(readdirSync(copies)).toEqual(['copy.sqlite']);
  expect(namesIn(join(copies, 'copy.sqlite'))).toEqual(['Squall', 'Lantern']);
  const before = readFileSync(join(copies, 'copy.sqlite'));
  expect(() => backupTo(folder, join(copies, 'copy.sqlite'))).toThrow(/is there already/);
  expect(readFileSync(join(copies, 'copy.sqlite')).equals(before)).toBe(true);
  expect(() => backupTo(fresh(), join(copies, 'none.sqlite'))).toThrow(/There is no data in/);
});

test('restored, a folder holds what the copy did; what it held is kept beside it, also what a killed server had not yet merged', () => {
  const copy = join(fresh(), 'copy.sqlite');
  backupTo(withTree('Old'), copy);
  const folder = withTree('New');
  // A process that ends in the middle leaves its last writes in the file beside.
  const write = `const D = require(${JSON.stringify(require.resolve('libsql'))}); const db = new D(process.argv[1]); db.exec("PRAGMA journal_mode = WAL; INSERT INTO tree VALUES ('Newer')"); process.kill(process.pid, 'SIGKILL')`;
  try {
    execFileSync(process.execPath, ['-e', write, join(folder, DATA_FILE)]);
  } catch {
    // It was killed, as meant.
  }
  const kept = restoreFrom(folder, copy)!;
  expect(namesIn(join(folder, DATA_FILE))).toEqual(['Old']);
  expect(namesIn(kept)).toEqual(['New', 'Newer']);
  expect(restoreFrom(folder, copy)).not.toBe(kept);
  expect(filesIn(folder)).toEqual([DATA_FILE, `${DATA_FILE}.before-1`, `${DATA_FILE}.before-2`]);
  expect(restoreFrom(join(fresh(), 'deeper'), copy)).toBeNull();
});

test('nothing is restored from what is no sound copy, nor under a server', () => {
  const folder = withTree('Stays');
  const copy = join(fresh(), 'copy.sqlite');
  backupTo(folder, copy);
  const whole = readFileSync(copy);
  const files = { 'text.sqlite': Buffer.from('not a database at all'), 'torn.sqlite': whole.subarray(0, whole.length - 4096), 'other.sqlite': Buffer.alloc(0) };
  for (const [name, content] of Object.entries(files)) {
    const file = join(fresh(), name);
    writeFileSync(file, content);
    expect(() => restoreFrom(folder, file)).toThrow(/is not a sound copy/);
  }
  expect(() => restoreFrom(folder, join(fresh(), 'missing.sqlite'))).toThrow(/is not a sound copy/);
  const lock = new FolderLock(folder);
  lock.take();
  lock.tell('http://localhost:4999');
  expect(() => restoreFrom(folder, copy)).toThrow(/Another Ustle uses this folder already at http:\/\/localhost:4999/);
  lock.release();
  expect(namesIn(join(folder, DATA_FILE))).toEqual(['Stays']);
  expect(filesIn(folder)).toEqual([DATA_FILE]);
});
