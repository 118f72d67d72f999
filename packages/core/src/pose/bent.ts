import { clamp, toRad } from '../units/index.js';
import {
  add,
  anySquare,
  axisAt,
  cross,
  direction,
  dot,
  lengthOf,
  limb,
  norm,
  pointAt,
  rotateAbout,
  scale,
  sub,
  unit,
  type Limb,
  type Vec,
} from '../space/index.js';
import type { BendInSpace } from '../tree/index.js';
import type { Frame } from '../rod/index.js';

const IDENTITY: Frame = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** A vector turned: the frame holds what becomes of the axes. */
export const turnedBy = ([x, y, z]: Frame, v: Vec): Vec => add(scale(x, v[0]), add(scale(y, v[1]), scale(z, v[2])));

/** A turn between two: by a share of the one turn that leads from the first to the second. */
function partlyTurned(a: Frame, b: Frame, share: number): Frame {
  const twice = a.map((v, i) => cross(v, b[i]!)).reduce(add);
  const sine = norm(twice) / 2;
  if (sine < 1e-12) return b;
  const angle = Math.atan2(sine, (dot(a[0], b[0]) + dot(a[1], b[1]) + dot(a[2], b[2]) - 1) / 2);
  return a.map((v) => rotateAbout(v, scale(twice, 1 / norm(twice)), share * angle)) as unknown as Frame;
}

/** Steps that a bend is cut into: a chord of each is true to a hundredth of a degree. */
const STEPS = 6;

interface Station {
  /** mm along the line. */
  at: number;
  /** How all beyond is turned, and where the line is there. */
  turn: Frame;
  point: Vec;
  /** Where it was, and how thick it is. */
  grown: Vec;
  diameter: number;
}

/**
 * Goes along a line from its shoulder and bends it on the way: in a bend the tangent turns in the plane of itself, where the bend
 * begins, and the direction wanted; all beyond rides along.
 */
export class Bender {
  readonly stations: Station[];
  private next = 1;

  constructor(
    private readonly line: Limb,
    carried: { turn: Frame; point: Vec } = { turn: IDENTITY, point: line.points[0]! },
  ) {
    this.stations = [{ at: 0, ...carried, grown: line.points[0]!, diameter: line.diameters[0]! }];
  }

  private get here(): Station {
    return this.stations[this.stations.length - 1]!;
  }

  /** Direction of the line just beyond the place reached. */
  get tangent(): Vec {
    const { points } = this.line;
    const i = Math.min(this.next, points.length - 1);
    return turnedBy(this.here.turn, unit(sub(points[i]!, points[i - 1]!)));
  }

  /** Direction of the line at a place further on, as it comes there unbent from here. */
  ahead(at: number): Vec {
    return turnedBy(this.here.turn, pointAt(this.line, at).direction);
  }

  /** How all beyond the place reached is turned. */
  get turn(): Frame {
    return this.here.turn;
  }

  private step(to: number, turn: Frame, after: Frame): void {
    const { here } = this;
    const { point: grown, diameter } = axisAt(this.line, to);
    this.stations.push({ at: to, turn: after, point: add(here.point, turnedBy(turn, sub(grown, here.grown))), grown, diameter });
  }

  /** On to a place along the line, turning about an axis all the way. */
  private advance(to: number, axis: Vec | null, perMm: number): void {
    const { along } = this.line;
    while (this.here.at < to - 1e-9) {
      const corner = along[this.next] ?? Infinity;
      const end = Math.min(to, corner);
      const { turn, at } = this.here;
      const by = (angle: number): Frame => turn.map((v) => rotateAbout(v, axis!, angle)) as unknown as Frame;
      if (axis) this.step(end, by((perMm * (end - at)) / 2), by(perMm * (end - at)));
      else this.step(end, turn, turn);
      if (end >= corner - 1e-9 && this.next < along.length - 1) this.next++;
      else if (end >= corner) break;
    }
  }

  /** On to where a bend begins, mm along the line. */
  to(at: number): void {
    this.advance(Math.min(at, lengthOf(this.line)), null, 0);
  }

  /** A bend from here on. */
  bend({ length, angle, toward }: Omit<BendInSpace, 'at'>): void {
    const { tangent } = this;
    const square = cross(tangent, direction({ bearingDeg: toward.bearing, elevationDeg: toward.elevation }));
    const axis = norm(square) > 1e-9 ? unit(square) : anySquare(tangent);
    const from = this.here.at;
    const perMm = toRad(angle) / length;
    const end = Math.min(from + length, lengthOf(this.line));
    for (let k = 1; k <= STEPS; k++) this.advance(from + ((end - from) * k) / STEPS, axis, perMm);
  }

  finish(): Bent {
    this.to(lengthOf(this.line));
    return new Bent(this.stations);
  }
}

/** A line as it lies after its bends, and how what grows on it was carried along. */
export class Bent {
  readonly line: Limb;

  constructor(private readonly stations: readonly Station[]) {
    this.line = limb(
      stations.map((s) => s.point),
      stations.map((s) => s.diameter),
    );
  }

  get tip(): Vec {
    return this.stations[this.stations.length - 1]!.point;
  }

  /** From the shoulder to the tip. */
  get chord(): Vec {
    return sub(this.tip, this.stations[0]!.point);
  }

  /** How a place along the line, mm, was turned and where it has gone. */
  carried(at: number): { turn: Frame; point: Vec } {
    const { stations } = this;
    let i = 0;
    for (let high = stations.length - 1; i < high;) {
      const middle = (i + high) >> 1;
      if (stations[middle]!.at < at) i = middle + 1;
      else high = middle;
    }
    const to = stations[i]!;
    const from = stations[Math.max(0, i - 1)]!;
    const share = to.at > from.at ? clamp((at - from.at) / (to.at - from.at), 0, 1) : 1;
    const between = (a: Vec, b: Vec): Vec => add(a, scale(sub(b, a), share));
    return { turn: share === 1 ? to.turn : partlyTurned(from.turn, to.turn, share), point: between(from.point, to.point) };
  }
}

/** A line bent, its bends in order from the shoulder; each by a share of its angle (0 as it grows, 1 as posed). docs: Bends of a pose. */
export function bentLine(line: Limb, bends: readonly BendInSpace[], share = 1, carried?: { turn: Frame; point: Vec }): Bent {
  const bender = new Bender(line, carried);
  for (const bend of [...bends].sort((a, b) => a.at - b.at)) {
    bender.to(bend.at);
    bender.bend({ ...bend, angle: bend.angle * share });
  }
  return bender.finish();
}
