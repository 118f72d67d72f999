import { type Keep, serialOf, serialsOf } from '../units/index.js';
import { boxAround, boxed, boxesApart, type Box, screenAxes, tilting, type Vec } from '../space/index.js';
import { gripOf, ruleOfThumb } from '../wood/index.js';
import {
  childrenOf,
  namesOf,
  woodIn,
  type Hand,
  type Names,
  type PlacedBranch,
  type PlacedTree,
  type PlannedBend,
  type Run,
  type Start,
} from '../tree/index.js';
import { WOUND_SHARE } from './coil-alone.js';
import { chooseWire, COIL_ANGLE, sayChoice, spreadOf, USUAL_PAST, type WireToTry } from './choose.js';
import { fitCoil, type FittedCoil, type Outside } from './coil-fit.js';
import type { FlatBark, BarkPlace } from './flat-bark.js';
import { knotsOf, MARGIN, type Knot } from './knots.js';
import { laidWire, liesInWood, type LaidWire } from './laid.js';
import type { CoilOn, End, Joined, Laid, LimbWork, Need } from './limb-work.js';
import { Wants, type Wanted } from './wanted.js';
import { sideOf } from './join-ways.js';
import { PlanMemory, type LimbOutcome } from './memory.js';
import { gapFor, metalFor, outsidesOf } from './needs.js';
import { planOnLimb, type Fixed } from './on-limb.js';
import { layPath, pathOfCoil, type Half, type WirePath } from './path.js';
import { asPiece, LEAST_COIL, tooShort, turnsOn, unserved } from './piece.js';
import { type PastOf, type PosedBranches, type RunBranchPlan, type RunPlan, type Unwired, type WiringPlan } from './run-plan.js';
import { HANDS } from './touching.js';
import { SOIL_SHARE, trunkCoil } from './trunk-wire.js';
import { shoulderOf, type Shoulder, type Touch } from './shoulders.js';
import { wayOfCoil } from './way-of-coil.js';
import { TURN, turnOf, type Way } from './ways.js';

/** A limb with the wire that comes on it. */
interface Surrounding {
  id: string;
  bark: FlatBark;
  box: Box;
  /** Thickness of the wire, mm, as far as it is known before it is laid. */
  wound: number;
  /** Tells limb and thickness from others. */
  key: string;
}

/** What may be in the way of the wire on a limb. */
interface Near {
  limbs: readonly Surrounding[];
  wires: LaidWire[];
}

/** What a limb's pieces are worked out among: the limbs near it, and what was worked out before. */
interface Among {
  near: readonly Surrounding[];
  keep: Keep;
}

/** All that the pieces of one plan are worked out with. */
class Wiring {
  readonly runs: RunPlan[] = [];
  readonly unwired: Unwired[];
  readonly toTie: string[];
  readonly worth = { best: 0, had: 0 };
  private readonly barks = new Map<string, FlatBark>();
  private readonly coils = new Map<string, { way: Way; hand: Hand; run: string }>();
  private readonly wants: Wants;
  private readonly wanted: Map<string, Wanted>;
  private readonly back: (way: Vec) => Vec;
  private readonly toward: Vec | null;
  private readonly names: Names;
  private surroundings: readonly Surrounding[];
  private readonly laid: LaidWire[] = [];
  private readonly knots = new Map<string, Knot[]>();
  private readonly outsides = new Map<string, readonly Outside[]>();

  constructor(
    private readonly placed: PlacedTree,
    private readonly posed: PosedBranches,
    pastOf: PastOf,
    private readonly memory: PlanMemory,
  ) {
    memory.begin();
    const { front } = placed.tree.plan;
    this.back = front && (front.pitch || front.roll) ? tilting(front).back : (v) => v;
    this.toward = front ? screenAxes(front.bearing).toward : null;
    this.names = namesOf(placed.tree);
    this.wants = new Wants(placed, posed, pastOf, memory.keep);
    ({ wanted: this.wanted, unwired: this.unwired, toTie: this.toTie } = this.wants.find());
    this.surroundings = this.surround();
    this.planTrunk();
    this.surroundings = this.surround();
    const limbs = ['trunk'];
    for (const limb of limbs) {
      this.planLimb(limb);
      limbs.push(...childrenOf(placed.tree, limb).map((b) => b.id));
    }
  }

  private bark(id: string): FlatBark {
    const before = this.barks.get(id);
    if (before) return before;
    const b = this.placed.byId.get(id);
    const made = this.memory.barkOf(id, b?.line ?? this.placed.trunk, b ? this.bark(b.branch.parent) : null);
    this.barks.set(id, made);
    return made;
  }

  /** The trunk's own wire, where the trunk is bent: out of the soil behind it, up and round over its bends. */
  private planTrunk(): void {
    const given = this.placed.tree.plan.runs.find((r) => r.branches.some((b) => b.branch === 'trunk')) ?? null;
    const trunkBends = this.posed.trunk ?? [];
    if (!given && !trunkBends.length) return;
    const wood = woodIn(this.placed, 'trunk')!;
    const pose = { bends: [...trunkBends] };
    const bends = this.wants.bendsOf(wood, pose);
    const [bend, ...others] = bends;
    const wire = given ?? chooseWire(bend, metalFor(this.placed, wood), this.placed.tree.plan.firmness, { others });
    if (!wire) {
      const stiffest = bends.reduce((worst, b) => (b.diameter > worst.diameter ? b : worst));
      this.unwired.push({ branch: 'trunk', because: sayChoice(stiffest, null).slice(0, 1) });
      return;
    }
    const { metal, size, strands } = wire;
    const angle = given?.angle ?? COIL_ANGLE;
    const need = this.wants.needOf(wood, { metal, size, strands, angle }, { hand: null, start: null, must: 'neither' });
    const half = (size * strands) / 2;
    const bark = this.bark('trunk');
    const asked = {
      angle,
      half,
      lift: size / 2,
      hands: given ? [given.branches[0]!.hand] : HANDS,
      toward: this.toward,
      end: Math.min(WOUND_SHARE * bark.length, trunkBends.reduce((far, b) => Math.max(far, b.at + b.length), bark.length / 2) + 2 * need.diameter),
      outsides: outsidesOf(bark, pose.bends, this.back),
    };
    const knots = this.knotsOn('trunk', half, 0.5, { keep: this.memory.keep, near: this.surroundings });
    const {
      hand,
      coil,
      path,
      wire: laid,
    } = this.memory.keep(`trunk ${serialsOf([bark, knots])} ${JSON.stringify(asked)}`, () => {
      const wound = trunkCoil({ ...asked, bark, knots });
      const lies = pathOfCoil('trunk', wound.coil);
      return { ...wound, path: lies, wire: laidWire(lies, half, size / 2) };
    });
    const soil = SOIL_SHARE * this.placed.tree.pot.height;
    this.wanted.set('trunk', { need, ofItself: null, bends, holds: trunkBends, pose: undefined, tie: null, past: USUAL_PAST, run: given });
    this.laid.push(laid);
    this.coils.set('trunk', { way: wayOfCoil(coil, half), hand, run: given?.id ?? '' });
    this.runs.push({
      id: given?.id ?? '',
      kind: 'trunk',
      ...asPiece({ metal, strands, angle }, size, path.length + soil),
      order: 0,
      route: null,
      anchor: { run: null, turns: 0, soil },
      branches: [this.partOf(need, { hand, start: 'over' }, size, path, coil, [])],
      because: ['It holds the trunk before any branch is wired: branch wires go beside it, with its hand.'],
      path,
    });
  }

  private planLimb(limb: string): void {
    const wanted = childrenOf(this.placed.tree, limb).flatMap((b) => this.wanted.get(b.id) ?? []);
    if (!wanted.length) return;
    const passing = Math.max(...wanted.map((w) => lyingOf(w).size * lyingOf(w).strands), this.coils.get(limb)?.way.half ?? 0);
    const near = this.nearTo(limb, wanted, 4 * passing + 16);
    const { joined, left, worth, against } = this.memory.outcomeOf(limb, this.keyOfLimb(limb, wanted, near), near.wires, (keep) =>
      this.workOut(limb, wanted, passing, near, keep),
    );
    this.worth.best += worth.best;
    this.worth.had += worth.had;
    for (const branch of left) {
      const by = against.get(branch);
      const because = by
        ? `${this.names(by)} lies against it, so no wire goes round it: part them first.`
        : 'There is no room on the bark for its wire to be anchored.';
      this.unwired.push({ branch, because: [because] });
    }
    for (const piece of joined) {
      this.laid.push(piece.laid.wire);
      this.addPiece(limb, piece, piece.laid, piece.across ?? false);
    }
  }

  /** Limbs and wires that come within some mm of a limb or of the branches on it that are wired. */
  private nearTo(limb: string, wanted: readonly Wanted[], within: number): Near {
    const own = [limb, ...wanted.map((n) => n.need.branch)].map((id) => boxed(this.bark(id).line));
    const around = boxAround(own);
    const isNear = ({ box }: { box: Box }): boolean => !boxesApart(around, box, within) && own.some((of) => !boxesApart(of, box, within));
    return { limbs: this.surroundings.filter(isNear), wires: this.laid.filter(isNear) };
  }

  private surround(): Surrounding[] {
    return ['trunk', ...this.placed.branches.map((b) => b.branch.id)].map((id) => {
      const [bark, wanted] = [this.bark(id), this.wanted.get(id)];
      const wound = wanted ? lyingOf(wanted).size : 0;
      return { id, bark, box: boxed(bark.line), wound, key: `${serialOf(bark)} ${wound}` };
    });
  }

  /** All that matters to the pieces on a limb, but for the wires near it. */
  private keyOfLimb(limb: string, wanted: readonly Wanted[], near: Near): string {
    const coil = this.coils.get(limb);
    return JSON.stringify([
      this.placed.tree.plan.front ?? null,
      keyOf(near.limbs),
      wanted.map(({ need, holds, run }) => [serialOf(need), tellBends(holds), run?.id]),
      coil ? [serialOf(coil.way), coil.hand] : null,
    ]);
  }

  private workOut(limb: string, wanted: readonly Wanted[], passing: number, near: Near, keep: Keep): LimbOutcome {
    const bark = this.bark(limb);
    const barks = near.limbs.map((l) => l.bark);
    const shoulders = new Map<string, Shoulder>(
      wanted.map(({ need: { branch } }) => {
        const own = this.bark(branch);
        return [branch, keep(`shoulder ${serialsOf([bark, own])}`, () => shoulderOf(branch, bark, own))];
      }),
    );
    const against = new Map<string, string>();
    const tried: LaidWire[] = [];
    const coil = this.coils.get(limb) ?? null;
    const among = { keep, near: near.limbs };
    const knots = this.knotsOn(limb, passing / 2, 1, among);
    const workFor = (anyhow: boolean): LimbWork => {
      const stuck = new Set<Touch>();
      const seen = new Map<Joined, Laid | null>();
      const lay = (joined: Joined): Laid | null => {
        const before = seen.get(joined);
        if (before !== undefined) return before;
        const laid = this.lay(limb, joined, { ...among, barks, against, stuck, anyhow });
        if (laid) tried.push(laid.wire);
        seen.set(joined, laid);
        return laid;
      };
      return { bark, shoulders, knots, coil, toward: this.toward, lay, stuck, wires: near.wires, keep };
    };
    const byRun = new Map<Run, Need[]>();
    for (const { run, need } of wanted) if (run) byRun.set(run, [...(byRun.get(run) ?? []), need]);
    const fixed = [...byRun.values()].flatMap((own) => byTwos(own).map((of): Fixed => ({ needs: of })));
    const [needs, ofItself] = [wanted.map((w) => w.need), wanted.map(lyingOf)];
    return { ...planOnLimb(workFor, fixed, { needs, ofItself }), against, tried };
  }

  /** The wood in the way of wires on a limb: what grows on it, with the wire that comes on that, and what comes close to it. */
  private knotsOn(limb: string, half: number, beside: number, { keep, near }: Among): Knot[] {
    // For one wire as for one a little thicker: what is in its way stays the same.
    const widest = Math.ceil(half / KNOT_STEP) * KNOT_STEP;
    const key = [limb, widest, beside].join(' ');
    const before = this.knots.get(key);
    if (before) return before;
    const bark = this.bark(limb);
    const box = boxed(bark.line);
    const beneath = near.filter((l) => l.bark !== bark && !boxesApart(box, l.box, l.wound + 2 * widest + MARGIN));
    const made = keep(`knots ${key} ${serialOf(bark)} ${keyOf(beneath)}`, () => this.findKnots(limb, widest, beside, { keep, near: beneath }));
    this.knots.set(key, made);
    return made;
  }

  private findKnots(limb: string, half: number, beside: number, { keep, near }: Among): Knot[] {
    const bark = this.bark(limb);
    const parent = this.placed.byId.get(limb)?.branch.parent;
    const found = near.flatMap(({ id, bark: other, wound }) => {
      if (id !== parent) return knotsOf(id, bark, other, this.placed.byId.get(id)?.branch.parent === limb ? wound * beside : wound, half);
      // Where it comes out of its own limb, the first turn has been looked at.
      const beyond = (k: Knot): Knot => ({ ...k, spots: k.spots.filter((p) => p.s > bark.clearFrom + 2 * bark.radius(0)) });
      const knots = knotsOf(id, bark, other, 0, half);
      return keep(`beyond ${serialsOf([bark, ...knots])}`, () => knots.map(beyond).filter((k) => k.spots.length > 0));
    });
    return keep(`all knots ${serialsOf(found)}`, () => found);
  }

  private lay(
    limb: string,
    joined: Joined,
    found: Among & { barks: readonly FlatBark[]; against: Map<string, string>; stuck: Set<Touch>; anyhow: boolean },
  ): Laid | null {
    const bark = this.bark(limb);
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
        (end, i): Half | null => end && { branch: end.need.branch, bark: this.bark(end.need.branch), coil: coils[i]!.places, points: coils[i]!.points },
      ) as [Half | null, Half | null];
      const path = layPath({ id: limb, bark }, route, halves);
      return { path, coils, wire: laidWire(path, half, joined.size / 2) };
    });
    if (fixed) return laid;
    const holds = joined.ends.every((end) => !end || turnsOn(laid.path, end.need.branch) >= LEAST_COIL);
    return holds && !liesInWood(laid.wire, found.barks) ? laid : null;
  }

  private addPiece(limb: string, joined: Joined, { path, coils }: Laid, across: boolean): void {
    const half = joined.way.half;
    const first = this.wanted.get((joined.ends[0] ?? joined.ends[1]!).need.branch)!;
    const { size } = joined;
    const anchoredOn = this.coils.get(limb)?.run ?? null;
    const run: RunPlan = {
      id: first.run?.id ?? '',
      kind: joined.kind,
      ...asPiece(first.need, size, path.length),
      order: Math.min(...joined.ends.flatMap((e) => (e ? this.placed.byId.get(e.need.branch)!.order : []))),
      route: {
        side: sideOf(joined.hidden),
        length: joined.length,
        turnDeg: ((joined.way.along.length - 1) * 360) / TURN,
        hidden: sideOf(joined.hidden) === 'behind',
      },
      anchor: joined.kind === 'pair' ? null : { run: anchoredOn, turns: (joined.way.along.length - 1) / TURN },
      branches: joined.ends.flatMap((end, i) => (end ? [this.partOf(end.need, end.touch, size, path, coils[i]!, unserved(end.touch, end.need.wish))] : [])),
      because: across ? ['Settled so it lies across other wire, or presses on wood: there is no way clear of them.'] : [],
      path,
    };
    this.runs.push(run);
    joined.ends.forEach((end, i) => {
      if (end) this.coils.set(end.need.branch, { way: wayOfCoil(coils[i]!, half), hand: end.touch.hand, run: run.id });
    });
  }

  private coilOn({ need, touch }: End, half: number, among: Among): CoilOn {
    const bark = this.bark(need.branch);
    // Of the wires of its side shoots one half: they lie on one side of them. What runs into them is found when it is laid.
    const knots = this.knotsOn(need.branch, half, 0.5, among);
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

  private outsidesOn(branch: string, keep: Keep): readonly Outside[] {
    const before = this.outsides.get(branch);
    if (before) return before;
    const found = outsidesOf(this.bark(branch), this.wanted.get(branch)!.holds, this.back);
    const made = keep(`outsides ${JSON.stringify(found)}`, () => found);
    this.outsides.set(branch, made);
    return made;
  }

  private partOf(need: Need, wound: { hand: Hand; start: Start }, size: number, path: WirePath, coil: FittedCoil, said: readonly string[]): RunBranchPlan {
    const { bends, holds, pose, tie, past: first } = this.wanted.get(need.branch)!;
    const gap = gapFor(woodIn(this.placed, need.branch)!);
    const wire: WireToTry = { metal: need.metal, size, strands: need.strands, coilAngleDeg: need.angle, grip: gripOf(gap) };
    const past = need.branch === 'trunk' ? first : this.wants.pastWith(need.branch, bends, wire, first);
    const by = coil.blocked && this.names(coil.blocked.by);
    const { hand, start } = wound;
    /** Of each bend of its pose, which of those that the wire holds it is; −1: a tie holds it. */
    const held = (pose?.bends ?? holds).map((b) => holds.indexOf(b));
    const of = [hand, start, size, gap, past, held, tie, by, ...said];
    return this.memory.keep(`part ${serialsOf([need, bends, path, coil])} ${JSON.stringify(of)}`, () => {
      const tried = bends.map((_, i) => this.wants.tried(bends, i, wire, past));
      const choice = tried[0]!;
      const stretch = path.on.get(need.branch)!;
      const places = coil.places;
      return {
        branch: need.branch,
        hand,
        start,
        gap,
        from: stretch.from,
        to: stretch.to,
        turns: turnsOn(path, need.branch),
        hold: choice.hold,
        springBack: choice.springBack,
        firmness: { pushChance: choice.pushChance, overbend: choice.overbend },
        phaseMissDeg: coil.missDeg.length ? Math.max(...coil.missDeg) : null,
        rule: ruleOfThumb(need.diameter),
        bendTo: choice.bendToDeg,
        settles: choice.settlesDeg,
        target: bends[0].angleDeg,
        bendLength: bends[0].length,
        bends: held.map((i) => {
          const one = tried[i];
          return one ? { bendTo: one.bendToDeg, settles: one.settlesDeg, spread: spreadOf(bends[i]!, one), missDeg: coil.missDeg[i] ?? 0 } : null;
        }),
        tied: tie !== null,
        because: [
          ...(tie ? [tie, 'This wire holds its movement only, and goes on before the tie.'] : sayChoice(bends[0], choice)),
          ...said,
          ...(by ? [`The coil ends ${places[places.length - 1]!.s.toFixed(0)} mm along: ${by} lies against it there.`] : []),
        ],
      };
    });
  }
}

/** What a branch's wire is before anything is fixed; else as it is fixed. */
const lyingOf = ({ need, ofItself }: Wanted): Need => ofItself ?? need;

const told = new WeakMap<readonly PlannedBend[], string>();

/** All that tells the bends of a pose from others; bends do not change. */
function tellBends(bends: readonly PlannedBend[]): string {
  const before = told.get(bends);
  if (before !== undefined) return before;
  const made = JSON.stringify(bends.map((b) => [b.at, b.length, b.angle, b.start, b.toward]));
  told.set(bends, made);
  return made;
}

/** Wires are told apart by so much of their half width, mm, in looking for what is in their way: all single ones are alike. */
const KNOT_STEP = 3;

const keyOf = (limbs: readonly Surrounding[]): string => limbs.map((l) => l.key).join();

/** Stands for the coil of an end that is free. */
const NO_COIL = {};

/** A piece goes on two branches of a limb; what a file has on more of them is so many pieces. */
const byTwos = (needs: readonly Need[]): Fixed['needs'][] =>
  needs.flatMap((need, i): Fixed['needs'][] => (i % 2 ? [] : needs[i + 1] ? [[need, needs[i + 1]!]] : [[need]]));

/** Pieces of wire for the branches that must move, as they go on; what the plan fixes is kept. With the memory of the plan before, only the limbs that a change concerns are worked out anew. docs: Runs. */
export function planWiring(placed: PlacedTree, posed: PosedBranches, pastOf: PastOf = () => USUAL_PAST, memory = new PlanMemory()): WiringPlan {
  const { runs, unwired, toTie, worth } = new Wiring(placed, posed, pastOf, memory);
  const byId = (id: string): PlacedBranch => woodIn(placed, id)!;
  const height = (run: RunPlan): number => Math.min(...run.branches.map((b) => byId(b.branch).line.points[0]![2]));
  const sorted = [...runs].sort(
    (a, b) => a.order - b.order || b.size - a.size || height(a) - height(b) || (a.branches[0]!.branch < b.branches[0]!.branch ? -1 : 1),
  );
  const used = new Set(placed.tree.plan.runs.map((r) => r.id));
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
  for (const run of sorted)
    if (run.kind === 'anchored') run.anchor = { ...run.anchor!, run: onBranch.get(byId(run.branches[0]!.branch).branch.parent) ?? null };
  return { runs: sorted, unwired, toTie, worth };
}
