import { Matrix4, Vector3 } from 'three';
import { tilt, wedge, type Pot, type Vec, type View } from '@ustle/core';

/** Where the viewer stands: bearing in degrees, and how near. While the table is turned it runs ahead of the page. */
export interface Stand {
  bearing: number;
  zoom: number;
}

/** Tilt of the tree; bearing null: always towards the viewer, wherever they stand. */
export type Tilt = Omit<View, 'bearing'> & { bearing: number | null };

/** The tree on its wedge: from its own space into the table's. The pot's low edge stays on the table. */
export function tiltMatrix(view: Tilt, seenFrom: number, pot: Pot): Matrix4 {
  const from = { bearing: view.bearing ?? seenFrom, pitch: view.pitch, roll: view.roll };
  const column = (point: Vec): Vector3 => new Vector3(...tilt({ point, frontDeg: from.bearing, pitchDeg: from.pitch, rollDeg: from.roll }));
  const lift = wedge(from, pot).height / 2;
  return new Matrix4().makeBasis(column([1, 0, 0]), column([0, 1, 0]), column([0, 0, 1])).setPosition(0, 0, lift);
}
