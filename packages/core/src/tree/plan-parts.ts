import { Type, type Static, type TObject } from '@sinclair/typebox';
import { HABITS } from '../species/index.js';
import { METALS } from '../wood/index.js';
import { MOST_BRANCHES } from './measures.js';
import { bearing, byTag, day, degrees, elevation, figure, id, list, mm, tuple, oneOf, optional, orNull, part, share, whole, words, yesNo } from './describe.js';

export const HANDS = ['cw', 'ccw'] as const;
export type Hand = (typeof HANDS)[number];
export const STARTS = ['over', 'under'] as const;
export type Start = (typeof STARTS)[number];

export const VIEW = part(
  {
    bearing: bearing('where the viewer stands'),
    pitch: degrees(-45, 45, 'leans the tree to the viewer'),
    roll: degrees(-45, 45, 'leans it to the viewer’s right'),
  },
  'a front with its planting angle',
);

export const STUBS = ['jin', 'anchor'] as const;
export type Stub = (typeof STUBS)[number];

const STUB = oneOf(STUBS, 'what a stub is for: deadwood, or something to tie to');
const LEFT = mm(1, 4000, 'what is left of the branch, from its shoulder');
const UNTIL = day('the day it comes back as a task');

/** What may be decided of a branch, with what goes along with each. */
const FATES = {
  keep: {},
  remove: { until: optional(orNull(UNTIL)) },
  shorten: {
    length: optional(orNull(LEFT)),
    toShoot: optional(orNull(id('the side shoot that it is shortened to'))),
    until: optional(orNull(UNTIL)),
  },
  stub: { stub: optional(orNull(STUB)), length: optional(orNull(LEFT)), until: optional(orNull(UNTIL)) },
  reserve: { until: optional(orNull(UNTIL)), untilSet: optional(orNull(id('the branch whose bend has to set first'))) },
  sacrifice: { until: optional(orNull(UNTIL)), untilD: optional(orNull(mm(1, 600, 'thickness of its parent there to wait for', 0.1))) },
  undecided: {},
};
export type Fate = keyof typeof FATES;
export const FATE_NAMES = Object.keys(FATES) as Fate[];

const DECISION_COMMON = {
  branch: id('which branch'),
  why: optional(words(1000, 'the reason')),
  session: optional(orNull(whole(1, 20, 'sessions', '1 or missing: this session; 2 and on: a later one'))),
  tag: optional(whole(1, 9999, '', 'its number on the list of cuts, once the first of it is cut')),
};
export const DECISION = byTag('act', DECISION_COMMON, FATES, 'what becomes of a branch');
export type Decision = Static<typeof DECISION>;

/** The details that a decision may carry, whatever it is; one that is null is taken back. */
export const DECISION_DETAILS = {
  why: DECISION_COMMON.why,
  session: DECISION_COMMON.session,
  until: FATES.remove.until,
  length: FATES.shorten.length,
  toShoot: FATES.shorten.toShoot,
  stub: FATES.stub.stub,
  untilSet: FATES.reserve.untilSet,
  untilD: FATES.sacrifice.untilD,
};
export type DecisionDetails = Static<TObject<typeof DECISION_DETAILS>>;
/** Which details go with a fate. */
export const detailsOf = (fate: Fate): string[] => ['why', 'session', ...Object.keys(FATES[fate])];

export const BEND = part(
  {
    at: mm(0, 4000, 'where it begins, from the shoulder along the branch'),
    angle: degrees(0.1, 270, 'how far the branch is turned in it'),
    toward: part({ bearing: bearing('bearing'), elevation: elevation('elevation') }, 'where it is turned to'),
    over: mm(1, 4000, 'length of branch that it is spread over'),
  },
  'one bend of a branch',
);
export type Bend = Static<typeof BEND>;

/** How a branch is made shorter: in so many equal arcs, in one plane or in two. */
const COMPACT = {
  reach: optional(orNull(mm(5, 4000, 'from shoulder to tip, once it is made shorter'))),
  arcs: optional(orNull(whole(1, 12, 'arcs', 'equal arcs that make it shorter'))),
  planes: optional(orNull(whole(1, 2, 'planes', 'the arcs lie in one plane, or in two'))),
};
export const POSE_FIELDS = {
  branch: id('which branch'),
  bearing: bearing('of the straight line from shoulder to tip, once it is bent; after the planting angle'),
  elevation: elevation('of that line'),
  stays: optional(yesNo('it is left as it grows, carried along by what it grows on')),
  reached: optional(yesNo('it was bent there and its wire came off: where it lies near that, it is left')),
  ...COMPACT,
  bends: list(BEND, 50, 'its bends, from the shoulder; proposed where there are none'),
};
export const POSE = part(POSE_FIELDS, 'where a branch shall go');
export type Pose = Static<typeof POSE>;

export const POSE_MOVEMENTS = ['calm', 'moderate', 'lively'] as const;
/** How much a branch turns on its way. */
export type PoseMovement = (typeof POSE_MOVEMENTS)[number];

const SLOPE_POINT = part({ height: share('of the tree’s height'), slope: elevation('slope wanted there') }, 'a point of the curve');
/** How the branches of a tree are posed, where its artist has said. */
export const POSING = {
  habit: optional(orNull(oneOf(HABITS, 'down and out, level, or up and out'))),
  curve: optional(orNull(list(SLOPE_POINT, 12, 'the artist’s own slopes by height; before the habit', 1))),
  movement: optional(oneOf(POSE_MOVEMENTS, 'how much branches turn on their way')),
};
export type PosingChoice = Static<TObject<typeof POSING>>;

export const WORSENINGS = ['wound', 'dry', 'frozen', 'bent-before', 'bark-in-crotch'] as const;
/** What makes the wood of a branch worse to bend. */
export type Worsening = (typeof WORSENINGS)[number];
export const WORSE_WOOD = part(
  {
    branch: id('which branch'),
    what: list(oneOf(WORSENINGS, 'an old wound outside the bend, dry or frozen wood, bent the other way before, bark in the crotch'), 5, 'what makes it worse'),
  },
  'wood that bears less than its kind',
);

export const TRUNK_WAYS = ['gentle-s', 'slanting', 'half-cascade', 'cascade'] as const;
/** What a trunk may be bent into, in place of cutting it. */
export type TrunkWay = (typeof TRUNK_WAYS)[number];

/** A wire as it is wound: said of a planned run, and of one that was put on. */
export const WIRE_FIELDS = {
  metal: oneOf(METALS, 'metal'),
  size: mm(0.3, 12, 'thickness of the wire', 0.1),
  strands: whole(1, 6, 'wires', 'wires side by side'),
  angle: degrees(20, 80, 'between wire and branch'),
};
export const WINDING_FIELDS = {
  hand: oneOf(HANDS, 'clockwise or counter-clockwise, seen from the parent along the branch'),
  start: oneOf(STARTS, 'over the shoulder, or from beneath it'),
};
export const ROUTE_SIDES = ['behind', 'front'] as const;
export type RouteSide = (typeof ROUTE_SIDES)[number];

export const RUN = part(
  {
    id: id('how the file names it'),
    ...WIRE_FIELDS,
    branches: list(part({ branch: id('which branch'), ...WINDING_FIELDS }, 'a branch of a run'), 10, 'the branches that it is wound on', 1),
    side: optional(oneOf(ROUTE_SIDES, 'round which side of the limb it goes, as seen from the front')),
    length: optional(mm(1, 100000, 'length of the piece, as it was planned when it was settled')),
  },
  'one piece of wire',
);
export type Run = Static<typeof RUN>;
export type RunBranch = Run['branches'][number];

const ANCHOR = part(
  {
    kind: words(40, 'what it is tied to, such as pot-hole, root, jin, trunk, branch', 1),
    index: optional(whole(0, 200, '', 'which hole or root, counted from 0')),
    branch: optional(id('the branch that it is tied to')),
    at: optional(mm(0, 5000, 'how far along the trunk or that branch')),
    bearing: optional(bearing('on which side of the trunk, or of the rim')),
  },
  'the anchor',
);

export const GUY = part(
  {
    id: id('how the file names it'),
    branch: id('which branch'),
    at: mm(0, 4000, 'where it is tied, from the shoulder along the branch'),
    anchor: ANCHOR,
    wire: mm(0.3, 12, 'thickness of the tie', 0.1),
    cushion: optional(part({ kind: words(40, 'tube, mesh, …'), width: optional(mm(1, 200, 'width along the branch')) }, 'what keeps the tie off the bark')),
  },
  'a tie',
);
export type Guy = Static<typeof GUY>;

export const DEVICE_KINDS = ['spreader', 'spacer', 'prop', 'bar', 'stays', 'jack', 'clamp', 'frame'] as const;
/** What moves or holds wood that no coil and no tie would: see docs/how-it-computes.md, Devices. */
export type DeviceKind = (typeof DEVICE_KINDS)[number];

/** What leads a trunk to a way, the gentlest first. */
export const TRUNK_LEADS = ['stays', 'jack', 'frame'] as const satisfies readonly DeviceKind[];
export const isTrunkLead = (kind: DeviceKind): kind is (typeof TRUNK_LEADS)[number] => (TRUNK_LEADS as readonly DeviceKind[]).includes(kind);

export const DEVICE = part(
  {
    id: id('how the file names it'),
    kind: oneOf(DEVICE_KINDS, 'what it is'),
    branch: id('what it acts on: a branch, or trunk'),
    at: mm(0, 5000, 'where on it, from the shoulder or the soil'),
    other: optional(part({ branch: id('a branch, or trunk'), at: mm(0, 5000, 'where on that') }, 'its other end: of a spreader, a spacer, a bar')),
    anchor: optional(ANCHOR),
    bearing: optional(bearing('which way a clamp pushes, or a frame or two stays draw')),
    span: optional(mm(20, 1500, 'from hook to hook of a clamp')),
    by: mm(0.5, 300, 'how far it moves the wood there', 0.5),
    pitch: optional(mm(0.2, 6, 'travel for each turn of a screw', 0.05)),
  },
  'a device that spreads, props, presses or holds',
);
export type Device = Static<typeof DEVICE>;

export const SEASON_STAGES = ['dormant', 'buds-swelling', 'leafing-out', 'soft', 'hardened', 'colouring'] as const;
export type SeasonStage = (typeof SEASON_STAGES)[number];

/** What the artist saw of a tree's strength, and how far its year is; it goes before the calendar. */
export const READING = part(
  {
    on: day('day it was seen'),
    signs: list(words(40, 'a sign'), 30, 'signs of strength and weakness'),
    season: orNull(oneOf(SEASON_STAGES, 'how far the year is, as seen on the tree')),
  },
  'what was seen of its strength',
);
export type ReadingNotes = Static<typeof READING>;

/** Which rules apply to a tree, and with what limits: a named profile and what is changed of it. */
export const REMOVAL = part(
  {
    profile: words(60, 'name of the set of rules'),
    limits: Type.Record(Type.String(), Type.Number(), { description: 'limits that differ from the profile’s' }),
    rules: Type.Record(Type.String(), Type.Boolean(), { description: 'rules switched on or off against the profile' }),
  },
  'the rules that look at it',
);
export type RemovalChoice = Static<typeof REMOVAL>;

export const TOLERANCES = ['none', 'fading'] as const;
/** Marks that a tree bears: none at all, or shallow ones that grow out. */
export type Tolerance = (typeof TOLERANCES)[number];
export const FIRMNESSES = ['firm', 'usual', 'light'] as const;
/** How little the hand has to bend past where the wire holds: a firm wire springs back least. */
export type Firmness = (typeof FIRMNESSES)[number];

/** How a tree is wired, where its artist has said. */
export const MANNER = {
  firmness: optional(oneOf(FIRMNESSES, 'how firm its wire is')),
  metal: optional(orNull(oneOf(METALS, 'metal of its wire; by its kind where null'))),
  tolerance: optional(oneOf(TOLERANCES, 'marks that it bears: none, or shallow ones that grow out')),
  pace: optional(orNull(figure(0.2, 5, 'times', 'how fast it thickens, in times the usual of its kind and vigour; by what was seen where null', 0.05))),
  learnFrom: optional(orNull(day('what was seen before that day teaches nothing'))),
};

/** How one branch is wired, where that differs from its tree. */
export const WIRING_MANNER = part(
  {
    branch: id('which branch'),
    metal: optional(oneOf(METALS, 'metal of its wire')),
    firmness: optional(oneOf(FIRMNESSES, 'how firm its wire is')),
    clip: optional(yesNo('it is shaped by cutting as it grows, without wire')),
    past: optional(figure(0, 0.25, 'share', 'how far past its target its bends are left to settle', 0.05)),
  },
  'how one branch is wired',
);
export type WiringManner = Static<typeof WIRING_MANNER>;

/** The list of cuts that is being worked at the tree: its numbers stay as they were taken along. */
export const CUTTING_LIST = part(
  {
    numbers: whole(1, 9999, '', 'the highest number on it'),
    since: whole(0, 1000000, 'lines', 'lines of the record before the first of it was cut'),
  },
  'the list of cuts being worked',
);

/** The most of each that a plan holds; acts, files and screens keep to the same. */
export const MOST_PINNED = 12;
export const MOST_PAIRS = 200;

export const PLAN_FIELDS = {
  ...MANNER,
  front: optional(orNull(VIEW)),
  pinned: optional(list(VIEW, MOST_PINNED, 'fronts kept open beside the chosen one')),
  reading: optional(READING),
  removal: optional(REMOVAL),
  either: optional(list(tuple<[string, string]>(2, id('a branch'), 'two branches'), MOST_PAIRS, 'pairs of branches of which one goes')),
  cutting: optional(CUTTING_LIST),
  posing: optional(part(POSING, 'how its branches are posed')),
  trunkWay: optional(orNull(oneOf(TRUNK_WAYS, 'what the trunk is bent into'))),
  worse: optional(list(WORSE_WOOD, MOST_BRANCHES, 'branches whose wood bears less than its kind; one entry for a branch at most')),
  aside: optional(list(POSE, MOST_BRANCHES, 'other poses, kept to compare; one for a branch at most')),
  decisions: list(DECISION, MOST_BRANCHES, 'what becomes of branches; one for a branch at most'),
  poses: list(POSE, MOST_BRANCHES, 'where branches shall go'),
  runs: list(RUN, MOST_BRANCHES, 'pieces of wire'),
  wiring: optional(list(WIRING_MANNER, MOST_BRANCHES, 'branches that are wired otherwise than their tree; one entry for a branch at most')),
  guys: list(GUY, 1000, 'ties'),
  devices: optional(list(DEVICE, 200, 'spreaders, props, jacks, clamps and frames')),
};
/** The plan as the program holds it; in a file its lists may be left out and are then empty. */
export type TreePlan = Static<TObject<typeof PLAN_FIELDS>>;
export const PLAN_LISTS = ['decisions', 'poses', 'runs', 'guys'] as const;
