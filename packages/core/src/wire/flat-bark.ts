import { add, cross, dot, lengthOf, norm, pointAt, scale, sub, unit, type Limb, type Vec } from '../space/index.js';

/** A place on the bark of a limb: mm along it, the turn round it in radians (clockwise seen from its base along it), mm above its bark. */
export interface BarkPlace {
  s: number;
  turn: number;
  lift: number;
}

/** Inside the sharpest bend of a limb. */
const LEAST_STRETCH = 0.3;

/** A straight piece of a limb: where it begins, its way, and what it needs to be compared with many points. */
interface Piece {
  x: number;
  y: number;
  z: number;
  wx: number;
  wy: number;
  wz: number;
  perSquare: number;
  radius: number;
  taper: number;
  along: number;
  length: number;
}

function piecesOf({ points, diameters, along }: Limb): Piece[] {
  return points.slice(1).map((to, i) => {
    const [x, y, z] = points[i]!;
    const [wx, wy, wz] = sub(to, points[i]!);
    const square = wx * wx + wy * wy + wz * wz;
    const radius = diameters[i]! / 2;
    const perSquare = square > 0 ? 1 / square : 0;
    return { x, y, z, wx, wy, wz, perSquare, radius, taper: diameters[i + 1]! / 2 - radius, along: along[i]!, length: along[i + 1]! - along[i]! };
  });
}

/** The bark of a limb laid flat: along it and round it. Turn 0 is its upper side; on an upright limb, bearing 0. docs: The bark laid flat. */
export class FlatBark {
  readonly line: Limb;
  readonly length: number;
  /** From where on it is clear of what it grows on, mm. */
  readonly clearFrom: number;
  private readonly pieces: Piece[];
  private readonly tangents: Vec[];
  private readonly normals: Vec[];
  /** Which piece the last point was nearest to. */
  private found = 0;

  constructor(line: Limb, parent: FlatBark | null = null) {
    this.line = line;
    this.clearFrom = parent ? clearOf(line, parent) : 0;
    this.length = lengthOf(line);
    this.pieces = piecesOf(line);
    const ways = line.points.slice(1).map((p, i) => unit(sub(p, line.points[i]!)));
    this.tangents = line.points.map((_, i) => unit(add(ways[Math.max(0, i - 1)]!, ways[Math.min(ways.length - 1, i)]!)));
    this.normals = [upperSide(this.tangents[0]!)];
    for (let i = 1; i < this.tangents.length; i++) this.normals.push(carriedOver(this.normals[i - 1]!, this.tangents[i - 1]!, this.tangents[i]!));
  }

  private locate(s: number): { i: number; share: number } {
    const { along } = this.line;
    let i = 0;
    while (i < along.length - 2 && along[i + 1]! < s) i++;
    const span = along[i + 1]! - along[i]!;
    return { i, share: span > 0 ? Math.min(1, Math.max(0, (s - along[i]!) / span)) : 0 };
  }

  radius(s: number): number {
    const { i, share } = this.locate(s);
    const { diameters } = this.line;
    return (diameters[i]! + (diameters[i + 1]! - diameters[i]!) * share) / 2;
  }

  /** Axis, and the unit vectors along it, to its upper side and clockwise from there. */
  frame(s: number): { axis: Vec; along: Vec; up: Vec; round: Vec } {
    const { i, share } = this.locate(s);
    const { points } = this.line;
    const axis = between(points[i]!, points[i + 1]!, share);
    const along = between(this.tangents[i]!, this.tangents[i + 1]!, share);
    stretchTo(along, 1);
    const up = between(this.normals[i]!, this.normals[i + 1]!, share);
    const off = dot(up, along);
    for (let k = 0; k < 3; k++) up[k] = up[k]! - along[k]! * off;
    stretchTo(up, 1);
    return { axis, along, up, round: cross(along, up) };
  }

  /** How much of bark (mm) there is for a mm along the limb at a turn: less than one inside a bend of it, more outside. */
  stretch(s: number, turn: number): number {
    const { i } = this.locate(s);
    const { along } = this.line;
    const turning = scale(sub(this.tangents[i + 1]!, this.tangents[i]!), 1 / Math.max(1e-6, along[i + 1]! - along[i]!));
    return Math.max(LEAST_STRETCH, 1 - this.radius(s) * dot(turning, this.outward(s, turn)));
  }

  /** Unit vector from the axis to a turn. */
  outward(s: number, turn: number): Vec {
    const { up, round } = this.frame(s);
    return add(scale(up, Math.cos(turn)), scale(round, Math.sin(turn)));
  }

  /** The turn, −π..π, that a direction points to from the axis. */
  turnTo(s: number, way: Vec): number {
    const { up, round } = this.frame(s);
    return Math.atan2(dot(way, round), dot(way, up));
  }

  /** The straight piece that a point is nearest to, and how far it is above the bark there. */
  private nearest(point: Vec): number {
    const { pieces } = this;
    let lift = Infinity;
    for (let i = 0; i < pieces.length; i++) {
      const p = pieces[i]!;
      const x = point[0] - p.x;
      const y = point[1] - p.y;
      const z = point[2] - p.z;
      const t = Math.min(1, Math.max(0, (x * p.wx + y * p.wy + z * p.wz) * p.perSquare));
      const dx = x - t * p.wx;
      const dy = y - t * p.wy;
      const dz = z - t * p.wz;
      const here = Math.sqrt(dx * dx + dy * dy + dz * dz) - p.radius - t * p.taper;
      if (here < lift) {
        lift = here;
        this.found = i;
      }
    }
    return lift;
  }

  /** A point drawn out of the wood, so far above the bark as said; the same one where it is there already. */
  clearOfWood(point: Vec, lift: number): Vec {
    const now = this.nearest(point);
    return now < lift - 1e-3 ? add(point, scale(unit(this.onFound(point).from), lift - now)) : point;
  }

  /** How far a point is above the bark, mm; below 0 in the wood. */
  liftOf(point: Vec): number {
    return this.nearest(point);
  }

  /** Where a point is on the piece that was found nearest to it: the share of that, and the way there from its axis. */
  private onFound(point: Vec): { share: number; from: Vec } {
    const p = this.pieces[this.found]!;
    const [x, y, z] = [point[0] - p.x, point[1] - p.y, point[2] - p.z];
    const share = Math.min(1, Math.max(0, (x * p.wx + y * p.wy + z * p.wz) * p.perSquare));
    return { share, from: [x - share * p.wx, y - share * p.wy, z - share * p.wz] };
  }

  /** How far a point is above the bark (mm, below 0: in the wood), where along the limb, and which way is out. */
  over(point: Vec): { s: number; lift: number; out: Vec } {
    const lift = this.nearest(point);
    const { share, from } = this.onFound(point);
    const p = this.pieces[this.found]!;
    return { s: p.along + share * p.length, lift, out: unit(from) };
  }

  /** The place of a point: `point` leads back to it. */
  placeOf(point: Vec): BarkPlace {
    const nearest = this.over(point);
    let { s } = nearest;
    // Square to the limb as it turns, which is not square to its straight pieces.
    for (let i = 0; i < 5; i++) {
      const { axis, along } = this.frame(s);
      const off = dot(sub(point, axis), along);
      s = Math.min(this.length, Math.max(0, s + 0.8 * off));
      if (Math.abs(off) < 0.02) break;
    }
    return { s, turn: this.turnTo(s, sub(point, this.frame(s).axis)), lift: nearest.lift };
  }

  /** A place as a point: so far above the bark as said, also in the bend between two pieces of the limb. */
  point({ s, turn, lift }: BarkPlace): Vec {
    const { axis, up, round } = this.frame(s);
    const far = this.radius(s) + lift;
    const [c, d] = [far * Math.cos(turn), far * Math.sin(turn)];
    let point: Vec = [axis[0] + c * up[0] + d * round[0], axis[1] + c * up[1] + d * round[1], axis[2] + c * up[2] + d * round[2]];
    for (let i = 0; i < 3; i++) {
      const now = this.nearest(point);
      if (Math.abs(now - lift) < 1e-3) break;
      point = add(point, scale(unit(this.onFound(point).from), lift - now));
    }
    return point;
  }
}

type OwnVec = [number, number, number];
const between = (a: Vec, b: Vec, t: number): OwnVec => [a[0] + (b[0] - a[0]) * t, a[1] + (b[1] - a[1]) * t, a[2] + (b[2] - a[2]) * t];

/** Gives a vector that nobody else holds another length. */
function stretchTo(v: OwnVec, length: number): void {
  const by = length / (Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]) || 1);
  v[0] *= by;
  v[1] *= by;
  v[2] *= by;
}

function upperSide(along: Vec): Vec {
  const square = (v: Vec): Vec => sub(v, scale(along, dot(v, along)));
  const up = square([0, 0, 1]);
  return norm(up) > 0.3 ? unit(up) : unit(square(Math.abs(along[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0]));
}

/** A vector carried along from one direction to the next without twisting about it. */
export function carriedOver(v: Vec, from: Vec, to: Vec): Vec {
  const axis = cross(from, to);
  const cosine = dot(from, to);
  // Rodrigues with the axis left at the length of the sine: 1/(1 + cos) in place of (1 − cos)/sin².
  const turned = cosine > -0.999999 ? add(add(scale(v, cosine), cross(axis, v)), scale(axis, dot(axis, v) / (1 + cosine))) : v;
  return turned;
}

/** How far along a line comes out of the bark of what it grows on. */
function clearOf(line: Limb, parent: FlatBark): number {
  const length = lengthOf(line);
  for (let s = 0; s < length * 0.8; s += 1) {
    const { point, diameter } = pointAt(line, s);
    if (parent.over(point).lift >= diameter / 2) return s;
  }
  return length * 0.8;
}
