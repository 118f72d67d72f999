import { useFrame, useThree } from '@react-three/fiber';
import { useEffect, type RefObject } from 'react';
import { Matrix4, Vector3, type Camera } from 'three';
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

/** Who is told of the frames, and the one they were told of last. */
export class FrameListeners {
  readonly all = new Set<(frame: Frame) => void>();
  last: Frame | null = null;
}

/** Where a point of the tree is in the picture, px. */
export function inPicture({ camera, width, height, tilt }: Frame, point: Vec): { x: number; y: number } {
  const seen = new Vector3(...point).applyMatrix4(tilt).project(camera);
  return { x: ((seen.x + 1) / 2) * width, y: ((1 - seen.y) / 2) * height };
}

/** A way across the picture, px, as a way in the tree's own space, mm: in the plane of the picture, at the depth of a point. */
export function wayInTree({ camera, height, tilt }: Frame, at: Vec, dx: number, dy: number): Vec {
  const distance = camera.position.distanceTo(new Vector3(...at).applyMatrix4(tilt));
  const mmPerPixel = (2 * distance) / (camera.projectionMatrix.elements[5]! * height);
  const way = new Vector3()
    .setFromMatrixColumn(camera.matrixWorld, 0)
    .multiplyScalar(dx * mmPerPixel)
    .addScaledVector(new Vector3().setFromMatrixColumn(camera.matrixWorld, 1), -dy * mmPerPixel);
  const { x, y, z } = way.applyMatrix4(new Matrix4().extractRotation(tilt).transpose());
  return [x, y, z];
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
    listeners.last = frame;
    for (const listen of listeners.all) listen(frame);
  });
  return null;
}

/** Listens to the frames as long as the component is there, the last one to begin with: new words need no new picture. */
export function useFrames(listeners: FrameListeners, listen: (frame: Frame) => void): void {
  useEffect(() => {
    listeners.all.add(listen);
    if (listeners.last) listen(listeners.last);
    return () => {
      listeners.all.delete(listen);
    };
  }, [listeners, listen]);
}
