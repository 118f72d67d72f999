import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import { Mutex } from 'async-mutex';
import Database from 'libsql';
import { DataSource, type EntityManager } from 'typeorm';
import { ENTITIES } from './entities.js';
import { MIGRATIONS } from './migrations.js';

/**
 * The database. SQLite has one connection here, so pieces of work take turns: one that reads never sees the half of another's
 * transaction, and each writing one is a transaction of its own.
 */
@Injectable()
export class Store implements OnModuleInit, OnModuleDestroy {
  private readonly turn = new Mutex();
  private source!: DataSource;

  async onModuleInit(): Promise<void> {
    const folder = process.env.USTLE_DATA ?? '.data';
    mkdirSync(folder, { recursive: true });
    this.source = new DataSource({
      type: 'better-sqlite3',
      driver: Database,
      database: join(folder, 'ustle.sqlite'),
      entities: ENTITIES,
      migrations: MIGRATIONS,
      migrationsRun: true,
      synchronize: false,
      enableWAL: true,
      prepareDatabase: (db: { exec(sql: string): void }) => {
        db.exec('PRAGMA foreign_keys = ON');
        db.exec('PRAGMA synchronous = FULL');
        db.exec('PRAGMA busy_timeout = 5000');
      },
    });
    await this.source.initialize();
  }

  async onModuleDestroy(): Promise<void> {
    await this.source?.destroy();
  }

  read<T>(work: (db: EntityManager) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(() => work(this.source.manager));
  }

  /** One transaction: all of it is stored when this resolves, or none of it. */
  write<T>(work: (db: EntityManager) => Promise<T>): Promise<T> {
    return this.turn.runExclusive(() => this.source.transaction(work));
  }
}
