import { Injectable, type OnModuleDestroy, type OnModuleInit } from '@nestjs/common';
import type { MailView } from '@ustle/contract';
import { BenchService } from '../bench/bench.service.js';
import { Clock } from '../store/clock.service.js';
import { MailRow } from '../store/entities.js';
import { Store } from '../store/store.service.js';
import { noticeOf } from './notice.js';

const HOUR_MS = 3_600_000;
const MOST_SHOWN = 50;

/** A mail box as a mail server would be behind it: what is sent is delivered once, however often it is tried. */
export interface MailBox {
  send(mail: MailView): Promise<void>;
  all(): Promise<MailView[]>;
}

/** Stands in for a mail server: notices lie in the database. */
class SimulatedMailBox implements MailBox {
  constructor(private readonly store: Store) {}

  send(mail: MailView): Promise<void> {
    return this.store.write(async ({ db }) => {
      if (!(await db.existsBy(MailRow, { id: mail.id }))) await db.insert(MailRow, mail);
    });
  }

  all(): Promise<MailView[]> {
    return this.store.read((db) => db.find(MailRow, { order: { on: 'DESC', id: 'ASC' }, take: MOST_SHOWN }));
  }
}

/** Sends a notice the day before each walk, and on its day. */
@Injectable()
export class MailService implements OnModuleInit, OnModuleDestroy {
  private readonly box: MailBox;
  private timer: NodeJS.Timeout | undefined;

  constructor(
    store: Store,
    private readonly bench: BenchService,
    private readonly clock: Clock,
  ) {
    this.box = new SimulatedMailBox(store);
  }

  onModuleInit(): void {
    this.timer = setInterval(() => void this.look().catch(() => undefined), HOUR_MS);
    this.timer.unref();
  }

  onModuleDestroy(): void {
    clearInterval(this.timer);
  }

  private async look(): Promise<void> {
    const notice = noticeOf(await this.bench.walk());
    if (notice && !(await this.box.all()).some((m) => m.id === notice.id)) await this.box.send(notice);
  }

  /** What lies in the box, the newest first; what is due is sent before. */
  async all(): Promise<MailView[]> {
    await this.look();
    return (await this.box.all()).filter((m) => m.on <= this.clock.todayIso());
  }
}
