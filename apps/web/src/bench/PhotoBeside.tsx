import { useEffect, useState } from 'react';
import { photos } from '../photos/photo-queue';
import { askToKeep } from '../shared/day';
import { FileButton } from '../shared/FileButton';
import { Quiet } from '../shared/parts';

const KEY = 'new tree';

/** The photo beside a tree that is being entered, as it is kept on the device until the tree is on the bench. */
export const photoBeside = async (): Promise<{ picture: Blob; name: string } | null> => {
  const kept = await photos.drafts.get(KEY);
  return kept ? { picture: new Blob([kept.picture], { type: kept.type }), name: kept.name } : null;
};

export const forgetPhotoBeside = (): Promise<void> => photos.drafts.delete(KEY);

/** A photo to look at while a tree is entered; it goes into its record with the tree. */
export function PhotoBeside() {
  const [address, setAddress] = useState<string | null>(null);
  const show = (picture: Blob | null): void =>
    setAddress((before) => {
      if (before) URL.revokeObjectURL(before);
      return picture && URL.createObjectURL(picture);
    });
  useEffect(() => {
    let gone = false;
    void photoBeside().then((kept) => !gone && kept && show(kept.picture));
    return () => {
      gone = true;
      show(null);
    };
  }, []);
  const take = async ([file]: readonly File[]): Promise<void> => {
    if (!file) return;
    askToKeep();
    await photos.drafts.put({ key: KEY, name: file.name, type: file.type, picture: await file.arrayBuffer() });
    show(file);
  };
  const leave = async (): Promise<void> => {
    await forgetPhotoBeside();
    show(null);
  };
  return (
    <figure className="mb-3 lg:sticky lg:top-3 lg:mb-0 lg:w-56 lg:shrink-0">
      {address && <img src={address} alt="The tree, from where it is looked at" className="mb-2 max-h-96 w-full object-contain" />}
      <figcaption className="flex flex-wrap items-center gap-3">
        <FileButton label={address ? 'Another photo' : 'A photo beside it'} accept="image/jpeg,image/png,image/webp" onFiles={(files) => void take(files)} />
        {address && <Quiet onClick={() => void leave()}>leave it out</Quiet>}
      </figcaption>
    </figure>
  );
}
