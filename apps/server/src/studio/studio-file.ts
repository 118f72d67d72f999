import { Type, type Static } from '@sinclair/typebox';
import { SETTINGS } from '@ustle/contract/bodies';
import { ACT, BENCHES, day, id, LARGEST_FILE_BYTES, list, oneOf, optional, orNull, part, RACK_LINE, whole, words } from '@ustle/core';
import { shapeFaults, type FileFault } from '@ustle/files';
import { PHOTO_ID } from '../photos/photo-id.js';

/** The file of a whole studio: a ZIP with the names below and no others. docs/studio-file.md. */
export const FORMAT = 'ustle-studio';
export const VERSION = 1;

const MANY = 1_000_000;
const COUNT = whole(0, 2147483647, '', 'so many');

const TREE_ENTRY = part(
  {
    id: id('of the tree'),
    revision: whole(1, 2147483647, '', 'its revision'),
    asideOn: orNull(day('the day it was put aside')),
    bench: orNull(id('where it stands')),
    place: optional(COUNT),
  },
  'a tree; its measures, plan and record are in its own file',
);
const MAIL_ENTRY = part({ id: id('of the notice'), on: day('its day'), subject: words(1000, 'its subject'), text: words(200_000, 'what it says') }, 'a notice');
const RACK_ENTRY = part({ line: RACK_LINE, recorded: Type.Record(Type.String(), COUNT) }, 'a line of the rack, with the lines that each record had then');

/** `studio.json`: all that belongs to no tree's own file. Secrets are left out. */
const STUDIO_DOCUMENT = Type.Object({
  format: Type.Literal(FORMAT),
  version: Type.Literal(VERSION),
  trees: list(TREE_ENTRY, MANY, 'the trees'),
  benches: BENCHES.properties.benches,
  settings: Type.Object(SETTINGS),
  rack: list(RACK_ENTRY, MANY, 'the history of the rack'),
  mail: list(MAIL_ENTRY, MANY, 'notices'),
  forgotten: list(id('of a tree'), MANY, 'trees that were deleted for good'),
  leftOut: optional(list(part({ id: id('of the tree'), why: words(2000, 'why') }, 'a tree'), MANY, 'trees that could not be read, and are not in it')),
});
export type StudioDocument = Static<typeof STUDIO_DOCUMENT>;

const WAS = Type.Object({
  was: Type.Optional(Type.Unknown()),
  at: Type.Optional(Type.Array(Type.Tuple([COUNT as ReturnType<typeof Type.Integer>, Type.Unknown()]))),
});
const BEFORE = Type.Object({ own: Type.Record(Type.String(), WAS), plan: Type.Record(Type.String(), WAS) });
/** An act that was done on a tree, with what is needed to take it back; the steps that take back and make again are among them. */
const ACT_ENTRY = part(
  {
    id: id('of the act'),
    kind: words(60, 'its kind', 1),
    document: Type.Object({}),
    lines: list(id('of a line'), MANY, 'the lines of the record that it wrote'),
    of: orNull(id('the act that it takes back or makes again')),
    before: orNull(BEFORE),
    revision: optional(COUNT),
  },
  'an act',
);
const ACTS = Type.Array(ACT_ENTRY);
const STEP = Type.Object({ id: id('of the step'), kind: oneOf(['undo', 'redo'], 'which way'), on: day('its day') });

export interface ActEntry {
  id: string;
  kind: string;
  document: unknown;
  lines: string[];
  of: string | null;
  before: unknown;
  /** The revision that it made of its tree; not there where it made none. */
  revision?: number;
}

/** Faults of a studio's own document. */
export const studioFaults = (value: unknown): FileFault[] => shapeFaults(STUDIO_DOCUMENT, value);

const isStep = ({ kind }: ActEntry): boolean => kind === 'undo' || kind === 'redo';

/** Whether an act is as this program describes it; one that an earlier version wrote otherwise is kept, and not taken back any more. */
const isKnown = ({ id: own, kind, document }: ActEntry): boolean => {
  const { id: said, kind: saidKind } = document as { id?: unknown; kind?: unknown };
  return said === own && saidKind === kind && shapeFaults(kind === 'undo' || kind === 'redo' ? STEP : ACT, document).length === 0;
};

/** The acts of a tree from a parsed value, or why they cannot be: each names only what came before it. */
export function actsFrom(value: unknown, lineIds: ReadonlySet<string>): { acts: ActEntry[] } | { fault: string } {
  const [shape] = shapeFaults(ACTS, value);
  if (shape) return { fault: `${shape.path}: ${shape.message}` };
  const acts = value as ActEntry[];
  const before = new Set<string>();
  for (const [i, act] of acts.entries()) {
    if (before.has(act.id)) return { fault: `/${i}/id: "${act.id}" is used twice.` };
    if (isStep(act) !== (act.of !== null)) return { fault: `/${i}/of: only what takes back or makes again names another act.` };
    if (act.of !== null && !before.has(act.of)) return { fault: `/${i}/of: "${act.of}" is no act before it.` };
    const line = act.lines.find((l) => !lineIds.has(l));
    if (line !== undefined) return { fault: `/${i}/lines: "${line}" is no line of the record.` };
    before.add(act.id);
  }
  return { acts: acts.map((act) => (isKnown(act) ? act : { ...act, before: null })) };
}

export const STUDIO = 'studio.json';
export const treeName = (tree: string): string => `trees/${tree}.ustle.json`;
export const actsName = (tree: string): string => `trees/${tree}.acts.json`;
export const photoName = (photo: string, size: 'full' | 'small'): string => `photos/${photo}.${size}.jpg`;

/** Settings that go along: what lets other devices in stays where it is. */
export const SETTINGS_KEPT: readonly string[] = Object.keys(SETTINGS);

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
    const [, own = '', size = 'full'] = found;
    if (kind === 'photo' && !PHOTO_ID.test(own)) return null;
    return { kind, id: own, size: size as 'full' | 'small' };
  }
  return null;
}

/** The most that an entry of each kind unpacks to, bytes; all texts together, and all of it. */
export const MOST_BYTES: Record<EntryKind, number> = { studio: LARGEST_FILE_BYTES, tree: LARGEST_FILE_BYTES, acts: 256e6, photo: 30e6 };
export const MOST_ENTRIES = 300_000;
export const MOST_TEXT = 4e9;
export const MOST_TOTAL = 64e9;
