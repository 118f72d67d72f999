import { boxed, boxesApart, screenAxes, tilting, type Limb, type Vec } from '../space/index.js';
import { gaugeOf, gripOf, METAL_DATA, ruleOfThumb, wireMass, type MetalName } from '../wood/index.js';
import {
  childrenOf,
  namesOf,
  woodIn,
  type Hand,
  type Names,
  type PlacedBranch,
  type PlacedTree,
  type PlannedPose,
  type Run,
  type RunBranch,
  type Start,
} from '../tree/index.js';
import { WOUND_SHARE } from './coil-alone.js';
import { chooseWire, COIL_ANGLE, sayChoice, spreadOf, tryWire, USUAL_PAST, type WireToTry } from './choose.js';
import { fitCoil, type FittedCoil } from './coil-fit.js';
import { FlatBark, type BarkPlace } from './flat-bark.js';
import { knotsOf, mayTouch, type Knot } from './knots.js';
import { laidWire, liesInWood, type LaidWire } from './laid.js';
import type { CoilOn, End, Joined, Laid, LimbWork, Need } from './limb-work.js';
import { serialOf, WiringMemory, type LimbOutcome } from './memory.js';
import { bendsToHold, gapFor, metalFor, outsidesOf, ownManner, wishOf, type HeldBends } from './needs.js';
import { planOnLimb, type Fixed } from './on-limb.js';
import { layPath, pathOfCoil, type Half, type WirePath } from './path.js';
import { stiffnessOf, type Stiffness } from './press-test.js';
import { pieceLength, type PastOf, type PosedBranches, type RunBranchPlan, type RunPlan, type Unwired, type WiringPlan } from './run-plan.js';
import { HANDS } from './touching.js';
import { SOIL_SHARE, trunkCoil } from './trunk-wire.js';
import { served, shoulderOf, type Shoulder, type Touch, type Wish } from './shoulders.js';
import { TURN, turnOf, type Way } from './ways.js';

interface Wanted extends Need {
  bends: HeldBends;
  pose: PlannedPose | undefined;
  past: number;
  run: Run | null;
}

/** What may be in the way of the wire on a limb. */
interface Near {
  limbs: string[];
  wires: LaidWire[];
}

/** All that the pieces of one plan are worked out with. */
class Wiring {
  readonly runs: RunPlan[] = [];
  readonly unwired: WiringPlan['unwired'] = [];
  readonly worth = { best: 0, had: 0 };
  private readonly barks = new Map<string, FlatBark>();
  private readonly coils = new Map<string, { way: Way; hand: Hand; run: string; made: CoilOn }>();
  private readonly wanted = new Map<string, Wanted>();
  private readonly back: (way: Vec) => Vec;
  private readonly toward: Vec | null;
  private readonly names: Names;
  private readonly stiffness: (branch: string) => Stiffness;
  private readonly laid: LaidWire[] = [];
  private readonly fitted = new Map<string, CoilOn>();
  private readonly knots = new Map<string, Knot[]>();

  constructor(
    private readonly placed: PlacedTree,
    private readonly posed: PosedBranches,
    private readonly pastOf: PastOf,
    private readonly memory: WiringMemory,
  ) {
    const { front } = placed.tree.plan;
    this.back = front && (front.pitch || front.roll) ? tilting(front).back : (v) => v;
    this.toward = front ? screenAxes(front.bearing).toward : null;
    this.names = namesOf(placed.tree);
    this.stiffness = stiffnessOf(placed.tree);
    this.findNeeds();
    this.planTrunk();
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
    const made = b ? new FlatBark(b.line, this.bark(b.branch.parent)) : new FlatBark(this.placed.trunk);
    this.barks.set(id, made);
    return made;
  }

  /** What each branch needs, or why it goes without. */
  private findNeeds(): void {
    const { placed } = this;
    const poseOf = new Map(this.posed.poses.map((p) => [p.branch, p]));
    const stays = new Map(this.posed.asGrown.map((b) => [b.branch, b.because]));
    const fixed = new Map(placed.tree.plan.runs.flatMap((run) => run.branches.map((own) => [own.branch, { run, own }] as const)));
    for (const b of placed.branches) {
      const { id } = b.branch;
      const given = fixed.get(id);
      const pose = poseOf.get(id);
      if (given) this.wanted.set(id, this.asFixed(b, given.run, given.own, pose));
      else {
        const needed = this.chosen(b, pose, stays.get(id));
        if ('because' in needed) this.unwired.push({ branch: id, ...needed });
        else this.wanted.set(id, needed);
      }
    }
  }

  private asFixed(b: PlacedBranch, run: Run, own: RunBranch, pose: PlannedPose | undefined): Wanted {
    const bends = bendsToHold(this.placed, b, pose, this.stiffness(b.branch.id));
    return {
      ...this.needOf(b, run),
      ...(run.side ? { side: run.side } : {}),
      wish: { hand: own.hand, start: own.start, must: 'both' },
      bends,
      pose,
      past: USUAL_PAST,
      run,
    };
  }

  private needOf(b: PlacedBranch, wire: { metal: MetalName; size: number; strands: number; angle: number }): Omit<Need, 'wish'> {
    const { sizes } = METAL_DATA[wire.metal];
    const ascending = [...sizes].sort((x, y) => x - y);
    const gauge = ascending.reduce((best, s, i) => (Math.abs(s - wire.size) < Math.abs(ascending[best]! - wire.size) ? i : best), 0);
    const { metal, size, strands, angle } = wire;
    const coilLength = (this.bark(b.branch.id).length * WOUND_SHARE) / Math.cos((angle * Math.PI) / 180);
    return { branch: b.branch.id, metal, size, gauge, strands, angle, diameter: b.branch.d, coilLength };
  }

  private chosen(b: PlacedBranch, pose: PlannedPose | undefined, stays: string[] | undefined): Wanted | Omit<Unwired, 'branch'> {
    if (b.branch.state === 'dead') return { because: ['Dead wood is not wired.'] };
    if (b.branch.state === 'weak') return { because: ['Weak: let it grow stronger first.'] };
    if (ownManner(this.placed, b.branch.id)?.clip) return { because: ['Shaped by cutting as it grows: no wire.'] };
    if (!pose) return { because: stays ?? [] };
    const bends = bendsToHold(this.placed, b, pose, this.stiffness(b.branch.id));
    const [bend, ...others] = bends;
    const choice = chooseWire(bend, metalFor(this.placed, b), ownManner(this.placed, b.branch.id)?.firmness ?? this.placed.tree.plan.firmness, {
      others,
      grip: gripOf(gapFor(b)),
    });
    if (!choice) return { because: sayChoice(bend, null).slice(0, 1), guy: true };
    const wire = { metal: choice.metal, size: choice.size, strands: choice.strands, coilAngleDeg: COIL_ANGLE, grip: gripOf(gapFor(b)) };
    const past = this.pastOf(b.branch.id, bend, wire);
    if (tryWire(bend, wire, past).risk > 1.6)
      return { because: ['The bend by hand is more than the wood takes in one season: choose another plan, or a technique such as a wedge cut.'] };
    return { ...this.needOf(b, { ...choice, angle: COIL_ANGLE }), wish: wishOf(pose), bends, pose, past, run: null };
  }

  /** The trunk's own wire, where the trunk is bent: out of the soil behind it, up and round over its bends. */
  private planTrunk(): void {
    const given = this.placed.tree.plan.runs.find((r) => r.branches.some((b) => b.branch === 'trunk')) ?? null;
    const trunkBends = this.posed.trunk ?? [];
    if (!given && !trunkBends.length) return;
    const wood = woodIn(this.placed, 'trunk')!;
    const pose = { bends: [...trunkBends] };
    const bends = bendsToHold(this.placed, wood, pose, this.stiffness('trunk'));
    const [bend, ...others] = bends;
    const wire = given ?? chooseWire(bend, metalFor(this.placed, wood), this.placed.tree.plan.firmness, { others });
    if (!wire) {
      const stiffest = bends.reduce((worst, b) => (b.diameter > worst.diameter ? b : worst));
      this.unwired.push({ branch: 'trunk', because: sayChoice(stiffest, null).slice(0, 1) });
      return;
    }
    const { metal, size, strands } = wire;
    const angle = given?.angle ?? COIL_ANGLE;
    const need: Need = { ...this.needOf(wood, { metal, size, strands, angle }), wish: { hand: null, start: null, must: 'neither' } };
    const half = (size * strands) / 2;
    const bark = this.bark('trunk');
    const { hand, coil } = trunkCoil({
      bark,
      angle,
      half,
      lift: size / 2,
      hands: given ? [given.branches[0]!.hand] : HANDS,
      toward: this.toward,
      end: Math.min(WOUND_SHARE * bark.length, trunkBends.reduce((far, b) => Math.max(far, b.at + b.length), bark.length / 2) + 2 * need.diameter),
      knots: this.knotsOn('trunk', half, 0.5),
      outsides: outsidesOf(bark, pose.bends, this.back),
    });
    const path = pathOfCoil('trunk', coil);
    const soil = SOIL_SHARE * this.placed.tree.pot.height;
    this.wanted.set('trunk', { ...need, bends, pose: undefined, past: USUAL_PAST, run: given });
    this.laid.push(laidWire(path, half, size / 2));
    this.coils.set('trunk', { way: wayOfCoil(coil.places, half), hand, run: given?.id ?? '', made: coil });
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
    const needs = childrenOf(this.placed.tree, limb).flatMap((b) => this.wanted.get(b.id) ?? []);
    if (!needs.length) return;
    const passing = Math.max(...needs.map((n) => n.size * n.strands), this.coils.get(limb)?.way.half ?? 0);
    const near = this.nearTo(limb, needs, 4 * passing + 16);
    const { joined, left, worth, against } = this.memory.outcomeOf(limb, this.keyOf(limb, needs, near), () => this.workOut(limb, needs, passing, near));
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
  private nearTo(limb: string, needs: readonly Wanted[], within: number): Near {
    const own = [limb, ...needs.map((n) => n.branch)].map((id) => boxed(this.bark(id).line));
    const ids = ['trunk', ...this.placed.branches.map((b) => b.branch.id)];
    return {
      limbs: ids.filter((id) => own.some((box) => !boxesApart(box, boxed(this.bark(id).line), within))),
      wires: this.laid.filter((wire) => own.some((box) => !boxesApart(box, wire.box, within))),
    };
  }

  /** All that matters to the pieces on a limb. */
  private keyOf(limb: string, needs: readonly Wanted[], near: Near): string {
    const coil = this.coils.get(limb);
    return JSON.stringify([
      this.placed.tree.plan.front ?? null,
      near.limbs.map((id) => {
        const { points, diameters } = this.bark(id).line;
        return [id, this.placed.byId.get(id)?.branch.parent, points, diameters, this.wanted.get(id)?.size];
      }),
      needs.map(({ bends: _bends, pose, past: _past, run, ...need }) => [need, pose?.bends.map((b) => [b.at, b.length, b.angle, b.start, b.toward]), run?.id]),
      near.wires.map(serialOf),
      coil ? [serialOf(coil.made), coil.hand, coil.way.half] : null,
    ]);
  }

  private workOut(limb: string, needs: readonly Wanted[], passing: number, near: Near): LimbOutcome {
    const bark = this.bark(limb);
    const barks = near.limbs.map((id) => this.bark(id));
    const shoulders = new Map<string, Shoulder>(needs.map((n) => [n.branch, shoulderOf(n.branch, bark, this.bark(n.branch))]));
    const against = new Map<string, string>();
    const stuck = new Set<Touch>();
    const seen = new Map<string, Laid | null>();
    const lay = (joined: Joined): Laid | null => {
      const key = `${joined.key} ${joined.way.along.map((s) => s.toFixed(1)).join()}`;
      const before = seen.get(key);
      if (before !== undefined) return before;
      const made = this.lay(limb, joined, { barks, against, stuck });
      seen.set(key, made);
      return made;
    };
    const coil = this.coils.get(limb) ?? null;
    const work: LimbWork = { bark, shoulders, knots: this.knotsOn(limb, passing / 2, 1), coil, toward: this.toward, lay, stuck, wires: near.wires };
    const byRun = new Map<Run, Wanted[]>();
    for (const n of needs) if (n.run) byRun.set(n.run, [...(byRun.get(n.run) ?? []), n]);
    const fixed = [...byRun.values()].flatMap((own) => byTwos(own).map((of): Fixed => ({ needs: of })));
    return {
      ...planOnLimb(
        work,
        fixed,
        needs.filter((n) => !n.run),
      ),
      against,
    };
  }

  /** The wood in the way of wires on a limb: what grows on it, with the wire that comes on that, and what comes close to it. */
  private knotsOn(limb: string, half: number, beside: number): Knot[] {
    const key = [limb, half, beside].join(' ');
    const before = this.knots.get(key);
    if (before) return before;
    const made = this.findKnots(limb, half, beside);
    this.knots.set(key, made);
    return made;
  }

  private findKnots(limb: string, half: number, beside: number): Knot[] {
    const bark = this.bark(limb);
    const parent = this.placed.byId.get(limb)?.branch.parent;
    const lines: [string, Limb][] = [...this.placed.branches.map((b): [string, Limb] => [b.branch.id, b.line]), ['trunk', this.placed.trunk]];
    return lines.flatMap(([id, line]) => {
      if (id === limb || !mayTouch(bark.line, line, 4 * half + 4)) return [];
      const need = this.wanted.get(id);
      const ownChild = this.placed.byId.get(id)?.branch.parent === limb;
      const knots = knotsOf(id, bark, line, id === parent || !need ? 0 : need.size * (ownChild ? beside : 1), half);
      // Where it comes out of its own limb, the first turn has been looked at.
      if (id !== parent) return knots;
      return knots.map((k) => ({ ...k, spots: k.spots.filter((p) => p.s > bark.clearFrom + 2 * bark.radius(0)) })).filter((k) => k.spots.length > 0);
    });
  }

  private lay(limb: string, joined: Joined, found: { barks: readonly FlatBark[]; against: Map<string, string>; stuck: Set<Touch> }): Laid | null {
    const bark = this.bark(limb);
    const coils = joined.ends.map((end) => end && this.coilOn(end, joined.way.half));
    const fixed = joined.ends.some((end) => end !== null && this.wanted.get(end.need.branch)!.run !== null);
    for (const [i, coil] of coils.entries()) {
      if (!coil || fixed || !tooShort(coil)) continue;
      found.against.set(joined.ends[i]!.need.branch, coil.blocked!.by);
      found.stuck.add(joined.ends[i]!.touch);
      return null;
    }
    const half = joined.way.half;
    const route = joined.way.along.map((s, i): BarkPlace => ({ s, turn: turnOf(joined.way.first + i), lift: joined.size / 2 }));
    const halves = joined.ends.map(
      (end, i): Half | null => end && { branch: end.need.branch, bark: this.bark(end.need.branch), coil: coils[i]!.places, points: coils[i]!.points },
    ) as [Half | null, Half | null];
    const path = layPath({ id: limb, bark }, route, halves);
    const wire = laidWire(path, half, joined.size / 2);
    if (fixed) return { path, coils, wire };
    const holds = joined.ends.every((end) => !end || turnsOn(path, end.need.branch) >= LEAST_COIL);
    return holds && !liesInWood(wire, found.barks) ? { path, coils, wire } : null;
  }

  private addPiece(limb: string, joined: Joined, { path, coils }: Laid, across: boolean): void {
    const half = joined.way.half;
    const first = this.wanted.get((joined.ends[0] ?? joined.ends[1]!).need.branch)!;
    const { size } = joined;
    const anchoredOn = this.coils.get(limb)?.run ?? null;
    const run: RunPlan = {
      id: first.run?.id ?? '',
      kind: joined.kind,
      ...asPiece(first, size, path.length),
      order: Math.min(...joined.ends.flatMap((e) => (e ? this.placed.byId.get(e.need.branch)!.order : []))),
      route: {
        side: (joined.hidden ?? 0) > 0.5 ? 'behind' : 'front',
        length: joined.length,
        turnDeg: ((joined.way.along.length - 1) * 360) / TURN,
        hidden: (joined.hidden ?? 0) > 0.5,
      },
      anchor: joined.kind === 'pair' ? null : { run: anchoredOn, turns: (joined.way.along.length - 1) / TURN },
      branches: joined.ends.flatMap((end, i) => (end ? [this.partOf(end.need, end.touch, size, path, coils[i]!, unserved(end.touch, end.need.wish))] : [])),
      because: across ? ['Settled so it lies across other wire, or presses on wood: there is no way clear of them.'] : [],
      path,
    };
    this.runs.push(run);
    joined.ends.forEach((end, i) => {
      if (end) this.coils.set(end.need.branch, { way: wayOfCoil(coils[i]!.places, half), hand: end.touch.hand, run: run.id, made: coils[i]! });
    });
  }

  private coilOn(end: End, half: number): CoilOn {
    const { branch } = end.need;
    const { s, turn } = end.touch.onBranch;
    const key = [branch, end.touch.hand, s.toFixed(2), turn.toFixed(3), half].join(' ');
    const before = this.fitted.get(key);
    if (before) return before;
    const made = this.fitOn(end, half);
    this.fitted.set(key, made);
    return made;
  }

  private fitOn({ need, touch }: End, half: number): CoilOn {
    const bark = this.bark(need.branch);
    const wanted = this.wanted.get(need.branch)!;
    // Of the wires of its side shoots one half: they lie on one side of them. What runs into them is found when it is laid.
    const knots = this.knotsOn(need.branch, half, 0.5);
    const fitted = fitCoil({
      bark,
      hand: touch.hand,
      angleDeg: need.angle,
      half,
      start: touch.onBranch,
      end: bark.length * WOUND_SHARE,
      knots,
      outsides: outsidesOf(bark, wanted.pose?.bends ?? [], this.back),
    });
    const places = fitted.blocked ? fitted.places.slice(0, Math.max(2, fitted.blocked.index - 1)) : fitted.places;
    return { ...fitted, places, points: places.map((p) => bark.point(p)) };
  }

  private partOf(need: Need, wound: { hand: Hand; start: Start }, size: number, path: WirePath, coil: FittedCoil, said: readonly string[]): RunBranchPlan {
    const { bends, past } = this.wanted.get(need.branch)!;
    const gap = gapFor(woodIn(this.placed, need.branch)!);
    const [bend, ...others] = bends;
    const wire: WireToTry = { metal: need.metal, size, strands: need.strands, coilAngleDeg: need.angle, grip: gripOf(gap) };
    const choice = tryWire(bend, wire, past);
    const stretch = path.on.get(need.branch)!;
    const places = coil.places;
    return {
      branch: need.branch,
      hand: wound.hand,
      start: wound.start,
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
      target: bend.angleDeg,
      bendLength: bend.length,
      bends: [bend, ...others].map((one, i) => {
        const tried = i ? tryWire(one, wire, past) : choice;
        return { bendTo: tried.bendToDeg, settles: tried.settlesDeg, spread: spreadOf(one, tried), missDeg: coil.missDeg[i] ?? 0 };
      }),
      because: [
        ...sayChoice(bend, choice),
        ...said,
        ...(coil.blocked ? [`The coil ends ${places[places.length - 1]!.s.toFixed(0)} mm along: ${this.names(coil.blocked.by)} lies against it there.`] : []),
      ],
    };
  }
}

/** Wire, length and weight of a piece whose path is so long. */
function asPiece({ metal, strands, angle }: Pick<Need, 'metal' | 'strands' | 'angle'>, size: number, path: number) {
  const length = pieceLength(path, size);
  return { metal, size, gauge: metal === 'copper' ? gaugeOf(size) : null, strands, angle, length, mass: wireMass(metal, size, length * strands) };
}

/** A coil of fewer turns beyond those at the shoulder holds nothing. */
const LEAST_COIL = 0.25;

/** Turns of a piece on one of its branches, beyond where it comes round the shoulder. */
function turnsOn({ places, on }: WirePath, branch: string): number {
  const { from, to } = on.get(branch)!;
  const wound = places.filter((p) => p.limb === branch && p.along >= from && p.along <= to);
  return wound.length ? Math.abs(wound[wound.length - 1]!.turn - wound[0]!.turn) / (2 * Math.PI) : 0;
}

/** What a branch's bend would rather have, where there was no way for it. */
function unserved(touch: Touch, wish: Wish): string[] {
  const { hand, start } = served(touch, wish);
  return [
    ...(start ? [] : [`${wish.start === 'over' ? 'Over the shoulder' : 'From beneath the shoulder'} would suit its bend better: no way leads up to it there.`]),
    ...(hand ? [] : [`Wound ${wish.hand === 'cw' ? 'clockwise' : 'counter-clockwise'} it would tighten as the branch is bent: no way leads up to it so.`]),
  ];
}

/** A piece goes on two branches of a limb; what a file has on more of them is so many pieces. */
const byTwos = (needs: readonly Wanted[]): Fixed['needs'][] =>
  needs.flatMap((need, i): Fixed['needs'][] => (i % 2 ? [] : needs[i + 1] ? [[need, needs[i + 1]!]] : [[need]]));

/** A coil that is stopped before it has gone round once holds nothing. */
const tooShort = ({ blocked, places }: FittedCoil): boolean => blocked !== null && Math.abs(places[places.length - 1]!.turn - places[0]!.turn) < 2 * Math.PI;

/** A coil as a way round its branch, sample by sample. */
function wayOfCoil(places: readonly BarkPlace[], half: number): Way {
  const rising = places[places.length - 1]!.turn >= places[0]!.turn ? places : [...places].reverse();
  const first = Math.ceil((rising[0]!.turn * TURN) / (2 * Math.PI));
  const last = Math.floor((rising[rising.length - 1]!.turn * TURN) / (2 * Math.PI));
  const along: number[] = [];
  let i = 0;
  for (let k = first; k <= last; k++) {
    const turn = turnOf(k);
    while (i < rising.length - 2 && rising[i + 1]!.turn < turn) i++;
    const [a, b] = [rising[i]!, rising[i + 1]!];
    along.push(a.s + ((b.s - a.s) * (turn - a.turn)) / (b.turn - a.turn));
  }
  return { first, along, half };
}

/** Pieces of wire for the branches that must move, as they go on; what the plan fixes is kept. With the memory of the plan before, only the limbs that a change concerns are worked out anew. docs: Runs. */
export function planWiring(placed: PlacedTree, posed: PosedBranches, pastOf: PastOf = () => USUAL_PAST, memory = new WiringMemory()): WiringPlan {
  const { runs, unwired, worth } = new Wiring(placed, posed, pastOf, memory);
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
  return { runs: sorted, unwired, worth };
}
