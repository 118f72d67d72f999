import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { LessThan } from 'typeorm';
import { isoOf } from '@ustle/core';
import { Clock } from '../store/clock.service.js';
import { SessionRow } from '../store/entities.js';
import { Settings } from '../store/settings.service.js';
import { Store } from '../store/store.service.js';

const KEY_BYTES = 32;
export const SESSION_DAYS = 180;

interface Kept {
  salt: string;
  hash: string;
}

const stretched = (passphrase: string, salt: string): Promise<Buffer> =>
  new Promise((done, fail) => scrypt(passphrase.normalize('NFC'), salt, KEY_BYTES, (error, key) => (error ? fail(error) : done(key))));
const freshKey = (): string => randomBytes(18).toString('base64url');
const hashOf = (token: string): string => createHash('sha256').update(token).digest('base64url');

/** Who of the network is let in: devices that gave the passphrase. The machine itself always is. */
@Injectable()
export class AccessService {
  constructor(
    private readonly store: Store,
    private readonly settings: Settings,
    private readonly clock: Clock,
  ) {}

  async hasPassphrase(): Promise<boolean> {
    return this.store.read(async (db) => (await this.settings.read(db, 'passphrase', null)) !== null);
  }

  /** Sets the passphrase; devices that were let in by the one before have to give the new one, and the calendar has another address. */
  async setPassphrase(passphrase: string): Promise<void> {
    const salt = randomBytes(16).toString('base64url');
    const hash = (await stretched(passphrase, salt)).toString('base64url');
    await this.store.write(async ({ db }) => {
      await this.settings.write(db, 'passphrase', { salt, hash } satisfies Kept);
      await this.settings.write(db, 'feedKey', freshKey());
      await db.clear(SessionRow);
    });
  }

  /** A token for a device that says the passphrase; null where it is another. */
  async enter(passphrase: string): Promise<string | null> {
    const kept = (await this.store.read((db) => this.settings.read(db, 'passphrase', null))) as Kept | null;
    if (!kept) return null;
    const said = await stretched(passphrase, kept.salt);
    if (!timingSafeEqual(said, Buffer.from(kept.hash, 'base64url'))) return null;
    const token = randomBytes(KEY_BYTES).toString('base64url');
    await this.store.write(async ({ db }) => {
      await db.delete(SessionRow, { since: LessThan(isoOf(this.clock.today() - SESSION_DAYS)) });
      await db.insert(SessionRow, { token: hashOf(token), since: this.clock.todayIso() });
    });
    return token;
  }

  async leave(token: string): Promise<void> {
    await this.store.write(({ db }) => db.delete(SessionRow, { token: hashOf(token) }));
  }

  async isInside(token: string | undefined): Promise<boolean> {
    if (!token) return false;
    const row = await this.store.read((db) => db.findOneBy(SessionRow, { token: hashOf(token) }));
    return row !== null && row.since >= isoOf(this.clock.today() - SESSION_DAYS);
  }

  /** The word in the address by which a calendar program may read the season without a passphrase. */
  async feedKey(): Promise<string> {
    const known = (await this.store.read((db) => this.settings.read(db, 'feedKey', null))) as string | null;
    if (known) return known;
    return this.renewFeedKey();
  }

  /** Gives the calendar another address; who has the old one reads it no more. */
  async renewFeedKey(): Promise<string> {
    const key = freshKey();
    await this.store.write(({ db }) => this.settings.write(db, 'feedKey', key));
    return key;
  }
}
