import { dayOf, sayDay } from '../units/index.js';
import {
  ON_TRUNK,
  coilHistory,
  coilsOn,
  cutAs,
  cutBack,
  cutsOf,
  LINE_COMMON,
  LINE_FIELDS,
  type LineKind,
  type LineOf,
  type Names,
  type RecordLine,
  type Tree,
} from '../tree/index.js';
import { sayLine } from './say-line.js';
import { actKind, missing, refuse, type ActKind, type Refusal } from './act.js';

/** Kinds of lines that an artist adds as they are: things done or seen that change nothing of the plan. */
export const PLAIN_LINES = [
  'bent',
  'placed',
  'guyed',
  'pushed',
  'measured',
  'inspected',
  'cut',
  'unwired',
  'agreed',
  'repotted',
  'fed',
  'styled',
  'pruned',
  'defoliated',
  'ailing',
  'note',
  'photo',
  'hours',
] as const satisfies readonly LineKind[];
export type PlainLine = (typeof PLAIN_LINES)[number];

const { text, corrects } = LINE_COMMON;

/** The refusal of a line about wire on a branch that has several pieces on, and does not say which: none of them may be taken to be off, or looked at, for that. */
function whichCoil(tree: Tree, line: RecordLine): { refused: Refusal[] } | null {
  if ((line.kind !== 'unwired' && line.kind !== 'inspected' && line.kind !== 'cut') || line.run !== undefined) return null;
  const runs = new Set(coilsOn(tree, dayOf(line.on)).flatMap((c) => (c.branch === line.branch ? c.run : [])));
  return runs.size > 1 && !runs.has('') ? refuse('run', 'choice', `Several pieces of wire are on that branch (${[...runs].join(', ')}): say which one.`) : null;
}

/** The refusal of a line about a coil that was not on that day: it had come off, or went on only later. What nothing is known of is taken as it is told. */
function notOn(tree: Tree, line: RecordLine): { refused: Refusal[] } | null {
  if (line.kind !== 'unwired' && line.kind !== 'inspected' && line.kind !== 'cut') return null;
  const day = dayOf(line.on);
  const coils = coilHistory(tree, Infinity).filter((c) => c.branch === line.branch && (line.run === undefined || c.run === line.run));
  const wasOn = coils.some((c) => c.since <= day && (c.offOn === null || c.offOn > day || (c.offOn === day && line.kind !== 'unwired')));
  if (!coils.length || wasOn) return null;
  const off = coils.filter((c) => c.offOn !== null && c.offOn <= day).at(-1);
  if (off)
    return refuse('on', 'came-off', `This wire came off on ${sayDay(off.offOn!)} already${off.off?.who ? `, by ${off.off.who}` : ''}. Nothing was changed.`);
  return refuse('on', 'not-on', `This wire went on on ${sayDay(coils[0]!.since)} only: on ${sayDay(day)} it was not there. Nothing was changed.`);
}

/** An agreement with the cuts as they are decided now: to those, and no others, it was given. */
function asDecided(tree: Tree, line: LineOf<'agreed'>): LineOf<'agreed'> {
  const cuts = tree.plan.decisions.flatMap((d) => (line.branches.includes(d.branch) ? [{ branch: d.branch, as: cutAs(d) }] : []));
  return line.cuts || !cuts.length ? line : { ...line, cuts };
}

/** A tie or a device that came off is done with: the plan does not ask for it again. */
function withoutTie(tree: Tree, line: RecordLine): Tree {
  if (line.kind !== 'guyed' || line.done !== 'removed' || !line.guy) return tree;
  const { guys, devices } = tree.plan;
  const left = { guys: guys.filter((g) => g.id !== line.guy), ...(devices ? { devices: devices.filter((d) => d.id !== line.guy) } : {}) };
  return left.guys.length === guys.length && left.devices?.length === devices?.length ? tree : { ...tree, plan: { ...tree.plan, ...left } };
}

/** Bends are told from how a branch lay when they were made: once its last wire is off, only where it was to go still holds. */
function withoutMadeBends(tree: Tree, line: RecordLine): Tree {
  if (line.kind !== 'unwired' && !(line.kind === 'cut' && line.left === 0)) return tree;
  const { branch } = line;
  const worn = coilsOn({ ...tree, record: [...tree.record, line] }, dayOf(line.on)).some((c) => c.branch === branch);
  if (worn || !tree.plan.poses.some((p) => p.branch === branch && p.bends.length)) return tree;
  return { ...tree, plan: { ...tree.plan, poses: tree.plan.poses.map((p) => (p.branch === branch ? { ...p, bends: [], reached: true } : p)) } };
}

/** The act of adding one kind of line: its fields are the line's own. */
function noteLine(kind: PlainLine): ActKind {
  return {
    kind,
    fields: { ...LINE_FIELDS[kind], text, corrects },
    guarded: false,
    apply: (tree, { id: _id, ...given }) => {
      const line = given as unknown as RecordLine;
      const branches: [string, string][] = [
        ...('branch' in line && line.branch ? [['branch', line.branch] as [string, string]] : []),
        ...(line.kind === 'agreed' ? line.branches.map((b): [string, string] => ['branches', b]) : []),
      ];
      for (const [field, branch] of branches) {
        const gone = branch === 'trunk' && ON_TRUNK.has(kind) ? null : missing(tree, branch, field);
        if (gone) return gone;
      }
      const which = whichCoil(tree, line) ?? notOn(tree, line);
      if (which) return which;
      if (line.corrects && !tree.record.some((l) => l.id === line.corrects))
        return refuse('corrects', 'not-found', `Line "${line.corrects}" of the record is not here.`);
      return { tree: withoutMadeBends(withoutTie(tree, line), line), lines: [line.kind === 'agreed' ? asDecided(tree, line) : line] };
    },
    say: (act, names: Names) => {
      const line = act as unknown as RecordLine;
      return `${'branch' in line && line.branch ? `${names(line.branch)}: ` : ''}${sayLine(line, names)}`;
    },
  };
}

/** The fields of these acts, by kind. */
export type PlainFields = { [K in PlainLine]: (typeof LINE_FIELDS)[K] & { text: typeof text; corrects: typeof corrects } };
export const PLAIN_ACTS: readonly ActKind[] = PLAIN_LINES.map(noteLine);

/** Takes a line of the record back by a further one. Where it told of a cut, the wood is back on the tree. */
export const withdraw = actKind({
  kind: 'withdrawn',
  fields: { corrects: LINE_FIELDS.withdrawn.corrects, text },
  guarded: false,
  apply: (tree, { id: _id, ...line }) => {
    if (!tree.record.some((l) => l.id === line.corrects)) return refuse('corrects', 'not-found', `Line "${line.corrects}" of the record is not here.`);
    const cut = cutsOf(tree).find((l) => l.id === line.corrects);
    return { tree: cut ? cutBack(tree, cut) : tree, lines: [line] };
  },
  say: () => 'take a line of the record back',
});
