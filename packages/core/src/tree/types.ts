import { Type, type Static, type TObject } from '@sinclair/typebox';
import { list, part } from './describe.js';
import { LINE } from './lines.js';
import { MEASURES } from './measures.js';
import type { Stands } from './stands.js';
import { PLAN_FIELDS, PLAN_LISTS, POSE_FIELDS } from './plan-parts.js';

/** What one tree may hold: lines of its record, and bytes of its file. Acts, files, server and screen keep to the same. */
export const MOST_LINES = 50_000;
export const LARGEST_FILE_BYTES = 64 * 1024 * 1024;

const FIELDS = {
  format: Type.Literal('ustle-tree'),
  version: Type.Literal(1),
  ...MEASURES,
  plan: part(PLAN_FIELDS, 'what is planned'),
  record: list(LINE, MOST_LINES, 'what was done and seen, oldest first'),
};

/** A measured tree with its plan and record, as the program holds it: lists that a file may leave out are there, if empty. */
export type Tree = Static<TObject<typeof FIELDS>> & {
  /** On a tree whose lines are as they stand: what they were worked out from. Never in a file. */
  stands?: Stands;
  /** On a tree on other lines than it stands on: those by which its branches are called. Never in a file. */
  calledBy?: Pick<Static<TObject<typeof FIELDS>>, 'branches' | 'trunk'>;
};
export type Measured = Pick<Tree, keyof typeof MEASURES>;
export const MEASURED = Object.keys(MEASURES) as (keyof Measured)[];

/** The lists that a file may leave out; they are then empty. */
const MAY_BE_LEFT_OUT = ['roots', 'features', 'record'] as const;
const optionalIn = <T extends object>(fields: T, names: readonly (keyof T & string)[]): T => ({
  ...fields,
  ...Object.fromEntries(names.map((name) => [name, Type.Optional(fields[name] as ReturnType<typeof Type.Unknown>)])),
});

const POSE_IN_FILE = part(optionalIn(POSE_FIELDS, ['bends']), 'where a branch shall go');
const PLAN_IN_FILE = optionalIn({ ...PLAN_FIELDS, poses: list(POSE_IN_FILE, PLAN_FIELDS.poses.maxItems!, PLAN_FIELDS.poses.description!) }, PLAN_LISTS);

/** The tree file, `*.ustle.json`. */
export const TREE_FILE = Type.Object(
  { ...optionalIn(FIELDS, MAY_BE_LEFT_OUT), plan: part(PLAN_IN_FILE, 'what is planned') },
  {
    $schema: 'http://json-schema.org/draft-07/schema#',
    $id: 'ustle-tree.schema.json',
    title: 'Ustle tree file, version 1',
    description: 'Lengths in mm, angles in degrees, dates as YYYY-MM-DD, shares from 0 to 1. Unknown extra keys are kept.',
  },
);

/** A tree from a sound file: what was left out is filled in empty. */
export function completed({ stands: _stands, calledBy: _calledBy, ...file }: Tree): Tree {
  const { roots = [], features = [], record = [], plan } = file as Partial<Tree>;
  const { decisions = [], poses = [], runs = [], guys = [] } = plan as Partial<Tree['plan']>;
  return {
    ...file,
    roots,
    features,
    plan: { ...plan, decisions, poses: poses.map((p) => ({ ...p, bends: (p as Partial<typeof p>).bends ?? [] })), runs, guys },
    record,
  };
}
