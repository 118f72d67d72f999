import type { DeedToAgree } from './deeds-to-agree.js';
import type { LineOf } from './lines.js';
import type { Decision } from './plan-parts.js';
import { standing } from './record.js';
import type { Tree } from './types.js';

/** A cut as it is agreed to: what, where and how much. Decided otherwise, it is another. */
export function cutAs(decision: Decision): string {
  const { act } = decision;
  if (act === 'shorten')
    return `shorten${decision.length === undefined ? '' : ` to ${decision.length} mm`}${decision.toShoot ? ` to ${decision.toShoot}` : ''}`;
  if (act === 'stub') return `stub${decision.length === undefined ? '' : ` of ${decision.length} mm`}`;
  return act;
}

const agreements = (tree: Tree): LineOf<'agreed'>[] => standing(tree.record).flatMap((line) => (line.kind === 'agreed' ? [line] : []));

/** Branches that may be cut on a client's tree: those of which the last agreement that names them means the cut that is decided now. Null where nobody has to be asked. */
export function agreedBranches(tree: Tree): Set<string> | null {
  if (!tree.client) return null;
  const as = new Map(tree.plan.decisions.map((d) => [d.branch, cutAs(d)]));
  const agreed = new Set<string>();
  for (const { branches, cuts = [] } of agreements(tree))
    for (const branch of branches) {
      const meant = cuts.find((c) => c.branch === branch)?.as;
      // Noted before what was agreed to was kept, an agreement is to whatever is decided.
      if (meant === undefined || meant === as.get(branch)) agreed.add(branch);
      else agreed.delete(branch);
    }
  return agreed;
}

/** Whether something that cannot be undone waits for the owner of a tree. An agreement to cuts says nothing of it. */
export const needsAgreement = (tree: Tree, deed: DeedToAgree): boolean => Boolean(tree.client) && !agreements(tree).some((l) => l.to?.includes(deed));
