import { silhouetteOf } from './silhouette.js';
import type { Tree } from './types.js';

const [WIDE, HIGH] = [1200, 1500];

/** A tree as it stands before a wall, from a bearing (degrees round the pot): what a camera beside a turning table would see, as an SVG file. */
export function portraitSvg(tree: Tree, bearing: number): string {
  const { wood, foliage, pot } = silhouetteOf({ ...tree, plan: { ...tree.plan, decisions: [], front: { bearing, pitch: 0, roll: 0 } } });
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDE}" height="${HIGH}" viewBox="-20 -22 140 175">`,
    '<defs><linearGradient id="wall" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="#d9d2c2"/><stop offset="1" stop-color="#b3a88f"/></linearGradient></defs>',
    '<rect x="-20" y="-22" width="140" height="175" fill="url(#wall)"/><rect x="-20" y="112" width="140" height="41" fill="#7d6a52"/>',
    `<path d="${pot}" fill="#6d3f32"/><path d="${wood}" fill="#54402f"/><path d="${foliage}" fill="#3f5a34" fill-opacity="0.85"/>`,
    '</svg>',
  ].join('');
}
