import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'libsql';

/** One server to a folder: the lock is the operating system's, so it goes with the process, however that ends. */
export class FolderLock {
  private held: Database.Database | null = null;
  private readonly lock: string;
  private readonly note: string;

  constructor(folder: string) {
    this.lock = join(folder, 'in-use');
    this.note = join(folder, 'in-use.txt');
  }

  /** Takes the folder; where another server has it, fails with where that one is. */
  take(): void {
    const lock = new Database(this.lock);
    try {
      lock.exec('PRAGMA locking_mode = EXCLUSIVE; PRAGMA journal_mode = DELETE; BEGIN EXCLUSIVE');
    } catch {
      lock.close();
      const where = existsSync(this.note) ? ` at ${readFileSync(this.note, 'utf8').trim()}` : '';
      throw new Error(`Another Ustle uses this folder already${where}. Stop that one, or set USTLE_DATA to another folder.`);
    }
    this.held = lock;
  }

  /** Notes where this server is, for the next one that asks. */
  tell(address: string): void {
    writeFileSync(this.note, `${address}\n`);
  }

  release(): void {
    if (!this.held) return;
    this.held.close();
    this.held = null;
    for (const file of [this.note, this.lock, `${this.lock}-journal`]) rmSync(file, { force: true });
  }
}
