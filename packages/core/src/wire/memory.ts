import { Kept, type Keep } from '../units/index.js';
import type { Limb } from '../space/index.js';
import { FlatBark } from './flat-bark.js';
import type { OnLimb } from './limb-work.js';

/** What came of the pieces on one limb, and by which branch each that was left is lain against. */
export interface LimbOutcome extends OnLimb {
  against: ReadonlyMap<string, string>;
}

interface LimbMemory {
  key: string;
  outcome: LimbOutcome | null;
  kept: Kept;
}

/** What the plan before was worked out with, so that only what a change concerns is worked out anew: whole limbs, and on a limb of which something changed its shoulders, ways, coils and paths. */
export class PlanMemory {
  private readonly limbs = new Map<string, LimbMemory>();
  private readonly barks = new Map<string, { bark: FlatBark; parent: FlatBark | null }>();
  private readonly ofTree = new Kept();

  /** To be called before each plan. */
  begin(): void {
    this.ofTree.nextRound();
  }

  readonly keep: Keep = (key, make) => this.ofTree.keep(key, make);

  /** The bark of a limb: the same object as long as the limb, and what it grows on, are as they were. */
  barkOf(limb: string, line: Limb, parent: FlatBark | null): FlatBark {
    const before = this.barks.get(limb);
    if (before && before.parent === parent && isSameLine(before.bark.line, line)) return before.bark;
    const bark = new FlatBark(line, parent);
    this.barks.set(limb, { bark, parent });
    return bark;
  }

  /** The outcome on a limb; `workOut` is handed what keeps the parts of it. */
  outcomeOf(limb: string, key: string, workOut: (keep: Keep) => LimbOutcome): LimbOutcome {
    const memory: LimbMemory = this.limbs.get(limb) ?? { key: '', outcome: null, kept: new Kept() };
    this.limbs.set(limb, memory);
    if (memory.outcome && memory.key === key) return memory.outcome;
    memory.kept.nextRound();
    memory.outcome = workOut(memory.kept.keep);
    memory.key = key;
    return memory.outcome;
  }
}

const isSameLine = (a: Limb, b: Limb): boolean =>
  a === b ||
  (a.points.length === b.points.length &&
    a.points.every((p, i) => p.every((x, k) => x === b.points[i]![k])) &&
    a.diameters.every((d, i) => d === b.diameters[i]));

/** A question about two things that do not change, asked once of each two. */
export function oncePerPair<A extends object, B extends object>(ask: (a: A, b: B) => boolean): (a: A, b: B) => boolean {
  const answers = new WeakMap<A, WeakMap<B, boolean>>();
  return (a, b) => {
    let ofA = answers.get(a);
    if (!ofA) answers.set(a, (ofA = new WeakMap()));
    const before = ofA.get(b);
    if (before !== undefined) return before;
    const answer = ask(a, b);
    ofA.set(b, answer);
    return answer;
  };
}
