import { useDrag } from '@use-gesture/react';
import { useCallback, useRef, useState, type KeyboardEvent } from 'react';
import type { Band, Vec } from '@ustle/core';
import { BeadGlyph } from '../shared/BeadGlyph';
import { inPicture, useFrames, wayInTree, type Frame, type FrameListeners } from './frames';

/** A bend as a bead on its branch. */
export interface Bead {
  at: Vec;
  band: Band;
  chosen: boolean;
  name: string;
}

/** What is threaded on a posed branch: its bends, and the tip to be drawn along. */
export interface Threaded {
  beads: readonly Bead[];
  onBead: (index: number) => void;
  /** A bead pushed along its branch, mm. */
  onSlide: (index: number, by: Vec, done: boolean) => void;
  tip: Vec;
  tipName: string;
  /** The tip taken, and drawn by a way in the tree's space, mm, from where it was then. */
  onTip: (by: Vec, taken: boolean, done: boolean) => void;
}

/** Beads on the bends of a posed branch and a handle at its tip: dragged, or moved with the arrow keys. */
export function ThreadedHandles({ threaded, listeners }: { threaded: Threaded; listeners: FrameListeners }) {
  const { beads, tip, onBead, onSlide, onTip, tipName } = threaded;
  const [places, setPlaces] = useState<readonly { x: number; y: number }[]>([]);
  const listen = useCallback(
    (frame: Frame): void => {
      const next = [...beads.map((b) => b.at), tip].map((p) => inPicture(frame, p));
      setPlaces((before) =>
        before.length === next.length && before.every((p, i) => Math.abs(p.x - next[i]!.x) + Math.abs(p.y - next[i]!.y) < 0.5) ? before : next,
      );
    },
    [beads, tip],
  );
  useFrames(listeners, listen);
  const taken = useRef<Vec>([0, 0, 0]);
  const begun = useRef(false);

  const bind = useDrag(
    ({ args: [index, at], delta: [dx, dy], movement: [mx, my], first, last, tap, event }) => {
      event.stopPropagation();
      const [i, place] = [index as number, at as Vec];
      if (first) [taken.current, begun.current] = [place, true];
      if (i < beads.length) {
        if (tap) onBead(i);
        else if (dx || dy || last) onSlide(i, wayInTree(listeners.last!, place, dx, dy), last);
      } else if (!tap && (dx || dy || last)) onTip(wayInTree(listeners.last!, taken.current, mx, my), begun.current, last);
      if (i === beads.length && (dx || dy || last)) begun.current = false;
    },
    { pointer: { keys: true }, keyboardDisplacement: 6, filterTaps: true },
  );

  if (places.length !== beads.length + 1) return null;
  // The table under them is not turned by what is done with them.
  const arrows = (event: KeyboardEvent): void => void (event.key.startsWith('Arrow') && event.stopPropagation());
  return (
    <div onPointerDown={(event) => event.stopPropagation()} onKeyDown={arrows}>
      {beads.map((bead, i) => (
        <button
          key={i}
          type="button"
          aria-label={`${bead.name}: push it along with the arrow keys`}
          aria-pressed={bead.chosen}
          className="absolute flex h-11 w-11 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none items-center justify-center"
          style={{ left: places[i]!.x, top: places[i]!.y }}
          onClick={() => onBead(i)}
          {...bind(i, bead.at)}
        >
          <BeadGlyph band={bead.band} chosen={bead.chosen} />
        </button>
      ))}
      <button
        type="button"
        aria-label={tipName}
        data-tip
        className="absolute h-11 w-11 -translate-x-1/2 -translate-y-1/2 cursor-move touch-none p-3"
        style={{ left: places[beads.length]!.x, top: places[beads.length]!.y }}
        {...bind(beads.length, tip)}
      >
        <svg width="20" height="20" viewBox="-10 -10 20 20" aria-hidden="true">
          <path d="M0 -8L8 0L0 8L-8 0Z" fill="var(--color-sheet)" stroke="var(--color-indigo)" strokeWidth="2.5" />
        </svg>
      </button>
    </div>
  );
}
