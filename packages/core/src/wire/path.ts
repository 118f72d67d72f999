import { distance, lerp, type Vec } from '../space/index.js';
import type { FlatBark, BarkPlace } from './flat-bark.js';

/** A point of a wire's centre line, as a place on the bark of a limb: it goes along wherever that is bent. */
export interface WirePlace extends BarkPlace {
  limb: string;
  /** How far along the wire, mm from its first end. */
  along: number;
}

/** The wire's centre line from its first end to its last, and where it is on its branches alone (mm along it). */
export interface WirePath {
  places: WirePlace[];
  points: Vec[];
  length: number;
  /** By branch: the stretch that lies as a coil on it. */
  on: Map<string, { from: number; to: number }>;
}

/** One half of a piece: the coil on a branch, from the shoulder on. */
export interface Half {
  branch: string;
  bark: FlatBark;
  coil: readonly BarkPlace[];
  /** The same as points. */
  points: readonly Vec[];
}

const MOST_APART = 4;
const ROUNDINGS = 14;
/** A wire that no place of moves farther than this is tight, mm. */
const STILL = 0.02;

interface Node {
  limb: string;
  bark: FlatBark;
  /** Null once it was drawn off its course. */
  place: BarkPlace | null;
  point: Vec;
}

const placeOn = (limb: string, { s, turn, lift }: BarkPlace, along: number): WirePlace => ({ limb, s, turn, lift, along });

/** The path of a wire that lies on one limb alone. */
export function pathOfCoil(limb: string, { places, points }: { places: readonly BarkPlace[]; points: readonly Vec[] }): WirePath {
  let along = 0;
  const laid = places.map((place, i) => {
    if (i) along += distance(points[i - 1]!, points[i]!);
    return placeOn(limb, place, along);
  });
  return { places: laid, points: [...points], length: along, on: new Map([[limb, { from: 0, to: along }]]) };
}

/** The same path from its other end. */
export function reversed({ places, points, length, on }: WirePath): WirePath {
  return {
    places: [...places].reverse().map((p) => ({ ...p, along: length - p.along })),
    points: [...points].reverse(),
    length,
    on: new Map([...on].reverse().map(([id, { from, to }]) => [id, { from: length - to, to: length - from }])),
  };
}

/** The places that a piece of wire runs through, on a limb and on the branches at its ends. docs: The path. */
export function layPath(limb: { id: string; bark: FlatBark }, route: readonly BarkPlace[], halves: readonly [Half | null, Half | null]): WirePath {
  const node = (id: string, bark: FlatBark, place: BarkPlace): Node => ({ limb: id, bark, place, point: bark.point(place) });
  const [first, last] = halves;
  const wound = ({ branch, bark, coil, points }: Half): Node[] => coil.map((place, i) => ({ limb: branch, bark, place, point: points[i]! }));
  const head = first ? wound(first).reverse() : [];
  const tail = last ? wound(last) : [];
  // Where it touches a branch first, the coil's own place stands for the route's.
  const middle = route.slice(first ? 1 : 0, last ? -1 : undefined).map((p) => node(limb.id, limb.bark, p));
  const nodes = [...head, ...middle, ...tail];
  const lift = (route[0] ?? first!.coil[0]!).lift;
  if (first) roundOff(nodes, head.length - 1, limb.bark, first.bark, lift);
  if (last) roundOff(nodes, head.length + middle.length, limb.bark, last.bark, lift);
  const points: Vec[] = [];
  const places: WirePlace[] = [];
  const on = new Map<string, { from: number; to: number }>();
  let length = 0;
  const at: number[] = [];
  nodes.forEach(({ limb: id, bark, place, point }, i) => {
    const before = points[points.length - 1];
    if (before) {
      const gap = distance(before, point);
      for (let k = 1; k < Math.ceil(gap / MOST_APART); k++) {
        const between = lerp(before, point, k / Math.ceil(gap / MOST_APART));
        points.push(between);
        places.push(placeOn(id, bark.placeOf(between), length + distance(before, between)));
      }
      length += gap;
    }
    at[i] = length;
    points.push(point);
    places.push(placeOn(id, place ?? bark.placeOf(point), length));
  });
  // On a short way a wire drawn tight round the one shoulder gives on the other branch as well.
  const isDrawn = nodes.map((n) => n.place === null);
  if (first) on.set(first.branch, { from: 0, to: at[Math.max(0, isDrawn.indexOf(true) - 1)]! });
  if (last) on.set(last.branch, { from: at[Math.min(nodes.length - 1, isDrawn.lastIndexOf(true) + 1)]!, to: length });
  return { places, points, length, on };
}

/** Draws the wire tight round a shoulder, clear of both limbs: what was drawn has no place any more, that at the shoulder never. */
function roundOff(nodes: Node[], at: number, limb: FlatBark, branch: FlatBark, lift: number): void {
  const reach = 2.4 * (branch.radius(0) + lift) + 4;
  let low = at;
  let high = at;
  while (low > 1 && distance(nodes[low - 1]!.point, nodes[at]!.point) < reach) low--;
  while (high < nodes.length - 2 && distance(nodes[high + 1]!.point, nodes[at]!.point) < reach) high++;
  const before = nodes.slice(low, high + 1).map((n) => n.point);
  for (let round = 0, most = Infinity; round < ROUNDINGS && most > STILL; round++) {
    most = 0;
    for (let i = low; i <= high; i++) {
      const node = nodes[i]!;
      const drawn = clear(drawnIn(node.point, nodes[i - 1]!.point, nodes[i + 1]!.point), limb, branch, lift);
      most = Math.max(most, distance(drawn, node.point));
      node.point = drawn;
    }
  }
  const moved = (i: number): boolean => distance(nodes[i]!.point, before[i - low]!) > 0.02;
  let [from, to] = [low, high];
  while (from < at && !moved(from)) from++;
  while (to > at && !moved(to)) to--;
  for (let i = from; i <= to; i++) nodes[i]!.place = null;
}

/** A point half way to the middle of its neighbours. */
function drawnIn(p: Vec, a: Vec, b: Vec): Vec {
  const half = (k: 0 | 1 | 2): number => p[k] + (a[k] + (b[k] - a[k]) * 0.5 - p[k]) * 0.5;
  return [half(0), half(1), half(2)];
}

/** A point pushed out of the wood of two limbs. */
function clear(point: Vec, a: FlatBark, b: FlatBark, lift: number): Vec {
  let p = point;
  for (let i = 0; i < 3; i++) {
    const before = p;
    p = b.clearOfWood(a.clearOfWood(p, lift), lift);
    if (p === before) break;
  }
  return p;
}
