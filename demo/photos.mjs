// Made-up photos of the studio's trees, drawn as a turntable camera would see them.
import sharp from 'sharp';
import { dayOf, isoOf, silhouetteOf, treeOn } from '@ustle/core';

const [WIDE, HIGH] = [1200, 1500];

/** A tree from its front on a day, before a wall: a picture such as a camera takes. */
async function photoOf(tree, onDay) {
  const then = treeOn({ ...tree, plan: { ...tree.plan, decisions: [] } }, onDay);
  const { wood, foliage, pot } = silhouetteOf(then);
  const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDE}" height="${HIGH}" viewBox="-20 -22 140 175">
    <defs><linearGradient id="wall" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#d9d2c2"/><stop offset="1" stop-color="#b3a88f"/></linearGradient></defs>
    <rect x="-20" y="-22" width="140" height="175" fill="url(#wall)"/><rect x="-20" y="112" width="140" height="41" fill="#7d6a52"/>
    <path d="${pot}" fill="#6d3f32"/><path d="${wood}" fill="#54402f"/><path d="${foliage}" fill="#3f5a34" fill-opacity="0.85"/>
  </svg>`;
  return sharp(Buffer.from(drawing)).blur(1.2).jpeg({ quality: 88 }).toBuffer();
}

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
