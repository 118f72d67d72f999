import { add, cross, direction, norm, pointAt, rotateAbout, scale, sub, unit, type PlacedTree, type Vec } from '../src/index.js';

/** A tree bent as a hand does it: its lines as rows of points, each bend a turn of all that lies beyond, in a hundred small ones. */
export class ByHand {
  private readonly points = new Map<string, { s: number; p: Vec }[]>();
  /** A frame that rides with the wood at each place where something was bent, to find the plane of the bend again. */
  private readonly planes: { branch: string; at: number; axis: Vec; key: string }[] = [];

  constructor(private readonly placed: PlacedTree) {
    const row = (line: PlacedTree['trunk']): { s: number; p: Vec }[] => {
      const total = line.along[line.along.length - 1]!;
      const places = [...Array.from({ length: Math.ceil(total) }, (_, s) => s), ...line.along].sort((a, b) => a - b);
      return places.map((s) => ({ s, p: pointAt(line, s).point }));
    };
    this.points.set('trunk', row(placed.trunk));
    for (const b of placed.branches) this.points.set(b.branch.id, row(b.line));
  }

  private at(branch: string, s: number): Vec {
    const row = this.points.get(branch)!;
    const i = row.findIndex((x) => x.s >= s - 1e-9);
    if (i <= 0) return row[Math.max(0, i)]!.p;
    const [a, b] = [row[i - 1]!, row[i]!];
    return add(a.p, scale(sub(b.p, a.p), b.s > a.s ? (s - a.s) / (b.s - a.s) : 1));
  }

  /** All that grows on a branch beyond a place, whole. */
  private beyond(branch: string, s: number): string[] {
    const own = this.placed.branches.filter((b) => b.branch.parent === branch && b.branch.at > s).map((b) => b.branch.id);
    return own.flatMap((id) => [id, ...this.beyond(id, -1)]);
  }

  private turn(branch: string, s: number, axis: Vec, angle: number): void {
    const pivot = this.at(branch, s);
    const turned = (p: Vec): Vec => add(pivot, rotateAbout(sub(p, pivot), axis, angle));
    const riding = this.beyond(branch, s);
    for (const x of this.points.get(branch)!) if (x.s > s) x.p = turned(x.p);
    for (const id of riding) for (const x of this.points.get(id)!) x.p = turned(x.p);
    for (const plane of this.planes)
      if (riding.includes(plane.branch) || (plane.branch === branch && plane.at > s)) plane.axis = rotateAbout(plane.axis, axis, angle);
  }

  /** Bends a branch on by so many degrees (less than none: back), in the plane that the bend of this key had when it was begun. */
  bend(key: string, branch: string, at: number, length: number, degrees: number, toward: { bearing: number; elevation: number }): void {
    let plane = this.planes.find((p) => p.key === key);
    if (!plane) {
      const ahead = unit(sub(this.at(branch, at + 0.001), this.at(branch, at)));
      const square = cross(ahead, direction({ bearingDeg: toward.bearing, elevationDeg: toward.elevation }));
      if (norm(square) < 1e-6) throw new Error('no plane');
      this.planes.push((plane = { key, branch, at, axis: unit(square) }));
    }
    const STEPS = 100;
    for (let k = 0; k < STEPS; k++) this.turn(branch, at + (length * (k + 0.5)) / STEPS, plane.axis, ((degrees / STEPS) * Math.PI) / 180);
  }

  tip(branch: string): Vec {
    return this.points.get(branch)!.at(-1)!.p;
  }

  middle(branch: string): Vec {
    const row = this.points.get(branch)!;
    return row[Math.floor(row.length / 2)]!.p;
  }

  middleAt(branch: string): number {
    const row = this.points.get(branch)!;
    return row[Math.floor(row.length / 2)]!.s;
  }
}
