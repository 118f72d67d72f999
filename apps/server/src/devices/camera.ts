import { generateTree, sizeAtAge, type Tree } from '@ustle/core';
import { FOCAL_ON_35MM, photographOf, type Size, type Stand } from '@ustle/vision/simulated';
import sharp from 'sharp';

/** A camera before a table that turns: it shows the tree from a bearing. A real one, on a cable or in the network, would be behind the same. */
export interface TurningCamera {
  /** A JPEG file of what stands on the table, turned to a bearing (degrees round its pot), with or without cards about it. */
  take(subject: Tree, from: Stand): Promise<Buffer>;
}

const QUALITY = 88;
/** What is to be measured by is taken larger. */
const sizeOf = ({ cards }: Stand): Size => (cards ? { width: 1600, height: 1200 } : { width: 1000, height: 750 });

const UNMEASURED_AGE = 18;

/** What stands on the simulated table: the tree as it is measured, or for one of which nothing is known yet a made-up one of its kind, always the same. */
function onTheTable(tree: Tree): Tree {
  if (tree.branches.length) return tree;
  const seed = [...tree.name].reduce((sum, c) => (31 * sum + c.charCodeAt(0)) % 100_000, 7);
  return generateTree({ seed, name: tree.name, species: tree.species, ...sizeAtAge(tree.species, UNMEASURED_AGE), swing: 0.08, secondaries: 2 });
}

/** Stands in for a camera: it draws the measured tree on a bench before a wall, as a phone's lens sees it, and tells its focal length as one does. */
export const simulatedCamera = (): TurningCamera => ({
  take: (subject, from) => {
    const { picture } = photographOf(onTheTable(subject), from, sizeOf(from));
    return sharp(Buffer.from(picture.data.buffer), { raw: { width: picture.width, height: picture.height, channels: 4 } })
      .removeAlpha()
      .jpeg({ quality: QUALITY })
      .withExif({ IFD2: { FocalLengthIn35mmFilm: String(FOCAL_ON_35MM) } })
      .toBuffer();
  },
});
