/** Gives what was made from the same before, else makes it. The key names all that it is made from. */
export type Keep = <T>(key: string, make: () => T) => T;

/** What so many rounds in a row did not ask for is forgotten: an act taken back finds all as it was. */
const ROUNDS = 6;

/** Things made before, by what they were made from. */
export class Kept {
  private round = 0;
  private readonly all = new Map<string, Entry>();
  /** What is being made just now. */
  private making: Entry | null = null;

  nextRound(): void {
    this.round++;
    for (const [key, { asked }] of this.all) if (asked < this.round - ROUNDS) this.all.delete(key);
  }

  readonly keep: Keep = <T>(key: string, make: () => T): T => {
    const before = this.all.get(key);
    const entry = before ?? { made: undefined, asked: this.round, within: [] };
    this.making?.within.push(entry);
    if (before) {
      this.askedAgain(before);
      return before.made as T;
    }
    const around = this.making;
    this.making = entry;
    try {
      entry.made = make();
    } finally {
      this.making = around;
    }
    this.all.set(key, entry);
    return entry.made as T;
  };

  /** With a thing all that it was made with is kept. */
  private askedAgain(entry: Entry): void {
    if (entry.asked === this.round) return;
    entry.asked = this.round;
    for (const part of entry.within) this.askedAgain(part);
  }
}

interface Entry {
  made: unknown;
  /** In which round it was asked for the last time. */
  asked: number;
  /** What was asked for while it was made. */
  within: Entry[];
}

/** Nothing is kept. */
export const keepNothing: Keep = (_key, make) => make();

const serials = new WeakMap<object, number>();
let given = 0;
/** A number of its own for every object: the same object has the same one. */
export function serialOf(of: object): number {
  const before = serials.get(of);
  if (before) return before;
  serials.set(of, ++given);
  return given;
}

export const serialsOf = (of: readonly object[]): string => of.map(serialOf).join();

/** The same whatever their order. */
export const serialsAnyhow = (of: readonly object[]): string =>
  of
    .map(serialOf)
    .sort((a, b) => a - b)
    .join();
