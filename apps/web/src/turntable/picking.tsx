import { useThree } from '@react-three/fiber';
import { useEffect, type RefObject } from 'react';
import { Raycaster, Vector2, type Intersection, type Object3D, type Vector3 } from 'three';

/** What a thing in the scene does when it is clicked; kept in its userData. */
export type Pick = (hit: Intersection) => void;

export const pickable = (pick: Pick): { pick: Pick } => ({ pick });

/** A place on wood: of the trunk or a branch, in the scene's space. */
export interface OnWood {
  part: string;
  point: Vector3;
}
/** Which part of the wood a hit is on; kept in its userData. */
export type PartOf = (hit: Intersection) => string | null;

/** Takes a place on the screen and tells the nearest thing there that it was clicked; false where there is none. */
export type PickAt = (clientX: number, clientY: number) => boolean;

/** Takes a place on the screen and tells what wood is there; null where there is none. */
export type WoodAt = (clientX: number, clientY: number) => OnWood | null;

/** Looks into the scene only when somebody clicks: to look at every move of the hand costs more than drawing the frame. */
export function Picker({ at, woodAt }: { at: RefObject<PickAt | null>; woodAt: RefObject<WoodAt | null> }) {
  const { camera, scene, gl } = useThree();
  useEffect(() => {
    const ray = new Raycaster();
    const nearest = (clientX: number, clientY: number, of: (thing: Object3D) => boolean): Intersection | undefined => {
      const { left, top, width, height } = gl.domElement.getBoundingClientRect();
      ray.setFromCamera(new Vector2(((clientX - left) / width) * 2 - 1, 1 - ((clientY - top) / height) * 2), camera);
      const things: Object3D[] = [];
      scene.traverse((thing) => {
        if (of(thing)) things.push(thing);
      });
      return ray.intersectObjects(things, false)[0];
    };
    woodAt.current = (clientX, clientY) => {
      const hit = nearest(clientX, clientY, (thing) => Boolean(thing.userData.partOf));
      const part = hit && (hit.object.userData as { partOf: PartOf }).partOf(hit);
      return part ? { part, point: hit.point } : null;
    };
    at.current = (clientX, clientY) => {
      const hit = nearest(clientX, clientY, (thing) => Boolean(thing.userData.pick));
      (hit?.object.userData as { pick?: Pick } | undefined)?.pick?.(hit!);
      return Boolean(hit);
    };
    return () => {
      at.current = null;
      woodAt.current = null;
    };
  }, [at, woodAt, camera, scene, gl]);
  return null;
}
