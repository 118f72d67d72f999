import type { Static, TObject } from '@sinclair/typebox';
import { id, LINE_COMMON, LINE_FIELDS, WINDING_FIELDS, WIRE_FIELDS, type Run, type Tree } from '../tree/index.js';
import { actKind, missing } from './act.js';

const { gap, wrap, bentDeg, targetDeg, over } = LINE_FIELDS.wired;
const FIELDS = { branch: id('which branch'), ...WIRE_FIELDS, ...WINDING_FIELDS, gap, wrap, bentDeg, targetDeg, over, text: LINE_COMMON.text };
type Wired = Static<TObject<typeof FIELDS>>;

const freeRunId = ({ runs }: Tree['plan']): string => {
  const used = new Set(runs.map((r) => r.id));
  let n = 1;
  while (used.has(`w${n}`)) n++;
  return `w${n}`;
};

/** The run that a coil belongs to: the plan's own for that branch with the same wire, else a new one that takes its place. */
function runFor({ plan }: Tree, { branch, metal, size, strands, angle, hand, start }: Wired): { id: string; runs: Run[] } {
  const same = plan.runs.find((r) => r.metal === metal && r.size === size && r.strands === strands && r.branches.some((b) => b.branch === branch));
  if (same) return { id: same.id, runs: plan.runs };
  const run: Run = { id: freeRunId(plan), metal, size, strands, angle, branches: [{ branch, hand, start }] };
  const others = plan.runs.map((r) => ({ ...r, branches: r.branches.filter((b) => b.branch !== branch) })).filter((r) => r.branches.length > 0);
  return { id: run.id, runs: [...others, run] };
}

/** A coil was put on: the plan takes its run, the record a line. */
export const putWireOn = actKind({
  kind: 'wired',
  fields: FIELDS,
  guarded: true,
  apply: (tree, { id: _id, ...wired }) => {
    const gone = missing(tree, wired.branch, 'branch');
    if (gone) return gone;
    const { id: run, runs } = runFor(tree, wired);
    return { tree: runs === tree.plan.runs ? tree : { ...tree, plan: { ...tree.plan, runs } }, lines: [{ gap: 0, wrap: 'none', ...wired, run }] };
  },
  say: ({ branch }, names) => `wire ${names(branch)}`,
});
