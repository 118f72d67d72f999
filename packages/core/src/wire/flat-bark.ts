import { add, cross, dot, lengthOf, norm, axisAt, scale, sub, unit, type Limb, type Vec } from '../space/index.js';

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
  /** The frame that was found last. */
  private readonly now: Frame = { axis: [0, 0, 0], along: [0, 0, 0], up: [0, 0, 0], round: [0, 0, 0] };

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

  /** The straight piece that a length along the limb falls on. */
  private pieceAt(s: number): number {
    const { along } = this.line;
    let i = 0;
    while (i < along.length - 2 && along[i + 1]! < s) i++;
    return i;
  }

  /** How much of a straight piece lies before a length along the limb. */
  private shareAt(i: number, s: number): number {
    const { along } = this.line;
    const span = along[i + 1]! - along[i]!;
    return span > 0 ? Math.min(1, Math.max(0, (s - along[i]!) / span)) : 0;
  }

  radius(s: number): number {
    const i = this.pieceAt(s);
    return this.radiusIn(i, this.shareAt(i, s));
  }

  private radiusIn(i: number, share: number): number {
    const { diameters } = this.line;
    return (diameters[i]! + (diameters[i + 1]! - diameters[i]!) * share) / 2;
  }

  /** Axis, and the unit vectors along it, to its upper side and clockwise from there. */
  frame(s: number): { axis: Vec; along: Vec; up: Vec; round: Vec } {
    const { axis, along, up, round } = this.frameAt(s);
    return { axis: [...axis], along: [...along], up: [...up], round: [...round] };
  }

  /** The same, to be read before the next one: it is found more often than anything else, and always in one place. */
  private frameAt(s: number): Frame {
    const i = this.pieceAt(s);
    return this.frameIn(i, this.shareAt(i, s));
  }

  private frameIn(i: number, share: number): Frame {
    const { points } = this.line;
    const { axis, along, up, round } = this.now;
    between(points[i]!, points[i + 1]!, share, axis);
    between(this.tangents[i]!, this.tangents[i + 1]!, share, along);
    toUnit(along);
    between(this.normals[i]!, this.normals[i + 1]!, share, up);
    const off = dot(up, along);
    up[0] -= along[0] * off;
    up[1] -= along[1] * off;
    up[2] -= along[2] * off;
    toUnit(up);
    round[0] = along[1] * up[2] - along[2] * up[1];
    round[1] = along[2] * up[0] - along[0] * up[2];
    round[2] = along[0] * up[1] - along[1] * up[0];
    return this.now;
  }

  /** How much of bark (mm) there is for a mm along the limb at a turn: less than one inside a bend of it, more outside. */
  stretch(s: number, turn: number): number {
    const i = this.pieceAt(s);
    const { along } = this.line;
    const turning = scale(sub(this.tangents[i + 1]!, this.tangents[i]!), 1 / Math.max(1e-6, along[i + 1]! - along[i]!));
    return Math.max(LEAST_STRETCH, 1 - this.radius(s) * this.facing(s, turn, turning));
  }

  /** Unit vector from the axis to a turn. */
  outward(s: number, turn: number): Vec {
    const { up, round } = this.frameAt(s);
    return add(scale(up, Math.cos(turn)), scale(round, Math.sin(turn)));
  }

  /** How far the bark at a turn faces a direction: the cosine of the angle between for a unit vector. */
  facing(s: number, turn: number, way: Vec): number {
    const { up, round } = this.frameAt(s);
    const c = Math.cos(turn);
    const d = Math.sin(turn);
    return way[0] * (up[0] * c + round[0] * d) + way[1] * (up[1] * c + round[1] * d) + way[2] * (up[2] * c + round[2] * d);
  }

  /** The turn, −π..π, that a direction points to from the axis. */
  turnTo(s: number, way: Vec): number {
    const { up, round } = this.frameAt(s);
    return Math.atan2(dot(way, round), dot(way, up));
  }

  /** How far a point is above the bark, by the straight piece that it is nearest to. */
  private nearest(px: number, py: number, pz: number): number {
    const { pieces } = this;
    let lift = Infinity;
    for (let i = 0; i < pieces.length; i++) {
      const p = pieces[i]!;
      const x = px - p.x;
      const y = py - p.y;
      const z = pz - p.z;
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

  /** A point moved straight away from the axis of the piece that was found nearest to it, by so much. */
  private movedOut(point: Vec, by: number): Vec {
    const p = this.pieces[this.found]!;
    const x = point[0] - p.x;
    const y = point[1] - p.y;
    const z = point[2] - p.z;
    const t = Math.min(1, Math.max(0, (x * p.wx + y * p.wy + z * p.wz) * p.perSquare));
    const dx = x - t * p.wx;
    const dy = y - t * p.wy;
    const dz = z - t * p.wz;
    const far = Math.sqrt(dx * dx + dy * dy + dz * dz);
    const per = far > 0 ? 1 / far : 1;
    return [point[0] + dx * per * by, point[1] + dy * per * by, point[2] + dz * per * by];
  }

  /** A point drawn out of the wood, so far above the bark as said; the same one where it is there already. */
  clearOfWood(point: Vec, lift: number): Vec {
    const now = this.nearest(point[0], point[1], point[2]);
    return now < lift - 1e-3 ? this.movedOut(point, lift - now) : point;
  }

  /** How far a point is above the bark, mm; below 0 in the wood. */
  liftOf(point: Vec): number {
    return this.nearest(point[0], point[1], point[2]);
  }

  /** How far a point is above the bark (mm, below 0: in the wood), and where along the limb. */
  over(point: Vec): { s: number; lift: number } {
    const lift = this.liftOf(point);
    const p = this.pieces[this.found]!;
    const share = Math.min(1, Math.max(0, ((point[0] - p.x) * p.wx + (point[1] - p.y) * p.wy + (point[2] - p.z) * p.wz) * p.perSquare));
    return { s: p.along + share * p.length, lift };
  }

  /** The place of a point: `point` leads back to it. */
  placeOf(point: Vec): BarkPlace {
    const nearest = this.over(point);
    let { s } = nearest;
    // Square to the limb as it turns, which is not square to its straight pieces.
    for (let i = 0; i < 5; i++) {
      const { axis, along } = this.frameAt(s);
      const off = (point[0] - axis[0]) * along[0] + (point[1] - axis[1]) * along[1] + (point[2] - axis[2]) * along[2];
      s = Math.min(this.length, Math.max(0, s + 0.8 * off));
      if (Math.abs(off) < 0.02) break;
    }
    return { s, turn: this.turnTo(s, sub(point, this.frameAt(s).axis)), lift: nearest.lift };
  }

  /** A place as a point: so far above the bark as said, also in the bend between two pieces of the limb. */
  point({ s, turn, lift }: BarkPlace): Vec {
    const i = this.pieceAt(s);
    const share = this.shareAt(i, s);
    const { axis, up, round } = this.frameIn(i, share);
    const far = this.radiusIn(i, share) + lift;
    const c = far * Math.cos(turn);
    const d = far * Math.sin(turn);
    let point: Vec = [axis[0] + c * up[0] + d * round[0], axis[1] + c * up[1] + d * round[1], axis[2] + c * up[2] + d * round[2]];
    for (let k = 0; k < 3; k++) {
      const now = this.liftOf(point);
      if (Math.abs(now - lift) < 1e-3) break;
      point = this.movedOut(point, lift - now);
    }
    return point;
  }
}

type OwnVec = [number, number, number];

interface Frame {
  axis: OwnVec;
  along: OwnVec;
  up: OwnVec;
  round: OwnVec;
}

function between(a: Vec, b: Vec, t: number, into: OwnVec): void {
  into[0] = a[0] + (b[0] - a[0]) * t;
  into[1] = a[1] + (b[1] - a[1]) * t;
  into[2] = a[2] + (b[2] - a[2]) * t;
}

/** Gives a vector that nobody else holds the length of one. */
function toUnit(v: OwnVec): void {
  const by = 1 / (Math.sqrt(v[0] * v[0] + v[1] * v[1] + v[2] * v[2]) || 1);
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
    const { point, diameter } = axisAt(line, s);
    if (parent.over(point).lift >= diameter / 2) return s;
  }
  return length * 0.8;
}
