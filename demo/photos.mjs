// Made-up photos of the studio's trees, drawn as a turntable camera would see them.
import sharp from 'sharp';
import { dayOf, isoOf, portraitSvg, treeOn } from '@ustle/core';

/** A tree from its front on a day, before a wall: a picture such as a camera takes. */
const photoOf = (tree, onDay) =>
  sharp(Buffer.from(portraitSvg(treeOn(tree, onDay), tree.plan.front?.bearing ?? 0)))
    .blur(1.2)
    .jpeg({ quality: 88 })
    .toBuffer();

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
