import { leastOf } from '../units/index.js';
import { lengthOf, norm } from '../space/index.js';
import type { Band, Protection } from '../wood/index.js';
import type { BendInSpace, PlacedTree } from '../tree/index.js';
import { archOf } from '../rod/index.js';
import { describeBends, MOST_RISK, type Bending } from './bend-load.js';
import { findBends } from './bends.js';
import { Bender } from './bent.js';
import { bendingFor, carriedIn, sideFirst } from './propose.js';
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
  risk: number;
  band: Band;
  protection: Protection;
  /** The wood takes it in one season. */
  bears: boolean;
}

const MOST_ARCS = 5;
/** So near to the reach wanted is there, mm. */
const CLOSE = 2;

interface Asked {
  branch: string;
  bearing: number;
  elevation: number;
  reach: number;
}

function wayOf(of: Bending, { reach, ...to }: Asked, side: 1 | -1, arcs: number, planes: 1 | 2, carried: ReturnType<typeof carriedIn>): CompactWay {
  const found = findBends(of, to, { movement: 'calm', secondary: false, side, tipRise: null, compact: { reach, arcs, planes } }, carried);
  const bends = describeBends(of, found.bends, carried).filter((b) => b.kind === 'arc');
  const worst = bends.reduce((a, b) => (b.risk > a.risk ? b : a));
  return {
    arcs,
    planes,
    reach: norm(found.bent.chord),
    radius: leastOf(bends.map((b) => b.radius)),
    sideways: archOf(found.bent.line),
    risk: worst.risk,
    band: worst.band,
    protection: worst.protection,
    bears: worst.risk <= MOST_RISK && norm(found.bent.chord) < reach + CLOSE,
  };
}

/** The ways to lay a branch shorter in a direction, those first that its wood bears, fewest arcs first. Reach in mm. docs: Compaction. */
export function compactWays(placed: PlacedTree, poses: readonly { branch: string; bends: readonly BendInSpace[] }[], asked: Asked): CompactWay[] {
  const of = bendingFor(placed, asked.branch);
  const carried = carriedIn(placed, poses, asked.branch);
  const side = sideFirst(slopeOfLine(carried ? new Bender(of.line, carried).finish().line : of.line), placed.tree.plan.front?.bearing ?? 0);
  const ways = ([1, 2] as const).flatMap((planes) =>
    Array.from({ length: MOST_ARCS - planes + 1 }, (_, i) => wayOf(of, asked, side, i + planes, planes, carried)),
  );
  return ways.sort((a, b) => Number(b.bears) - Number(a.bears) || a.arcs - b.arcs || a.planes - b.planes);
}

/** The shortest reach, mm, that the branch's wood bears in some way. */
export function shortestReach(placed: PlacedTree, poses: readonly { branch: string; bends: readonly BendInSpace[] }[], asked: Asked): number {
  const total = lengthOf(standingOf(placed).lineOf.get(asked.branch)!);
  let [low, high] = [asked.reach, total];
  for (let i = 0; i < 8; i++) {
    const middle = (low + high) / 2;
    if (compactWays(placed, poses, { ...asked, reach: middle })[0]!.bears) high = middle;
    else low = middle;
  }
  return high;
}
