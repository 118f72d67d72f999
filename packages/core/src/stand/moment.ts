import { bearingAndElevation, pointAt, type Limb } from '../space/index.js';
import { Bender, carriedOn, turnedBy, type Bent, type Carried } from '../pose/index.js';
import type { Frame } from '../rod/index.js';
import { withChildren, type MadeBend, type PlacedTree } from '../tree/index.js';
import type { HandBend, Layer } from './made-bends.js';

/** The turn that undoes another: what becomes of the axes is turned back by the parts along them. */
const undone = ([x, y, z]: Frame): Frame => [
  [x[0], y[0], z[0]],
  [x[1], y[1], z[1]],
  [x[2], y[2], z[2]],
];
/** Less of a bend, degrees, is none. */
export const LEAST_DEG = 0.05;
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
export class Moment {
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
