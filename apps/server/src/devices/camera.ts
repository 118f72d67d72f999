import { portraitSvg, type Tree } from '@ustle/core';
import sharp from 'sharp';

/** A camera beside a table that turns: it shows the tree from a bearing. A real one, on a cable or in the network, would be behind the same. */
export interface TurningCamera {
  /** A JPEG file of what stands on the table, turned to a bearing (degrees round its pot). */
  take(subject: Tree, bearing: number): Promise<Buffer>;
}

const SOFT = 1.2;
const QUALITY = 88;

/** Stands in for a camera: it draws the measured tree before a wall, a little out of focus. */
export const simulatedCamera = (): TurningCamera => ({
  take: (subject, bearing) =>
    sharp(Buffer.from(portraitSvg(subject, bearing)))
      .blur(SOFT)
      .jpeg({ quality: QUALITY })
      .toBuffer(),
});
