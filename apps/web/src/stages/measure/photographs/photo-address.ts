import { useEffect, useState } from 'react';
import { liveQuery } from 'dexie';
import { paths } from '@ustle/contract';
import { photos } from '../../../photos/photo-queue';

/** Pictures that are still on this device only, as addresses; made once for each. */
const here = new Map<string, string>();

/** Where a photo of a tree is to be had: on the device as long as the server has not got it. */
export function usePhotoAddress(tree: string): (photo: string, size?: 'small') => string {
  const [waiting, setWaiting] = useState<ReadonlySet<string>>(new Set());
  useEffect(() => {
    const live = liveQuery(() => photos.waiting.where('tree').equals(tree).toArray()).subscribe((all) => {
      for (const { id, picture, type } of all) if (!here.has(id)) here.set(id, URL.createObjectURL(new Blob([picture], { type })));
      setWaiting(new Set(all.map((w) => w.id)));
    });
    return () => live.unsubscribe();
  }, [tree]);
  return (photo, size) => (waiting.has(photo) && here.get(photo)) || paths.photo(photo, size);
}
