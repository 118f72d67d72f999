import { useDrag } from '@use-gesture/react';
import { useCallback, useState } from 'react';
import { Matrix4, Vector3 } from 'three';
import { toRad, type PlacedTree, type Vec } from '@ustle/core';
import { inPicture, useFrames, type Frame, type FrameListeners } from './frames';
import { FOV_DEG } from './framing';

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

  /** Pixels of a drag as a way in the tree's own space, in the plane of the picture. */
  const wayOf = (dx: number, dy: number): Vec => {
    const { camera, height, tilt } = listeners.last!;
    const distance = camera.position.distanceTo(new Vector3(...line!.points[1]!).applyMatrix4(tilt));
    const mmPerPixel = (2 * distance * Math.tan(toRad(FOV_DEG / 2))) / height;
    const way = new Vector3()
      .setFromMatrixColumn(camera.matrixWorld, 0)
      .multiplyScalar(dx * mmPerPixel)
      .addScaledVector(new Vector3().setFromMatrixColumn(camera.matrixWorld, 1), -dy * mmPerPixel);
    const { x, y, z } = way.applyMatrix4(new Matrix4().extractRotation(tilt).transpose());
    return [x, y, z];
  };

  const bind = useDrag(
    ({ args: [index], delta: [dx, dy], event, last }) => {
      event.stopPropagation();
      if (dx || dy) onMove(index as number, wayOf(dx, dy));
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
