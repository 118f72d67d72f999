import type { OnLimb } from './limb-work.js';

/** What came of the pieces on one limb, and by which branch each that was left is lain against. */
export interface LimbOutcome extends OnLimb {
  against: ReadonlyMap<string, string>;
}

/** Outcomes of the plan before, limb by limb: where all that matters to one is as it was, it is not worked out again. */
export class WiringMemory {
  private readonly limbs = new Map<string, { key: string; outcome: LimbOutcome }>();

  outcomeOf(limb: string, key: string, workOut: () => LimbOutcome): LimbOutcome {
    const before = this.limbs.get(limb);
    if (before?.key === key) return before.outcome;
    const outcome = workOut();
    this.limbs.set(limb, { key, outcome });
    return outcome;
  }
}

const serials = new WeakMap<object, number>();
let given = 0;
/** A number of its own for every object: the same object has the same one. */
export function serialOf(of: object): number {
  const before = serials.get(of);
  if (before) return before;
  serials.set(of, ++given);
  return given;
}
