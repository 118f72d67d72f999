import { useCallback, useEffect, useState } from 'react';
import { liveQuery } from 'dexie';
import { paths, type WalkStop, type WalkView } from '@ustle/contract';
import type { Act } from '@ustle/core';
import { fateOf, send, type ApiError } from '../shared/http';
import { askToKeep, deviceDay, yardDay } from '../shared/day';
import { newId } from '../shared/new-id';
import { useWalk } from '../shared/queries';
import { refreshLists } from '../shared/traffic';
import { signed } from '../shared/who';
import { sendWaiting, WalkStore, type Answered, type Sent, type Waiting } from './queue';

const store = new WalkStore();
const RETRY_MS = 5_000;

/** The newest value of a question to the phone's own database. */
function useStored<T>(question: () => Promise<T>, first: T): T {
  const [value, setValue] = useState(first);
  useEffect(() => {
    const live = liveQuery(question).subscribe((found) => setValue(() => found));
    return () => live.unsubscribe();
    // The question asks for all there is, and never changes.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  return value;
}

async function sendOne({ tree, act }: Waiting): Promise<Sent> {
  try {
    await send(paths.acts(tree), { act });
    return { taken: true };
  } catch (error) {
    const fate = fateOf(error);
    return fate === 'refused' ? { refused: (error as ApiError).message } : fate;
  }
}

let sending: Promise<void> | null = null;
/** Sends what waits, one call at a time. */
export const flush = (): Promise<void> =>
  (sending ??= sendWaiting(store, sendOne)
    .then((all) => {
      if (all) refreshLists();
    })
    .finally(() => (sending = null)));

/** The same thing on every walk: a coil or a tie on a branch of a tree. */
export const keyOf = ({ tree, kind, branch, of }: WalkStop): string => `${tree} ${kind} ${branch} ${of}`;

export type Answer = { stop: WalkStop; said: string; act: Record<string, unknown> };

export interface Walking {
  view: WalkView | null;
  /** The walk is the one that was taken along: the server does not answer. */
  away: boolean;
  error: string | null;
  waiting: Waiting[];
  answered: Map<string, Answered>;
  /** Gives answers; `together`: at once, to be taken back at once. */
  answer: (answers: readonly Answer[], together?: boolean) => Promise<void>;
  /** Takes an answer of today back, whole, with those that were given with it: unsent it is let go of, sent it is withdrawn by further lines. */
  takeBack: (answered: Answered) => Promise<void>;
  /** A refused answer was read: it is sent again, or let go of. */
  again: (turn: number) => Promise<void>;
  letGo: (turn: number) => Promise<void>;
}

/** Today's walk, from the server or as it was taken along, with what was answered. */
export function useWalking(): Walking {
  const { data, error } = useWalk();
  const taken = useStored(() => store.round.get('round'), undefined);
  const waiting = useStored(() => store.waiting.toArray(), []);
  const answers = useStored(() => store.answered.toArray(), []);
  const view = data ?? taken?.view ?? null;
  useEffect(() => {
    if (data) void store.round.put({ key: 'round', view: data, on: deviceDay() });
  }, [data]);
  useEffect(() => {
    void flush();
    const timer = setInterval(() => void flush(), RETRY_MS);
    const now = (): void => void flush();
    window.addEventListener('online', now);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', now);
    };
  }, []);
  // A walk that was taken along goes on with the days: an answer is of the day on which it is given.
  const today = useCallback((): string => (data ? data.on : taken ? yardDay(taken.view.on, taken.on ?? taken.view.on) : ''), [data, taken]);
  const answer = useCallback(
    async (given: readonly Answer[], together = false) => {
      const on = today();
      askToKeep();
      const made = given.map(({ stop, said, act }) => ({ stop, said, act: { on, ...act, id: newId(), ...signed() } as unknown as Act }));
      const aboutOf = ({ treeName, name }: WalkStop): string => `${treeName}, ${name}`;
      await store.answer(
        made.map(({ stop, act }): Waiting => ({ id: act.id, tree: stop.tree, about: aboutOf(stop), act, refused: null })),
        made.map(({ stop, said, act }): Answered => ({
          key: keyOf(stop),
          on,
          said,
          about: aboutOf(stop),
          act: act.id,
          ...(together ? { group: made[0]!.act.id } : {}),
        })),
      );
      void flush();
    },
    [today],
  );
  const takeBack = useCallback(
    async (one: Answered) => {
      await (sending ?? Promise.resolve());
      const all = one.group ? (await store.answered.toArray()).filter((a) => a.group === one.group && a.on === one.on) : [one];
      await store.takeBack(all, (act, { key, about = key }) => {
        const withdraw = { kind: 'withdrawn', corrects: act, id: newId(), on: today(), ...signed() } as Act;
        return { id: withdraw.id, tree: key.split(' ')[0]!, about, act: withdraw, refused: null };
      });
      void flush();
    },
    [today],
  );
  return {
    view,
    away: error !== undefined,
    error: view ? null : (error?.message ?? null),
    waiting,
    answered: new Map(answers.filter((a) => view !== null && a.on >= view.on).map((a) => [a.key, a])),
    answer,
    takeBack,
    again: async (turn) => {
      await store.waiting.update(turn, { refused: null });
      void flush();
    },
    letGo: async (turn) => {
      await store.waiting.delete(turn);
    },
  };
}
