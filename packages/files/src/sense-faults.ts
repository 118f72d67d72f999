import { findSpecies, type Branch, type Tree } from '@ustle/core';
import { MOST_FAULTS, type FileFault } from './faults.js';

/** Branches that never reach the trunk through their parents. */
function cycles(branches: readonly Branch[]): FileFault[] {
  const parentOf = new Map(branches.map((b) => [b.id, b.parent]));
  return branches.flatMap((b, i): FileFault[] => {
    const seen = new Set<string>();
    let at: string | undefined = b.id;
    while (at !== undefined && at !== 'trunk' && !seen.has(at)) {
      seen.add(at);
      at = parentOf.get(at);
    }
    return at === b.id ? [{ path: `/branches/${i}/parent`, code: 'cycle', message: `"${b.id}" grows on itself: ${[...seen, at].join(' → ')}.` }] : [];
  });
}

function branchFaults(tree: Tree): FileFault[] {
  const ids = new Set<string>();
  const known = new Set(['trunk', ...tree.branches.map((b) => b.id)]);
  const faults = tree.branches.flatMap((b, i): FileFault[] => {
    const at = (field: string, code: string, message: string): FileFault => ({ path: `/branches/${i}/${field}`, code, message });
    const found: FileFault[] = [];
    if (ids.has(b.id) || b.id === 'trunk') found.push(at('id', 'duplicate', `"${b.id}" is used twice.`));
    ids.add(b.id);
    if (!known.has(b.parent)) found.push(at('parent', 'unknown-parent', `"${b.parent}" is no branch of this tree and not "trunk".`));
    if (b.tipD > b.d) found.push(at('tipD', 'range', `The tip (${b.tipD} mm) is thicker than the base (${b.d} mm).`));
    if (b.path && b.path[0]!.some((x) => x !== 0)) found.push(at('path/0', 'range', 'The path must begin at [0, 0, 0], the shoulder.'));
    return found;
  });
  return [...faults, ...cycles(tree.branches)];
}

/** Ids that the plan names and the tree has not. */
function referenceFaults(tree: Tree): FileFault[] {
  const known = new Set(tree.branches.map((b) => b.id));
  const faults: FileFault[] = [];
  const need = (branch: string, path: string): void => {
    if (!known.has(branch)) faults.push({ path, code: 'unknown-branch', message: `"${branch}" is no branch of this tree.` });
  };
  tree.plan.decisions.forEach((d, i) => need(d.branch, `/plan/decisions/${i}/branch`));
  tree.plan.poses.forEach((p, i) => need(p.branch, `/plan/poses/${i}/branch`));
  tree.plan.runs.forEach((r, i) => r.branches.forEach((b, k) => need(b.branch, `/plan/runs/${i}/branches/${k}/branch`)));
  tree.plan.guys.forEach((g, i) => need(g.branch, `/plan/guys/${i}/branch`));
  tree.plan.either?.forEach((pair, i) => pair.forEach((id, k) => need(id, `/plan/either/${i}/${k}`)));
  return faults;
}

/** Faults that only show when the parts are held against each other. */
export function senseFaults(tree: Tree): FileFault[] {
  const faults = [...branchFaults(tree), ...referenceFaults(tree)];
  if (!findSpecies(tree.species))
    faults.push({ path: '/species', code: 'unknown-species', message: `No species is called "${tree.species}". "ustle species" lists them.` });
  const green = tree.branches.reduce((sum, b) => sum + b.green, 0);
  if (green > 1.005)
    faults.push({
      path: '/branches',
      code: 'green-sum',
      message: `The branches' shares of green add up to ${(green * 100).toFixed(0)}%, more than the whole tree.`,
    });
  return faults.slice(0, MOST_FAULTS);
}
