import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { SettingRow } from './entities.js';

/** What the yard has chosen, each under a name of its own. */
@Injectable()
export class Settings {
  async read(db: EntityManager, name: string, otherwise: unknown): Promise<unknown> {
    const row = await db.findOneBy(SettingRow, { name });
    return row ? (JSON.parse(row.document) as unknown) : otherwise;
  }

  async write(db: EntityManager, name: string, value: unknown): Promise<void> {
    await db.upsert(SettingRow, { name, document: JSON.stringify(value) }, ['name']);
  }
}
