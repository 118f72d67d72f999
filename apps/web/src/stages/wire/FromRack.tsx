import { useMemo } from 'react';
import { Link } from 'react-router';
import { needsOf, type PlanCut, sayLength, saySize } from '@ustle/core';
import { useRack } from '../../shared/queries';
import { count } from '../../shared/say';
import { useDesk } from '../desk';

/** What the pieces take from the rack; and, before anything is cut, of which wire there is not enough. */
export function FromRack({ cutList }: { cutList: readonly PlanCut[] }) {
  const { stored } = useDesk();
  const { data: rack } = useRack();
  const needs = useMemo(() => {
    if (!rack) return null;
    const others = rack.reserved.filter((p) => p.tree !== stored.id);
    const mine = cutList.flatMap(({ metal, size, pieces }) => pieces.map((p) => ({ ...p, metal, size, tree: stored.id })));
    return needsOf([...mine, ...others], rack.stock).filter((n) => n.pieces.some((p) => p.tree === stored.id));
  }, [rack, cutList, stored.id]);
  if (!needs?.length) return null;
  const short = needs.filter((n) => n.buy > 0);
  const empty = rack!.stock.length === 0;
  return (
    <>
      {!empty &&
        short.map((n) => (
          <p key={`${n.metal}${n.size}`} className="mb-2 border-l-4 border-ochre bg-base-100 px-3 py-2">
            {saySize(n.metal, n.size)} {n.metal}: {n.have ? `only ${sayLength(n.have)}` : 'none'} on the rack for {sayLength(n.total)}
            {n.pieces.some((p) => p.tree !== stored.id) ? ', other trees’ settled pieces among it' : ''}. {n.buy === 1 ? 'One roll' : `${n.buy} rolls`} to buy
            {n.hard ? `, or anneal the ${sayLength(n.hard)} that is hard` : ''}.
          </p>
        ))}
      <details className="mt-2 mb-3">
        <summary className="min-h-11 cursor-pointer content-center">What it takes from the rack</summary>
        <ul className="mt-1 space-y-1">
          {cutList.map((c) => (
            <li key={`${c.metal}${c.size}`}>
              {saySize(c.metal, c.size)} {c.metal}: {sayLength(c.total)} in {count(c.pieces.length, 'piece')}, {c.mass.toFixed(0)} g
            </li>
          ))}
        </ul>
        <Link className="mt-1 inline-flex min-h-11 items-center text-copper underline" to={`/rack?trees=${stored.id}`}>
          {empty ? 'Put your rolls on the rack, to see whether it lasts' : 'Piece by piece, from which roll'}
        </Link>
      </details>
    </>
  );
}
