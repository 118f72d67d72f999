import { bearingAndElevation, direction, pointAt, sub, type Limb, type Vec } from '../space/index.js';
import { keptOf, keptOfTies } from '../growth/index.js';
import { Bender, carriedOn, turnedBy, type Bent, type Carried } from '../pose/index.js';
import type { Frame } from '../rod/index.js';
import {
  asMeasured,
  coilHistory,
  placeTree,
  withChildren,
  woodIn,
  type Branch,
  type HeldShape,
  type MadeBend,
  type PlacedTree,
  type Station,
  type Tree,
} from '../tree/index.js';
import { anglesOf } from './angles.js';
import { replay, type HandBend, type Layer } from './made-bends.js';

/** The turn that undoes another: what becomes of the axes is turned back by the parts along them. */
const undone = ([x, y, z]: Frame): Frame => [
  [x[0], y[0], z[0]],
  [x[1], y[1], z[1]],
  [x[2], y[2], z[2]],
];
/** Less of a bend, degrees, is none. */
const LEAST_DEG = 0.05;
const thousandth = (x: number): number => Math.round(x * 1000) / 1000;
const tidy = ([x, y, z]: Vec): Vec => [thousandth(x), thousandth(y), thousandth(z)];

const STRAIGHT: Frame = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** One turn after another. */
const then = (first: Frame, second: Frame): Frame => first.map((v) => turnedBy(second, v)) as unknown as Frame;

/** A line bent layer by layer, each on what the one before left. */
class Shape {
  private constructor(
    readonly line: Limb,
    private readonly bents: readonly Bent[],
    /** The bends of its last layer, in the tree's space. */
    readonly made: readonly MadeBend[],
  ) {}

  static of(grown: Limb, carriedTo: Carried | undefined): Shape {
    if (!carriedTo) return new Shape(grown, [], []);
    const bent = new Bender(grown, carriedTo).finish();
    return new Shape(bent.line, [bent], []);
  }

  /** Turns back what is told of new bends of a layer on it, in the tree's space, into the space of their wood as it was measured. */
  turnBack(bends: readonly { bend: HandBend; angle: number }[], fresh: ReadonlySet<HandBend>): void {
    const bender = new Bender(this.line);
    for (const { bend, angle } of bends) {
      bender.to(bend.at);
      const turn = then(this.carried(bend.at).turn, bender.turn);
      if (fresh.has(bend)) bend.toward = turnedBy(undone(turn), bend.toward);
      bender.bend({ length: bend.length, angle, toward: bearingAndElevation(turnedBy(turn, bend.toward)) });
    }
  }

  /** With a further layer: each bend turns the way its wood was turned, wherever that was carried since. */
  with(bends: readonly { bend: HandBend; angle: number }[]): Shape {
    const real = bends.filter((b) => Math.abs(b.angle) > LEAST_DEG);
    if (!real.length) return this;
    const bender = new Bender(this.line);
    const made = real.map(({ bend: { at, length, handDeg, toward }, angle }): MadeBend => {
      bender.to(at);
      const way = bearingAndElevation(turnedBy(then(this.carried(at).turn, bender.turn), toward));
      bender.bend({ length, angle, toward: way });
      return { at, length, angle, handDeg, toward: way };
    });
    const bent = bender.finish();
    return new Shape(bent.line, [...this.bents, bent], made);
  }

  /** How a place along it was turned, and where it has gone. */
  carried(at: number): Carried {
    let turn = STRAIGHT;
    let point = pointAt(this.line, at).point;
    for (const bent of this.bents) {
      const next = bent.carried(at);
      turn = then(turn, next.turn);
      ({ point } = next);
    }
    return { turn, point };
  }
}

/** How a branch was laid last: on what shape of its parent, and layer by layer. */
interface Laid {
  on: Shape | null;
  start: Shape;
  steps: { from: Shape; made: { bend: HandBend; angle: number }[]; shape: Shape }[];
}

/** Every branch of a tree as it lies at one moment, as its layers of bends have it; worked out as it is asked for, and anew once something was bent. */
class Moment {
  private readonly shapes = new Map<string, Shape>();
  private readonly laid = new Map<string, Laid>();

  constructor(
    private readonly placed: PlacedTree,
    private readonly layers: ReadonlyMap<string, readonly Layer[]>,
    private readonly angleOf: (branch: string, bend: HandBend) => number,
  ) {}

  /** A branch that was bent carries along what grows on it. */
  changed(branch: string): void {
    if (branch === 'trunk') this.shapes.clear();
    else for (const id of withChildren(this.placed.tree, branch)) this.shapes.delete(id);
  }

  /** How a branch is carried by what it grows on; undefined where that lies as it was measured. */
  carriedTo(id: string): Carried | undefined {
    if (id === 'trunk') return undefined;
    const { branch, line } = this.placed.byId.get(id)!;
    const parent = this.shapeOf(branch.parent);
    const grown = branch.parent === 'trunk' ? this.placed.trunk : this.placed.byId.get(branch.parent)!.line;
    return parent.line === grown ? undefined : carriedOn({ grown, bent: parent }, line, branch.at);
  }

  /** Turns back what is told of new bends of a branch's last layer. */
  turnBack(id: string, fresh: ReadonlySet<HandBend>): void {
    const { bends } = this.layers.get(id)!.at(-1)!;
    this.layered(id, -1).turnBack(this.anglesOn(id, bends), fresh);
  }

  private anglesOn(id: string, bends: readonly HandBend[]): { bend: HandBend; angle: number }[] {
    return bends.map((bend) => ({ bend, angle: this.angleOf(id, bend) - bend.measured }));
  }

  shapeOf(id: string): Shape {
    let found = this.shapes.get(id);
    if (!found) this.shapes.set(id, (found = this.layered(id)));
    return found;
  }

  /** The bends of one layer of a branch, in the tree's space. */
  madeIn(id: string, layer: number): readonly MadeBend[] {
    this.shapeOf(id);
    return this.laid.get(id)!.steps[layer]!.shape.made;
  }

  /** A branch with its layers one after the other; those that are as they were are not laid again. */
  private layered(id: string, layers = Infinity): Shape {
    const on = id === 'trunk' ? null : this.shapeOf(this.placed.byId.get(id)!.branch.parent);
    const before = this.laid.get(id);
    const known = before?.on === on ? before : null;
    const start = known?.start ?? Shape.of(id === 'trunk' ? this.placed.trunk : this.placed.byId.get(id)!.line, this.carriedTo(id));
    const steps: Laid['steps'] = [];
    let shape = start;
    for (const [i, { bends }] of (this.layers.get(id) ?? []).slice(0, layers).entries()) {
      const made = this.anglesOn(id, bends);
      const last = known?.steps[i];
      const same =
        last?.from === shape && last.made.length === made.length && last.made.every((m, k) => m.bend === made[k]!.bend && m.angle === made[k]!.angle);
      const next = same ? last.shape : shape.with(made);
      steps.push({ from: shape, made, shape: next });
      shape = next;
    }
    this.laid.set(id, { on, start, steps });
    return shape;
  }
}

/** What a record makes of the lines of a tree: as they stand, and as they lay before what is bent now. */
interface Lines {
  now: Pick<Tree, 'branches' | 'trunk'>;
  lay: Pick<Tree, 'branches' | 'trunk'>;
  held: Record<string, HeldShape>;
  unsure: Record<string, number>;
  /** The trunk was bent, and let go, before: it is not asked of it again. */
  trunkDone: boolean;
}

interface Stood {
  stands: Tree;
  lay: Tree;
}
const remembered = new WeakMap<Tree, Map<number, Stood>>();
/** Lines rest on the measures and the record; a plan that changes leaves them as they are. */
const drawn = new WeakMap<readonly Branch[], { of: readonly unknown[]; lines: Lines }>();

function linesOf(tree: Tree, onDay: number): Lines {
  const of = [tree.trunk, tree.record, tree.plan.runs, tree.species, tree.vigour, tree.site, tree.repottedOn, onDay];
  const before = drawn.get(tree.branches);
  if (before && before.of.every((x, i) => x === of[i])) return before.lines;
  const lines = bentLines(tree, onDay);
  drawn.set(tree.branches, { of, lines });
  return lines;
}

function stood(tree: Tree, onDay: number): Stood {
  const measured = asMeasured(tree);
  const known = remembered.get(measured) ?? new Map<number, Stood>();
  remembered.set(measured, known);
  let found = known.get(onDay);
  if (!found) {
    const { now, lay, held, unsure, trunkDone } = linesOf(measured, onDay);
    const { branches, trunk } = measured;
    const plan = trunkDone && measured.plan.trunkWay ? { ...measured.plan, trunkWay: null } : measured.plan;
    const stands: Tree = { ...measured, ...now, plan, stands: { day: onDay, branches, trunk, layTrunk: lay.trunk, held, unsure } };
    found = { stands, lay: Object.keys(held).length ? { ...measured, ...lay, plan, calledBy: now } : { ...measured, ...now, plan } };
    known.set(onDay, found);
  }
  return found;
}

/**
 * A tree as it stands on a day: every line as last measured, then bent as the record tells, by what stays under the wire, and
 * let go by what came back. The record is not changed; asMeasured() gives the measures back. docs: As it stands.
 */
export const asItStands = (tree: Tree, onDay: number): Tree => (tree.stands?.day === onDay ? tree : stood(tree, onDay).stands);

/** The same without what was bent under the wire that is on now: the lines on which that was wound, and from which its bends are told. */
export const asItLay = (tree: Tree, onDay: number): Tree => stood(tree, onDay).lay;

function bentLines(tree: Tree, onDay: number): Lines {
  const layers = new Map<string, Layer[]>();
  const placed = placeTree(tree);
  const coils = coilHistory(tree, onDay).filter((c) => woodIn(placed, c.branch) !== undefined);
  const bendNow = anglesOf(placed, { kept: keptOf(placed, coils, onDay), keptOfTie: keptOfTies(placed, onDay) });
  const angleOf = (branch: string, bend: HandBend): number => bendNow(branch, bend).angle;
  const moment = new Moment(placed, layers, angleOf);
  replay(tree, onDay, coils, layers, {
    turnBack: (branch, fresh) => moment.turnBack(branch, fresh),
    angleOf,
    changed: (branch) => moment.changed(branch),
  });
  const held: Record<string, HeldShape> = {};
  const unsure: Record<string, number> = {};
  for (const [id, own] of layers) {
    // What was measured since is as sure as a measure, until wire lets go of it.
    const off = own.flatMap((l) => l.bends.map((b) => (b.measured && Math.abs(angleOf(id, b) - b.measured) <= LEAST_DEG ? 0 : bendNow(id, b).unsure)));
    if (off.some((deg) => deg > 0)) unsure[id] = Math.hypot(...off);
    // What a tie leads is the tie's: the plan asks of the hand what is left of the bends.
    const open = own.filter((l) => !l.closed && l.bends.length && l.tie === null);
    if (open.length) held[id] = { made: moment.madeIn(id, own.indexOf(open.at(-1)!)), further: open.length > 1, placed: open.at(-1)!.placed };
  }
  const closed = new Map([...layers].map(([id, own]) => [id, own.filter((l) => l.closed)]));
  return {
    now: onLines(tree, placed, moment),
    lay: onLines(tree, placed, new Moment(placed, closed, angleOf)),
    held,
    unsure,
    trunkDone: Boolean(closed.get('trunk')?.length),
  };
}

/** Trunk and branches on the lines of a moment; the same where nothing is bent. */
function onLines({ trunk, branches }: Tree, placed: PlacedTree, moment: Moment): Pick<Tree, 'branches' | 'trunk'> {
  const { line } = moment.shapeOf('trunk');
  const bent = branches.map((b) => branchOn(b, placed.byId.get(b.id)!.line, moment));
  return { trunk: line === placed.trunk ? trunk : stationsOf(line), branches: bent.every((b, i) => b === branches[i]) ? branches : bent };
}

const stationsOf = ({ points, diameters }: Limb): Station[] =>
  points.map(([x, y, z], i) => ({ x: thousandth(x), y: thousandth(y), z: thousandth(z), d: thousandth(diameters[i]!) }));

/** A branch on its line; turned about its shoulder as that was carried. */
function branchOn(branch: Branch, grown: Limb, moment: Moment): Branch {
  const { line } = moment.shapeOf(branch.id);
  if (line === grown) return branch;
  const out = direction({ bearingDeg: branch.bearing, elevationDeg: branch.elevation });
  const turn = moment.carriedTo(branch.id)?.turn;
  const { bearing, elevation } = turn ? bearingAndElevation(turnedBy(turn, out)) : branch;
  return { ...branch, bearing, elevation, path: line.points.map((p) => tidy(sub(p, line.points[0]!))) };
}
