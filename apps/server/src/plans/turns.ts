import { Mutex, Semaphore } from 'async-mutex';

/** Runs work on a thread; ends the thread where the signal says so. */
export interface Threads {
  run(task: unknown, options: { name: string; signal: AbortSignal }): Promise<unknown>;
}

/** Work was not done within its time; its thread was ended. */
export class TooLong extends Error {}

/**
 * Turns at some threads. The time that work may take begins with its turn, not in the queue; work on one thing takes its turns
 * one after the other, so that a hard one never holds more than one thread.
 */
export class Turns {
  private readonly free: Semaphore;
  private readonly own = new WeakMap<object, Mutex>();

  constructor(
    private readonly threads: Threads,
    count: number,
  ) {
    this.free = new Semaphore(count);
  }

  /** Fails with TooLong after so many seconds, with an AbortError where nobody waits any more. `before` looks once its turn has come. */
  take<T>(
    name: string,
    task: { tree: object; [more: string]: unknown },
    seconds: number,
    { asked, before }: { asked?: AbortSignal | undefined; before?: () => void } = {},
  ): Promise<T> {
    const own = this.own.get(task.tree) ?? new Mutex();
    this.own.set(task.tree, own);
    return own.runExclusive(() => {
      before?.();
      return this.free.runExclusive(async () => {
        asked?.throwIfAborted();
        const over = AbortSignal.timeout(seconds * 1000);
        try {
          return (await this.threads.run(task, { name, signal: AbortSignal.any([over, ...(asked ? [asked] : [])]) })) as T;
        } catch (error) {
          throw over.aborted && !asked?.aborted ? new TooLong(name, { cause: error }) : error;
        }
      });
    });
  }
}
