import { useFrame } from '@react-three/fiber';
import { useRef, type ReactNode, type RefObject } from 'react';
import type { Group } from 'three';

/** Two trees in one picture: the first drawn to the left of the wipe, the second to the right of it. */
export function Wipe({ share, before, after }: { share: RefObject<number>; before: ReactNode; after: ReactNode }) {
  const [left, right] = [useRef<Group>(null), useRef<Group>(null)];
  // A priority of its own: the picture is drawn here, not by the canvas.
  useFrame(({ gl, scene, camera, size }) => {
    const at = Math.round(size.width * share.current);
    const half = (from: number, width: number, showLeft: boolean): void => {
      left.current!.visible = showLeft;
      right.current!.visible = !showLeft;
      gl.setScissor(from, 0, width, size.height);
      gl.render(scene, camera);
    };
    gl.setScissorTest(true);
    if (at > 0) half(0, at, true);
    if (at < size.width) half(at, size.width - at, false);
    gl.setScissorTest(false);
  }, 1);
  return (
    <>
      <group ref={left}>{before}</group>
      <group ref={right}>{after}</group>
    </>
  );
}
