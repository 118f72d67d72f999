import { useEffect, useState } from 'react';
import { liveQuery } from 'dexie';
import { FileButton } from '../shared/FileButton';
import { Quiet } from '../shared/parts';
import { count } from '../shared/say';
import { addPhoto, flushPhotos, photos, type PhotoOf, type WaitingPhoto } from './photo-queue';

/** Photos of a tree that wait to be sent, or were refused. */
function useWaiting(tree: string): WaitingPhoto[] {
  const [waiting, setWaiting] = useState<WaitingPhoto[]>([]);
  useEffect(() => {
    void flushPhotos();
    const live = liveQuery(() => photos.waiting.where('tree').equals(tree).toArray()).subscribe((all) => setWaiting(all));
    return () => live.unsubscribe();
  }, [tree]);
  return waiting;
}

/** Takes a photo with the device's camera, or from a file; it is kept on the device until the server has it. */
export function AddPhoto({
  tree,
  today,
  of,
  label = 'Take a photo',
  large = false,
}: {
  tree: string;
  today: string;
  of: PhotoOf;
  label?: string;
  large?: boolean;
}) {
  const waiting = useWaiting(tree);
  const take = async (files: readonly File[]): Promise<void> => {
    for (const file of files) await addPhoto(tree, today, of, file, file.name);
  };
  const refused = waiting.filter((w) => w.refused !== null);
  const open = waiting.length - refused.length;
  return (
    <div>
      <FileButton
        label={label}
        accept="image/jpeg,image/png,image/webp"
        multiple
        className={large ? 'min-h-14 text-lg' : ''}
        onFiles={(files) => void take(files)}
      />
      {open > 0 && (
        <p role="status" className="mt-1 text-quiet">
          {count(open, 'photo')} on the way; kept here until the server has it.
        </p>
      )}
      {refused.map((w) => (
        <p key={w.id} role="alert" className="mt-1 text-madder">
          {w.name}: {w.refused} <Quiet onClick={() => void photos.waiting.delete(w.id)}>let it go</Quiet>
        </p>
      ))}
    </div>
  );
}
