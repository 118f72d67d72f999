import { dayOf, groupedBy } from '../units/index.js';
import { branchOf } from './geometry.js';
import type { RecordLine } from './lines.js';
import { standing } from './record.js';
import type { Tree } from './types.js';

/** A thickness at the shoulder, mm, and the day number on which it was measured; null: nobody noted when. */
export interface Caliper {
  d: number;
  day: number | null;
}

interface Reading extends Caliper {
  branch: string;
  day: number;
}
const remembered = new WeakMap<readonly RecordLine[], ReadonlyMap<string, readonly Reading[]>>();

/** The thicknesses that the record tells, by branch, oldest first. */
function readingsIn(record: readonly RecordLine[]): ReadonlyMap<string, readonly Reading[]> {
  let found = remembered.get(record);
  if (!found) {
    const told = standing(record).flatMap((line) =>
      line.kind === 'measured' && line.branch && line.d ? [{ branch: line.branch, day: dayOf(line.on), d: line.d }] : [],
    );
    remembered.set(record, (found = groupedBy(told, (t) => t.branch)));
  }
  return found;
}

/** Every thickness that is known of a branch, oldest first: that of its measures, where it is dated, among those of the record. */
export function calipersOf(tree: Tree, branch: string): readonly Caliper[] {
  const told = readingsIn(tree.record).get(branch) ?? [];
  const measured = branchOf({ branches: tree.stands?.branches ?? tree.branches }, branch);
  if (!measured) return told;
  const day = measured.measuredOn ? dayOf(measured.measuredOn) : null;
  // What the record tells of the same day was told beside the measures, or after them.
  return [...told.filter((t) => day !== null && t.day < day), { d: measured.d, day }, ...told.filter((t) => day === null || t.day >= day)];
}

/** The thickness of a branch as it was measured last by a day. */
export function lastCaliper(tree: Tree, branch: string, onDay: number): Caliper | undefined {
  const all = calipersOf(tree, branch);
  return all.filter((c) => c.day === null || c.day <= onDay).at(-1) ?? all[0];
}
