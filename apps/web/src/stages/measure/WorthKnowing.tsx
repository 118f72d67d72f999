import type { WorthKnowing as Worth } from '@ustle/core';
import { useAnswer, worker } from '../../jobs/use-planner';
import { Quiet } from '../../shared/parts';
import { useDesk } from '../desk';

const mm = (x: number): string => (x < 10 ? x.toFixed(1) : x.toFixed(0));
const slope = (deg: number): string => `${deg < 0 ? '−' : ''}${Math.abs(deg).toFixed(0)}°`;

const sayNumber = ({ what, low, high }: Worth): string => (what === 'd' ? `${mm(low)} or ${mm(high)} mm thick` : `at ${slope(low)} or ${slope(high)}`);

const COUNTS = ['', 'One number decides', 'Two numbers decide', 'Three numbers decide', 'Four numbers decide', 'Five numbers decide'];

/** The few numbers that are not well known and change what is done: measured, the rest may stay as it is. */
export function WorthKnowing() {
  const { tree, plan, today, names, setBranch } = useDesk();
  const roughly = tree.branches.some((b) => b.known && b.known.how !== 'ruler');
  const worth = useAnswer(
    () => (roughly && plan ? (worker('weighing').worthKnowing(tree, { poses: plan.poses, runs: plan.runs }, today) as Promise<Worth[]>) : Promise.resolve([])),
    [roughly, tree, plan, today],
  );
  if (!worth?.length) return null;
  return (
    <section className="mb-3 border-l-4 border-indigo px-3 py-1" aria-label="What is worth measuring">
      <h3 className="font-semibold">{COUNTS[worth.length]}</h3>
      <ul>
        {worth.map((w) => (
          <li key={w.branch + w.what}>
            <Quiet onClick={() => setBranch(w.branch)}>{names(w.branch)}</Quiet> {sayNumber(w)}: {w.decides}.
          </li>
        ))}
      </ul>
    </section>
  );
}
