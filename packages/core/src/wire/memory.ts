import { Kept, type Keep } from '../units/index.js';
import type { Limb } from '../space/index.js';
import type { LedOn } from './carry.js';
import { FlatBark } from './flat-bark.js';
import { liesAcross, type LaidWire } from './laid.js';
import type { OnLimb } from './limb-work.js';

/** What came of the pieces on one limb, and by which branch each that was left is lain against. */
export interface LimbOutcome extends OnLimb {
  against: ReadonlyMap<string, string>;
  /** Branches on which less than a turn would lie, however the wire comes to them. */
  short: ReadonlySet<string>;
  /** All wires that were laid to see whether they lie across others, kept or not. */
  tried: readonly LaidWire[];
  /** The limb's own wire, led on along one of them. */
  led: LedOn | null;
}

interface LimbMemory {
  key: string;
  /** The wires of other limbs near it. */
  wires: readonly LaidWire[];
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

  /** The outcome on a limb, by the key of all that it comes from but the wires near it; `workOut` is handed what keeps the parts of it. */
  outcomeOf(limb: string, key: string, wires: readonly LaidWire[], workOut: (keep: Keep) => LimbOutcome): LimbOutcome {
    const memory: LimbMemory = this.limbs.get(limb) ?? { key: '', wires: [], outcome: null, kept: new Kept() };
    this.limbs.set(limb, memory);
    if (!memory.outcome || memory.key !== key || !liesAlike(memory.outcome.tried, memory.wires, wires)) {
      memory.kept.nextRound();
      memory.outcome = workOut(memory.kept.keep);
    }
    memory.key = key;
    memory.wires = wires;
    return memory.outcome;
  }
}

/** Whether wires lie across others just as they did: across nothing that has come or gone. */
function liesAlike(tried: readonly LaidWire[], before: readonly LaidWire[], now: readonly LaidWire[]): boolean {
  const [was, is] = [new Set(before), new Set(now)];
  const changed = [...before.filter((w) => !is.has(w)), ...now.filter((w) => !was.has(w))];
  return !tried.some((wire) => liesAcross(wire, changed));
}

const isSameLine = (a: Limb, b: Limb): boolean =>
  a === b ||
  (a.points.length === b.points.length &&
    a.points.every((p, i) => p.every((x, k) => x === b.points[i]![k])) &&
    a.diameters.every((d, i) => d === b.diameters[i]));
