import { coilsOn, dayOf, type RunBranchPlan, type RunPlan } from '@ustle/core';
import { Caution, PanelHead, Skeleton } from '../../shared/parts';
import { count, percent, sayDate, sayMetal } from '../../shared/say';
import { useDesk } from '../desk';
import { PutOn } from './PutOn';
import { WindGlyph } from './WindGlyph';

function Facts({ run, part }: { run: RunPlan; part: RunBranchPlan }) {
  const facts: [string, string][] = [
    ['Turns', `${part.turns.toFixed(1)}, the wire at ${run.angle}° to the branch`],
    ['Piece', `${run.length.toFixed(0)} mm, ${run.mass.toFixed(0)} g`],
    ['Bend to', `${part.bendTo.toFixed(0)}° by hand, spread over ${part.bendLength.toFixed(0)} mm`],
    ['Springs back', `${percent(part.springBack)} of it, with the wire on`],
    ['Rules of thumb', `aluminium ${part.rule.aluminium.toFixed(1)} mm, copper ${part.rule.copper.toFixed(1)} mm`],
  ];
  return (
    <dl className="grid grid-cols-[116px_1fr] gap-x-3 gap-y-1">
      {facts.map(([name, value]) => (
        <div key={name} className="contents">
          <dt className="text-quiet">{name}</dt>
          <dd>{value}</dd>
        </div>
      ))}
    </dl>
  );
}

const BANDS: Record<string, string> = {
  calm: 'The wood bears this bend easily.',
  careful: 'The wood bears this bend, if it is done slowly.',
  heavy: 'A heavy bend for this wood.',
  no: 'More than this wood bears in one season.',
};
const UNDER: Record<string, string> = {
  raffia: 'Wrap it with raffia first.',
  parallel: 'Lay parallel wires first.',
  both: 'Wrap it with raffia and lay parallel wires first.',
};

function OpenRun({ run, part }: { run: RunPlan; part: RunBranchPlan }) {
  const { plan } = useDesk();
  const bend = plan!.poses.find((p) => p.branch === part.branch)?.bends[0];
  return (
    <div className="space-y-3 px-2 pb-3">
      {part.because.slice(0, 1).map((b) => (
        <p key={b}>{b}</p>
      ))}
      <WindGlyph hand={part.hand} start={part.start} />
      <Facts run={run} part={part} />
      {bend && (
        <p className="text-quiet">
          {BANDS[bend.band]} {UNDER[bend.protection] ?? ''} {bend.stages !== null && bend.stages > 1 ? `In ${bend.stages} stages, with rest between.` : ''}
        </p>
      )}
      <PutOn key={`${run.id}${run.size}`} run={run} part={part} />
    </div>
  );
}

export function WirePanel() {
  const { tree, plan, branch, setBranch, today, names } = useDesk();
  if (!plan) return <Skeleton lines={9} />;
  const on = new Map(coilsOn(tree, dayOf(today)).map((c) => [c.branch, c]));
  const runs = plan.runs.filter((r) => r.branches.some((b) => !on.has(b.branch)));
  const chosenOn = branch ? plan.wires.find((w) => w.branch === branch) : undefined;
  return (
    <>
      <PanelHead title="Wire">
        {runs.length
          ? `${count(runs.length, 'branch', 'branches')} to wire, thick before thin, from inside and below. Press a wire against the branch: whichever gives way is the weaker.`
          : 'No branch waits for wire.'}
      </PanelHead>
      {chosenOn && (
        <p className="mb-3 border-l-4 border-copper bg-base-100 px-3 py-2">
          {names(branch!)} carries wire since {sayDate(chosenOn.since)}. See it under Watch.
        </p>
      )}
      <ul className="mb-4 border-b border-rule">
        {runs.map((run) =>
          run.branches.map((part) => {
            const open = part.branch === branch;
            return (
              <li key={`${run.id}${part.branch}`} className={`border-t border-rule ${open ? 'bg-base-100' : ''}`}>
                <button
                  type="button"
                  aria-expanded={open}
                  data-branch={part.branch}
                  className="flex w-full items-baseline gap-3 px-2 py-2 text-left"
                  onClick={() => setBranch(open ? null : part.branch)}
                >
                  <span className="min-w-0 flex-1">
                    <strong className="block">{names(part.branch)}</strong>
                    {run.strands > 1 && `${run.strands} × `}
                    {sayMetal(run.metal, run.size, run.gauge)}
                  </span>
                  <span className="text-quiet">bend {part.target.toFixed(0)}°</span>
                </button>
                {open && <OpenRun run={run} part={part} />}
              </li>
            );
          }),
        )}
      </ul>
      <Caution>
        A wire's end springs: hold it, and protect your eyes. Copper under load more so. Annealing is fire, hot metal and fumes: outdoors, and by someone who
        knows it.
      </Caution>
      {plan.unwired.length > 0 && (
        <details className="mt-4">
          <summary className="cursor-pointer">{count(plan.unwired.length, 'branch', 'branches')} without wire, and why</summary>
          <ul className="mt-2 space-y-1">
            {plan.unwired.map((u) => (
              <li key={u.branch}>
                <strong>{names(u.branch)}</strong>: <span className="text-quiet">{u.because.join(' ')}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
