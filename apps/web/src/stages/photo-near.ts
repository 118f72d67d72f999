import { bearingAndElevation, cameraOf, turnDeg, type KeptPhoto, type Tree } from '@ustle/core';
import type { PhotoBehind } from '../turntable/PhotoBehind';
import { paths } from '@ustle/contract';

/** Photos of a tree of which it is known where they were taken from. */
const placedPhotos = ({ sight }: Pick<Tree, 'sight'>): (KeptPhoto & Required<Pick<KeptPhoto, 'camera'>>)[] =>
  (sight?.photos ?? []).flatMap((p) => (p.camera ? [{ ...p, camera: p.camera }] : []));

export const hasPhotos = (tree: Pick<Tree, 'sight'>): boolean => placedPhotos(tree).length > 0;

/** Of two photos taken from about one bearing, that which looks less from above: degrees down count so much beside degrees round. */
const BY_HEIGHT = 0.4;

/** The photo taken from nearest to a bearing, with its number; null where there is none. */
export function photoNear(tree: Pick<Tree, 'sight'>, bearing: number): { photo: PhotoBehind; id: string; number: number } | null {
  let best: { of: KeptPhoto; off: number } | null = null;
  for (const of of placedPhotos(tree)) {
    const from = bearingAndElevation(of.camera.at);
    const off = Math.abs(turnDeg(from.bearing, bearing)) + BY_HEIGHT * Math.abs(from.elevation);
    if (!best || off < best.off) best = { of, off };
  }
  if (!best) return null;
  const { photo, width, height, camera } = best.of;
  const number = tree.sight!.photos.findIndex((p) => p.photo === photo) + 1;
  return { photo: { address: paths.photo(photo), camera: cameraOf(camera!), width, height }, id: photo, number };
}
