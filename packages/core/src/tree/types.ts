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

export const STUBS = ['jin', 'anchor'] as const;
export type Stub = (typeof STUBS)[number];

export interface Decision {
  branch: string;
  act: Act;
  /** What a stub is for: deadwood, or something to tie to. */
  stub?: Stub | null;
  /** What is left of a shortened branch or a stub, mm from its shoulder. */
  length?: number | null;
  /** The side shoot that a branch is shortened to. */
  toShoot?: string | null;
  why?: string;
  /** 1 or missing: this session; 2 and on: a later one. */
  session?: number | null;
  /** The day on which it comes back as a task: a reserve to be decided, or work left for a later session. */
  until?: string | null;
  /** Reserve: until the bend of this branch has set and the branch is alive. */
  untilSet?: string | null;
  /** Sacrifice: until its parent is this thick where it leaves, mm. */
  untilD?: number | null;
}

/** Which rules apply to a tree, and with what limits: a named profile and what is changed of it. */
export interface RemovalChoice {
  profile: string;
  limits: Record<string, number>;
  /** Rules switched on or off against the profile. */
  rules: Record<string, boolean>;
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
  removal?: RemovalChoice;
  /** Pairs of which one goes: which one is still open, or follows from the decision on the other. */
  either?: [string, string][];
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
  'agreed',
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
  /** removed, shortened: the branch and all that went with it, as they were; what is left of it, mm; its share of the green. */
  was?: Branch[];
  length?: number;
  green?: number;
  /** shortened to a stub: what for. */
  stub?: Stub;
  /** agreed: who agreed for a client's tree, and to the cutting of which branches. */
  by?: string;
  branches?: string[];
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
  'client',
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
  /** Whom it belongs to, where it is not the studio's own: nothing is cut before they agree. */
  client?: string | null;
  record: RecordEntry[];
}
