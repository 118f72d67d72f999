import { cameraOf, photoNear, placedPhotos, type Tree } from '@ustle/core';
import { paths } from '@ustle/contract';
import type { PhotoBehind } from '../turntable/PhotoBehind';

export const hasPhotos = (tree: Pick<Tree, 'sight'>): boolean => placedPhotos(tree).length > 0;

/** The photo taken from nearest to a bearing, as it stands behind the turntable, with its number; null where there is none. */
export function photoBehind(tree: Pick<Tree, 'sight'>, bearing: number): { photo: PhotoBehind; id: string; number: number } | null {
  const near = photoNear(tree, bearing);
  if (!near) return null;
  const { photo: id, width, height, camera } = near.photo;
  return { photo: { address: paths.photo(id), camera: cameraOf(camera), width, height }, id, number: near.number };
}
