import { copyFileSync, existsSync, mkdirSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'libsql';
import { DATA_FILE } from './folder.js';
import { FolderLock } from './folder-lock.js';

/** What a file of ours has at least. */
const TABLES = ['migrations', 'tree'];

function openSound(file: string): Database.Database {
  const no = (): Error => new Error(`"${file}" is not a sound copy of Ustle's data. Nothing was changed.`);
  let db: Database.Database;
  try {
    db = new Database(file, { readonly: true });
  } catch {
    throw no();
  }
  try {
    const [check] = db.prepare('PRAGMA integrity_check').all() as { integrity_check: string }[];
    const names = (db.prepare(`SELECT name FROM sqlite_master WHERE type = 'table'`).all() as { name: string }[]).map((t) => t.name);
    if (check?.integrity_check === 'ok' && TABLES.every((t) => names.includes(t))) return db;
  } catch {
    // Not a database at all.
  }
  db.close();
  throw no();
}

/** Copies all data of a folder into one new file, also while a server uses it; fails where there is no data or the file is there already. */
export function backupTo(folder: string, file: string): void {
  const from = join(folder, DATA_FILE);
  if (!existsSync(from)) throw new Error(`There is no data in "${folder}". Set USTLE_DATA to the folder that Ustle was started with.`);
  if (existsSync(file)) throw new Error(`"${file}" is there already. Nothing was changed; name a new file.`);
  const db = new Database(from);
  try {
    db.exec('PRAGMA busy_timeout = 5000');
    db.prepare('VACUUM INTO ?').run(file);
  } finally {
    db.close();
  }
  openSound(file).close();
}

/**
 * Puts a copy in the place of a folder's data, which is kept beside it; resolves to where, null where there was none.
 * Fails, with nothing changed, where a server uses the folder or the copy is not sound.
 */
export function restoreFrom(folder: string, file: string): string | null {
  openSound(file).close();
  mkdirSync(folder, { recursive: true });
  const lock = new FolderLock(folder);
  lock.take();
  try {
    const data = join(folder, DATA_FILE);
    const fresh = `${data}.new`;
    copyFileSync(file, fresh);
    openSound(fresh).close();
    const kept = existsSync(data) ? setAside(data) : null;
    renameSync(fresh, data);
    return kept;
  } finally {
    lock.release();
  }
}

/** Renames the data there was to the next free name, with what a server that was killed left beside it; it need not be sound. */
function setAside(data: string): string {
  let n = 1;
  while (existsSync(`${data}.before-${n}`)) n++;
  const kept = `${data}.before-${n}`;
  for (const beside of ['', '-wal', '-shm']) if (existsSync(data + beside)) renameSync(data + beside, kept + beside);
  return kept;
}
