import type { TreeDesk } from '../tree-context';
import { sayRule } from './acts';

/** More tags than this nobody reads on one picture; the list has them all. */
const MOST_TAGS = 24;

/** What is pointed at on the tree: tags of the findings, numbers of the cuts, what a finding saw, a gap. */
export function removeOverlay({ weighed, branch, sheet, found, spot }: TreeDesk) {
  const evidence = spot ?? (sheet === 'decide' && branch ? found : null) ?? undefined;
  if (sheet === 'cut')
    return { labels: (weighed?.cuts ?? []).map((c) => ({ branch: c.branch, text: `${c.tag}  ${c.branch}` })), evidence: spot ?? undefined, foliage: 0.45 };
  if (sheet === 'outcome') return { labels: branch ? [{ branch, text: branch }] : [], evidence, foliage: 0.75 };
  const tags = new Map<string, string>();
  const gravest = [...(weighed?.findings ?? [])].sort((a, b) => b.severity - a.severity);
  for (const f of gravest) if (!tags.has(f.branch)) tags.set(f.branch, `${f.branch} ${sayRule(f.rule)}`);
  // With one branch in question the others' tags would stand before what it is about.
  const labels = branch ? [{ branch, text: branch }] : [...tags].slice(0, MOST_TAGS).map(([id, text]) => ({ branch: id, text }));
  return { labels, evidence, foliage: 0.5 };
}
