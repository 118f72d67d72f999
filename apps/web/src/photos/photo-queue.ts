import Dexie, { type Table } from 'dexie';
import { mutate } from 'swr';
import { paths } from '@ustle/contract';
import type { Act, Intent } from '@ustle/core';
import { askToKeep } from '../shared/day';
import { ask, fateOf, type ApiError } from '../shared/http';
import { newId } from '../shared/new-id';
import { signed } from '../shared/who';

/** A photo that the server has not taken yet, or that it refused. */
export interface WaitingPhoto {
  id: string;
  tree: string;
  act: Act;
  name: string;
  type: string;
  picture: ArrayBuffer;
  /** When it was taken, ms: they are sent in that order. */
  at?: number;
  refused: string | null;
}

/** Photos on their way, in the device's own database: a network that comes late loses none. */
class PhotoStore extends Dexie {
  waiting!: Table<WaitingPhoto, string>;
  /** Photos of what is being entered and is not on the server yet. */
  drafts!: Table<{ key: string; name: string; type: string; picture: ArrayBuffer }, string>;
  constructor() {
    super('ustle-photos');
    this.version(1).stores({ waiting: 'id, tree' });
    this.version(2).stores({ drafts: 'key' });
  }
}

export const photos = new PhotoStore();
const UPLOAD_MS = 180_000;
const RETRY_MS = 5_000;

let sending: Promise<void> | null = null;
let again: ReturnType<typeof setTimeout> | null = null;

async function oldest(passed: ReadonlySet<string>): Promise<WaitingPhoto | undefined> {
  const open = await photos.waiting.filter((w) => w.refused === null && !passed.has(w.id)).toArray();
  return open.sort((a, b) => (a.at ?? 0) - (b.at ?? 0))[0];
}

async function sendAll(): Promise<void> {
  // One at a time, the oldest first: what comes in meanwhile goes with them, and what the server stumbles over holds none up.
  const passed = new Set<string>();
  const later = (): void => void (again ??= setTimeout(() => ((again = null), void flushPhotos()), RETRY_MS));
  for (let waiting = await oldest(passed); waiting; waiting = await oldest(passed)) {
    const { id, tree, act, name, type, picture } = waiting;
    try {
      await ask(paths.photos(tree, act, name), {
        method: 'POST',
        headers: { 'Content-Type': type.startsWith('image/') ? type : 'application/octet-stream' },
        body: picture,
        signal: AbortSignal.timeout(UPLOAD_MS),
      });
      await photos.waiting.delete(id);
      await mutate(paths.tree(tree));
    } catch (error) {
      const fate = fateOf(error);
      if (fate === 'refused') await photos.waiting.update(id, { refused: (error as ApiError).message });
      else later();
      if (fate === 'away') return;
      passed.add(id);
    }
  }
}

/** Sends the photos that wait, one after the other; where nobody answers they are tried again. */
export const flushPhotos = (): Promise<void> => (sending ??= sendAll().finally(() => (sending = null)));

/** What is said of a photo beside the picture itself. */
export type PhotoOf = Omit<Extract<Intent, { kind: 'photo' }>, 'kind' | 'photo'>;

/** Keeps a photo of a tree to be sent, and sends it; its id. */
export async function addPhoto(tree: string, on: string, of: PhotoOf, picture: Blob, name: string): Promise<string> {
  const at = performance.timeOrigin + performance.now();
  const id = newId();
  const act = { on, ...of, ...signed(), kind: 'photo', photo: id, id } as Act;
  askToKeep();
  await photos.waiting.put({ id, tree, act, name, type: picture.type, picture: await picture.arrayBuffer(), at, refused: null });
  void flushPhotos();
  return id;
}
