import type { TreeDesk } from '../tree-context';

/** The pose of the chosen branch, or of all that are still to be wired, in dots. */
export function wireOverlay({ plan, branch }: TreeDesk) {
  const on = new Set(plan?.wires.map((w) => w.branch));
  const open = plan?.poses.filter((p) => !on.has(p.branch)) ?? [];
  const poses = branch ? open.filter((p) => p.branch === branch) : open.filter((p) => plan?.runs.some((r) => r.order === 1 && r.branches.some((b) => b.branch === p.branch)));
  return { poses, labels: branch ? [{ branch, text: branch }] : [], foliage: 0.4 };
}
