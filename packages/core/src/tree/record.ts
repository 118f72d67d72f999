import { dayOf } from '../units/index.js';
import type { MetalName } from '../wood/index.js';
import { branchIn, MARK_STAGES, type LineOf, type MarkStage, type RecordLine, type Wrap } from './lines.js';
import type { Hand, Start } from './plan-parts.js';
import type { Tree } from './types.js';

const stood = new WeakMap<readonly RecordLine[], RecordLine[]>();

/** What stands after corrections: replaced and withdrawn lines are left out, in order of date. */
export function standing(record: readonly RecordLine[]): RecordLine[] {
  let found = stood.get(record);
  if (!found) {
    const replaced = new Set(record.map((e) => e.corrects).filter(Boolean));
    found = record
      .filter((e) => e.kind !== 'withdrawn' && !(e.id && replaced.has(e.id)))
      .map((e, i) => ({ e, i, day: dayOf(e.on) }))
      .sort((a, b) => a.day - b.day || a.i - b.i)
      .map(({ e }) => e);
    stood.set(record, found);
  }
  return found;
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
  hand: Hand;
  start: Start;
  gap: number;
  wrap: Wrap;
  bentDeg: number | null;
  targetDeg: number | null;
  over: number | null;
  turns: number | null;
  /** Its angle counts from how the branch lay when it went on, not from how that grew. */
  fromHere: boolean;
  /** When turns of it were last cut off because they marked: what is left lay free then. */
  cut: { day: number } | null;
  /** What was seen of it, with the gap left where it was told, mm. */
  seen: { day: number; stage: MarkStage; gap?: number; who?: string }[];
}

/** Whether a line of the record took a branch off, by itself or along with another. */
const tookOff = (line: RecordLine, branch: string): boolean =>
  (line.kind === 'removed' && line.branch === branch) ||
  ((line.kind === 'removed' || line.kind === 'shortened') && line.branch !== branch && (line.was ?? []).some((b) => b.id === branch));

/** Whether a line tells of a coil among those that are on its branch: one that names no piece tells of the piece without a name, where there is one. */
const isAbout = (line: LineOf<'inspected'> | LineOf<'unwired'> | LineOf<'cut'>, coil: Coil, own: readonly Coil[]): boolean =>
  line.run === coil.run || (line.run === undefined && (coil.run === '' || own.every((c) => c.run !== '')));

function coilFrom(line: LineOf<'wired'>, tree: Tree): Coil {
  const run = tree.plan.runs.find((r) => r.id === line.run);
  const wind = run?.branches.find((b) => b.branch === line.branch);
  return {
    run: line.run ?? '',
    branch: line.branch,
    since: dayOf(line.on),
    metal: line.metal ?? run?.metal ?? 'aluminium',
    size: line.size ?? run?.size ?? 2,
    strands: line.strands ?? run?.strands ?? 1,
    angle: line.angle ?? run?.angle ?? 45,
    hand: line.hand ?? wind?.hand ?? 'cw',
    start: line.start ?? wind?.start ?? 'over',
    gap: line.gap ?? 0,
    wrap: line.wrap ?? 'none',
    bentDeg: line.bentDeg ?? null,
    targetDeg: line.targetDeg ?? null,
    over: line.over ?? null,
    turns: line.turns ?? null,
    fromHere: line.toward !== undefined,
    cut: null,
    seen: [],
  };
}

/** The bends that a line of the record tells; those told with where they turn count from how the branch lay. */
const bendsOf = (line: RecordLine): Partial<Pick<LineOf<'bent'>, 'bentDeg' | 'targetDeg' | 'over'> & { fromHere: boolean }>[] =>
  line.kind === 'bent'
    ? [{ ...line, fromHere: line.toward !== undefined }]
    : line.kind === 'placed'
      ? line.bends.map((bend) => ({ ...bend, fromHere: true }))
      : [];

/** A coil with the day it came off (null: still on), and the line that tells how; none where it went with its branch. */
export interface CoilOnce extends Coil {
  offOn: number | null;
  off: LineOf<'unwired'> | null;
}

/** Every coil ever put on by a day, with the day it came off (null: still on). Wire comes off with `unwired` or with its branch. */
export function coilHistory(tree: Tree, onDay: number): CoilOnce[] {
  const coils: CoilOnce[] = [];
  /** Those that are on, by branch: a line asks only for those that it can be about. */
  const on = new Map<string, CoilOnce[]>();
  for (const line of standing(tree.record)) {
    const day = dayOf(line.on);
    if (day > onDay) break;
    if (line.kind === 'wired') {
      const coil: CoilOnce = { ...coilFrom(line, tree), offOn: null, off: null };
      const own = on.get(coil.branch);
      // Told again of a piece that is on: it was wound anew, and is one.
      const same = coil.run ? own?.find((c) => c.run === coil.run) : undefined;
      if (same) {
        const { bentDeg, targetDeg, over, fromHere } = same;
        Object.assign(same, coil, coil.bentDeg === null ? { bentDeg, targetDeg, over, fromHere } : {});
        continue;
      }
      coils.push(coil);
      if (own) own.push(coil);
      else on.set(coil.branch, [coil]);
      continue;
    }
    const about = branchesIn(line);
    for (const branch of about) {
      const own = on.get(branch);
      if (!own) continue;
      for (const coil of own) {
        // Bent once it was on: how far is known now. Of several bends the greatest counts, as where it was put on bent.
        for (const { bentDeg, targetDeg = coil.targetDeg, over = coil.over, fromHere } of bendsOf(line))
          if (bentDeg !== undefined && bentDeg > (coil.bentDeg ?? 0)) Object.assign(coil, { bentDeg, targetDeg, over, fromHere });
        if (line.kind === 'inspected' && isAbout(line, coil, own)) look(coil, day, line);
        const cut = line.kind === 'cut' && isAbout(line, coil, own) ? cutOff(coil, line) : null;
        if (cut) Object.assign(coil, { cut: { day }, turns: cut.left });
        // Cut off turn by turn, all of it is off.
        const allCut: LineOf<'unwired'> | null = line.kind === 'cut' && cut?.left === 0 ? { ...line, kind: 'unwired', method: 'cut' } : null;
        const unwired = line.kind === 'unwired' && isAbout(line, coil, own) ? line : allCut;
        if (unwired || tookOff(line, coil.branch)) Object.assign(coil, { offOn: day, off: unwired });
      }
      on.set(
        branch,
        own.filter((c) => c.offOn === null),
      );
    }
  }
  return coils;
}

/** How many turns are left of a coil after some were cut off; null where nobody can tell. */
function cutOff({ turns, strands }: Coil, { left, pieces }: LineOf<'cut'>): { left: number | null } {
  if (left !== undefined) return { left };
  // A piece to a turn; what was counted on the ground may be one too many, and so is never all of it.
  return { left: turns !== null && pieces ? Math.max(1, turns - pieces / strands) : null };
}

/** A look at a coil; of two on one day the graver stands. */
function look(coil: Coil, day: number, { stage, gap, who }: LineOf<'inspected'>): void {
  const before = coil.seen.at(-1);
  const same = before?.day === day ? before : null;
  if (same && MARK_STAGES.indexOf(same.stage) > MARK_STAGES.indexOf(stage)) return;
  if (same) coil.seen.pop();
  coil.seen.push({ day, stage, ...(gap === undefined ? {} : { gap }), ...(who ? { who } : {}) });
}

/** The branches whose coils a line may tell of. */
function branchesIn(line: RecordLine): readonly string[] {
  if (line.kind === 'bent' || line.kind === 'placed' || line.kind === 'inspected' || line.kind === 'cut' || line.kind === 'unwired') return [line.branch];
  if (line.kind === 'removed' || line.kind === 'shortened') return [line.branch, ...(line.was ?? []).flatMap((b) => (b.id === line.branch ? [] : b.id))];
  return [];
}

/** The coils that are on the tree on a day. */
export const coilsOn = (tree: Tree, onDay: number): Coil[] => coilHistory(tree, onDay).filter((c) => c.offOn === null);

/** Every branch that the record speaks of, those included that are no longer on the tree. */
export function recordedBranches(record: readonly RecordLine[]): Set<string> {
  return new Set(record.flatMap((line) => [branchIn(line) ?? [], line.kind === 'agreed' ? line.branches : []].flat()));
}

/** The branches that lines of the record keep as they were when they went. */
export const keptInRecord = (record: readonly RecordLine[]): Set<string> =>
  new Set(record.flatMap((line) => (line.kind === 'removed' || line.kind === 'shortened' ? (line.was ?? []).map((b) => b.id) : [])));
