import { PHOTO_ID } from '../photos/photo-id.js';

/** The file of a whole studio: a ZIP with the names below and no others. docs/studio-file.md. */
export const FORMAT = 'ustle-studio';
export const VERSION = 1;

/** A tree in the list of trees; its measures, plan and record are in its own file. */
export interface TreeEntry {
  id: string;
  revision: number;
  asideOn: string | null;
  bench: string | null;
}

/** `studio.json`: all that belongs to no tree's own file. */
export interface StudioDocument {
  format: typeof FORMAT;
  version: typeof VERSION;
  trees: TreeEntry[];
  benches: { id: string; name: string }[];
  /** What the yard has chosen; secrets are left out. */
  settings: Record<string, unknown>;
  rack: { line: unknown; recorded: Record<string, number> }[];
  mail: { id: string; on: string; subject: string; text: string }[];
  forgotten: string[];
}

/** An act that was done on a tree, with what is needed to take it back. */
export interface ActEntry {
  id: string;
  kind: string;
  document: unknown;
  lines: string[];
  of: string | null;
  before: unknown;
}

export const STUDIO = 'studio.json';
export const treeName = (id: string): string => `trees/${id}.ustle.json`;
export const actsName = (id: string): string => `trees/${id}.acts.json`;
export const photoName = (id: string, size: 'full' | 'small'): string => `photos/${id}.${size}.jpg`;

/** Settings that go along: what lets other devices in stays where it is. */
export const SETTINGS_KEPT: readonly string[] = ['people', 'weather'];

export type EntryKind = 'studio' | 'tree' | 'acts' | 'photo';
const TREE_ID = '[A-Za-z0-9._-]{1,64}';
const KINDS: [EntryKind, RegExp][] = [
  ['studio', /^studio\.json$/],
  ['tree', new RegExp(`^trees/(${TREE_ID})\\.ustle\\.json$`)],
  ['acts', new RegExp(`^trees/(${TREE_ID})\\.acts\\.json$`)],
  ['photo', /^photos\/([^/]+)\.(full|small)\.jpg$/],
];

/** What an entry of a ZIP is by its name; null for a name that has no business there. */
export function entryOf(name: string): { kind: EntryKind; id: string; size: 'full' | 'small' } | null {
  for (const [kind, pattern] of KINDS) {
    const found = pattern.exec(name);
    if (!found) continue;
    const [, id = '', size = 'full'] = found;
    if (kind === 'photo' && !PHOTO_ID.test(id)) return null;
    return { kind, id, size: size as 'full' | 'small' };
  }
  return null;
}

/** The most that an entry of each kind unpacks to, bytes, and all of them together. */
export const MOST_BYTES: Record<EntryKind, number> = { studio: 64e6, tree: 8 * 1024 * 1024, acts: 256e6, photo: 30e6 };
export const MOST_ENTRIES = 300_000;
export const MOST_TOTAL = 64e9;
/** A text that unpacks to more than so many times its packed size is made to fill a disk. */
export const MOST_RATIO = 400;
