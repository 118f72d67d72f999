import { leastOf, toDeg } from '../units/index.js';
import { closestBetween, cross, dot, lengthOf, norm, scale, stretch, sub, unit, type Limb } from '../space/index.js';
import type { Band, Protection } from '../wood/index.js';
import { withChildren, type BendInSpace, type PlacedTree } from '../tree/index.js';
import { archOf } from '../rod/index.js';
import { describeBends, MOST_RISK, type Bending } from './bend-load.js';
import { findBends } from './bends.js';
import { Bender, turnedBy, type Bent } from './bent.js';
import { bendingFor, carriedIn, linesInWorld, sideFirst } from './propose.js';
import { slopeOfLine } from './slope.js';
import { standingOf } from './world.js';

/** One way to lay a branch shorter, with what its arcs do to the wood. */
export interface CompactWay {
  arcs: number;
  planes: 1 | 2;
  /** What it reaches so, mm. */
  reach: number;
  /** Smallest radius of its arcs, and how far it stands from its straight way, mm. */
  radius: number;
  sideways: number;
  /** How far its pad comes to lie turned about the branch beside how it would without the arcs, degrees, and how far it lies from other wood at the nearest, mm. */
  roll: number;
  gap: number;
  risk: number;
  band: Band;
  protection: Protection;
  /** The wood takes it in one season, and it lies clear of other wood. */
  bears: boolean;
}

/** The ways that are tried: side to side in one plane, and loops to both sides. */
const WAYS = [
  { planes: 1, arcs: 1 },
  { planes: 1, arcs: 2 },
  { planes: 1, arcs: 3 },
  { planes: 1, arcs: 4 },
  { planes: 2, arcs: 6 },
] as const;
/** So near to the reach wanted is there, mm. */
const CLOSE = 2;
/** A pad turned so far about its branch lies level still, to the eye; turned farther than that a hand does not twist it back, degrees. */
const LEVEL_ROLL = 20;
const MOST_ROLL = 30;
/** Nearer to other wood than this it touches, mm; what grows so near its shoulder is beside it anyway. */
const TOUCHES = 2;
const BESIDE = 3;
const LOOKS = 40;

interface Asked {
  branch: string;
  bearing: number;
  elevation: number;
  reach: number;
}

/** How far the upper side of a line's end is turned about its way from level, degrees to one side or the other; null where it hangs or stands, and has none. */
function rollOf(bent: Bent): number | null {
  const { turn } = bent.carried(lengthOf(bent.line));
  const along = unit(bent.chord);
  const up = turnedBy(turn, [0, 0, 1]);
  const aside = sub(up, scale(along, dot(up, along)));
  const level = sub([0, 0, 1], scale(along, along[2]));
  return norm(aside) < 0.2 || norm(level) < 0.2 ? null : toDeg(Math.atan2(dot(cross(level, aside), along), dot(level, aside)));
}

/** How far a pad comes to lie turned beside how it would without the arcs, degrees. */
function turnedFurther(compacted: Bent, plain: Bent): number {
  const [now, before] = [rollOf(compacted), rollOf(plain)];
  return now === null || before === null ? 0 : Math.abs(((now - before + 540) % 360) - 180);
}

/** How near a branch's line comes to other wood, mm: not to what grows on it, nor to what it grows on beside its shoulder. */
function gapOf(line: Limb, others: readonly Limb[], clear: number): number {
  const beyond = stretch(line, Math.min(clear, lengthOf(line) / 2), lengthOf(line));
  return leastOf(others.map((other) => closestBetween(beyond, other, LOOKS)?.gap ?? LOOKS));
}

interface Among {
  /** How it lies in that direction without arcs. */
  plain: Bent;
  of: Bending;
  carried: ReturnType<typeof carriedIn>;
  side: 1 | -1;
  others: readonly Limb[];
}

function wayOf({ plain, of, carried, side, others }: Among, { reach, ...to }: Asked, { arcs, planes }: (typeof WAYS)[number]): CompactWay {
  const found = findBends(of, to, { movement: 'calm', secondary: false, side, tipRise: null, compact: { reach, arcs, planes } }, carried);
  const bends = describeBends(of, found.bends, carried).filter((b) => b.kind === 'arc');
  const worst = bends.reduce((a, b) => (b.risk > a.risk ? b : a));
  const roll = turnedFurther(found.bent, plain);
  const gap = gapOf(found.bent.line, others, (of.clear ?? 0) + BESIDE * of.line.diameters[0]!);
  return {
    arcs,
    planes,
    reach: norm(found.bent.chord),
    radius: leastOf(bends.map((b) => b.radius)),
    sideways: archOf(found.bent.line),
    roll,
    gap,
    risk: worst.risk,
    band: worst.band,
    protection: worst.protection,
    bears: worst.risk <= MOST_RISK && norm(found.bent.chord) < reach + CLOSE && roll <= MOST_ROLL && gap >= TOUCHES,
  };
}

/** What a branch of a tree is laid among. */
function among(placed: PlacedTree, poses: readonly { branch: string; bends: readonly BendInSpace[] }[], { branch, bearing, elevation }: Asked): Among {
  const of = bendingFor(placed, branch);
  const carried = carriedIn(placed, poses, branch);
  const side = sideFirst(slopeOfLine(carried ? new Bender(of.line, carried).finish().line : of.line), placed.tree.plan.front?.bearing ?? 0);
  const own = withChildren(placed.tree, branch);
  const plain = findBends(of, { bearing, elevation }, { movement: 'calm', secondary: false, side, tipRise: null }, carried).bent;
  return { plain, of, carried, side, others: [...linesInWorld(placed, poses)].flatMap(([id, line]) => (own.has(id) ? [] : [line])) };
}

/** The ways to lay a branch shorter in a direction, those first that its wood bears and that leave its pad level, fewest arcs first. Reach in mm. docs: Compaction. */
export function compactWays(placed: PlacedTree, poses: readonly { branch: string; bends: readonly BendInSpace[] }[], asked: Asked): CompactWay[] {
  const where = among(placed, poses, asked);
  return WAYS.map((way) => wayOf(where, asked, way)).sort(
    (a, b) => Number(b.bears) - Number(a.bears) || Number(b.roll <= LEVEL_ROLL) - Number(a.roll <= LEVEL_ROLL) || a.arcs - b.arcs || a.planes - b.planes,
  );
}

/** The shortest reach, mm, that the branch's wood bears in some way. */
export function shortestReach(placed: PlacedTree, poses: readonly { branch: string; bends: readonly BendInSpace[] }[], asked: Asked): number {
  const where = among(placed, poses, asked);
  let [low, high] = [asked.reach, lengthOf(standingOf(placed).lineOf.get(asked.branch)!)];
  for (let i = 0; i < 8; i++) {
    const middle = (low + high) / 2;
    if (WAYS.some((way) => wayOf(where, { ...asked, reach: middle }, way).bears)) high = middle;
    else low = middle;
  }
  return high;
}
