import { Vector3, type Camera } from 'three';

/** How far something that always faces the viewer reaches about its place, mm. `below` may lie above the place. */
export interface Reach {
  left: number;
  right: number;
  below: number;
  above: number;
}

const depthOf = (at: Vector3, camera: Camera): number => -at.clone().applyMatrix4(camera.matrixWorldInverse).z;

/** How many mm at a place are one pixel of a picture so many pixels high. */
export const mmOfPixel = (at: Vector3, camera: Camera, height: number): number => (2 * depthOf(at, camera)) / (camera.projectionMatrix.elements[5]! * height);

/** The box that it covers in the picture, in the camera's units from -1 to 1. */
export function boxInPicture(at: Vector3, camera: Camera, reach: Reach): Reach {
  const depth = depthOf(at, camera);
  const { x, y } = at.clone().project(camera);
  const [wide, high] = [camera.projectionMatrix.elements[0]! / depth, camera.projectionMatrix.elements[5]! / depth];
  return { left: x + reach.left * wide, right: x + reach.right * wide, below: y + reach.below * high, above: y + reach.above * high };
}

export const overlap = (a: Reach, b: Reach): boolean => a.left < b.right && b.left < a.right && a.below < b.above && b.below < a.above;
