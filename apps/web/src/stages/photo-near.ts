import { bearingAndElevation, cameraOf, turnDeg, type KeptPhoto, type Tree } from '@ustle/core';
import type { PhotoBehind } from '../turntable/PhotoBehind';
import { paths } from '@ustle/contract';

/** Photos of a tree of which it is known where they were taken from: those of its last round that has such. */
function placedPhotos({ sight }: Pick<Tree, 'sight'>): readonly KeptPhoto[] {
  const rounds = sight ? [...(sight.earlier ?? []), sight] : [];
  return (rounds.findLast((r) => r.photos.some((p) => p.camera))?.photos ?? []).filter((p) => p.camera);
}

export const hasPhotos = (tree: Pick<Tree, 'sight'>): boolean => placedPhotos(tree).length > 0;

/** Of two photos taken from about one bearing, that which looks less from above: degrees down count so much beside degrees round. */
const BY_HEIGHT = 0.4;

/** The photo taken from nearest to a bearing, with its number; null where there is none. */
export function photoNear(tree: Pick<Tree, 'sight'>, bearing: number): { photo: PhotoBehind; id: string; number: number } | null {
  let best: { of: KeptPhoto; off: number } | null = null;
  const photos = placedPhotos(tree);
  for (const of of photos) {
    const from = bearingAndElevation(of.camera!.at);
    const off = Math.abs(turnDeg(from.bearing, bearing)) + BY_HEIGHT * Math.abs(from.elevation);
    if (!best || off < best.off) best = { of, off };
  }
  if (!best) return null;
  const { photo, width, height, camera } = best.of;
  const number = photos.findIndex((p) => p.photo === photo) + 1;
  return { photo: { address: paths.photo(photo), camera: cameraOf(camera!), width, height }, id: photo, number };
}
