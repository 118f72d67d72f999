import { isoOf } from '../units/index.js';
import { branchOf, childrenOf } from './geometry.js';
import { usualStub } from './outcome.js';
import type { DecisionDetails, Fate } from './plan-parts.js';
import type { Tree } from './types.js';

const USUAL_SHARE = 0.6;
const YEAR = 365;

/** What a decision is taken to mean until more is said: to the side shoot nearest the middle, a usual stub, a reserve for a year. */
export function usualDetails(tree: Tree, id: string, act: Fate, onDay: number): DecisionDetails {
  const branch = branchOf(tree, id);
  if (!branch) return {};
  if (act === 'stub') return { stub: 'jin', length: usualStub(branch) };
  if (act === 'reserve') return { until: isoOf(onDay + YEAR) };
  if (act !== 'shorten') return {};
  const middle = USUAL_SHARE * branch.length;
  const shoots = childrenOf(tree, id).filter((c) => c.state !== 'dead' && c.at + c.d < 0.95 * branch.length);
  const [nearest] = [...shoots].sort((a, b) => Math.abs(a.at - middle) - Math.abs(b.at - middle));
  return nearest ? { toShoot: nearest.id } : { length: Math.round(middle) };
}
