import type { View } from '../space/index.js';
import type { Act, Tree, TreePlan } from './types.js';

/** Changes of a plan as plain functions: the plan as it is in, the plan as it shall be out. */

export const chooseFront =
  (front: View | null) =>
  ({ plan }: Tree): TreePlan => ({ ...plan, front });

/** What becomes of a branch; "undecided" takes the decision away. */
export const decide =
  (branch: string, { act, why }: { act: Act; why?: string | undefined }) =>
  ({ plan }: Tree): TreePlan => {
    const others = plan.decisions.filter((d) => d.branch !== branch);
    if (act === 'undecided') return { ...plan, decisions: others };
    const before = plan.decisions.find((d) => d.branch === branch);
    return { ...plan, decisions: [...others, { ...before, branch, act, ...(why === undefined ? {} : { why }) }] };
  };
