import { useThree } from '@react-three/fiber';
import { useEffect, type RefObject } from 'react';
import { Raycaster, Vector2, type Intersection, type Object3D } from 'three';

/** What a thing in the scene does when it is clicked; kept in its userData. */
export type Pick = (hit: Intersection) => void;

export const pickable = (pick: Pick): { pick: Pick } => ({ pick });

/** Takes a place on the screen and tells the nearest thing there that it was clicked; false where there is none. */
export type PickAt = (clientX: number, clientY: number) => boolean;

/** Looks into the scene only when somebody clicks: to look at every move of the hand costs more than drawing the frame. */
export function Picker({ at }: { at: RefObject<PickAt | null> }) {
  const { camera, scene, gl } = useThree();
  useEffect(() => {
    const ray = new Raycaster();
    at.current = (clientX, clientY) => {
      const { left, top, width, height } = gl.domElement.getBoundingClientRect();
      ray.setFromCamera(new Vector2(((clientX - left) / width) * 2 - 1, 1 - ((clientY - top) / height) * 2), camera);
      const things: Object3D[] = [];
      scene.traverse((thing) => {
        if (thing.userData.pick) things.push(thing);
      });
      const [hit] = ray.intersectObjects(things, false);
      (hit?.object.userData as { pick?: Pick } | undefined)?.pick?.(hit!);
      return Boolean(hit);
    };
    return () => {
      at.current = null;
    };
  }, [at, camera, scene, gl]);
  return null;
}
