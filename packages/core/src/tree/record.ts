import { dayOf } from '../units/index.js';
import type { MetalName } from '../wood/index.js';
import type { MarkStage, RecordEntry, Tree, Wrap } from './types.js';

/** What stands after corrections: replaced and withdrawn lines are left out, in order of date. */
export function standing(record: readonly RecordEntry[]): RecordEntry[] {
  const replaced = new Set(record.map((e) => e.corrects).filter(Boolean));
  return record
    .filter((e) => e.kind !== 'withdrawn' && !(e.id && replaced.has(e.id)))
    .map((e, i) => ({ e, i, day: dayOf(e.on) }))
    .sort((a, b) => a.day - b.day || a.i - b.i)
    .map(({ e }) => e);
}

/** A coil that is on a branch, as recorded, with what was seen of it since. */
export interface Coil {
  run: string;
  branch: string;
  since: number;
  metal: MetalName;
  size: number;
  strands: number;
  angle: number;
  hand: 'cw' | 'ccw';
  start: 'over' | 'under';
  gap: number;
  wrap: Wrap;
  bentDeg: number | null;
  targetDeg: number | null;
  over: number | null;
  seen: { day: number; stage: MarkStage }[];
}

/** Whether a line of the record took a branch off, by itself or along with another. */
const tookOff = (entry: RecordEntry, branch: string): boolean =>
  (entry.kind === 'removed' && entry.branch === branch) ||
  ((entry.kind === 'removed' || entry.kind === 'shortened') && entry.branch !== branch && (entry.was ?? []).some((b) => b.id === branch));

const isAbout = (entry: RecordEntry, coil: Coil): boolean => entry.branch === coil.branch && (entry.run === undefined || entry.run === coil.run);

function coilFrom(entry: RecordEntry, tree: Tree): Coil {
  const run = tree.plan.runs.find((r) => r.id === entry.run);
  const wind = run?.branches.find((b) => b.branch === entry.branch);
  return {
    run: entry.run ?? '',
    branch: entry.branch ?? '',
    since: dayOf(entry.on),
    metal: entry.metal ?? run?.metal ?? 'aluminium',
    size: entry.size ?? run?.size ?? 2,
    strands: entry.strands ?? run?.strands ?? 1,
    angle: entry.angle ?? run?.angle ?? 45,
    hand: entry.hand ?? wind?.hand ?? 'cw',
    start: entry.start ?? wind?.start ?? 'over',
    gap: entry.gap ?? 0,
    wrap: entry.wrap ?? 'none',
    bentDeg: entry.bentDeg ?? null,
    targetDeg: entry.targetDeg ?? null,
    over: entry.over ?? null,
    seen: [],
  };
}

/** Every coil ever put on by a day, with the day it came off (null: still on). Wire comes off with `unwired` or with its branch. */
export function coilHistory(tree: Tree, onDay: number): (Coil & { offOn: number | null })[] {
  const coils: (Coil & { offOn: number | null })[] = [];
  for (const entry of standing(tree.record)) {
    const day = dayOf(entry.on);
    if (day > onDay) break;
    if (entry.kind === 'wired') {
      coils.push({ ...coilFrom(entry, tree), offOn: null });
      continue;
    }
    for (const coil of coils.filter((c) => c.offOn === null)) {
      if (entry.kind === 'inspected' && entry.stage && isAbout(entry, coil)) coil.seen.push({ day, stage: entry.stage });
      if ((entry.kind === 'unwired' && isAbout(entry, coil)) || tookOff(entry, coil.branch)) coil.offOn = day;
    }
  }
  return coils;
}

/** The coils that are on the tree on a day. */
export const coilsOn = (tree: Tree, onDay: number): Coil[] => coilHistory(tree, onDay).filter((c) => c.offOn === null);
