import { useMemo } from 'react';
import { Link } from 'react-router';
import { sayThick, coilsOn, dayOf, METALS, type Coil, type PlanRun, sayBranches, sayWire } from '@ustle/core';
import { Caution, PanelHead, Pick, Quiet, Skeleton } from '../../shared/parts';
import { count, percent, sayDate } from '../../shared/say';
import { useDesk } from '../desk';
import { FromRack } from './FromRack';
import { OpenPiece } from './OpenPiece';
import { FIRMNESS } from './words';

const METAL_NAMES = [{ value: 'kind', name: 'As is usual for its kind' }, ...METALS.map((m) => ({ value: m, name: m }))];

/** Branches of a piece that carry wire already. */
const carrying = (run: PlanRun, on: ReadonlyMap<string, Coil>): Coil[] => run.branches.flatMap((b) => on.get(b.branch) ?? []);

/** What is on a branch of a piece before it is put on. */
function replacing(run: PlanRun, on: ReadonlyMap<string, Coil>): string | null {
  const before = carrying(run, on).map((c) => `${sayThick(c.size)} ${c.metal}`);
  return before.length ? `Before it: ${before.join(', ')}. Take that off first, or say here that this one is on as well.` : null;
}

function Piece({ run, number, on, open, onOpen }: { run: PlanRun; number: number; on: ReadonlyMap<string, Coil>; open: boolean; onOpen: () => void }) {
  const { tree, plan, names } = useDesk();
  const settled = tree.plan.runs.some((r) => r.id === run.id);
  return (
    <li className={`border-t border-rule ${open ? 'bg-base-100' : ''}`}>
      <button
        type="button"
        aria-expanded={open}
        data-branch={run.branches[0]!.branch}
        data-run={run.id}
        className="flex w-full items-baseline gap-3 px-2 py-2 text-left"
        onClick={onOpen}
      >
        <span className="w-6 shrink-0 text-right font-serif text-lg">{number}</span>
        <span className="min-w-0 flex-1">
          <strong className="block">
            {sayBranches(
              names,
              run.branches.map((b) => b.branch),
              6,
            )}
          </strong>
          {sayWire(run)}
          {settled ? ', settled' : ''}
          {plan?.coverage.later.includes(run.id) ? ', for the next session' : ''}
        </span>
        <span className="shrink-0 text-quiet">{run.length.toFixed(0)} mm</span>
      </button>
      {open && <OpenPiece run={run} settled={settled} replaces={replacing(run, on)} />}
    </li>
  );
}

export function WirePanel() {
  const { stored, tree, plan, branch, setBranch, today, names, act } = useDesk();
  const on = useMemo(() => new Map(coilsOn(tree, dayOf(today)).map((c) => [c.branch, c])), [tree, today]);
  if (!plan) return <Skeleton lines={9} />;
  const runs = plan.runs.filter((r) => r.branches.some((b) => !on.has(b.branch)));
  const chosenOn = branch ? plan.wires.find((w) => w.branch === branch) : undefined;
  const wire = runs.reduce((sum, r) => sum + r.length * r.strands, 0);
  const paired = runs.filter((r) => r.kind === 'pair').length;
  const branches = runs.reduce((sum, r) => sum + r.branches.length, 0);
  return (
    <>
      <PanelHead title="Wire">
        {runs.length
          ? `${count(runs.length, 'piece')} for ${count(branches, 'branch', 'branches')}, ${paired} of them on two at once, ${(wire / 1000).toFixed(1)} m in all; as they go on.`
          : 'No branch waits for wire.'}
      </PanelHead>
      {plan.coverage.said.map((said) => (
        <p key={said} className="mb-3 text-quiet">
          {said}
        </p>
      ))}
      <FromRack cutList={plan.cutList} />
      {runs.length > 0 && (
        <Link className="mb-1 inline-flex min-h-11 items-center text-copper underline" to={`/tree/${stored.id}/pieces`}>
          A sheet of all pieces, to print
        </Link>
      )}
      {chosenOn && (
        <p className="mb-3 border-l-4 border-copper bg-base-100 px-3 py-2">
          {names(branch!)} carries wire since {sayDate(chosenOn.since)}. See it under Watch.
        </p>
      )}
      <ol className="mb-4 border-b border-rule">
        {runs.map((run, i) => {
          const open = branch !== null && run.branches.some((b) => b.branch === branch);
          return (
            <Piece key={run.branches[0]!.branch} run={run} number={i + 1} on={on} open={open} onOpen={() => setBranch(open ? null : run.branches[0]!.branch)} />
          );
        })}
      </ol>
      <Pick
        label="How firm the wire is on this tree"
        value={tree.plan.firmness ?? 'usual'}
        options={FIRMNESS}
        onChange={(firmness) => void act({ kind: 'manner', firmness })}
      />
      <Pick
        label="Metal on this tree"
        value={tree.plan.metal ?? 'kind'}
        options={METAL_NAMES}
        onChange={(metal) => void act({ kind: 'manner', metal: metal === 'kind' ? null : (metal as (typeof METALS)[number]) })}
      />
      <div className="mt-4" />
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
                <strong>{names(u.branch)}</strong>: <span className="text-quiet">{u.because.join(' ')}</span>{' '}
                {tree.plan.wiring?.some((w) => w.branch === u.branch && w.clip) && (
                  <Quiet onClick={() => void act({ kind: 'branch-manner', branch: u.branch, clip: false })}>wire it after all</Quiet>
                )}
              </li>
            ))}
          </ul>
        </details>
      )}
      <p className="mt-4 text-quiet">{percent(plan.coverage.share)} of the branches carry wire once all this is on.</p>
    </>
  );
}
