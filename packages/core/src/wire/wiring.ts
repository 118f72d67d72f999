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
import { bentUpTo, handOnto, leadOn, shootToCarryOn, type Carrier, type LedOn } from './carry.js';
import { fitCoil, type Outside } from './coil-fit.js';
import type { FlatBark, BarkPlace } from './flat-bark.js';
import { knotsOf, MARGIN, type Knot } from './knots.js';
import { laidWire, liesInWood, type LaidWire } from './laid.js';
import type { CoilOn, End, Joined, Laid, LaidPiece, LimbWork, Need } from './limb-work.js';
import { Wants, type Wanted } from './wanted.js';
import { sideOf } from './join-ways.js';
import { PlanMemory, type LimbOutcome } from './memory.js';
import { gapFor, metalFor, outsidesOf } from './needs.js';
import { planOnLimb, type Fixed } from './on-limb.js';
import { layPath, pathOfCoil, type Half } from './path.js';
import { asPiece, LEAST_COIL, tooShort, turnsOn, unserved } from './piece.js';
import { type PastOf, type PosedBranches, type RunBranchPlan, type RunPlan, type Unwired, type WiringPlan } from './run-plan.js';
import { HANDS } from './touching.js';
import { SOIL_SHARE, trunkCoil } from './trunk-wire.js';
import { shoulderOf, type Shoulder, type Touch } from './shoulders.js';
import { wayOfCoil } from './way-of-coil.js';
import { TURN, turnOf } from './ways.js';

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

/** A piece on one of its branches. */
interface Part {
  need: Need;
  wound: { hand: Hand; start: Start };
  coil: CoilOn;
  said: readonly string[];
  onFrom: string | null;
  /** From where on, mm along, the branch has no wire: it went on along a shoot. */
  until?: number;
}

/** A piece with how it lies. */
interface Piece {
  run: RunPlan;
  wire: LaidWire;
  /** In their order along it. */
  parts: Part[];
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
  private readonly coils = new Map<string, Carrier & { piece: Piece }>();
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
    this.chooseHandsOnto();
    this.surroundings = this.surround();
    this.planTrunk();
    this.surroundings = this.surround();
    const limbs = ['trunk'];
    for (const limb of limbs) {
      this.planLimb(limb);
      limbs.push(...childrenOf(placed.tree, limb).map((b) => b.id));
    }
  }

  /** A branch that may wind either way winds so that its wire can go on along its shoot. */
  private chooseHandsOnto(): void {
    for (const [limb, on] of this.wanted) {
      const need = on.ofItself;
      if (!need || need.wish.hand !== null) continue;
      const shoots = childrenOf(this.placed.tree, limb).flatMap((b) => this.wanted.get(b.id) ?? []);
      const free = shoots.map((s): Wanted => ({ ...s, need: lyingOf(s), run: null }));
      const shoot = shootToCarryOn(this.placed, { ...on, run: null }, need, free);
      const hand = shoot && handOnto(this.shoulder(shoot.need.branch, limb, this.memory.keep), need, shoot.need);
      if (!hand) continue;
      const wound = this.memory.keep(`onto ${hand} ${serialOf(need)}`, () => ({ ...need, wish: { ...need.wish, hand, forShoot: true } }));
      if (on.need === need) on.need = wound;
      on.ofItself = wound;
    }
  }

  private shoulder(branch: string, limb: string, keep: Keep): Shoulder {
    const [bark, own] = [this.bark(limb), this.bark(branch)];
    return keep(`shoulder ${serialsOf([bark, own])}`, () => shoulderOf(branch, bark, own));
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
    const run: RunPlan = {
      id: given?.id ?? '',
      kind: 'trunk',
      ...asPiece({ metal, strands, angle }, size, path.length + soil),
      order: 0,
      route: null,
      anchor: { run: null, turns: 0, soil },
      branches: [],
      because: ['It holds the trunk before any branch is wired: branch wires go beside it, with its hand.'],
      path,
    };
    this.putOn({ run, wire: laid, parts: [{ need, wound: { hand, start: 'over' }, coil, said: [], onFrom: null }] }, half);
  }

  /** Adds a piece to the plan. */
  private putOn(piece: Piece, half: number): void {
    const { run, wire, parts } = piece;
    this.laid.push(wire);
    this.runs.push(run);
    run.branches = parts.map((part) => this.partOf(part, run));
    for (const { need, wound, coil } of parts)
      this.coils.set(need.branch, { need, hand: wound.hand, coil, way: wayOfCoil(coil, half), path: run.path, wire, piece });
  }

  /** Leads a piece that is on the tree already on along a shoot of one of its branches. */
  private leadOn(limb: string, led: LedOn): void {
    const carrier = this.coils.get(limb)!;
    const { piece } = carrier;
    const { run } = piece;
    this.laid[this.laid.indexOf(piece.wire)] = led.wire;
    piece.wire = led.wire;
    run.path = led.path;
    Object.assign(run, asPiece(run, run.size, led.path.length + (run.anchor?.soil ?? 0)));
    const along = [...led.path.on.keys()];
    const own = piece.parts.find((part) => part.need.branch === limb)!;
    const until = led.upTo.places[led.upTo.places.length - 1]!.s;
    const beyond = this.wanted.get(limb)!.pose?.bends.filter((b) => isBeyond(b, until)) ?? [];
    const bare = beyond.map((b) => `${b.angle.toFixed(0)}° (${b.at.toFixed(0)} mm along)`).join(', ');
    const left = bare ? `its ${beyond.length > 1 ? 'bends' : 'bend'} of ${bare} ${beyond.length > 1 ? 'have' : 'has'} no wire` : 'there is no bend to hold';
    const onwards = `Its wire goes on along ${this.names(led.need.branch)}: beyond that ${left}.`;
    const { hand, start } = led.touch;
    piece.parts = [
      ...piece.parts.map((part) => (part === own ? { ...part, coil: led.upTo, said: [...part.said, onwards], until } : part)),
      {
        need: led.need,
        wound: { hand, start },
        coil: led.coil,
        said: [`The wire of ${this.names(limb)} goes on along it: it needs no turns to anchor it.`, ...unserved(led.touch, led.need.wish)],
        onFrom: limb,
      },
    ].sort((a, b) => along.indexOf(a.need.branch) - along.indexOf(b.need.branch));
    run.branches = piece.parts.map((part) => this.partOf(part, run));
    for (const part of piece.parts) {
      const before = this.coils.get(part.need.branch) ?? carrier;
      const way = part.need.branch === limb ? led.way : part.need === led.need ? wayOfCoil(led.coil, carrier.way.half) : before.way;
      this.coils.set(part.need.branch, { need: part.need, hand: part.wound.hand, coil: part.coil, way, path: led.path, wire: led.wire, piece });
    }
  }

  private planLimb(limb: string): void {
    const wanted = childrenOf(this.placed.tree, limb).flatMap((b) => this.wanted.get(b.id) ?? []);
    if (!wanted.length) return;
    const passing = Math.max(...wanted.map((w) => lyingOf(w).size * lyingOf(w).strands), this.coils.get(limb)?.way.half ?? 0);
    const near = this.nearTo(limb, wanted, 4 * passing + 16);
    const carrier = this.coils.get(limb);
    const on = carrier && limb !== 'trunk' ? shootToCarryOn(this.placed, this.wanted.get(limb)!, carrier.need, wanted) : null;
    const { joined, left, worth, against, led } = this.memory.outcomeOf(limb, this.keyOfLimb(limb, wanted, near, on), near.wires, (keep) =>
      this.workOut(limb, wanted, passing, near, on, keep),
    );
    if (led) this.leadOn(limb, led);
    else if (on?.run) carrier!.piece.run.because.push(`It finds no way on to ${this.names(on.need.branch)}: that has a piece of its own.`);
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
      this.addPiece(piece, piece.laid, piece.across ?? false);
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
  private keyOfLimb(limb: string, wanted: readonly Wanted[], near: Near, on: Wanted | null): string {
    const coil = this.coils.get(limb);
    return JSON.stringify([
      this.placed.tree.plan.front ?? null,
      keyOf(near.limbs),
      wanted.map(({ need, holds, run }) => [serialOf(need), tellBends(holds), run?.id]),
      coil ? [serialOf(coil.way), coil.hand] : null,
      on ? [on.need.branch, serialOf(coil!.need), bentUpTo(this.wanted.get(limb)!)] : null,
    ]);
  }

  private workOut(limb: string, all: readonly Wanted[], passing: number, near: Near, on: Wanted | null, keep: Keep): LimbOutcome {
    const bark = this.bark(limb);
    const barks = near.limbs.map((l) => l.bark);
    const shoulders = new Map<string, Shoulder>(all.map(({ need: { branch } }) => [branch, this.shoulder(branch, limb, keep)]));
    const against = new Map<string, string>();
    const tried: LaidWire[] = [];
    const carrier = this.coils.get(limb) ?? null;
    const among = { keep, near: near.limbs };
    const knots = this.knotsOn(limb, passing / 2, 1, among);
    const workWith = (coil: LimbWork['coil'], wires: readonly LaidWire[], anyhow: boolean): LimbWork => {
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
      return { bark, shoulders, knots, coil, toward: this.toward, lay, stuck, wires, keep };
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
    return { ...planOnLimb(workFor, fixed, { needs, ofItself }), against, tried, led };
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

  private addPiece(joined: LaidPiece, { path, coils, wire }: Laid, across: boolean): void {
    const first = this.wanted.get((joined.ends[0] ?? joined.ends[1]!).need.branch)!;
    const { size, kind, hidden, way } = joined;
    const gauge = Math.max(...joined.ends.map((e) => e?.need.gauge ?? 0));
    const parts = joined.ends.flatMap((end, i): Part[] => {
      if (!end) return [];
      const need = end.need.size === size ? end.need : this.memory.keep(`need ${serialOf(end.need)} ${size} ${gauge}`, () => ({ ...end.need, size, gauge }));
      return [{ need, wound: end.touch, coil: coils[i]!, said: unserved(end.touch, end.need.wish), onFrom: null }];
    });
    const run: RunPlan = {
      id: first.run?.id ?? '',
      kind,
      ...asPiece(first.need, size, path.length),
      order: Math.min(...parts.map(({ need }) => this.placed.byId.get(need.branch)!.order)),
      route: { side: sideOf(hidden), length: joined.length, turnDeg: ((way.along.length - 1) * 360) / TURN, hidden: sideOf(hidden) === 'behind' },
      anchor: kind === 'pair' ? null : { run: null, turns: (way.along.length - 1) / TURN },
      branches: [],
      because: across ? ['Settled so it lies across other wire, or presses on wood: there is no way clear of them.'] : [],
      path,
    };
    this.putOn({ run, wire, parts }, way.half);
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

  private partOf({ need, wound, coil, said, onFrom, until = Infinity }: Part, { size, path }: RunPlan): RunBranchPlan {
    const wanted = this.wanted.get(need.branch)!;
    const { bends, holds, pose, tie, past: first } = wanted;
    const gap = gapFor(woodIn(this.placed, need.branch)!);
    const wire: WireToTry = { metal: need.metal, size, strands: need.strands, coilAngleDeg: need.angle, grip: gripOf(gap) };
    const past = need.branch === 'trunk' ? first : this.wants.pastWith(need.branch, bends, wire, first);
    const by = coil.blocked && this.names(coil.blocked.by);
    const { hand, start } = wound;
    /** Of each bend of its pose, which of those that the wire holds it is; −1: a tie does, or nothing. */
    const held = (pose?.bends ?? holds).map((b) => (isBeyond(b, until) ? -1 : holds.indexOf(b)));
    const shared = size > lyingOf(wanted).size;
    const of = [hand, start, size, gap, past, held, tie, by, onFrom, shared, ...said];
    return this.memory.keep(`part ${serialsOf([need, bends, path, coil])} ${JSON.stringify(of)}`, () => {
      const tried = bends.map((_, i) => this.wants.tried(bends, i, wire, past));
      const choice = tried[0]!;
      const stretch = path.on.get(need.branch)!;
      const places = coil.places;
      return {
        branch: need.branch,
        onFrom,
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
          ...(tie ? [tie, 'This wire holds its movement only, and goes on before the tie.'] : sayChoice(bends[0], choice, shared)),
          ...said,
          ...(by ? [`The coil ends ${places[places.length - 1]!.s.toFixed(0)} mm along: ${by} lies against it there.`] : []),
        ],
      };
    });
  }
}

/** What a branch's wire is before anything is fixed; else as it is fixed. */
const lyingOf = ({ need, ofItself }: Wanted): Need => ofItself ?? need;

const isBeyond = (bend: PlannedBend, until: number): boolean => bend.at + bend.length > until;

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
