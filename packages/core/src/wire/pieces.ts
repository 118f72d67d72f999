import { greatestOf, leastOf, serialOf, serialsOf, type Keep } from '../units/index.js';
import { gripOf, ruleOfThumb } from '../wood/index.js';
import { woodIn, type Hand, type Names, type PlacedTree, type PlannedBend, type PlannedPose, type Start } from '../tree/index.js';
import type { Carrier, LedOn } from './carry.js';
import { sayChoice, spreadOf, type ThickerFor, type WireToTry } from './choose.js';
import { sideOf } from './join-ways.js';
import type { LaidWire } from './laid.js';
import type { CoilOn, LaidPiece, Need } from './limb-work.js';
import { gapFor } from './needs.js';
import { asPiece, turnsOn, unserved } from './piece.js';
import type { RunBranchPlan, RunPlan } from './run-plan.js';
import { lyingOf, type Wanted, type Wants } from './wanted.js';
import { wayOfCoil } from './way-of-coil.js';
import { TURN } from './ways.js';

/** A piece on one of its branches. */
interface Part {
  need: Need;
  wound: { hand: Hand; start: Start };
  coil: CoilOn;
  said: readonly string[];
  onFrom: string | null;
  /** From where on, mm along, the branch has no wire: it went on along that shoot. */
  onto?: { until: number; shoot: string };
}

/** A piece with how it lies. */
export interface Piece {
  run: RunPlan;
  wire: LaidWire;
  /** In their order along it. */
  parts: Part[];
}

/** The pieces of a plan as they come onto the tree, one after the other. */
export class Pieces {
  readonly runs: RunPlan[] = [];
  readonly laid: LaidWire[] = [];
  readonly coils = new Map<string, Carrier & { piece: Piece }>();
  private readonly pieceOf = new Map<RunPlan, Piece>();

  constructor(
    private readonly placed: PlacedTree,
    private readonly wants: Wants,
    private readonly wanted: ReadonlyMap<string, Wanted>,
    private readonly names: Names,
    private readonly keep: Keep,
  ) {}

  /** Adds a piece to the plan. */
  putOn(piece: Piece): void {
    const { run, wire, parts } = piece;
    this.laid.push(wire);
    this.runs.push(run);
    run.branches = parts.map((part) => this.partOf(part, run, this.wanted));
    this.pieceOf.set(run, piece);
    for (const { need, wound, coil } of parts)
      this.coils.set(need.branch, { need, hand: wound.hand, coil, way: wayOfCoil(coil, wire.half), path: run.path, wire, piece });
  }

  /** Leads a piece that is on the tree already on along a shoot of one of its branches. */
  leadOn(limb: string, led: LedOn): void {
    const carrier = this.coils.get(limb)!;
    const { piece } = carrier;
    const { run } = piece;
    this.laid[this.laid.indexOf(piece.wire)] = led.wire;
    piece.wire = led.wire;
    run.path = led.path;
    Object.assign(run, asPiece(run, run.size, led.path.length + (run.anchor?.soil ?? 0)));
    const along = [...led.path.on.keys()];
    const own = piece.parts.find((part) => part.need.branch === limb)!;
    const onto = { until: led.upTo.places[led.upTo.places.length - 1]!.s, shoot: led.need.branch };
    const { hand, start } = led.touch;
    piece.parts = [
      ...piece.parts.map((part) => (part === own ? { ...part, coil: led.upTo, onto } : part)),
      {
        need: led.need,
        wound: { hand, start },
        coil: led.coil,
        said: [`The wire of ${this.names(limb)} goes on along it: it needs no turns to anchor it.`, ...unserved(led.touch, led.need.wish)],
        onFrom: limb,
      },
    ].sort((a, b) => along.indexOf(a.need.branch) - along.indexOf(b.need.branch));
    run.branches = piece.parts.map((part) => this.partOf(part, run, this.wanted));
    for (const part of piece.parts) {
      const before = this.coils.get(part.need.branch) ?? carrier;
      const way = part.need.branch === limb ? led.way : part.need === led.need ? wayOfCoil(led.coil, carrier.way.half) : before.way;
      this.coils.set(part.need.branch, { need: part.need, hand: part.wound.hand, coil: part.coil, way, path: led.path, wire: led.wire, piece });
    }
  }

  private sayOnto({ until, shoot }: NonNullable<Part['onto']>, pose: PlannedPose | undefined): string {
    const beyond = pose?.bends.filter((b) => isBeyond(b, until)) ?? [];
    const bare = beyond.map((b) => `${b.angle.toFixed(0)}° (${b.at.toFixed(0)} mm along)`).join(', ');
    const left = bare ? `its ${beyond.length > 1 ? 'bends' : 'bend'} of ${bare} ${beyond.length > 1 ? 'have' : 'has'} no wire` : 'there is no bend to hold';
    return `Its wire goes on along ${this.names(shoot)}: beyond that ${left}.`;
  }

  /** Adds a piece that was laid on a limb. */
  add({ laid: { path, coils, wire }, across, ...joined }: LaidPiece): void {
    const first = this.wanted.get((joined.ends[0] ?? joined.ends[1]!).need.branch)!;
    const { size, kind, hidden, way } = joined;
    const gauge = greatestOf(joined.ends.map((e) => e?.need.gauge ?? 0));
    const parts = joined.ends.flatMap((end, i): Part[] => {
      if (!end) return [];
      const need = end.need.size === size ? end.need : this.keep(`need ${serialOf(end.need)} ${size} ${gauge}`, () => ({ ...end.need, size, gauge }));
      return [{ need, wound: end.touch, coil: coils[i]!, said: unserved(end.touch, end.need.wish), onFrom: null }];
    });
    const run: RunPlan = {
      id: first.run?.id ?? '',
      kind,
      ...asPiece(first.need, size, path.length),
      order: leastOf(parts.map(({ need }) => this.placed.byId.get(need.branch)!.order)),
      route: { side: sideOf(hidden), length: joined.length, turnDeg: ((way.along.length - 1) * 360) / TURN, hidden: sideOf(hidden) === 'behind' },
      anchor: kind === 'pair' ? null : { run: null, turns: (way.along.length - 1) / TURN },
      branches: [],
      because: across ? ['Settled so it lies across other wire, or presses on wood: there is no way clear of them.'] : [],
      path,
    };
    this.putOn({ run, wire, parts });
  }

  /** A piece of the plan, with other bends under it. */
  told(run: RunPlan, wanted: ReadonlyMap<string, Wanted>, coilFor: (branch: string, coil: CoilOn) => CoilOn): RunPlan {
    const { parts } = this.pieceOf.get(run)!;
    return { ...run, branches: parts.map((part) => this.partOf({ ...part, coil: coilFor(part.need.branch, part.coil) }, run, wanted)) };
  }

  private partOf({ need, wound, coil, said: first, onFrom, onto }: Part, { size, path }: RunPlan, all: ReadonlyMap<string, Wanted>): RunBranchPlan {
    const wanted = all.get(need.branch)!;
    const { bends, holds, pose, tie } = wanted;
    const until = onto?.until ?? Infinity;
    const said = onto ? [...first, this.sayOnto(onto, pose)] : first;
    const gap = gapFor(woodIn(this.placed, need.branch)!);
    const wire: WireToTry = { metal: need.metal, size, strands: need.strands, coilAngleDeg: need.angle, grip: gripOf(gap) };
    const past = need.branch === 'trunk' ? wanted.past : this.wants.pastWith(need.branch, bends, wire, wanted.past);
    const by = coil.blocked && this.names(coil.blocked.by);
    const { hand, start } = wound;
    /** Of each bend of its pose, which of those that the wire holds it is; −1: a tie does, or nothing. */
    const held = (pose?.bends ?? holds).map((b) => (isBeyond(b, until) ? -1 : holds.indexOf(b)));
    const thickerFor: ThickerFor = size > lyingOf(wanted).size ? 'other' : wanted.merged ? 'few sizes' : null;
    const of = [hand, start, size, gap, past, held, tie, by, onFrom, thickerFor, ...said];
    return this.keep(`part ${serialsOf([need, bends, path, coil])} ${JSON.stringify(of)}`, () => {
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
        phaseMissDeg: coil.missDeg.length ? greatestOf(coil.missDeg) : null,
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
          ...(tie ? [tie, 'This wire holds its movement only, and goes on before the tie.'] : sayChoice(bends[0], choice, thickerFor)),
          ...said,
          ...(by ? [`The coil ends ${places[places.length - 1]!.s.toFixed(0)} mm along: ${by} lies against it there.`] : []),
        ],
      };
    });
  }
}

const isBeyond = (bend: PlannedBend, until: number): boolean => bend.at + bend.length > until;
