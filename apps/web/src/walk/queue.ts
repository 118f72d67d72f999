import Dexie, { type Table } from 'dexie';
import type { WalkView } from '@ustle/contract';
import type { Act } from '@ustle/core';

/** An answer of the walk that the server has not taken yet, or that it refused. */
export interface Waiting {
  /** The act's own id: however often it is sent, it is done once. */
  id: string;
  /** Counts up as answers are given: they are sent in that order. */
  turn?: number;
  tree: string;
  /** The tree and the branch in words, to be told where it is refused. */
  about: string;
  act: Act;
  /** Why the server does not take it; it stays here until somebody has read that. */
  refused: string | null;
}

/** What was answered of a thing today, so that it is not asked twice. */
export interface Answered {
  key: string;
  on: string;
  said: string;
  /** The tree and the branch in words; missing in older ones. */
  about?: string;
  /** The last act that tells it, and all of them, in turn; one alone in older ones. */
  act: string;
  acts?: string[];
  /** Answered with others at once: taken back with them. */
  group?: string;
}

/** The acts that an answer was given by, oldest first. */
export const actsOf = ({ act, acts = [act] }: Answered): string[] => [...acts];

/** What a phone takes along, in its own database: the walk, what was answered, and what waits to be sent. */
export class WalkStore extends Dexie {
  waiting!: Table<Waiting, number>;
  answered!: Table<Answered, string>;
  round!: Table<{ key: 'round'; view: WalkView; /** The device's own day when it came; missing in older ones. */ on?: string }, string>;

  constructor(name = 'ustle-walk') {
    super(name);
    this.version(1).stores({ waiting: '++turn, &id', answered: 'key, act', round: 'key' });
  }

  /** Keeps answers together with the acts that tell them: both or none. */
  answer(waiting: readonly Waiting[], answered: readonly Answered[]): Promise<void> {
    return this.transaction('rw', this.waiting, this.answered, async () => {
      for (const w of waiting) if (!(await this.waiting.where('id').equals(w.id).count())) await this.waiting.add({ ...w });
      for (const a of answered) {
        const before = await this.answered.get(a.key);
        await this.answered.put({ ...a, acts: [...(before?.on === a.on ? actsOf(before) : []), ...actsOf(a)] });
      }
    });
  }

  /** Lets go of what was answered: of acts that were not sent nothing is left, those that were are withdrawn, the last first. */
  takeBack(answered: readonly Answered[], withdraw: (act: string, answered: Answered) => Waiting): Promise<void> {
    return this.transaction('rw', this.waiting, this.answered, async () => {
      for (const a of answered) {
        for (const act of actsOf(a).reverse()) {
          const unsent = await this.waiting.where('id').equals(act).first();
          if (unsent) await this.waiting.delete(unsent.turn!);
          else await this.waiting.add(withdraw(act, a));
        }
        await this.answered.delete(a.key);
      }
    });
  }
}

/** What became of an act that was sent: taken, refused with a sentence, to be sent later by itself, or nobody there. */
export type Sent = { taken: true } | { refused: string } | 'later' | 'away';

/** Sends what waits, the oldest first, and leaves what is refused where it can be read. Stops where nobody answers; what the server stumbles over does not hold up the others. Resolves to whether all was answered. */
export async function sendWaiting(store: WalkStore, send: (waiting: Waiting) => Promise<Sent>): Promise<boolean> {
  let after = -1;
  let all = true;
  for (;;) {
    const next = await store.waiting
      .where('turn')
      .above(after)
      .filter((w) => w.refused === null)
      .first();
    if (!next) return all;
    const sent = await send(next);
    if (sent === 'away') return false;
    after = next.turn!;
    if (sent === 'later') all = false;
    else if ('taken' in sent) await store.waiting.delete(next.turn!);
    else await store.waiting.update(next.turn!, { refused: sent.refused });
  }
}
