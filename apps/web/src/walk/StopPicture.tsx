import { useState } from 'react';
import type { WalkStop } from '@ustle/contract';
import { Quiet } from '../shared/parts';
import { useSide, useSilhouette } from '../shared/queries';

const SIDES = ['from its front', 'from its right', 'from behind', 'from its left'] as const;
/** The side from which each tree was last looked at: one stands there for its next card too. */
const stoodAt = new Map<string, number>();

/** The tree from the side one stands on, with the branch in question and the other one of its piece. Its front is taken along on a walk; other sides want a network. */
export function StopPicture({ stop }: { stop: WalkStop }) {
  const [quarters, setQuarters] = useState(stoodAt.get(stop.tree) ?? 0);
  const front = useSilhouette({ id: stop.tree, revision: stop.revision, recorded: stop.recorded }, true);
  const side = useSide(stop, quarters, [stop.branch, ...(stop.other ? [stop.other.branch] : [])]);
  const shown =
    quarters === 0
      ? front && { ...front, outline: stop.outline, other: stop.other?.outline }
      : side && { ...side, outline: side.outlines[stop.branch], other: stop.other && side.outlines[stop.other.branch] };
  const turn = (): void => {
    const next = (quarters + 1) % SIDES.length;
    stoodAt.set(stop.tree, next);
    setQuarters(next);
  };
  return (
    <figure className="shrink-0 text-center">
      <svg viewBox="-3 -3 106 106" width={112} height={112} role="img" aria-label={`${stop.treeName} ${SIDES[quarters]!}, ${stop.name} marked`}>
        {shown && (
          <>
            <path d={shown.foliage} fill="var(--color-moss)" opacity="0.28" />
            <path d={shown.wood} fill="var(--color-bark)" opacity="0.5" />
            <path d={shown.pot} fill="#7d5f52" opacity="0.6" />
            {shown.other && <path d={shown.other} fill="none" stroke="var(--color-copper)" strokeWidth="1.4" strokeDasharray="2.5 2" />}
            {shown.outline && <path d={shown.outline} fill="var(--color-copper)" stroke="var(--color-copper)" strokeWidth="2.4" strokeLinejoin="round" />}
          </>
        )}
      </svg>
      <figcaption>
        <Quiet label={`Seen ${SIDES[quarters]!}: a quarter to the right`} onClick={turn}>
          {SIDES[quarters]!}
        </Quiet>
      </figcaption>
    </figure>
  );
}
