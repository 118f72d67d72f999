import { bearingAndElevation, distance, lengthOf, pointAt, type Limb, type Vec } from '../space/index.js';
import type { Feature, Root } from '../tree/index.js';
import { greatestOf, leastOf, turnDeg } from '../units/index.js';
import { POT_LINE } from './by-pot.js';
import type { FoundLine } from './lines.js';

/** What is drawn over photos beside trunk and branches: a surface root, dead wood on the trunk, what hangs plumb. */
export type DrawnPart = 'root' | 'shari';
const PART_ID = /^(root|shari)-(\d+)$/;

/** What a line is of by its id, and its number; null where it is the trunk, a branch or a mark. */
export function partOf(line: string): { part: DrawnPart; number: number } | null {
  const found = PART_ID.exec(line);
  return found && { part: found[1] as DrawnPart, number: Number(found[2]) };
}
export const partId = (part: DrawnPart, number: number): string => `${part}-${number}`;

/** The line that shows which way is up where the bench was not level: something that hangs plumb. */
export const PLUMB_LINE = 'plumb';

const PART_NAME: Record<DrawnPart, string> = { root: 'root', shari: 'dead wood' };

/** What is drawn that is no branch, as it is called; null for a branch. */
export function sayPart(line: string): string | null {
  const part = partOf(line);
  if (part) return `${PART_NAME[part.part]} ${part.number}`;
  return line === 'trunk' ? 'trunk' : line === POT_LINE ? 'pot, from rim to rim' : line === PLUMB_LINE ? 'what hangs plumb' : null;
}

const tenth = (x: number): number => Math.round(x * 10) / 10;
/** Roots, and dead wood at one height, that lie nearer to each other than this round the trunk are one. */
const SAME_DEG = 20;
/** A root whose width was not drawn is so thick against how far it shows; a guess. */
const THICK = 0.12;
/** How much dead wood counts among what the trunk shows; as where it is typed. */
const WEIGHT = 1;

/** The tree's surface roots with those that were drawn: each in the place of the one that runs its way, else added. */
export function withRoots(roots: readonly Root[], found: readonly FoundLine[]): Root[] {
  return found.reduce<Root[]>(
    (all, l) => {
      const bearing = tenth(bearingAndElevation([l.end[0], l.end[1], 0]).bearing) % 360;
      const root = { bearing, length: Math.max(1, tenth(l.length)), d: Math.max(0.5, tenth(l.d ?? THICK * l.length)) };
      const was = all.findIndex((r) => Math.abs(turnDeg(r.bearing, bearing)) < SAME_DEG);
      return was < 0 ? [...all, root] : all.map((r, i) => (i === was ? root : r));
    },
    [...roots],
  );
}

/** The trunk's features with the dead wood that was drawn on it: from and to which height, and on which side. */
export function withDeadWood(features: readonly Feature[], found: readonly FoundLine[], trunk: Limb): Feature[] {
  return found.reduce<Feature[]>(
    (all, l) => {
      const heights = l.points.map((p) => p[2]);
      const [low, high] = [tenth(leastOf(heights)), tenth(greatestOf(heights))];
      const middle = l.points[l.points.length >> 1]!;
      const axis = nearestOn(trunk, middle);
      const bearing = tenth(bearingAndElevation([middle[0] - axis[0], middle[1] - axis[1], 0]).bearing) % 360;
      const was = all.findIndex((f) => f.kind === 'shari' && Math.abs(turnDeg(f.bearing, bearing)) < SAME_DEG && f.z[0] < high && f.z[1] > low);
      const own: Feature = { kind: 'shari', bearing, z: [low, high], good: true, weight: WEIGHT };
      return was < 0 ? [...all, own] : all.map((f, i) => (i === was ? { ...f, bearing, z: own.z } : f));
    },
    [...features],
  );
}

const STEPS = 200;
/** The place of a trunk that is nearest to another. */
const nearestOn = (trunk: Limb, to: Vec): Vec =>
  Array.from({ length: STEPS + 1 }, (_, i) => pointAt(trunk, (lengthOf(trunk) * i) / STEPS).point).reduce((a, b) =>
    distance(b, to) < distance(a, to) ? b : a,
  );
