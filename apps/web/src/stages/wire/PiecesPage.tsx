import { useMemo } from 'react';
import type { StoredTree } from '@ustle/contract';
import { coilsOn, dayOf, namesOf, needsOf, shortNamesOf } from '@ustle/core';
import { Caution, Skeleton } from '../../shared/parts';
import { useKnown, useRack } from '../../shared/queries';
import { count } from '../../shared/say';
import { sayLength, saySize, sayStock } from '../../shared/wire-words';
import { usePlan } from '../../work/use-planner';
import { PrintPage } from '../PrintPage';
import { UnrolledPiece } from './UnrolledPiece';
import { sayRoute, sayWire } from './words';

function Pieces({ stored, today }: { stored: StoredTree; today: string }) {
  const { tree } = stored;
  const plan = usePlan(tree, today, useKnown(stored.id));
  const { data: rack } = useRack();
  const names = useMemo(() => namesOf(tree), [tree]);
  const short = useMemo(() => shortNamesOf(tree), [tree]);
  const on = useMemo(() => new Set(coilsOn(tree, dayOf(today)).map((c) => c.branch)), [tree, today]);
  if (!plan) return <Skeleton lines={12} />;
  const runs = plan.runs.filter((r) => r.branches.some((b) => !on.has(b.branch)));
  if (!runs.length) return <p className="mt-3">No branch waits for wire.</p>;
  const pieces = plan.cutList.flatMap(({ metal, size, pieces: of }) => of.map((p) => ({ ...p, metal, size, tree: stored.id })));
  const needs = needsOf(pieces, rack?.stock ?? []);
  return (
    <>
      <h2 className="mt-4 text-lg">To cut first</h2>
      <ul className="mt-1 border-b border-rule">
        {needs.flatMap((need) =>
          need.cuts.map((cut) => {
            const from = rack?.stock.find((s) => s.id === cut.from);
            return (
              <li key={`${need.metal}${need.size}${cut.from}`} className="flex flex-wrap gap-x-4 border-t border-rule py-1.5">
                <strong className="w-48">
                  {saySize(need.metal, need.size)} {need.metal}
                </strong>
                <span className="min-w-0 flex-1">
                  {cut.pieces.map((p) => `${p.length.toFixed(0)} mm (${1 + runs.findIndex((r) => r.id === p.run)})`).join(', ')}
                  <span className="text-quiet">
                    {from ? `; from ${sayStock(from).replace(/^(The|An?) /, (word) => word.toLowerCase())}` : '; from a new roll'}
                  </span>
                </span>
              </li>
            );
          }),
        )}
      </ul>
      <p className="mt-1 text-quiet">
        {count(pieces.length, 'piece')}, {sayLength(pieces.reduce((sum, p) => sum + p.length, 0))} in all. In brackets the number of the piece below, in the
        order in which they go on.
      </p>
      <div className="my-3">
        <Caution>A wire's end springs: hold it, and protect your eyes.</Caution>
      </div>
      <ol className="gap-8 sm:columns-2 print:columns-2">
        {runs.map((run, i) => (
          <li key={run.id} className="mb-6 break-inside-avoid border-t border-rule pt-2">
            <h3 className="text-lg">
              {i + 1}. {run.branches.map((b) => names(b.branch)).join(' and ')}
            </h3>
            <p>
              {sayWire(run)}, {run.length.toFixed(0)} mm{plan.coverage.later.includes(run.id) ? ', for the next session' : ''}
            </p>
            <p className="text-quiet">
              {sayRoute(run, plan.runs, names)};{' '}
              {run.branches.map((b) => `${short(b.branch)} ${b.start}, ${b.hand === 'cw' ? 'clockwise' : 'counter-clockwise'}`).join('; ')}
            </p>
            <UnrolledPiece run={run} tree={tree} plan={plan} short={short} />
          </li>
        ))}
      </ol>
    </>
  );
}

/** Every piece of wire of a tree on paper: what to cut from which roll, then each laid straight. */
export function PiecesPage() {
  return (
    <PrintPage what="the wire, piece by piece" back="wire">
      {(stored, today) => <Pieces stored={stored} today={today} />}
    </PrintPage>
  );
}
