import { isoOf } from '../units/index.js';
import type { RecordLine, Tree } from '../tree/index.js';
import { applyAct, type Act } from './all.js';
import { isRefused, readable, refuse, type Outcome, type Refusal } from './act.js';

/** One part of a tree as it was: whole, or the elements of a list that were others; nothing of both where it was not there. */
export interface Was {
  was?: unknown;
  at?: [index: number, was: unknown][];
}
/** The parts of a tree that an act touched, as they were; those of the plan by themselves. */
export interface Before {
  own: Record<string, Was>;
  plan: Record<string, Was>;
}

/** An act that was done, with what is needed to take it back. */
export interface Done {
  act: Act;
  before: Before;
  /** Ids of the lines of the record that it wrote. */
  lines: string[];
}

/** What can be taken back and made again, newest last. */
export interface Log {
  done: readonly Done[];
  undone: readonly Done[];
}
export const EMPTY_LOG: Log = { done: [], undone: [] };

/** Taking back and making again are acts too: they carry an id and are done once. */
export interface Step {
  id: string;
  kind: 'undo' | 'redo';
  /** The act that is meant: no other is taken back, or made again. */
  of?: string;
  who?: string;
  desk?: string;
}

function was(before: unknown, after: unknown): Was {
  if (before === undefined) return {};
  if (Array.isArray(before) && Array.isArray(after) && before.length === after.length) {
    const at = before.flatMap((v, i): [number, unknown][] => (v === after[i] ? [] : [[i, v]]));
    if (at.length * 2 < before.length) return { at };
  }
  return { was: before };
}

function touched(before: object, after: object): Record<string, Was> {
  const [old, now] = [before as Record<string, unknown>, after as Record<string, unknown>];
  const keys = [...new Set([...Object.keys(old), ...Object.keys(now)])].filter((k) => old[k] !== now[k]);
  return Object.fromEntries(keys.map((k) => [k, was(old[k], now[k])]));
}

/** What an act changed of a tree, its record aside. */
export function difference(before: Tree, after: Tree): Before {
  const { plan: planBefore, record: _a, ...ownBefore } = before;
  const { plan: planAfter, record: _b, ...ownAfter } = after;
  return { own: touched(ownBefore, ownAfter), plan: touched(planBefore, planAfter) };
}

function restored<T extends object>(now: T, parts: Record<string, Was>): T {
  const valueOf = (key: string, now: unknown): unknown => {
    const part = parts[key];
    if (!part) return now;
    if (!part.at) return part.was;
    const list = [...(now as unknown[])];
    for (const [i, v] of part.at) list[i] = v;
    return list;
  };
  const wasThere = (key: string): boolean => !parts[key] || 'was' in parts[key] || 'at' in parts[key];
  const keys = [...new Set([...Object.keys(now), ...Object.keys(parts)])].filter(wasThere);
  return Object.fromEntries(keys.map((key) => [key, valueOf(key, (now as Record<string, unknown>)[key])])) as T;
}

/** The line that takes another one's effect back: a withdrawal, or for a withdrawal what it withdrew, said again. */
function inverse(line: RecordLine, record: readonly RecordLine[], on: string, id: string, who?: string): RecordLine {
  const withdrawn = line.kind === 'withdrawn' ? record.find((l) => l.id === line.corrects) : undefined;
  return withdrawn ? { ...withdrawn, id, again: withdrawn.id } : { id, on, kind: 'withdrawn', corrects: line.id!, ...(who ? { who } : {}) };
}

/** The line that stands for another one now: itself, or what said it again since. */
function standsFor(id: string, record: readonly RecordLine[]): RecordLine | undefined {
  const again = record.find((l) => l.again === id);
  return again ? standsFor(again.id!, record) : record.find((l) => l.id === id);
}

export interface Performed {
  tree: Tree;
  /** Lines to be added to the record; they are in the tree's already. */
  lines: RecordLine[];
  log: Log;
  done: Done | null;
}

const withLines = (tree: Tree, lines: readonly RecordLine[]): Tree => (lines.length ? { ...tree, record: [...tree.record, ...lines] } : tree);

/** Does an act on a tree with its log, on a day; refused acts change nothing. */
export function perform(tree: Tree, log: Log, act: Act, today: number): Performed | { refused: Refusal[] } {
  const outcome: Outcome = applyAct(tree, act, today);
  if (isRefused(outcome)) return outcome;
  const done: Done = { act, before: difference(tree, outcome.tree), lines: outcome.lines.map((l) => l.id!) };
  return { tree: withLines(outcome.tree, outcome.lines), lines: outcome.lines, log: { done: [...log.done, done], undone: [] }, done };
}

/** Takes the newest act back, or makes again what was taken back last. Lines of the record are taken back, or said again, by further ones. */
export function step(tree: Tree, log: Log, { id, kind, who, desk }: Step, today: number): Performed | { refused: Refusal[] } {
  const last = kind === 'undo' ? log.done[log.done.length - 1] : log.undone[log.undone.length - 1];
  if (!last) return refuse('id', `nothing-to-${kind}`, `There is nothing to ${kind}.`);
  if (kind === 'redo') {
    const again = applyAct(tree, { ...last.act, id, ...(who ? { who } : {}), ...(desk ? { desk } : {}) }, today);
    if (isRefused(again)) return again;
    const done: Done = { act: last.act, before: difference(tree, again.tree), lines: again.lines.map((l) => l.id!) };
    return { tree: withLines(again.tree, again.lines), lines: again.lines, log: { done: [...log.done, done], undone: log.undone.slice(0, -1) }, done };
  }
  const back: Tree = {
    ...restored(tree, last.before.own),
    plan: restored(tree.plan, last.before.plan),
  };
  const told = last.lines.flatMap((line) => standsFor(line, tree.record) ?? []);
  const lines = told.map((line, i) => inverse(line, tree.record, isoOf(today), told.length > 1 ? `${id}.${i + 1}` : id, who));
  const outcome = readable(tree, { tree: back, lines });
  if (isRefused(outcome)) return outcome;
  return { tree: withLines(back, lines), lines, log: { done: log.done.slice(0, -1), undone: [...log.undone, last] }, done: null };
}
