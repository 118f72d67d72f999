import { greatestOf, serialOf, type Keep } from '../units/index.js';
import { lengthOf } from '../space/index.js';
import { gripOf, METAL_DATA, sizeSold } from '../wood/index.js';
import { childrenOf, type PlacedBranch, type PlacedTree, type PlannedBend, type PlannedPose, type Run, type RunBranch } from '../tree/index.js';
import { WOUND_SHARE } from './coil-alone.js';
import { chooseWire, CLOSE_ANGLE, COIL_ANGLE, sayChoice, tryWire, USUAL_PAST, type WireChoice, type WireToTry } from './choose.js';
import { fewerSizes } from './few-sizes.js';
import type { Need } from './limb-work.js';
import { bendsToHold, gapFor, metalFor, ownManner, wishOf, type HeldBends } from './needs.js';
import { stiffnessOf, type Stiffness } from './press-test.js';
import type { PastOf, PosedBranches, Unwired } from './run-plan.js';
import type { Wish } from './shoulders.js';

/** The wire that a branch is to carry, before it is known how it gets there. */
export interface Wanted {
  need: Need;
  /** The same, were nothing fixed: what is fixed as it was shown is found to lie as it did. Null where that would be of other wire, or none. */
  ofItself: Need | null;
  bends: HeldBends;
  /** Those of its pose's bends that its wire holds: all, or beside a tie its movement where that is thin enough. */
  holds: readonly PlannedBend[];
  pose: PlannedPose | undefined;
  /** Why a tie holds where it lies; null: its wire does. */
  tie: string | null;
  past: number;
  run: Run | null;
  /** Its wire is thicker than it needs, so that the tree is wired with a few sizes. */
  merged?: boolean;
}

/** What a branch's wire is before anything is fixed; else as it is fixed. */
export const lyingOf = ({ need, ofItself }: Wanted): Need => ofItself ?? need;

/** So many branches are given ties at once: what is more is for the next session. */
const MOST_TIED = 4;

/** Fewer turns than this are few, for a coil at the usual angle: then they lie closer together. */
const FEW_TURNS = 3;

/** Turns of a coil at the usual angle, of a wire of a third of its branch. */
function usualTurns({ branch, parentDiameter, line }: PlacedBranch): number {
  const wound = lengthOf(line) * WOUND_SHARE - parentDiameter / 2;
  return wound / (Math.PI * ((branch.d + branch.tipD) / 2 + branch.d / 3));
}

/** The angle of a branch's coil to it: the usual one, or a closer one where most of the branches on its limb are short, so that two of them can share a wire. docs: Choosing. */
function angleFor({ tree, byId }: PlacedTree, { branch }: PlacedBranch): number {
  const beside = childrenOf(tree, branch.parent);
  const short = beside.filter((b) => usualTurns(byId.get(b.id)!) < FEW_TURNS).length;
  return 2 * short >= beside.length ? CLOSE_ANGLE : COIL_ANGLE;
}

/** What each branch wants of wire: as the plan fixes it, else chosen for its bends. */
export class Wants {
  private readonly stiffness: (branch: string) => Stiffness;
  private readonly held = new Map<readonly PlannedBend[], HeldBends>();

  constructor(
    private readonly placed: PlacedTree,
    private readonly posed: PosedBranches,
    private readonly pastOf: PastOf,
    private readonly keep: Keep,
  ) {
    this.stiffness = stiffnessOf(placed.tree);
  }

  /** What each branch needs, or why it goes without; and the branches that are to be given a tie, the thickest first. docs: Ties. */
  find(): { wanted: Map<string, Wanted>; unwired: Unwired[]; toTie: string[] } {
    const { placed } = this;
    const { plan } = placed.tree;
    const wanted = new Map<string, Wanted>();
    const unwired: Unwired[] = [];
    const poseOf = new Map(this.posed.poses.map((p) => [p.branch, p]));
    const stays = new Map(this.posed.asGrown.map((b) => [b.branch, b.because]));
    const fixed = new Map(plan.runs.flatMap((run) => run.branches.map((own) => [own.branch, { run, own }] as const)));
    const ties = new Map(plan.guys.map((g) => [g.branch, 'A tie holds where it lies.']));
    const toTie = this.beyondWire(poseOf)
      .filter(({ branch }) => !ties.has(branch))
      .slice(0, MOST_TIED);
    for (const { branch, why } of toTie) ties.set(branch, why);
    for (const b of placed.branches) {
      const { id } = b.branch;
      const given = fixed.get(id);
      const pose = poseOf.get(id);
      const tie = ties.get(id) ?? null;
      if (given) wanted.set(id, this.asFixed(b, given.run, given.own, pose, tie));
      else {
        const needed = this.chosen(b, pose, stays.get(id), tie);
        if ('because' in needed) unwired.push({ branch: id, ...needed });
        else wanted.set(id, needed);
      }
    }
    this.withFewSizes(wanted);
    for (const run of plan.runs) this.notOfItself(run, wanted);
    return { wanted, unwired, toTie: toTie.map((b) => b.branch) };
  }

  /** The same wire for poses whose bends were moved. */
  withPoses(wanted: ReadonlyMap<string, Wanted>, poses: readonly PlannedPose[]): Map<string, Wanted> {
    const poseOf = new Map(poses.map((p) => [p.branch, p]));
    return new Map(
      [...wanted].map(([branch, of]) => {
        const pose = poseOf.get(branch);
        if (!pose || pose.bends === of.pose?.bends) return [branch, of];
        const b = this.placed.byId.get(branch)!;
        const holds = this.heldBends(b, pose, of.tie);
        return [branch, { ...of, pose, holds, bends: this.bendsOf(b, { bends: holds }) }];
      }),
    );
  }

  /** Branches whose wire is a little thicker, so that the tree is wired with a few sizes: of what each would be given, whether or not it is fixed so. */
  private withFewSizes(wanted: Map<string, Wanted>): void {
    const sizes = fewerSizes([...wanted.values()].flatMap((w) => w.ofItself ?? []));
    for (const w of [...wanted.values()]) {
      const size = w.ofItself && sizes.get(w.ofItself.branch);
      if (!w.ofItself || !size) continue;
      const b = this.placed.byId.get(w.ofItself.branch)!;
      const ofItself = this.needOf(b, { ...w.ofItself, size }, w.ofItself.wish);
      const wire = { metal: ofItself.metal, size, strands: ofItself.strands, coilAngleDeg: ofItself.angle, grip: gripOf(gapFor(b)) };
      const own = w.run === null ? { need: ofItself, past: this.pastWith(ofItself.branch, w.bends, wire, w.past) } : {};
      wanted.set(ofItself.branch, { ...w, ofItself, merged: true, ...own });
    }
  }

  /** A piece of other wire than its branches would be given is none that comes out of itself. */
  private notOfItself({ branches }: Run, wanted: ReadonlyMap<string, Wanted>): void {
    const own = branches.flatMap((b) => wanted.get(b.branch) ?? []);
    const size = greatestOf(own.map((w) => w.ofItself?.size ?? Infinity));
    const isSame = ({ need, ofItself }: Wanted): boolean =>
      ofItself !== null && need.size === size && need.metal === ofItself.metal && need.strands === ofItself.strands && need.angle === ofItself.angle;
    if (!own.every(isSame)) for (const w of own) w.ofItself = null;
  }

  /** The branches whose pose no coil holds, and why, the thickest first. */
  private beyondWire(poseOf: ReadonlyMap<string, PlannedPose>): { branch: string; why: string }[] {
    const found = this.placed.branches.flatMap((b) => {
      const pose = poseOf.get(b.branch.id);
      if (!pose || this.leftBare(b)) return [];
      const bends = this.bendsOf(b, pose);
      return this.choice(b, bends, null) ? [] : [{ b, why: sayChoice(bends[0], null)[0]! }];
    });
    return found.sort((x, y) => y.b.branch.d - x.b.branch.d).map(({ b, why }) => ({ branch: b.branch.id, why }));
  }

  /** The bends that a branch's wire is for: all of its pose's; beside a tie those past the shoulder, from the first on that one thin wire holds. */
  private heldBends(b: PlacedBranch, pose: PlannedPose | undefined, tie: string | null): readonly PlannedBend[] {
    const bends = pose?.bends ?? [];
    if (!tie) return bends;
    const movement = bends.filter((bend) => bend.kind !== 'drop');
    const tails = movement.map((_, i) => movement.slice(i)).filter((tail) => tail.some((bend) => bend.kind !== 'tip'));
    return tails.find((tail) => this.choice(b, this.bendsOf(b, { bends: tail }), tie) !== null) ?? [];
  }

  private asFixed(b: PlacedBranch, run: Run, own: RunBranch, pose: PlannedPose | undefined, tie: string | null): Wanted {
    const holds = this.heldBends(b, pose, tie);
    const need = this.needOf(b, run, { hand: own.hand, start: own.start, must: 'both' }, run.side ? { side: run.side } : {});
    const alone = this.chosen(b, pose, undefined, tie);
    return { need, ofItself: 'because' in alone ? null : alone.need, bends: this.bendsOf(b, { bends: holds }), holds, pose, tie, past: USUAL_PAST, run };
  }

  /** The bends that a branch's wire has to hold; the same object as long as they are the same. */
  bendsOf(b: PlacedBranch, { bends }: { bends: readonly PlannedBend[] }): HeldBends {
    const before = this.held.get(bends);
    if (before && bends.length) return before;
    const found = bendsToHold(this.placed, b, { bends }, this.stiffness(b.branch.id));
    const held = this.keep(`bends ${JSON.stringify(found)}`, () => found);
    this.held.set(bends, held);
    return held;
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
    const { metal, strands, angle } = wire;
    const size = sizeSold(metal, wire.size);
    const coilLength = (lengthOf(b.line) * WOUND_SHARE) / Math.cos((angle * Math.PI) / 180);
    const need = { branch: b.branch.id, metal, size, gauge, strands, angle, diameter: b.branch.d, coilLength, wish, ...side };
    return this.keep(`need ${JSON.stringify(need)}`, () => need);
  }

  /** Why a branch goes without wire whatever it is bent to; null: nothing speaks against it. */
  private leftBare({ branch }: PlacedBranch): string | null {
    if (branch.state === 'dead') return 'Dead wood is not wired.';
    if (branch.state === 'weak') return 'Weak: let it grow stronger first.';
    return ownManner(this.placed, branch.id)?.clip ? 'Shaped by cutting as it grows: no wire.' : null;
  }

  /** The wire for some bends of a branch; beside a tie, which carries the branch, it need not be firm, and is one wire. */
  private choice(b: PlacedBranch, bends: HeldBends, tie: string | null): WireChoice | null {
    const { placed } = this;
    const [bend, ...others] = bends;
    const metal = metalFor(placed, b);
    const firmness = tie ? 'light' : (ownManner(placed, b.branch.id)?.firmness ?? placed.tree.plan.firmness);
    const grip = gripOf(gapFor(b));
    const angle = angleFor(this.placed, b);
    const does = tie ? 'placing' : 'structure';
    const choice = this.keep(`wire ${serialOf(bends)} ${metal} ${firmness} ${grip} ${does} ${angle}`, () =>
      chooseWire(bend, metal, firmness, { others, grip, does, angle }),
    );
    return tie && choice && choice.strands > 1 ? null : choice;
  }

  private chosen(b: PlacedBranch, pose: PlannedPose | undefined, stays: string[] | undefined, tie: string | null): Wanted | Omit<Unwired, 'branch'> {
    const bare = this.leftBare(b);
    if (bare) return { because: [bare] };
    if (!pose) return { because: stays ?? [] };
    const holds = this.heldBends(b, pose, tie);
    if (tie && !holds.length) return { because: [tie], guy: true };
    const bends = this.bendsOf(b, { bends: holds });
    const choice = this.choice(b, bends, tie);
    const angle = angleFor(this.placed, b);
    if (!choice) return { because: sayChoice(bends[0], null).slice(0, 1), guy: true };
    const wire = { metal: choice.metal, size: choice.size, strands: choice.strands, coilAngleDeg: angle, grip: gripOf(gapFor(b)) };
    const past = this.pastOf(b.branch.id, bends[0], wire);
    if (this.tried(bends, 0, wire, past).risk > 1.6)
      return { because: ['The bend by hand is more than the wood takes in one season: choose another plan, or a technique such as a wedge cut.'] };
    const need = this.needOf(b, { ...choice, angle }, wishOf(pose));
    return { need, ofItself: need, bends, holds, pose, tie, past, run: null };
  }

  /** How far past its target a branch is left under the wire that it gets in the end: a pair's may be another than its own would be. */
  pastWith(branch: string, bends: HeldBends, wire: WireToTry, first: number): number {
    const past = this.pastOf(branch, bends[0], wire);
    return bends.every((_, i) => Number.isFinite(this.tried(bends, i, wire, past).bendToDeg)) ? past : first;
  }
}
