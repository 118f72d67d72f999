import type { Vec, View } from '../space/index.js';
import type { Hemisphere } from '../species/index.js';
import type { MetalName } from '../wood/index.js';

export const VIGOURS = ['weak', 'normal', 'strong', 'free', 'refined'] as const;
export type Vigour = (typeof VIGOURS)[number];
export const BRANCH_STATES = ['dead', 'blind', 'weak', 'normal', 'strong'] as const;
export type BranchState = (typeof BRANCH_STATES)[number];
export const WRAPS = ['none', 'raffia', 'tape'] as const;
export type Wrap = (typeof WRAPS)[number];
export const MARK_STAGES = ['clear', 'touching', 'marking', 'deep', 'swallowed'] as const;
export type MarkStage = (typeof MARK_STAGES)[number];
export const ACTS = ['keep', 'remove', 'shorten', 'stub', 'reserve', 'sacrifice', 'undecided'] as const;
export type Act = (typeof ACTS)[number];
export type Hand = 'cw' | 'ccw';
export type Start = 'over' | 'under';

export interface Station {
  x: number;
  y: number;
  z: number;
  d: number;
}

export interface Root {
  bearing: number;
  length: number;
  d: number;
}

export interface Branch {
  id: string;
  name?: string;
  parent: string;
  /** mm along the parent from its base. */
  at: number;
  bearing: number;
  elevation: number;
  length: number;
  d: number;
  tipD: number;
  path?: Vec[];
  bareTo: number;
  green: number;
  state: BranchState;
  stage: 'shoot' | 'wood';
  backBuds: boolean;
}

export interface Feature {
  kind: string;
  bearing: number;
  z: [number, number];
  good: boolean;
  weight: number;
}

export interface Decision {
  branch: string;
  act: Act;
  stub?: string | null;
  why?: string;
  session?: number | null;
  until?: string | null;
}

export interface Bend {
  at: number;
  angle: number;
  toward: { bearing: number; elevation: number };
  over: number;
}

export interface Pose {
  branch: string;
  bearing: number;
  elevation: number;
  bends: Bend[];
}

export interface RunBranch {
  branch: string;
  hand: Hand;
  start: Start;
}

export interface Run {
  id: string;
  metal: MetalName;
  size: number;
  strands: number;
  angle: number;
  branches: RunBranch[];
}

export interface Guy {
  id: string;
  branch: string;
  at: number;
  anchor: { kind: string; index?: number };
  wire: number;
  cushion?: { kind: string; width: number };
}

export const SEASON_STAGES = ['dormant', 'buds-swelling', 'leafing-out', 'soft', 'hardened', 'colouring'] as const;
export type SeasonStage = (typeof SEASON_STAGES)[number];

/** What the artist saw of a tree's strength, and how far its year is; it goes before the calendar. */
export interface ReadingNotes {
  on: string;
  signs: string[];
  season: SeasonStage | null;
}

export interface TreePlan {
  front?: View | null;
  /** Fronts kept open beside the chosen one. */
  pinned?: View[];
  reading?: ReadingNotes;
  decisions: Decision[];
  poses: Pose[];
  runs: Run[];
  guys: Guy[];
}

export const RECORD_KINDS = [
  'wired',
  'bent',
  'guyed',
  'pushed',
  'measured',
  'inspected',
  'cut',
  'unwired',
  'removed',
  'shortened',
  'repotted',
  'fed',
  'styled',
  'note',
  'photo',
  'hours',
  'withdrawn',
] as const;
export type RecordKind = (typeof RECORD_KINDS)[number];

/** One line of the record: what was done or seen on a day. Lines are only ever added; see `corrects`. */
export interface RecordEntry {
  id?: string;
  on: string;
  kind: RecordKind;
  run?: string;
  branch?: string;
  /** Id of an earlier line that this one replaces (or, with kind "withdrawn", takes back). */
  corrects?: string;
  metal?: MetalName;
  size?: number;
  strands?: number;
  angle?: number;
  hand?: Hand;
  start?: Start;
  gap?: number;
  wrap?: Wrap;
  /** Angle the branch was bent to by hand, over a length of `over` mm; degrees. */
  bentDeg?: number;
  /** Angle wanted in the end; degrees. */
  targetDeg?: number;
  over?: number;
  stage?: MarkStage;
  method?: string;
  heldDeg?: number;
  text?: string;
  [extra: string]: unknown;
}

export interface Pot {
  shape: 'oval' | 'round' | 'rectangle';
  width: number;
  depth: number;
  height: number;
  holes?: { bearing: number; radius: number }[];
}

/** The parts of a tree that measuring changes. */
export const MEASURED = [
  'name',
  'species',
  'vigour',
  'styledOn',
  'repottedOn',
  'collectedOn',
  'site',
  'pot',
  'trunk',
  'roots',
  'branches',
  'features',
] as const;
export type Measured = Pick<Tree, (typeof MEASURED)[number]>;

/** A measured tree with its plan and record: the tree file's content (docs/tree-file.md). */
export interface Tree {
  format: 'ustle-tree';
  version: 1;
  name: string;
  species: string;
  styledOn?: string | null;
  repottedOn?: string | null;
  collectedOn?: string | null;
  vigour: Vigour;
  site: { hemisphere: Hemisphere };
  pot: Pot;
  trunk: Station[];
  roots: Root[];
  branches: Branch[];
  features: Feature[];
  plan: TreePlan;
  record: RecordEntry[];
}
