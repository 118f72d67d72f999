// Made-up photos of the studio's trees, as the simulated camera takes them.
import sharp from 'sharp';
import { dayOf, isoOf, treeOn } from '@ustle/core';
import { photographOf } from '@ustle/vision/simulated';

/** A picture of pixels as a JPEG file. */
export const jpegOf = ({ width, height, data }) =>
  sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
    .removeAlpha()
    .jpeg({ quality: 88 })
    .toBuffer();

/** A tree from its front on a day. */
const photoOf = (tree, onDay) =>
  jpegOf(photographOf(treeOn(tree, onDay), { bearing: tree.plan.front?.bearing ?? 0, downDeg: 8, cards: false }, { width: 1000, height: 1250 }).picture);

/** Photos of a tree with the acts that tell of them. */
export async function photosOf(tree, todayIso) {
  const today = dayOf(todayIso);
  const taken =
    {
      Perseverance: [
        [1090, 'before', 'Ash'],
        [1076, 'after', 'Robin'],
        [60, 'after', 'Ash'],
      ],
      Gannet: [[20, 'before', 'Robin']],
    }[tree.name] ?? [];
  const bearing = Math.round(tree.plan.front?.bearing ?? 0) % 360;
  return Promise.all(
    taken.map(async ([ago, when, by], i) => {
      const photo = `${tree.name.toLowerCase()}-${i + 1}`;
      return {
        act: { id: photo, on: isoOf(today - ago), kind: 'photo', photo, when, bearing, by },
        name: `${photo}.jpg`,
        picture: await photoOf(tree, today - ago),
      };
    }),
  );
}
