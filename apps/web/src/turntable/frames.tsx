import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, type RefObject } from 'react';
import { Vector3, type Camera, type Matrix4 } from 'three';
import type { Vec } from '@ustle/core';

/** What the page is told after each frame, to put words and handles over the picture. */
export interface Frame {
  camera: Camera;
  width: number;
  height: number;
  /** From the tree's space into the table's. */
  tilt: Matrix4;
  /** Draw calls of the frame before: this one is not drawn yet. */
  calls: number;
}

export type FrameListeners = Set<(frame: Frame) => void>;

/** Where a point of the tree is in the picture, px. */
export function inPicture({ camera, width, height, tilt }: Frame, point: Vec): { x: number; y: number } {
  const seen = new Vector3(...point).applyMatrix4(tilt).project(camera);
  return { x: ((seen.x + 1) / 2) * width, y: ((1 - seen.y) / 2) * height };
}

/** Tells the listeners of every frame, and lends them the means to ask for another. */
export function FrameTeller({ listeners, tilt, again }: { listeners: FrameListeners; tilt: RefObject<Matrix4>; again: RefObject<(() => void) | null> }) {
  const { size, invalidate } = useThree();
  useEffect(() => {
    again.current = () => invalidate();
    return () => {
      again.current = null;
    };
  }, [again, invalidate]);
  useFrame(({ camera, gl }) => {
    const frame: Frame = { camera, width: size.width, height: size.height, tilt: tilt.current, calls: gl.info.render.calls };
    for (const listen of listeners) listen(frame);
  });
  return null;
}

/** Listens to the frames as long as the component is there, and asks for one to begin with. */
export function useFrames(listeners: FrameListeners, again: RefObject<(() => void) | null>, listen: (frame: Frame) => void): void {
  useEffect(() => {
    listeners.add(listen);
    again.current?.();
    return () => {
      listeners.delete(listen);
    };
  }, [listeners, again, listen]);
}
