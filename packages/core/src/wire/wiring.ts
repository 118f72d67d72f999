import { greatestOf, leastOf, type Keep, serialOf, serialsOf } from '../units/index.js';
import { screenAxes, tilting, type Vec } from '../space/index.js';
import {
  childrenOf,
  namesOf,
  runIdsOf,
  woodIn,
  type Names,
  type PlacedBranch,
  type PlacedTree,
  type PlannedBend,
  type PlannedPose,
  type Run,
  type WoundWire,
} from '../tree/index.js';
import { bentUpTo, handOnto, leadOn, shootToCarryOn } from './carry.js';
import { USUAL_PAST } from './choose.js';
import { WOUND_SHARE } from './coil-alone.js';
import { fitCoil, missOf, type Outside } from './coil-fit.js';
import type { BarkPlace, FlatBark } from './flat-bark.js';
import { laidWire, liesInWood, type LaidWire } from './laid.js';
import type { CoilOn, End, Joined, Laid, LimbWork, Need } from './limb-work.js';
import { PlanMemory, type LimbOutcome } from './memory.js';
import { outsidesOf, woundOn } from './needs.js';
import { planOnLimb, type Fixed } from './on-limb.js';
import { layPath, type Half } from './path.js';
import { LEAST_COIL, tooShort, turnsOn } from './piece.js';
import { Pieces } from './pieces.js';
import type { PastOf, PosedBranches, RunPlan, Unwired, WiringPlan } from './run-plan.js';
import type { Shoulder, Touch } from './shoulders.js';
import { keyOf, Surroundings, type Among, type Near } from './surroundings.js';
import { trunkPiece } from './trunk-piece.js';
import { lyingOf, Wants, type Wanted } from './wanted.js';
import { turnOf } from './ways.js';

/** All that the pieces of one plan are worked out with. */
class Wiring {
  readonly unwired: Unwired[];
  readonly toTie: string[];
  readonly worth = { best: 0, had: 0 };
  readonly pieces: Pieces;
  private readonly wants: Wants;
  private readonly wanted: Map<string, Wanted>;
  private readonly back: (way: Vec) => Vec;
  private readonly toward: Vec | null;
  private readonly names: Names;
  private readonly surroundings: Surroundings;
  private readonly outsides = new Map<string, readonly Outside[]>();

  constructor(
    private readonly placed: PlacedTree,
    posed: PosedBranches,
    pastOf: PastOf,
    private readonly memory: PlanMemory,
  ) {
    memory.begin();
    const { keep } = memory;
    const { front } = placed.tree.plan;
    this.back = front && (front.pitch || front.roll) ? tilting(front).back : (v) => v;
    this.toward = front ? screenAxes(front.bearing).toward : null;
    this.names = namesOf(placed.tree);
    this.surroundings = new Surroundings(placed, memory);
    const wants = new Wants(placed, posed, pastOf, keep);
    this.wants = wants;
    ({ wanted: this.wanted, unwired: this.unwired, toTie: this.toTie } = wants.find());
    this.pieces = new Pieces(placed, wants, this.wanted, this.names, keep);
    this.chooseHandsOnto();
    this.wind();
    const { surroundings, back, toward } = this;
    const trunk = trunkPiece(placed, { bends: posed.trunk ?? [], wants, surroundings, back, toward, keep });
    if (trunk && 'piece' in trunk) {
      this.wanted.set('trunk', trunk.wanted);
      this.pieces.putOn(trunk.piece);
      this.wind();
    } else if (trunk) this.unwired.push(trunk);
    const limbs = ['trunk'];
    for (const limb of limbs) {
      this.planLimb(limb);
      limbs.push(...childrenOf(placed.tree, limb).map((b) => b.id));
    }
  }

  private wind(): void {
    this.surroundings.wind((limb) => {
      const wanted = this.wanted.get(limb);
      return wanted ? lyingOf(wanted).size : 0;
    });
  }

  /** A branch that may wind either way winds so that its wire can go on along its shoot. */
  private chooseHandsOnto(): void {
    for (const [limb, on] of this.wanted) {
      const need = on.ofItself;
      if (!need || need.wish.hand !== null) continue;
      const shoots = childrenOf(this.placed.tree, limb).flatMap((b) => this.wanted.get(b.id) ?? []);
      const free = shoots.map((s): Wanted => ({ ...s, need: lyingOf(s), run: null }));
      const shoot = shootToCarryOn(this.placed, { ...on, run: null }, need, free);
      const hand = shoot && handOnto(this.surroundings.shoulder(shoot.need.branch, limb, this.memory.keep), need, shoot.need);
      if (!hand) continue;
      const wound = this.memory.keep(`onto ${hand} ${serialOf(need)}`, () => ({ ...need, wish: { ...need.wish, hand, forShoot: true } }));
      if (on.need === need) on.need = wound;
      on.ofItself = wound;
    }
  }

  private planLimb(limb: string): void {
    const wanted = childrenOf(this.placed.tree, limb).flatMap((b) => this.wanted.get(b.id) ?? []);
    if (!wanted.length) return;
    const passing = greatestOf(
      wanted.map((w) => lyingOf(w).size * lyingOf(w).strands),
      this.pieces.coils.get(limb)?.way.half ?? 0,
    );
    const near = this.surroundings.nearTo([limb, ...wanted.map((w) => w.need.branch)], this.pieces.laid, 4 * passing + 16);
    const carrier = this.pieces.coils.get(limb);
    const on = carrier && limb !== 'trunk' ? shootToCarryOn(this.placed, this.wanted.get(limb)!, carrier.need, wanted) : null;
    const { joined, left, worth, against, short, led } = this.memory.outcomeOf(limb, this.keyOfLimb(limb, wanted, near, on), near.wires, (keep) =>
      this.workOut(limb, wanted, passing, near, on, keep),
    );
    if (led) this.pieces.leadOn(limb, led);
    else if (on?.run) carrier!.piece.run.because.push(`It finds no way on to ${this.names(on.need.branch)}: that has a piece of its own.`);
    this.worth.best += worth.best;
    this.worth.had += worth.had;
    for (const branch of left) {
      const by = against.get(branch);
      const because = by
        ? `${this.names(by)} lies against it, so no wire goes round it: part them first.`
        : short.has(branch)
          ? 'It is too short to wind: clear of its limb less than one turn would lie on it.'
          : 'There is no room on the bark for its wire to be anchored.';
      this.unwired.push({ branch, because: [because] });
    }
    for (const piece of joined) this.pieces.add(piece);
  }

  /** All that matters to the pieces on a limb, but for the wires near it. */
  private keyOfLimb(limb: string, wanted: readonly Wanted[], near: Near, on: Wanted | null): string {
    const coil = this.pieces.coils.get(limb);
    return JSON.stringify([
      this.placed.tree.plan.front ?? null,
      keyOf(near.limbs),
      wanted.map(({ need, holds, run }) => [serialOf(need), tellBends(holds), run?.id]),
      coil ? [serialOf(coil.way), coil.hand] : null,
      on ? [on.need.branch, serialOf(coil!.need), bentUpTo(this.wanted.get(limb)!)] : null,
    ]);
  }

  private workOut(limb: string, all: readonly Wanted[], passing: number, near: Near, on: Wanted | null, keep: Keep): LimbOutcome {
    const bark = this.surroundings.bark(limb);
    const barks = near.limbs.map((l) => l.bark);
    const shoulders = new Map<string, Shoulder>(all.map(({ need: { branch } }) => [branch, this.surroundings.shoulder(branch, limb, keep)]));
    const against = new Map<string, string>();
    const short = new Set<string>();
    const tried: LaidWire[] = [];
    const carrier = this.pieces.coils.get(limb) ?? null;
    const among = { keep, near: near.limbs };
    const knots = this.surroundings.knotsOn(limb, passing / 2, 1, among);
    const workWith = (coil: LimbWork['coil'], wires: readonly LaidWire[], anyhow: boolean): LimbWork => {
      const stuck = new Set<Touch>();
      const seen = new Map<Joined, Laid | null>();
      const lay = (joined: Joined): Laid | null => {
        const before = seen.get(joined);
        if (before !== undefined) return before;
        const laid = this.lay(limb, joined, { ...among, barks, against, short, stuck, anyhow });
        if (laid) tried.push(laid.wire);
        seen.set(joined, laid);
        return laid;
      };
      const outsidesOn = (branch: string): readonly Outside[] => this.outsidesOn(branch, keep);
      return { bark, shoulders, knots, coil, toward: this.toward, outsidesOn, lay, stuck, wires, keep };
    };
    const others = near.wires.filter((w) => w !== carrier?.wire);
    const led = on && leadOn(workWith(carrier, others, false), carrier!, on.need, on.run ? 0 : bentUpTo(this.wanted.get(limb)!));
    const workFor = (anyhow: boolean): LimbWork =>
      led ? workWith({ way: led.way, hand: carrier!.hand }, [...others, led.wire], anyhow) : workWith(carrier, near.wires, anyhow);
    const wanted = led ? all.filter((w) => w !== on) : all;
    const byRun = new Map<Run, Need[]>();
    for (const { run, need } of wanted) if (run) byRun.set(run, [...(byRun.get(run) ?? []), need]);
    const fixed = [...byRun.values()].flatMap((own) => byTwos(own).map((of): Fixed => ({ needs: of })));
    const [needs, ofItself] = [wanted.map((w) => w.need), wanted.map(lyingOf)];
    return { ...planOnLimb(workFor, fixed, { needs, ofItself }), against, short, tried, led };
  }

  private lay(
    limb: string,
    joined: Joined,
    found: Among & { barks: readonly FlatBark[]; against: Map<string, string>; short: Set<string>; stuck: Set<Touch>; anyhow: boolean },
  ): Laid | null {
    const bark = this.surroundings.bark(limb);
    // What was asked for is laid, whatever it lies on.
    const fixed = found.anyhow && joined.ends.some((end) => end !== null && this.wanted.get(end.need.branch)!.run !== null);
    const coils: (CoilOn | null)[] = [];
    for (const end of joined.ends) {
      const coil = end && this.coilOn(end, joined.way.half, found);
      coils.push(coil);
      if (!coil || fixed || !tooShort(coil)) continue;
      found.against.set(end.need.branch, coil.blocked!.by);
      found.stuck.add(end.touch);
      return null;
    }
    const laid = found.keep(`laid ${serialsOf([bark, joined.way, ...coils.map((c) => c ?? NO_COIL)])} ${joined.size}`, (): Laid => {
      const { half } = joined.way;
      const route = joined.way.along.map((s, i): BarkPlace => ({ s, turn: turnOf(joined.way.first + i), lift: joined.size / 2 }));
      const halves = joined.ends.map(
        (end, i): Half | null =>
          end && { branch: end.need.branch, bark: this.surroundings.bark(end.need.branch), coil: coils[i]!.places, points: coils[i]!.points },
      ) as [Half | null, Half | null];
      const path = layPath({ id: limb, bark }, route, halves);
      return { path, coils, wire: laidWire(path, half, joined.size / 2) };
    });
    if (fixed) return laid;
    const few = joined.ends.flatMap((end) => (end && turnsOn(laid.path, end.need.branch) < LEAST_COIL ? [end.need.branch] : []));
    for (const branch of few) found.short.add(branch);
    return !few.length && !liesInWood(laid.wire, found.barks) ? laid : null;
  }

  private coilOn({ need, touch }: End, half: number, among: Among): CoilOn {
    const bark = this.surroundings.bark(need.branch);
    // Of the wires of its side shoots one half: they lie on one side of them. What runs into them is found when it is laid.
    const knots = this.surroundings.knotsOn(need.branch, half, 0.5, among);
    const outsides = this.outsidesOn(need.branch, among.keep);
    return among.keep(`coil ${serialsOf([bark, touch, knots, outsides])} ${need.angle} ${half}`, () => {
      const fitted = fitCoil({
        bark,
        hand: touch.hand,
        angleDeg: need.angle,
        half,
        start: touch.onBranch,
        end: bark.length * WOUND_SHARE,
        knots,
        outsides,
      });
      const places = fitted.blocked ? fitted.places.slice(0, Math.max(2, fitted.blocked.index - 1)) : fitted.places;
      return { ...fitted, places, points: places.map((p) => bark.point(p)) };
    });
  }

  /** The coils as bends are to meet them; the same objects as long as the coils are. */
  wound(): Map<string, WoundWire> {
    const { keep } = this.memory;
    return new Map(
      [...this.pieces.coils].map(([branch, { coil, need }]) => {
        const bark = this.surroundings.bark(branch);
        return [branch, keep(`wound ${serialsOf([bark, coil])}`, () => woundOn(bark, coil, need, this.back))] as const;
      }),
    );
  }

  /** What the wire as it lies does with bends that were moved to meet it. */
  met(poses: readonly PlannedPose[], runs: readonly RunPlan[]): RunPlan[] {
    const { keep } = this.memory;
    const wanted = this.wants.withPoses(this.wanted, poses);
    return runs.map((run) =>
      this.pieces.told(run, wanted, (branch, coil) => {
        const outsides = outsidesOf(this.surroundings.bark(branch), wanted.get(branch)!.holds, this.back);
        return keep(`met ${serialOf(coil)} ${JSON.stringify(outsides)}`, () => ({ ...coil, missDeg: outsides.map((o) => missOf(coil.places, o)) }));
      }),
    );
  }

  private outsidesOn(branch: string, keep: Keep): readonly Outside[] {
    const before = this.outsides.get(branch);
    if (before) return before;
    const found = outsidesOf(this.surroundings.bark(branch), this.wanted.get(branch)!.holds, this.back);
    const made = keep(`outsides ${JSON.stringify(found)}`, () => found);
    this.outsides.set(branch, made);
    return made;
  }
}

const told = new WeakMap<readonly PlannedBend[], string>();

/** All that tells the bends of a pose from others; bends do not change. */
function tellBends(bends: readonly PlannedBend[]): string {
  const before = told.get(bends);
  if (before !== undefined) return before;
  const made = JSON.stringify(bends.map((b) => [b.at, b.length, b.angle, b.start, b.toward]));
  told.set(bends, made);
  return made;
}

/** Stands for the coil of an end that is free. */
const NO_COIL = {};

/** A piece goes on two branches of a limb; what a file has on more of them is so many pieces. */
const byTwos = (needs: readonly Need[]): Fixed['needs'][] =>
  needs.flatMap((need, i): Fixed['needs'][] => (i % 2 ? [] : needs[i + 1] ? [[need, needs[i + 1]!]] : [[need]]));

/** Pieces of wire for the branches that must move, as they go on; what the plan fixes is kept. With the memory of the plan before, only the limbs that a change concerns are worked out anew. docs: Runs. */
export function planWiring(placed: PlacedTree, posed: PosedBranches, pastOf: PastOf = () => USUAL_PAST, memory = new PlanMemory()): WiringPlan {
  const wiring = new Wiring(placed, posed, pastOf, memory);
  const { pieces, unwired, toTie, worth } = wiring;
  const byId = (id: string): PlacedBranch => woodIn(placed, id)!;
  const height = (run: RunPlan): number => leastOf(run.branches.map((b) => byId(b.branch).line.points[0]![2]));
  const sorted = [...pieces.runs].sort(
    (a, b) => a.order - b.order || b.size - a.size || height(a) - height(b) || (a.branches[0]!.branch < b.branches[0]!.branch ? -1 : 1),
  );
  const used = runIdsOf(placed.tree);
  let next = 1;
  const named = new Set<string>();
  for (const run of sorted) {
    if (!run.id || named.has(run.id)) {
      if (run.id) run.because.push(`No one piece leads to all branches of ${run.id}: this is one of its own.`);
      while (used.has(`w${next}`)) next++;
      used.add(`w${next}`);
      run.id = `w${next}`;
    }
    named.add(run.id);
  }
  const onBranch = new Map(sorted.flatMap((r) => r.branches.map((b) => [b.branch, r.id] as const)));
  for (const run of sorted) {
    const beside = byId(run.branches[0]!.branch).branch.parent;
    const carrier = onBranch.get(beside);
    if (run.kind === 'anchored' && carrier) run.anchor = { ...run.anchor!, run: carrier, beside };
  }
  return { runs: sorted, unwired, toTie, wound: wiring.wound(), met: (poses) => wiring.met(poses, sorted), worth };
}
