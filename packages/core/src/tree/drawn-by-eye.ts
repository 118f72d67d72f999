import { clamp } from '../units/index.js';
import { axisAt, bearingAndElevation, distance, lengthOf, sub, type Limb, type Vec } from '../space/index.js';
import { addShares, placeTree, shoulderAt } from './geometry.js';
import type { Branch, Station } from './measures.js';
import { crooked, movedPoint } from './measuring.js';
import type { Tree } from './types.js';

/** Drawn by eye: about so many times as long as thick, thinner than its parent, its tip so thin, green from here on. Guesses. */
const LONG = 18;
const OF_PARENT = 0.55;
const TIP = 0.35;
const BARE = 0.35;
/** So much of the tree's green goes on a branch of such a length, mm, and no more than half of what is left. */
const GREEN = { share: 0.06, length: 150, most: 0.5 };
const THINNEST = 0.3;
const SHORTEST = 3;

const tenth = (x: number): number => Math.round(x * 10) / 10;

/** How far along a line it is nearest to a point, mm. */
function nearestAlong(line: Limb, point: Vec): number {
  const total = lengthOf(line);
  const PIECES = 200;
  let [best, least] = [0, Infinity];
  for (let i = 0; i <= PIECES; i++) {
    const off = distance(axisAt(line, (total * i) / PIECES).point, point);
    if (off < least) [best, least] = [(total * i) / PIECES, off];
  }
  return best;
}

/** A branch pulled out of the wood, from a place on its bark to where its tip shall be (mm, in the tree's space): a straight one, to be bent by its points. docs: Drawn on the tree. */
export function pulledBranch(tree: Tree, parent: string, from: Vec, tip: Vec, id: string): Branch {
  const placed = placeTree(tree);
  const line = placed.byId.get(parent)?.line ?? placed.trunk;
  const at = nearestAlong(line, from);
  const on = axisAt(line, at);
  const to = bearingAndElevation(sub(tip, on.point));
  const shoulder = shoulderAt(on, to);
  const length = Math.max(SHORTEST, tenth(distance(shoulder, tip)));
  const d = Math.max(THINNEST, tenth(Math.min(OF_PARENT * on.diameter, length / LONG)));
  const left = 1 - tree.branches.reduce((sum, b) => addShares(sum, b.green), 0);
  return crooked({
    id,
    parent,
    at: tenth(at),
    bearing: tenth(to.bearing) % 360,
    elevation: tenth(to.elevation),
    length,
    d,
    tipD: Math.max(0.1, tenth(TIP * d)),
    bareTo: BARE,
    green: Math.floor(1000 * clamp(Math.min((GREEN.share * length) / GREEN.length, GREEN.most * left), 0, 1)) / 1000,
    state: 'normal',
    stage: 'wood',
    backBuds: true,
    known: { how: 'drawn' },
  });
}

/** What changes of a branch whose point is moved by eye (mm): its line, which is known as drawn. The shoulder stays. */
export function drawnPoint(branch: Branch, index: number, by: Vec): Partial<Branch> {
  const { path, bearing, elevation, length } = movedPoint(branch, index, by);
  const { deg: _deg, length: _length, ...thickness } = branch.known ?? { how: 'drawn' };
  return { path, bearing, elevation, length, known: { ...thickness, how: 'drawn' } };
}

/** A trunk with one of its places moved by eye (mm); its foot stays. */
export const drawnTrunk = (trunk: readonly Station[], index: number, [x, y, z]: Vec): Station[] =>
  trunk.map((s, i) => (i === index && i > 0 ? { ...s, x: tenth(s.x + x), y: tenth(s.y + y), z: tenth(s.z + z) } : s));
