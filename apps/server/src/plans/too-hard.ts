/** So long nobody waits anew for what took too long; later it is tried again, for it may have been the machine that was busy. */
const FOR_MS = 600_000;

/** Things on which work took too long lately. */
export class TooHard {
  private readonly until = new WeakMap<object, number>();

  /** `now` tells the time that passes, ms. */
  constructor(private readonly now: () => number = () => performance.now()) {}

  has(of: object): boolean {
    return this.now() < (this.until.get(of) ?? -Infinity);
  }

  /** Remembers a thing; what is remembered already is so no longer for being asked for meanwhile. */
  add(of: object): void {
    if (!this.has(of)) this.until.set(of, this.now() + FOR_MS);
  }
}
