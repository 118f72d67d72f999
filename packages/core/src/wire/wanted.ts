import { serialOf, type Keep } from '../units/index.js';
import { lengthOf } from '../space/index.js';
import { gripOf, METAL_DATA } from '../wood/index.js';
import type { PlacedBranch, PlacedTree, PlannedPose, Run, RunBranch } from '../tree/index.js';
import { WOUND_SHARE } from './coil-alone.js';
import { chooseWire, COIL_ANGLE, sayChoice, tryWire, USUAL_PAST, type WireToTry } from './choose.js';
import type { Need } from './limb-work.js';
import { bendsToHold, gapFor, metalFor, ownManner, wishOf, type HeldBends } from './needs.js';
import { stiffnessOf, type Stiffness } from './press-test.js';
import type { PastOf, PosedBranches, Unwired } from './run-plan.js';
import type { Wish } from './shoulders.js';

/** The wire that a branch is to carry, before it is known how it gets there. */
export interface Wanted {
  need: Need;
  bends: HeldBends;
  pose: PlannedPose | undefined;
  past: number;
  run: Run | null;
}

/** What each branch wants of wire: as the plan fixes it, else chosen for its bends. */
export class Wants {
  private readonly stiffness: (branch: string) => Stiffness;

  constructor(
    private readonly placed: PlacedTree,
    private readonly posed: PosedBranches,
    private readonly pastOf: PastOf,
    private readonly keep: Keep,
  ) {
    this.stiffness = stiffnessOf(placed.tree);
  }

  /** What each branch needs, or why it goes without. */
  find(): { wanted: Map<string, Wanted>; unwired: Unwired[] } {
    const { placed } = this;
    const wanted = new Map<string, Wanted>();
    const unwired: Unwired[] = [];
    const poseOf = new Map(this.posed.poses.map((p) => [p.branch, p]));
    const stays = new Map(this.posed.asGrown.map((b) => [b.branch, b.because]));
    const fixed = new Map(placed.tree.plan.runs.flatMap((run) => run.branches.map((own) => [own.branch, { run, own }] as const)));
    for (const b of placed.branches) {
      const { id } = b.branch;
      const given = fixed.get(id);
      const pose = poseOf.get(id);
      if (given) wanted.set(id, this.asFixed(b, given.run, given.own, pose));
      else {
        const needed = this.chosen(b, pose, stays.get(id));
        if ('because' in needed) unwired.push({ branch: id, ...needed });
        else wanted.set(id, needed);
      }
    }
    return { wanted, unwired };
  }

  private asFixed(b: PlacedBranch, run: Run, own: RunBranch, pose: PlannedPose | undefined): Wanted {
    const bends = this.bendsOf(b, pose);
    const side = run.side ? { side: run.side } : {};
    return { need: this.needOf(b, run, { hand: own.hand, start: own.start, must: 'both' }, side), bends, pose, past: USUAL_PAST, run };
  }

  /** The bends that a branch's wire has to hold; the same object as long as they are the same. */
  bendsOf(b: PlacedBranch, pose: Pick<PlannedPose, 'bends'> | undefined): HeldBends {
    const bends = bendsToHold(this.placed, b, pose, this.stiffness(b.branch.id));
    return this.keep(`bends ${JSON.stringify(bends)}`, () => bends);
  }

  /** What comes of trying a wire on one of them. */
  tried(bends: HeldBends, i: number, wire: WireToTry, past: number): ReturnType<typeof tryWire> {
    return this.keep(`tried ${serialOf(bends)} ${i} ${Object.values(wire).join(' ')} ${past}`, () => tryWire(bends[i]!, wire, past));
  }

  /** What a wire on a branch is asked for; the same object as long as it is the same. */
  needOf(b: PlacedBranch, wire: Pick<Need, 'metal' | 'size' | 'strands' | 'angle'>, wish: Wish, side: Pick<Need, 'side'> = {}): Need {
    const { sizes } = METAL_DATA[wire.metal];
    const ascending = [...sizes].sort((x, y) => x - y);
    const gauge = ascending.reduce((best, s, i) => (Math.abs(s - wire.size) < Math.abs(ascending[best]! - wire.size) ? i : best), 0);
    const { metal, size, strands, angle } = wire;
    const coilLength = (lengthOf(b.line) * WOUND_SHARE) / Math.cos((angle * Math.PI) / 180);
    const need = { branch: b.branch.id, metal, size, gauge, strands, angle, diameter: b.branch.d, coilLength, wish, ...side };
    return this.keep(`need ${JSON.stringify(need)}`, () => need);
  }

  private chosen(b: PlacedBranch, pose: PlannedPose | undefined, stays: string[] | undefined): Wanted | Omit<Unwired, 'branch'> {
    if (b.branch.state === 'dead') return { because: ['Dead wood is not wired.'] };
    if (b.branch.state === 'weak') return { because: ['Weak: let it grow stronger first.'] };
    if (ownManner(this.placed, b.branch.id)?.clip) return { because: ['Shaped by cutting as it grows: no wire.'] };
    if (!pose) return { because: stays ?? [] };
    const bends = this.bendsOf(b, pose);
    const [bend, ...others] = bends;
    const metal = metalFor(this.placed, b);
    const firmness = ownManner(this.placed, b.branch.id)?.firmness ?? this.placed.tree.plan.firmness;
    const grip = gripOf(gapFor(b));
    const choice = this.keep(`wire ${serialOf(bends)} ${metal} ${firmness} ${grip}`, () => chooseWire(bend, metal, firmness, { others, grip }));
    if (!choice) return { because: sayChoice(bend, null).slice(0, 1), guy: true };
    const wire = { metal: choice.metal, size: choice.size, strands: choice.strands, coilAngleDeg: COIL_ANGLE, grip };
    const past = this.pastOf(b.branch.id, bend, wire);
    if (this.tried(bends, 0, wire, past).risk > 1.6)
      return { because: ['The bend by hand is more than the wood takes in one season: choose another plan, or a technique such as a wedge cut.'] };
    return { need: this.needOf(b, { ...choice, angle: COIL_ANGLE }, wishOf(pose)), bends, pose, past, run: null };
  }

  /** How far past its target a branch is left under the wire that it gets in the end: a pair's may be another than its own would be. */
  pastWith(branch: string, bends: HeldBends, wire: WireToTry, first: number): number {
    const past = this.pastOf(branch, bends[0], wire);
    return bends.every((_, i) => Number.isFinite(this.tried(bends, i, wire, past).bendToDeg)) ? past : first;
  }
}
