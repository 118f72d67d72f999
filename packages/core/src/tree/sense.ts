import { findSpecies } from '../species/index.js';
import { branchIn } from './lines.js';
import { RESERVED_IDS, type Branch } from './measures.js';
import { poseFaults } from './pose-fit.js';
import { keptInRecord, standing } from './record.js';
import type { Tree } from './types.js';
import { branchShapeFault, trunkShapeFault } from './wood-shape.js';

/** One fault of a tree or file: where (a JSON pointer), a code for programs, a sentence for people. */
export interface FileFault {
  path: string;
  code: string;
  message: string;
}

/** More faults than this help nobody. */
export const MOST_FAULTS = 60;

/** Branches that never reach the trunk through their parents. Each is walked once. */
function cycles(branches: readonly Branch[]): FileFault[] {
  const indexOf = new Map(branches.map((b, i) => [b.id, i]));
  const state = new Uint8Array(branches.length);
  const faults: FileFault[] = [];
  branches.forEach((_, start) => {
    const way: number[] = [];
    let at: number | undefined = start;
    while (at !== undefined && !state[at]) {
      state[at] = 1;
      way.push(at);
      at = indexOf.get(branches[at]!.parent);
    }
    const turn = at === undefined ? -1 : way.indexOf(at);
    if (turn >= 0) {
      const ring = way.slice(turn);
      const said = ring.length > 6 ? [...ring.slice(0, 3), ...ring.slice(-1)] : ring;
      const ids = [...said, ring[0]!].map((i) => branches[i]!.id).join(' → ');
      for (const i of ring) faults.push({ path: `/branches/${i}/parent`, code: 'cycle', message: `"${branches[i]!.id}" grows on itself: ${ids}.` });
    }
  });
  return faults;
}

function branchFaults({ branches, trunk }: Tree): FileFault[] {
  const ids = new Set<string>();
  const known = new Set(['trunk', ...branches.map((b) => b.id)]);
  const faults = branches.flatMap((b, i): FileFault[] => {
    const at = (field: string, code: string, message: string): FileFault => ({ path: `/branches/${i}/${field}`, code, message });
    const found: FileFault[] = [];
    if (RESERVED_IDS.includes(b.id)) found.push(at('id', 'reserved', `"${b.id}" is the name of something else on a tree: a branch needs another id.`));
    else if (ids.has(b.id)) found.push(at('id', 'duplicate', `"${b.id}" is used twice.`));
    ids.add(b.id);
    if (!known.has(b.parent)) found.push(at('parent', 'unknown-parent', `"${b.parent}" is no branch of this tree and not "trunk".`));
    if (b.tipD > b.d) found.push(at('tipD', 'range', `The tip (${b.tipD} mm) is thicker than the base (${b.d} mm).`));
    if (b.path && b.path[0]!.some((x) => x !== 0)) found.push(at('path/0', 'range', 'The path must begin at [0, 0, 0], the shoulder.'));
    const shape = branchShapeFault(b);
    if (shape) found.push(at(`path/${shape.at}`, 'shape', shape.message));
    return found;
  });
  const shape = trunkShapeFault(trunk);
  return [...(shape ? [{ path: `/trunk/${shape.at}`, code: 'shape', message: shape.message }] : []), ...faults, ...cycles(branches)];
}

/** What is listed twice that may be there once. */
function twice(list: readonly string[], path: (i: number) => string, say: (id: string) => string): FileFault[] {
  const seen = new Set<string>();
  return list.flatMap((id, i): FileFault[] => {
    if (!seen.has(id)) {
      seen.add(id);
      return [];
    }
    return [{ path: path(i), code: 'duplicate', message: say(id) }];
  });
}

/** Lines of the record that can be about the trunk. */
export const ON_TRUNK: ReadonlySet<string> = new Set(['wired', 'inspected', 'cut', 'unwired', 'bent', 'placed', 'guyed', 'measured', 'note', 'photo']);

/** Ids that the plan or the record names and the tree has not, and what they name twice. */
function referenceFaults({ branches, plan, record }: Tree): FileFault[] {
  const known = new Set(branches.map((b) => b.id));
  const everKnown = new Set([...known, ...keptInRecord(record)]);
  const lineIds = new Set(record.flatMap((line) => line.id ?? []));
  const faults: FileFault[] = [];
  const need = (there: ReadonlySet<string>, branch: string, path: string): void => {
    if (!there.has(branch)) faults.push({ path, code: 'unknown-branch', message: `"${branch}" is no branch of this tree.` });
  };
  plan.decisions.forEach((d, i) => need(known, d.branch, `/plan/decisions/${i}/branch`));
  plan.poses.forEach((p, i) => need(known, p.branch, `/plan/poses/${i}/branch`));
  const wirable = new Set([...known, 'trunk']);
  plan.runs.forEach((r, i) => {
    r.branches.forEach((b, k) => need(wirable, b.branch, `/plan/runs/${i}/branches/${k}/branch`));
    if (r.branches.length > 1 && r.branches.some((b) => b.branch === 'trunk'))
      faults.push({
        path: `/plan/runs/${i}/branches`,
        code: 'value',
        message: "The trunk's wire is a piece of its own: it comes out of the soil and ends on the trunk.",
      });
  });
  const named = (['runs', 'guys', 'devices'] as const).flatMap((list) => (plan[list] ?? []).map((of, i) => ({ of, path: `/plan/${list}/${i}/id` })));
  plan.aside?.forEach((p, i) => need(known, p.branch, `/plan/aside/${i}/branch`));
  plan.worse?.forEach((w, i) => need(known, w.branch, `/plan/worse/${i}/branch`));
  plan.wiring?.forEach((w, i) => need(known, w.branch, `/plan/wiring/${i}/branch`));
  plan.guys.forEach((g, i) => need(known, g.branch, `/plan/guys/${i}/branch`));
  plan.devices?.forEach((d, i) => {
    need(wirable, d.branch, `/plan/devices/${i}/branch`);
    if (d.other) need(wirable, d.other.branch, `/plan/devices/${i}/other/branch`);
  });
  plan.either?.forEach((pair, i) => pair.forEach((id, k) => need(known, id, `/plan/either/${i}/${k}`)));
  // What was withdrawn may speak of a branch that was never there after all.
  const stands = new Set(standing(record));
  record.forEach((line, i) => {
    if (line.corrects !== undefined && !lineIds.has(line.corrects))
      faults.push({ path: `/record/${i}/corrects`, code: 'unknown-line', message: `"${line.corrects}" is no line of this record.` });
    if (!stands.has(line)) return;
    const branch = branchIn(line);
    if (branch !== undefined && !(branch === 'trunk' && ON_TRUNK.has(line.kind))) need(everKnown, branch, `/record/${i}/branch`);
    if (line.kind === 'agreed') line.branches.forEach((id, k) => need(everKnown, id, `/record/${i}/branches/${k}`));
  });
  return [
    ...faults,
    ...twice(
      plan.decisions.map((d) => d.branch),
      (i) => `/plan/decisions/${i}/branch`,
      (id) => `Two decisions on "${id}"; there can be one.`,
    ),
    ...twice(
      plan.poses.map((p) => p.branch),
      (i) => `/plan/poses/${i}/branch`,
      (id) => `Two poses of "${id}"; there can be one.`,
    ),
    ...twice(
      (plan.aside ?? []).map((p) => p.branch),
      (i) => `/plan/aside/${i}/branch`,
      (id) => `Two other poses of "${id}"; there can be one.`,
    ),
    ...twice(
      (plan.wiring ?? []).map((w) => w.branch),
      (i) => `/plan/wiring/${i}/branch`,
      (id) => `Two ways of wiring "${id}"; there can be one.`,
    ),
    ...twice(
      named.map((x) => x.of.id),
      (i) => named[i]!.path,
      (id) => `"${id}" is used twice.`,
    ),
    ...twice(
      record.map((line, i) => line.id ?? `${i} without one`),
      (i) => `/record/${i}/id`,
      (id) => `"${id}" is used twice.`,
    ),
  ];
}

/** Poses that their branches cannot have; those of unknown branches are told elsewhere. */
function poseFaultsIn({ branches, plan }: Tree): FileFault[] {
  const byId = new Map(branches.map((b) => [b.id, b]));
  const within = (list: 'poses' | 'aside'): FileFault[] =>
    (plan[list] ?? []).flatMap((pose, i) => {
      const branch = byId.get(pose.branch);
      const sorted = { ...pose, bends: [...pose.bends].sort((a, b) => a.at - b.at) };
      return branch ? poseFaults(branch, sorted).map(({ field, code, message }) => ({ path: `/plan/${list}/${i}/${field}`, code, message })) : [];
    });
  return [...within('poses'), ...within('aside')];
}

/** Green of all branches may exceed the whole by what rounding makes. */
const MOST_GREEN = 1.005;

/** The fault of branches that carry more green than the tree has; null where they do not. */
export function greenFault(branches: readonly Branch[]): FileFault | null {
  const green = branches.reduce((sum, b) => sum + b.green, 0);
  if (green <= MOST_GREEN) return null;
  const message = `The branches' shares of green add up to ${(green * 100).toFixed(0)}%, more than the whole tree.`;
  return { path: '/branches', code: 'green-sum', message };
}

/** Faults that only show when the parts are held against each other. */
export function senseFaults(tree: Tree): FileFault[] {
  const faults = [...branchFaults(tree), ...referenceFaults(tree), ...poseFaultsIn(tree)];
  if (!findSpecies(tree.species))
    faults.push({ path: '/species', code: 'unknown-species', message: `No species is called "${tree.species}". "ustle species" lists them.` });
  const green = greenFault(tree.branches);
  if (green) faults.push(green);
  return faults.slice(0, MOST_FAULTS);
}
