import { existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { basename, join } from 'node:path';
import { Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { Mutex } from 'async-mutex';
import { DATA_FILE, dataFolder, FolderLock } from '@ustle/data';
import Database from 'libsql';
import { DataSource, type EntityManager } from 'typeorm';
import { ProblemException, storeProblem } from '../problem.js';
import { ENTITIES } from './entities.js';
import { MIGRATIONS } from './migrations/index.js';

/** What the disk calls a file; null where there is none. */
function placeOf(file: string): string | null {
  const found = statSync(file, { throwIfNoEntry: false });
  return found ? `${found.dev}/${found.ino}` : null;
}

/** One piece of writing work: the database within its transaction, and what is to be done once that is on the disk. */
export interface Writing {
  db: EntityManager;
  whenStored: (then: () => void) => void;
}

/**
 * The database. SQLite has one connection here, so pieces of work take turns: one that reads never sees the half of another's
 * transaction, and each writing one is a transaction of its own, begun and ended here and nowhere else.
 */
@Injectable()
export class Store implements OnModuleInit, OnModuleDestroy {
  private readonly turn = new Mutex();
  private readonly folder = dataFolder();
  readonly lock = new FolderLock(this.folder);
  private source!: DataSource;
  /** How often something was written since the start: what was read at the same count is still so. */
  writes = 0;
  /** The file that was opened, by what the disk calls it. */
  private place: string | null = null;

  async onModuleInit(): Promise<void> {
    mkdirSync(this.folder, { recursive: true });
    this.lock.take();
    this.refuseNewer(join(this.folder, DATA_FILE));
    this.source = new DataSource({
      type: 'better-sqlite3',
      driver: Database,
      database: join(this.folder, DATA_FILE),
      entities: ENTITIES,
      migrations: MIGRATIONS,
      migrationsRun: false,
      synchronize: false,
      enableWAL: true,
      prepareDatabase: (db: { exec(sql: string): void }) => {
        db.exec('PRAGMA foreign_keys = ON');
        db.exec('PRAGMA synchronous = FULL');
        db.exec('PRAGMA busy_timeout = 5000');
      },
    });
    const file = join(this.folder, DATA_FILE);
    const fresh = !existsSync(file);
    await this.source.initialize();
    if (!fresh) await this.copyBeforeMigrations();
    await this.source.runMigrations();
    this.place = placeOf(file);
  }

  /** A copy of all data as it was, beside it, before its shape is changed; where there is no room for one, nothing is changed. */
  private async copyBeforeMigrations(): Promise<void> {
    const table = (await this.source.query(`SELECT name FROM sqlite_master WHERE name = 'migrations'`)) as unknown[];
    const done = new Set(table.length ? ((await this.source.query('SELECT name FROM migrations')) as { name: string }[]).map((m) => m.name) : []);
    const next = MIGRATIONS.map((M) => new M().name).find((name) => !done.has(name));
    if (!next) return;
    const copy = join(this.folder, `${DATA_FILE}.before-${next}`);
    if (existsSync(copy)) return;
    const half = `${copy}.new`;
    rmSync(half, { force: true });
    try {
      await this.source.query('VACUUM INTO ?', [half]);
      renameSync(half, copy);
    } catch (error) {
      rmSync(half, { force: true });
      throw new Error(
        `The data in ${this.folder} is of an earlier version, and there is no room for a copy of it before it is changed: ${String(error)}. Nothing was changed.`,
        { cause: error },
      );
    }
  }

  /** The data is still where it was opened: a folder that was deleted or moved away would take what is written with it. */
  private stillThere(): void {
    if (placeOf(join(this.folder, DATA_FILE)) === this.place) return;
    throw new ProblemException(507, {
      code: 'moved',
      message: `The folder of the data is not where it was (${basename(this.folder)}): this was not stored. Put it back, or stop Ustle and start it with the folder as it is now.`,
    });
  }

  /** A database that a later version wrote holds what this one would lose: it is only read here, and left as it is. */
  private refuseNewer(file: string): void {
    if (!existsSync(file)) return;
    const db = new Database(file, { readonly: true });
    const known = new Set<string>(MIGRATIONS.map((M) => new M().name));
    try {
      const table = db.prepare(`SELECT name FROM sqlite_master WHERE name = 'migrations'`).get();
      const done = table ? (db.prepare('SELECT name FROM migrations').all() as { name: string }[]) : [];
      if (done.every(({ name }) => known.has(name))) return;
    } finally {
      db.close();
    }
    throw new Error(`The data in ${this.folder} was written by a newer Ustle. Nothing was changed; use that version.`);
  }

  /** Everything is in the one file again before the folder is let go of. */
  async onModuleDestroy(): Promise<void> {
    await this.turn.runExclusive(async () => {
      if (this.source?.isInitialized) {
        await this.source.query('PRAGMA journal_mode = DELETE').catch(() => undefined);
        await this.source.destroy();
      }
      this.lock.release();
    });
  }

  read<T>(work: (db: EntityManager) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(() => work(this.source.manager));
  }

  /** One transaction: all of it is on the disk when this resolves, or none of it. */
  write<T>(work: (writing: Writing) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(async () => {
      const after: (() => void)[] = [];
      this.stillThere();
      await this.run('BEGIN IMMEDIATE');
      try {
        const result = await work({ db: this.source.manager, whenStored: (then) => after.push(then) });
        await this.run('COMMIT');
        this.writes++;
        after.forEach((then) => then());
        this.stillThere();
        return result;
      } catch (error) {
        // Where the disk is full SQLite has rolled back by itself.
        await this.source.query('ROLLBACK').catch(() => undefined);
        throw storeProblem(error) ?? error;
      }
    });
  }

  private async run(statement: string): Promise<void> {
    try {
      await this.source.query(statement);
    } catch (error) {
      throw storeProblem(error) ?? error;
    }
  }

  /** A copy of all data as one file, made while the server runs. */
  async copyTo(file: string): Promise<void> {
    await this.turn
      .runExclusive(() => this.source.query('VACUUM INTO ?', [file]))
      .catch((error: unknown) => {
        throw storeProblem(error) ?? error;
      });
  }
}
