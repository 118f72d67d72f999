/** Gives what was made from the same before, else makes it. The key names all that it is made from. */
export type Keep = <T>(key: string, make: () => T) => T;

/** What so many rounds in a row did not ask for is forgotten: an act taken back finds all as it was. */
const ROUNDS = 6;

/** Things made before, by what they were made from. */
export class Kept {
  private round = 0;
  private readonly all = new Map<string, { made: unknown; asked: number }>();

  nextRound(): void {
    this.round++;
    for (const [key, { asked }] of this.all) if (asked < this.round - ROUNDS) this.all.delete(key);
  }

  readonly keep: Keep = <T>(key: string, make: () => T): T => {
    const before = this.all.get(key);
    if (before) {
      before.asked = this.round;
      return before.made as T;
    }
    const made = make();
    this.all.set(key, { made, asked: this.round });
    return made;
  };
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
