import { useDrag } from '@use-gesture/react';
import { useCallback, useState, type KeyboardEvent } from 'react';
import { norm, scale, type PlacedTree, type Vec } from '@ustle/core';
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

/** Handles on the points of a crooked branch, or of the trunk; the first stays. Arrow keys move one by a mm, with Shift by ten. */
export function BendHandles({ placed, branch, onMove, onDone, listeners }: Props) {
  const line = branch === 'trunk' ? placed.trunk : placed.byId.get(branch)?.line;
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
    { pointer: { keys: false } },
  );
  /** A mm across the picture, as a way in the tree's space. */
  const byKey = (event: KeyboardEvent, index: number): void => {
    const ways: Record<string, [number, number]> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
    const way = ways[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    const [right, down] = [wayInTree(listeners.last!, line!.points[1]!, 1, 0), wayInTree(listeners.last!, line!.points[1]!, 0, 1)];
    const along = way[0] ? right : down;
    onMove(index, scale(along, ((way[0] || way[1]) * (event.shiftKey ? 10 : 1)) / norm(along)));
  };

  return handles.map((h) => (
    <button
      key={h.index}
      type="button"
      aria-label={`Bend point ${h.index}: drag it, or move it with the arrow keys`}
      className="absolute h-11 w-11 -translate-x-1/2 -translate-y-1/2 cursor-move touch-none p-3"
      style={{ left: h.x, top: h.y }}
      {...bind(h.index)}
      onKeyDown={(event) => byKey(event, h.index)}
      onKeyUp={(event) => event.key.startsWith('Arrow') && onDone()}
    >
      <span className="block h-5 w-5 rounded-full border-2 border-indigo bg-sheet/70" />
    </button>
  ));
}
