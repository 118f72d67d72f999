import { cutFrom, insteadOf, placeTree, sayLength, sayMetal, sayStock, sayThick, woodIn, type Deed, type WorkStep } from '@ustle/core';
import { Link } from 'react-router';
import { Dialog } from '../../shared/Dialog';
import { useRack } from '../../shared/queries';
import { useDesk } from '../desk';
import type { Give } from './StepCard';

/** The wire ran out: what else on the rack would do, the piece being settled anew with it. */
export function RanOut({ step, give, onClose }: { step: WorkStep; give: Give; onClose: () => void }) {
  const { tree, plan, stored, today } = useDesk();
  const { data: rack } = useRack();
  const run = plan!.runs.find((r) => r.id === step.of);
  if (!run) return null;
  const placed = placeTree(tree);
  const thickness = run.branches.map((b) => woodIn(placed, b.branch)?.branch.d ?? 5);
  const wire = { metal: run.metal, size: run.size, length: run.length * run.strands };
  const ranOut = rack && cutFrom(wire, rack.stock);
  const more = ranOut && cutFrom(wire, rack.stock.filter((s) => s.id !== ranOut.id)); // prettier-ignore
  const found = insteadOf(run, thickness, rack?.stock ?? []);
  const take = async (w: (typeof found)[number]): Promise<void> => {
    const branches = run.branches.map(({ branch, hand, start }) => ({ branch, hand, start }));
    const settled: Deed = {
      kind: 'run',
      on: today,
      run: run.id,
      metal: w.metal,
      size: w.size,
      strands: w.strands,
      angle: run.angle,
      branches,
      length: run.length,
    };
    const text = `${sayThick(run.size)} ${run.metal} ran out; ${sayThick(w.size)} ${w.metal}${w.strands > 1 ? ` × ${w.strands}` : ''} in its place.`;
    if (await give('ran-out', { did: [settled], text })) onClose();
  };
  const hold = (times: number): string =>
    times < 0.95
      ? `holds ${Math.round(times * 100)}% of the planned one`
      : times > 1.08
        ? `holds ${times.toFixed(1)} times as much, harder on the hands`
        : 'holds as much';
  return (
    <Dialog label="The wire ran out" onClose={onClose} back="Back to the step">
      <h2 className="text-2xl">The wire ran out</h2>
      <p className="mt-1 text-lg">
        Planned: {sayMetal(run.metal, run.size)}
        {run.strands > 1 ? ` × ${run.strands}` : ''}, {sayLength(run.length * run.strands)}.
      </p>
      {more && (
        <button
          type="button"
          data-first
          className="btn btn-outline btn-primary mt-3 h-auto min-h-16 w-full flex-col items-start gap-0 py-2 text-left text-lg"
          onClick={onClose}
        >
          <span>There is more of it: {sayStock(more)}</span>
          <span className="text-[0.94rem] font-normal">go on with the same wire</span>
        </button>
      )}
      {found.length ? (
        <ul className="mt-3 space-y-2" aria-label="What would do">
          {found.map((w, i) => (
            <li key={`${w.metal}${w.size}${w.strands}`}>
              <button
                type="button"
                {...(i || more ? {} : { 'data-first': true })}
                className="btn btn-outline btn-primary h-auto min-h-16 w-full flex-col items-start gap-0 py-2 text-left text-lg"
                onClick={() => void take(w)}
              >
                <span>
                  {sayMetal(w.metal, w.size)}
                  {w.strands > 1 ? `, ${w.strands} side by side` : ''}
                </span>
                <span className="text-[0.94rem] font-normal">
                  {hold(w.hold)}; {sayLength(w.left)} there
                </span>
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <p className="mt-3 text-lg">
          Nothing else on the rack holds this bend and can be wound on these branches. Leave the piece for the next session, and buy wire.
        </p>
      )}
      <div className="mt-4 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-outline border-rule font-normal"
          onClick={() => void give('skipped', { text: 'The wire ran out.' }).then((ok) => ok && onClose())}
        >
          Leave this piece for later
        </button>
        <Link className="btn btn-ghost" to={`/tree/${stored.id}/wire?branch=${run.branches[0]!.branch}`}>
          Choose in Wire
        </Link>
        <Link className="btn btn-ghost" to="/rack">
          To the rack
        </Link>
      </div>
    </Dialog>
  );
}
