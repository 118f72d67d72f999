import { useDrag } from '@use-gesture/react';
import { useCallback, useState } from 'react';
import type { PlacedTree, Vec } from '@ustle/core';
import { inPicture, useFrames, wayInTree, type Frame, type FrameListeners } from './frames';

interface Handle {
  index: number;
  x: number;
  y: number;
}

interface Props {
  placed: PlacedTree;
  branch: string;
  /** A point was dragged by a way in the tree's space, mm. */
  onMove: (index: number, by: Vec) => void;
  onDone: () => void;
  listeners: FrameListeners;
}

/** Handles on the points of a crooked branch; the shoulder stays. */
export function BendHandles({ placed, branch, onMove, onDone, listeners }: Props) {
  const line = placed.byId.get(branch)?.line;
  const [handles, setHandles] = useState<readonly Handle[]>([]);
  const listen = useCallback(
    (frame: Frame): void => {
      const next = (line?.points ?? []).map((p, index): Handle => ({ index, ...inPicture(frame, p) })).slice(1);
      setHandles((before) =>
        before.length === next.length && before.every((h, i) => Math.abs(h.x - next[i]!.x) + Math.abs(h.y - next[i]!.y) < 0.5) ? before : next,
      );
    },
    [line],
  );
  useFrames(listeners, listen);

  const bind = useDrag(
    ({ args: [index], delta: [dx, dy], event, last }) => {
      event.stopPropagation();
      if (dx || dy) onMove(index as number, wayInTree(listeners.last!, line!.points[1]!, dx, dy));
      if (last) onDone();
    },
    { pointer: { keys: true }, keyboardDisplacement: 4 },
  );

  return handles.map((h) => (
    <button
      key={h.index}
      type="button"
      aria-label={`Bend point ${h.index}: drag it, or move it with the arrow keys`}
      className="absolute h-11 w-11 -translate-x-1/2 -translate-y-1/2 cursor-move touch-none p-3"
      style={{ left: h.x, top: h.y }}
      {...bind(h.index)}
    >
      <span className="block h-5 w-5 rounded-full border-2 border-indigo bg-sheet/70" />
    </button>
  ));
}
