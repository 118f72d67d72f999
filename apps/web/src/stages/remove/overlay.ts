import type { TreeDesk } from '../tree-context';

/** Tags on the branches that something was found about, the chosen one first. */
export function removeOverlay({ plan, branch }: TreeDesk) {
  const found = new Map<string, string>();
  for (const f of plan?.findings ?? []) if (!found.has(f.branch)) found.set(f.branch, `${f.branch} ${f.rule.replace('-', ' ')}`);
  const rest = [...found].filter(([id]) => id !== branch).map(([id, text]) => ({ branch: id, text }));
  return { labels: branch ? [{ branch, text: found.get(branch) ?? branch }, ...rest] : rest, foliage: 0.55 };
}
