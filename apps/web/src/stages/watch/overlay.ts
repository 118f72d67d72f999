import type { TreeDesk } from '../tree-context';

/** Tags on the wired branches, the most urgent first. */
export function watchOverlay({ plan, branch }: TreeDesk) {
  const ids = plan?.wires.map((w) => w.branch) ?? [];
  const ordered = branch && ids.includes(branch) ? [branch, ...ids.filter((id) => id !== branch)] : ids;
  return { labels: ordered.slice(0, 14).map((id) => ({ branch: id, text: id })), foliage: 0.4 };
}
