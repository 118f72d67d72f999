import { turnDeg, wrapDeg } from '../units/index.js';
import { add, bearingAndElevation, direction, lengthOf, limb, scale, type Vec } from '../space/index.js';
import { placeTree, posed } from './geometry.js';
import { BRANCH, type Branch, type Station } from './measures.js';
import { namesOf } from './names.js';
import { fits, sayRule } from './sentences.js';
import type { Measured, Tree } from './types.js';

export interface MeasureFault {
  branch: string;
  field: keyof Branch;
  message: string;
  /** Cannot be so; else it is only unlikely. */
  wrong: boolean;
}

const MEASURED_FIELDS = ['at', 'bearing', 'elevation', 'length', 'd', 'tipD', 'bareTo', 'green'] as const;

/** What is wrong or unlikely in a tree's branches, in place. Assumes that parents exist and make no cycle. */
export function measureFaults(tree: Tree): MeasureFault[] {
  const faults: MeasureFault[] = tree.branches.flatMap((b) =>
    MEASURED_FIELDS.flatMap((field): MeasureFault[] => {
      const rule = BRANCH.properties[field];
      return fits(rule, b[field]) ? [] : [{ branch: b.id, field, wrong: true, message: sayRule(rule) }];
    }),
  );
  if (faults.length) return faults;
  const placed = placeTree(tree);
  const names = namesOf(tree);
  for (const { branch: b, parentDiameter } of placed.branches) {
    const parent = placed.byId.get(b.parent);
    const room = lengthOf(parent?.line ?? placed.trunk);
    if (b.tipD > b.d) faults.push({ branch: b.id, field: 'tipD', wrong: true, message: `thicker than its base, ${b.d} mm` });
    if (b.at > room)
      faults.push({
        branch: b.id,
        field: 'at',
        wrong: false,
        message: parent ? `beyond the tip of ${names(b.parent)}, ${room.toFixed(0)} mm` : `above the apex, ${room.toFixed(0)} mm along the trunk`,
      });
    if (b.d > parentDiameter * 1.05)
      faults.push({
        branch: b.id,
        field: 'd',
        wrong: false,
        message: `thicker than ${names(b.parent)} there, ${parentDiameter.toFixed(1)} mm`,
      });
  }
  return faults;
}

const tenth = (x: number): number => Math.round(x * 10) / 10;
const tenths = (v: Vec): Vec => [tenth(v[0]), tenth(v[1]), tenth(v[2])];

/** A branch with changed values; a crooked one keeps its shape and is turned and stretched to them. */
export function reshaped(branch: Branch, changes: Partial<Branch>): Branch {
  const next = { ...branch, ...changes };
  const turnedOrStretched = (['bearing', 'elevation', 'length'] as const).some((k) => changes[k] !== undefined && changes[k] !== branch[k]);
  if (changes.path || !branch.path || !turnedOrStretched) return next;
  const line = limb(
    branch.path as Vec[],
    branch.path.map(() => 0),
  );
  const factor = next.length / branch.length;
  return { ...next, path: posed(line, next).points.map((p) => tenths(scale(p, factor))) };
}

const CROOKED_POINTS = 5;

/** A straight branch as a line of points, to be bent by hand; a crooked one as it is. */
export const crooked = (branch: Branch): Branch => {
  if (branch.path) return branch;
  const along = direction({ bearingDeg: branch.bearing, elevationDeg: branch.elevation });
  const at = (k: number): Vec => tenths(scale(along, (branch.length * k) / (CROOKED_POINTS - 1)));
  return { ...branch, path: Array.from({ length: CROOKED_POINTS }, (_, k) => at(k)) };
};

/** A crooked branch with one of its points moved by a vector (mm); its length and direction follow. The shoulder stays. */
export function movedPoint(branch: Branch, index: number, by: Vec): Branch {
  const path = (branch.path ?? []).map((p, i) => (i === index && i > 0 ? tenths(add(p, by)) : p));
  const chord = bearingAndElevation(path[path.length - 1]!);
  return {
    ...branch,
    path,
    bearing: tenth(chord.bearing) % 360,
    elevation: tenth(chord.elevation),
    length: tenth(
      lengthOf(
        limb(
          path,
          path.map(() => 0),
        ),
      ),
    ),
  };
}

/** A copy of a branch on the other side of the tree as seen from a bearing. */
export const mirroredBranch = (branch: Branch, id: string, seenFrom: number): Branch => {
  const { path: _path, ...straight } = branch;
  return { ...straight, id, bearing: Math.round(wrapDeg(seenFrom - turnDeg(seenFrom, branch.bearing)) * 10) / 10 };
};

/** Shares of green that add up to more than the tree are scaled down; says so with the sum they had. */
export function normaliseGreen(measured: Measured): { branches: Branch[]; sum: number } {
  const sum = measured.branches.reduce((total, b) => total + b.green, 0);
  if (sum <= 1.0005) return { branches: measured.branches, sum };
  return { branches: measured.branches.map((b) => ({ ...b, green: Math.floor((b.green / sum) * 10000) / 10000 })), sum };
}

/** Clock hours, 6 o'clock towards the mark on the pot, as people say them at the bench; and back. */
export const clockOf = (bearing: number): number => Math.round((((bearing / 30 + 6 + 11) % 12) + 1) * 10) / 10;
export const bearingOfClock = (hours: number): number => wrapDeg((hours - 6) * 30);

/** A trunk station as it is measured: its height, how far it stands aside of the foot, and towards where. */
export interface OffsetStation {
  z: number;
  offset: number;
  bearing: number;
  d: number;
}

export const offsetOf = ({ x, y, z, d }: Station): OffsetStation => ({ z, d, offset: Math.hypot(x, y), bearing: bearingAndElevation([x, y, 0]).bearing });

export const stationOf = ({ z, offset, bearing, d }: OffsetStation): Station => {
  const [x, y] = scale(direction({ bearingDeg: bearing, elevationDeg: 0 }), offset);
  return { x: Math.round(x * 100) / 100, y: Math.round(y * 100) / 100, z, d };
};
