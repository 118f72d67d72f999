import { dot, type Vec } from '../space/index.js';
import type { Hand, RouteSide } from '../tree/index.js';
import type { MetalName } from '../wood/index.js';
import type { FittedCoil } from './coil-fit.js';
import type { FlatBark } from './flat-bark.js';
import type { Knot } from './knots.js';
import { liesAcross, type LaidWire } from './laid.js';
import { bestPairs, type Edge } from './matching.js';
import type { WirePath } from './path.js';
import { served, serves, touchOf, wayAt, type Shoulder, type Touch, type Wish } from './shoulders.js';
import { clearOfItself, findWay, lengthOfWay, routeLength, sampleOf, TURN, turnOf, type Course, type Way } from './ways.js';

/** What a branch needs of wire. */
export interface Need {
  branch: string;
  metal: MetalName;
  size: number;
  /** Round which side of the limb it shall go, where its artist has said. */
  side?: RouteSide;
  /** Place of its size among those to choose from. */
  gauge: number;
  strands: number;
  angle: number;
  diameter: number;
  wish: Wish;
  /** Wire on the branch alone, mm. */
  coilLength: number;
}

/** One end of a wire's way: the branch it goes on to, and how it gets there. */
export interface End {
  need: Need;
  touch: Touch;
}

/** A piece of wire on a limb: from one branch round to another, or from two turns round the limb to one. */
export interface Joined {
  /** Tells it from other ways for the same branches. */
  key: string;
  kind: 'pair' | 'single' | 'anchored';
  /** The end with the lower sample first; a free end is null. */
  ends: [End | null, End | null];
  way: Way;
  size: number;
  length: number;
  /** Share of the way that is hidden from the front; null where there is none. */
  hidden: number | null;
}

/** A limb with what is on it. */
export interface LimbWork {
  bark: FlatBark;
  shoulders: ReadonlyMap<string, Shoulder>;
  /** Wood that wires on it go round. */
  knots: readonly Knot[];
  /** The coil that is on the limb itself. */
  coil: { way: Way; hand: Hand } | null;
  /** Towards the viewer. */
  toward: Vec | null;
  /** Lays a piece with its coils; null where it would run into wood. */
  lay: (joined: Joined) => Laid | null;
  /** Touches from which no coil can go on: found while laying. */
  stuck: Set<Touch>;
  /** Wires of the rest of the tree. */
  wires: readonly LaidWire[];
}

/** A piece as it lies. */
export interface Laid {
  path: WirePath;
  coils: readonly (CoilOn | null)[];
  wire: LaidWire;
}

/** A coil with its places as points. */
export type CoilOn = FittedCoil & { points: readonly Vec[] };

/** What is on a limb so far: ways on its bark, and the wires as they lie. */
class Placed {
  constructor(
    readonly ways: Way[],
    readonly wires: LaidWire[],
  ) {}

  copy(): Placed {
    return new Placed([...this.ways], [...this.wires]);
  }

  /** Adds a piece where it lies clear of wood and of the others; whether it did. */
  add(work: LimbWork, joined: Joined): Laid | null {
    const laid = work.lay(joined);
    if (!laid || liesAcross(laid.wire, this.wires)) return null;
    this.ways.push(joined.way);
    this.wires.push(laid.wire);
    return laid;
  }
}

export type LaidPiece = Joined & { laid: Laid; /** It was asked for, and lies across something. */ across?: boolean };

export interface OnLimb {
  joined: LaidPiece[];
  /** Branches for which there was no way round. */
  left: string[];
  /** What going round each other cost: worth of the pairs that would be best on paper, and of these. */
  worth: { best: number; had: number };
}

const MOST_TURNS = 2.5;
const LEAST_TURNS = 0.5;
const ANCHOR_TURNS = 2;
/** What there is room for may have to do. */
const LEAST_ANCHOR_TURNS = 1.25;
/** A route is at most so long, mm, or such a share of the run. */
const LONGEST = 120;
const LONGEST_SHARE = 0.25;

const width = (n: Need): number => n.size * n.strands;
const HANDS: readonly Hand[] = ['cw', 'ccw'];

/** The touches that serve a branch's wish, the clearest first. */
function touchesFor(shoulder: Shoulder, need: Need, lift: number, arriving: Vec): Touch[] {
  return HANDS.flatMap((hand) => {
    const touch = touchOf(shoulder, arriving, hand, lift);
    return touch && serves(touch, need.wish) ? [touch] : [];
  }).sort((a, b) => wishesServed(b, need) - wishesServed(a, need) || Number(b.start === 'over') - Number(a.start === 'over') || b.clear - a.clear);
}

/** Of a branch's two wishes, how many a touch serves. */
function wishesServed(touch: Touch, need: Need): number {
  const { hand, start } = served(touch, need.wish);
  return Number(hand) + Number(start);
}

/** A sample near another one, whole turns aside. */
const nearTo = (k: number, to: number): number => k + Math.round((to - k) / TURN) * TURN;

/** Share of a way's points that face away from the viewer. */
function hiddenShare(bark: FlatBark, way: Way, toward: Vec | null): number | null {
  if (!toward) return null;
  const behind = way.along.filter((s, i) => dot(bark.outward(s, turnOf(way.first + i)), toward) < 0).length;
  return behind / way.along.length;
}

const straight = (from: number, to: number, count: number): number[] => Array.from({ length: count }, (_, i) => from + ((to - from) * i) / (count - 1 || 1));

interface Candidate {
  key: string;
  a: Need;
  b: Need;
  course: Course;
  ends: readonly [End, End];
  size: number;
  worth: number;
}

/** Between which of a coil's rounds a place lies, counted along the limb. */
function laneOf({ first, along }: Way, k: number, s: number): number {
  const last = along.length - 1;
  let lane = -Infinity;
  for (let copy = Math.ceil((k - first - last) / TURN); copy <= Math.floor((k - first) / TURN); copy++)
    if (along[k - copy * TURN - first]! < s) lane = Math.max(lane, along[last]! > along[0]! ? -copy : copy);
  return lane;
}

/** Whether a wire would have to cross a coil on its way; before and behind the coil's ends there is nothing to cross. */
function crosses(coil: Way, from: readonly [number, number], to: readonly [number, number]): boolean {
  const [a, b] = [laneOf(coil, ...from), laneOf(coil, ...to)];
  return Number.isFinite(a) && Number.isFinite(b) && a !== b;
}

/** All ways from one branch to another that serve both: either sense, up to two turns and a half. */
function candidates(work: LimbWork, a: Need, b: Need): Candidate[] {
  const { bark, shoulders, coil } = work;
  const [from, to] = [shoulders.get(a.branch)!, shoulders.get(b.branch)!];
  const size = Math.max(a.size, b.size);
  const half = (size * a.strands) / 2;
  const [ka, kb] = [sampleOf(from.foot.turn), sampleOf(to.foot.turn)];
  const round = bark.radius((from.foot.s + to.foot.s) / 2) + size / 2;
  const found: Candidate[] = [];
  for (const sense of [1, -1] as const) {
    // Beside a coil a way can but go along with it.
    if (coil && Math.sign(to.foot.s - from.foot.s) * sense !== (coil.hand === 'cw' ? 1 : -1)) continue;
    const first = (((sense * (kb - ka)) % TURN) + TURN) % TURN;
    for (let steps = first; steps <= MOST_TURNS * TURN; steps += TURN) {
      if (steps < LEAST_TURNS * TURN) continue;
      const rise = (to.foot.s - from.foot.s) / (round * turnOf(steps));
      const away = wayAt(from, rise, sense);
      const arrive = wayAt(to, rise, sense);
      const atA = touchesFor(from, a, size / 2, [-away[0], -away[1], -away[2]]);
      const atB = touchesFor(to, b, size / 2, arrive);
      if (!atA.length || !atB.length) continue;
      const [ta, tb] = [atA[0]!, atB[0]!];
      const start = nearTo(sampleOf(ta.onLimb.turn), ka);
      const stop = nearTo(sampleOf(tb.onLimb.turn), ka + sense * steps);
      const count = sense * (stop - start) + 1;
      if (count <= LEAST_TURNS * TURN * 0.8) continue;
      if (coil && crosses(coil.way, [start, ta.onLimb.s], [stop, tb.onLimb.s])) continue;
      const base = straight(ta.onLimb.s, tb.onLimb.s, count);
      const course: Course =
        sense > 0
          ? { first: start, base, half, fixed: [true, true], at: [a.branch, b.branch] }
          : { first: stop, base: base.reverse(), half, fixed: [true, true], at: [b.branch, a.branch] };
      const length = routeLength({
        parentDiameter: 2 * round - size,
        wireDiameter: size,
        heightGap: ta.onLimb.s - tb.onLimb.s,
        turnDeg: (360 * (count - 1)) / TURN,
      });
      const most = Math.max(LONGEST, LONGEST_SHARE * (a.coilLength + b.coilLength + length));
      if (length > most) continue;
      const ends: [End, End] = [
        { need: a, touch: ta },
        { need: b, touch: tb },
      ];
      const hidden = hiddenShare(bark, { first: course.first, along: [...course.base], half }, work.toward) ?? 0;
      if (a.side && work.toward && (hidden > 0.5 ? 'behind' : 'front') !== a.side) continue;
      const likeness = 1 - Math.min(1, Math.abs(Math.log(a.diameter / b.diameter)) / Math.log(1.6));
      const worth = Math.round(
        1000 + 200 * likeness + 100 * (1 - length / most) + 100 * hidden + (a.gauge === b.gauge ? 50 : 0) + 60 * (wishesServed(ta, a) + wishesServed(tb, b)),
      );
      found.push({ key: `${a.branch} ${b.branch} ${sense} ${steps}`, a, b, course, ends: sense > 0 ? ends : [ends[1], ends[0]], size, worth });
    }
  }
  return found;
}

/** Whether there is any way for one piece round a limb to two branches, whatever else is on it. */
export const canJoin = (work: LimbWork, a: Need, b: Need): boolean =>
  candidates(work, a, b).some((c) => {
    const way = findWay(c.course, work.bark, work.knots, work.coil ? [work.coil.way] : []);
    return way !== null && clearOfItself(way, work.bark);
  });

/** The thin sizes of aluminium stand between its whole steps. */
const ALUMINIUM_STEP = 0.5;

const isNext = (a: Need, b: Need): boolean =>
  Math.abs(a.gauge - b.gauge) <= 1 || (a.metal === 'aluminium' && Math.abs(a.size - b.size) <= ALUMINIUM_STEP + 1e-9);

/** Whether two branches can share a piece of wire: one metal, sizes at most a step apart, and not too thick for the thinner one. */
export const alike = (a: Need, b: Need): boolean =>
  a.metal === b.metal && a.strands === b.strands && a.angle === b.angle && isNext(a, b) && Math.max(a.size, b.size) <= 0.6 * Math.min(a.diameter, b.diameter);

function joinedBy(work: LimbWork, candidate: Candidate, way: Way): Joined {
  return {
    key: candidate.key,
    kind: 'pair',
    ends: [...candidate.ends],
    way,
    size: candidate.size,
    length: lengthOfWay(way, work.bark),
    hidden: hiddenShare(work.bark, way, work.toward),
  };
}

/** Pairs of greatest worth whose ways all find room: where some do not, those worth less are given up and all is matched again. docs: Pairs. */
function pairUp(work: LimbWork, needs: readonly Need[], before: Placed): { joined: LaidPiece[]; placed: Placed; worth: OnLimb['worth'] } {
  const tried: Trial = { placed: before, piece: null, before: null, next: new Map() };
  const open: Candidate[] = [];
  for (let i = 0; i < needs.length; i++) {
    for (let j = i + 1; j < needs.length; j++) {
      if (!alike(needs[i]!, needs[j]!)) continue;
      open.push(...candidates(work, needs[i]!, needs[j]!));
    }
  }
  const index = new Map(needs.map((n, i) => [n.branch, i]));
  const forbidden = new Set<string>();
  let best = -1;
  for (;;) {
    const byPair = new Map<string, Candidate>();
    for (const c of open) {
      const key = `${c.a.branch} ${c.b.branch}`;
      if (!forbidden.has(c.key) && !work.stuck.has(c.ends[0].touch) && !work.stuck.has(c.ends[1].touch) && c.worth > (byPair.get(key)?.worth ?? 0))
        byPair.set(key, c);
    }
    const edges = [...byPair.values()].map((c): Edge => [index.get(c.a.branch)!, index.get(c.b.branch)!, c.worth]);
    const matched = bestPairs(needs.length, edges);
    if (best < 0) best = matched.worth;
    const chosen = matched.pairs
      .map(([a, b]) => byPair.get(`${needs[a]!.branch} ${needs[b]!.branch}`)!)
      .sort((x, y) => y.worth - x.worth || (x.key < y.key ? -1 : 1));
    let at = tried;
    let given = 0;
    for (const c of chosen) {
      at = laidAfter(work, c, at);
      if (!at.piece) {
        forbidden.add(c.key);
        given++;
        at = at.before!;
      }
    }
    if (given) continue;
    const joined: LaidPiece[] = [];
    for (let step = at; step.piece; step = step.before!) joined.unshift(step.piece);
    return { joined, placed: at.placed, worth: { best, had: matched.worth } };
  }
}

/** What was laid one after another, and what came of trying a further piece: found once, however often the pairs are matched anew. */
interface Trial {
  placed: Placed;
  piece: LaidPiece | null;
  before: Trial | null;
  next: Map<string, Trial>;
}

function laidAfter(work: LimbWork, c: Candidate, before: Trial): Trial {
  const known = before.next.get(c.key);
  if (known) return known;
  const placed = before.placed.copy();
  const way = findWay(c.course, work.bark, work.knots, placed.ways);
  const piece = way && clearOfItself(way, work.bark) ? joinedBy(work, c, way) : null;
  const laid = piece && placed.add(work, piece);
  const trial: Trial = { placed, piece: piece && laid ? { ...piece, laid } : null, before, next: new Map() };
  before.next.set(c.key, trial);
  return trial;
}

/** Steepness of an anchor's turns on a limb without a coil, the widest first: rise along it for each mm round it. */
const ANCHOR_RISES = [0.35, 0.15];

/** Where two turns from a shoulder would lie: along the limb's own coil where there is one. */
function anchorBase(work: LimbWork, from: { k: number; s: number }, sense: 1 | -1, rise: number, count: number): number[] {
  const { coil, bark } = work;
  if (!coil) return Array.from({ length: count }, (_, i) => from.s + i * turnOf(1) * rise * (bark.radius(from.s) + 1));
  const { way } = coil;
  const last = way.along.length - 1;
  const at = (k: number): number => {
    const i = k - way.first;
    if (i < 0) return way.along[0]! + i * (way.along[1]! - way.along[0]!);
    if (i > last) return way.along[last]! + (i - last) * (way.along[last]! - way.along[last - 1]!);
    return way.along[i]!;
  };
  // Of the coil's rounds the one that passes next to the shoulder.
  let k = nearTo(from.k, way.first);
  const up = way.along[last]! > way.along[0]! ? TURN : -TURN;
  while (k + up >= way.first && k + up <= way.first + last && at(k + up) <= from.s) k += up;
  return Array.from({ length: count }, (_, i) => from.s + at(k + sense * i) - at(k));
}

interface AnchorTry {
  key: string;
  sense: 1 | -1;
  rise: number;
  touch: Touch;
  rank: number;
}

/** The ways in which turns can lead up to a branch, the best first: as its bend asks, from its limb's foot, in wide turns. */
function anchorTries(work: LimbWork, need: Need): AnchorTry[] {
  const { coil } = work;
  const shoulder = work.shoulders.get(need.branch)!;
  const tries: AnchorTry[] = [];
  for (const sense of [1, -1] as const) {
    for (const rise of coil ? [sense * (coil.hand === 'cw' ? 1 : -1)] : ANCHOR_RISES.flatMap((r) => [-r, r])) {
      const away = wayAt(shoulder, rise, sense);
      for (const hand of HANDS) {
        const touch = touchOf(shoulder, [-away[0], -away[1], -away[2]], hand, need.size / 2);
        if (!touch) continue;
        const asked = serves(touch, need.wish) ? 10 : 0;
        const rank = asked + 3 * wishesServed(touch, need) + touch.clear + (rise < 0 ? 0.3 : 0) + Math.abs(rise);
        tries.push({ key: `${need.branch} ${sense} ${rise} ${hand}`, sense, rise, touch, rank });
      }
    }
  }
  return tries.sort((a, b) => b.rank - a.rank);
}

/** Turns that anchor a branch's wire, with the clearest way up to it that there is room for; null where there is none. */
function anchor(work: LimbWork, need: Need, placed: Placed, turns: number, asAsked = false): LaidPiece | null {
  const { bark, coil } = work;
  const shoulder = work.shoulders.get(need.branch)!;
  const half = width(need) / 2;
  for (const { key, sense, rise, touch } of anchorTries(work, need)) {
    if ((asAsked && !serves(touch, need.wish)) || work.stuck.has(touch)) continue;
    const count = Math.round(turns * TURN) + 1;
    const k = nearTo(sampleOf(touch.onLimb.turn), sampleOf(shoulder.foot.turn));
    const base = anchorBase(work, { k, s: touch.onLimb.s }, sense, rise, count);
    const course: Course =
      sense > 0
        ? { first: k, base, half, fixed: [true, false], at: [need.branch, null] }
        : { first: k - count + 1, base: base.reverse(), half, fixed: [false, true], at: [null, need.branch] };
    const way = findWay(course, bark, work.knots, placed.ways);
    if (!way || !clearOfItself(way, bark)) continue;
    const end: End = { need, touch };
    const piece: Joined = {
      key: `${key} ${turns}`,
      kind: coil ? 'anchored' : 'single',
      ends: sense > 0 ? [end, null] : [null, end],
      way,
      size: need.size,
      length: lengthOfWay(way, bark),
      hidden: hiddenShare(bark, way, work.toward),
    };
    const laid = placed.add(work, piece);
    if (laid) return { ...piece, laid };
  }
  return null;
}

const anchorAnyhow = (work: LimbWork, need: Need, placed: Placed): LaidPiece | null =>
  anchor(work, need, placed, ANCHOR_TURNS) ?? anchor(work, need, placed, LEAST_ANCHOR_TURNS);

/** A piece that the plan fixes: as it says where there is room, else beside what is asked, told by `asAsked`. */
export interface Fixed {
  needs: [Need] | [Need, Need];
}

/** Lays what is fixed; where it cannot lie clear of the rest, across that: it was asked for. */
function placeFixed(work: LimbWork, { needs }: Fixed, placed: Placed): LaidPiece | null {
  const [a, b] = needs;
  const alone = new Placed([], []);
  const bare: LimbWork = { ...work, coil: null, knots: [] };
  const forced = (piece: LaidPiece | null): LaidPiece | null => {
    if (!piece) return null;
    placed.ways.push(piece.way);
    placed.wires.push(piece.laid.wire);
    return { ...piece, across: true };
  };
  if (!b)
    return (
      anchor(work, a, placed, ANCHOR_TURNS, true) ??
      anchorAnyhow(work, a, placed) ??
      forced(anchor(work, a, alone, ANCHOR_TURNS) ?? anchor(bare, a, alone, ANCHOR_TURNS))
    );
  const handOnly = (n: Need): Need => ({ ...n, wish: { ...n.wish, must: 'hand' } });
  const pair = (x: Need, y: Need, on: Placed, of: LimbWork = work): LaidPiece | null => {
    for (const c of candidates(of, x, y).sort((p, q) => q.worth - p.worth)) {
      const way = findWay(c.course, of.bark, of.knots, on.ways);
      const piece = way && joinedBy(of, c, way);
      const laid = piece && on.add(of, piece);
      if (piece && laid) return { ...piece, laid };
    }
    return null;
  };
  return pair(a, b, placed) ?? pair(handOnly(a), handOnly(b), placed) ?? forced(pair(handOnly(a), handOnly(b), alone) ?? pair(a, b, alone, bare));
}

/** The pieces of wire on the branches of one limb: what is fixed first, then pairs, then what is left over, anchored. */
export function planOnLimb(work: LimbWork, fixed: readonly Fixed[], needs: readonly Need[]): OnLimb {
  const before = new Placed(work.coil ? [work.coil.way] : [], [...work.wires]);
  const joined: LaidPiece[] = [];
  const left: string[] = [];
  for (const f of fixed) {
    const found = placeFixed(work, f, before);
    if (found) joined.push(found);
    else left.push(...f.needs.map((n) => n.branch));
  }
  const paired = pairUp(work, needs, before);
  joined.push(...paired.joined);
  const done = new Set(joined.flatMap((j) => j.ends.flatMap((e) => e?.need.branch ?? [])));
  for (const need of [...needs].sort((a, b) => b.size - a.size || (a.branch < b.branch ? -1 : 1))) {
    if (done.has(need.branch)) continue;
    const found = anchorAnyhow(work, need, paired.placed);
    if (found) joined.push(found);
    else left.push(need.branch);
  }
  return { joined, left, worth: paired.worth };
}
