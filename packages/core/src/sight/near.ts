import { turnDeg } from '../units/index.js';
import { bearingAndElevation } from '../space/index.js';
import type { KeptCamera, KeptPhoto, Tree } from '../tree/index.js';

export type PlacedPhoto = KeptPhoto & { camera: KeptCamera };

/** Photos of a tree of which it is known where they were taken from: those of its last round that has such. */
export function placedPhotos({ sight }: Pick<Tree, 'sight'>): PlacedPhoto[] {
  const isPlaced = (p: KeptPhoto): p is PlacedPhoto => !!p.camera;
  const rounds = sight ? [sight, ...[...(sight.earlier ?? [])].reverse()] : [];
  return (rounds.find((r) => r.photos.some(isPlaced))?.photos ?? []).filter(isPlaced);
}

/** Of two photos taken from about one bearing, that which looks less from above: degrees down count so much beside degrees round. */
const BY_HEIGHT = 0.4;

/** The photo taken from nearest to a bearing (degrees), with its number; null where there is none. */
export function photoNear(tree: Pick<Tree, 'sight'>, bearing: number): { photo: PlacedPhoto; number: number } | null {
  let best: { photo: PlacedPhoto; number: number; off: number } | null = null;
  for (const [i, photo] of placedPhotos(tree).entries()) {
    const from = bearingAndElevation(photo.camera.at);
    const off = Math.abs(turnDeg(from.bearing, bearing)) + BY_HEIGHT * Math.abs(from.elevation);
    if (!best || off < best.off) best = { photo, number: i + 1, off };
  }
  return best && { photo: best.photo, number: best.number };
}
