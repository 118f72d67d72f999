import type { Static } from '@sinclair/typebox';
import { DEEDS_TO_AGREE } from './deeds-to-agree.js';
import { LET_GO } from './let-go.js';
import { BRANCH, MOST_BRANCHES, STATION } from './measures.js';
import { BEND, DEVICE_KINDS, STUBS, WINDING_FIELDS, WIRE_FIELDS } from './plan-parts.js';
import { bearing, byTag, day, degrees, elevation, figure, id, list, mm, oneOf, optional, part, share, whole, words, yesNo } from './describe.js';

export const WRAPS = ['none', 'raffia', 'tape'] as const;
export type Wrap = (typeof WRAPS)[number];
/** How far the bark has grown round a wire. */
export const MARK_STAGES = ['clear', 'touching', 'marking', 'deep', 'swallowed'] as const;
export type MarkStage = (typeof MARK_STAGES)[number];
export const UNWIRE_METHODS = ['cut', 'unwound'] as const;
export type UnwireMethod = (typeof UNWIRE_METHODS)[number];

export const ANCHORS = ['good', 'slipping'] as const;
export type Anchor = (typeof ANCHORS)[number];

export const TIE_ACTS = ['placed', 'twisted', 'loosened', 'looked', 'removed'] as const;
/** What is done with a tie. */
export type TieAct = (typeof TIE_ACTS)[number];

export const SOUNDS = ['none', 'bark', 'fibre'] as const;
export type Sound = (typeof SOUNDS)[number];
export const CRACKS = ['none', 'along', 'across'] as const;
export type Crack = (typeof CRACKS)[number];

/** The parts of a session of work that an artist may choose to do or to leave. */
export const WORK_PARTS = ['cuts', 'wire', 'bends', 'ties', 'finish'] as const;
export type WorkPart = (typeof WORK_PARTS)[number];
/** How a step of a session went. The last two leave it open: other wire was taken, or the plan was changed. */
export const STEP_ANSWERS = ['done', 'otherwise', 'skipped', 'cracked', 'ran-out', 'changed'] as const;
export type StepAnswer = (typeof STEP_ANSWERS)[number];
export const PROMISES = ['repot', 'graft', 'reserve', 'deadwood', 'styling', 'feed', 'other'] as const;
/** What is promised to a tree for later. */
export type PromiseKind = (typeof PROMISES)[number];
/** A photo is at most so large when it is taken in. */
export const LARGEST_PHOTO_BYTES = 25 * 1024 * 1024;
export const PHOTO_TIMES = ['before', 'during', 'after', 'measuring'] as const;

const ABOUT_BRANCH = { branch: id('which branch') };
const BY = optional(words(80, 'who did it'));
const SESSION_ID = id('which session of work');
const ABOUT_COIL = { ...ABOUT_BRANCH, run: optional(id('which run')) };
const WAS = optional(list(BRANCH, MOST_BRANCHES, 'the branch and all that went with it, as they were'));
const GREEN = optional(share('of the tree’s green that came off'));
const CALLED = optional(words(160, 'what it was called by its place'));

/** A coil as it was put on: the wire, how it lies, and the bend made with it. */
export const WIRED_FIELDS = {
  metal: optional(WIRE_FIELDS.metal),
  size: optional(WIRE_FIELDS.size),
  strands: optional(WIRE_FIELDS.strands),
  angle: optional(WIRE_FIELDS.angle),
  hand: optional(WINDING_FIELDS.hand),
  start: optional(WINDING_FIELDS.start),
  gap: optional(mm(0, 20, 'between wire and bark; 0 is snug', 0.1)),
  wrap: optional(oneOf(WRAPS, 'what is under it')),
  bentDeg: optional(degrees(0, 270, 'angle that the hand bent it to')),
  targetDeg: optional(degrees(0, 270, 'angle wanted in the end')),
  over: optional(mm(1, 4000, 'length of branch that the bend is spread over')),
  at: optional(mm(0, 4000, 'where the bend begins, from the shoulder')),
  toward: optional(BEND.properties.toward),
  turns: optional(figure(0.1, 500, 'turns', 'turns on it', 0.1)),
  anchor: optional(oneOf(ANCHORS, 'how its other half holds')),
  length: optional(mm(1, 100000, 'wire that the whole piece took; said once for a piece')),
  roll: optional(id('the roll that it was cut from')),
};

/** Bends of a branch or the trunk as they were made: to which angle by hand, and which way in the tree's own space. */
const MADE_BEND = part(
  {
    at: BEND.properties.at,
    over: BEND.properties.over,
    bentDeg: degrees(0, 270, 'angle that the hand bent it to'),
    targetDeg: WIRED_FIELDS.targetDeg,
    toward: BEND.properties.toward,
  },
  'a bend as it was made',
);
const MOST_BENDS = 20;

const MISSING = optional(whole(0, 200, 'pieces', 'pieces that are not found yet, and may still be in the bark'));

/** Wood that went: how it was, and what is left. */
const WOOD_OFF = {
  ...ABOUT_BRANCH,
  was: WAS,
  planned: optional(LET_GO),
  green: GREEN,
  length: optional(mm(0, 4000, 'what is left')),
  tag: optional(whole(1, 9999, '', 'its number on the list of cuts')),
  called: CALLED,
};

/** What can stand in the record, each kind with the fields of its own: done or seen, on a day. */
export const LINE_FIELDS = {
  wired: { ...ABOUT_COIL, ...WIRED_FIELDS },
  bent: {
    ...ABOUT_BRANCH,
    bentDeg: WIRED_FIELDS.bentDeg,
    targetDeg: WIRED_FIELDS.targetDeg,
    over: WIRED_FIELDS.over,
    at: WIRED_FIELDS.at,
    toward: WIRED_FIELDS.toward,
    stage: optional(whole(1, 12, 'stages', 'which stage of the bend')),
    sound: optional(oneOf(SOUNDS, 'what was heard: nothing, bark, or fibre')),
    crack: optional(oneOf(CRACKS, 'a crack: none, along the fibre, or across it')),
    next: optional(day('the day from which the next stage may be made')),
  },
  placed: {
    ...ABOUT_BRANCH,
    bends: list(MADE_BEND, MOST_BENDS, 'what was bent as it was placed; what was bent before in stages is not told again'),
    bearing: optional(bearing('where its tip was to go, in the world')),
    elevation: optional(elevation('how steep it was to lie, in the world')),
  },
  guyed: {
    ...ABOUT_BRANCH,
    guy: optional(id('which tie, or which device')),
    device: optional(oneOf(DEVICE_KINDS, 'where it is no tie: what it is')),
    done: optional(oneOf(TIE_ACTS, 'put on, twisted shorter, let out a little, looked at, or taken off')),
    twists: optional(figure(0, 200, 'twists', 'by how many', 0.5)),
    tension: optional(figure(0, 5000, 'N', 'what it pulls with, as reckoned', 1)),
    cameDeg: optional(degrees(0, 180, 'how far the branch came')),
    length: optional(mm(1, 5000, 'from the tie point to the anchor, taut')),
    bends: optional(list(MADE_BEND, MOST_BENDS, 'how it leads its branch, as reckoned when it was drawn so far')),
    other: optional(part({ ...ABOUT_BRANCH, bends: list(MADE_BEND, MOST_BENDS, 'how it leads that') }, 'the other branch that a device moves')),
    bark: optional(oneOf(MARK_STAGES, 'how the bark is under its cushion')),
    backMm: optional(mm(0, 300, 'how far the wood went back when it came off', 0.5)),
    next: optional(day('the day from which its next stage may be made')),
  },
  pushed: {
    ...ABOUT_BRANCH,
    metal: WIRED_FIELDS.metal,
    size: WIRED_FIELDS.size,
    strands: WIRED_FIELDS.strands,
    gave: optional(oneOf(['branch', 'wire'], 'which of the two gave way')),
  },
  measured: {
    branch: optional(ABOUT_BRANCH.branch),
    d: optional(mm(0.3, 400, 'thickness at the shoulder', 0.1)),
    heldDeg: optional(degrees(-180, 270, 'angle it holds')),
    guy: optional(id('the tie or device that came off it, where it tells what is left of that')),
    backMm: optional(mm(0, 300, 'how far it went back since that came off', 0.5)),
    was: WAS,
    trunkWas: optional(list(STATION, 400, 'the trunk’s middle line as it was measured before', 2)),
  },
  inspected: { ...ABOUT_COIL, stage: oneOf(MARK_STAGES, 'how far the bark has grown round the wire'), gap: WIRED_FIELDS.gap },
  cut: {
    ...ABOUT_COIL,
    pieces: optional(whole(1, 1000, 'pieces', 'pieces of wire that were cut out')),
    left: optional(figure(0, 500, 'turns', 'turns that are left on it', 0.5)),
    missing: MISSING,
  },
  snoozed: { ...ABOUT_COIL, until: day('the day to which the next look is put off') },
  unwired: {
    ...ABOUT_COIL,
    method: optional(oneOf(UNWIRE_METHODS, 'how it came off')),
    heldDeg: optional(degrees(-180, 270, 'angle that the branch held')),
    pieces: optional(whole(1, 1000, 'pieces', 'pieces taken off')),
    missing: MISSING,
  },
  removed: { ...WOOD_OFF, unlisted: optional(yesNo('taken out of the measures, not cut')) },
  shortened: { ...WOOD_OFF, stub: optional(oneOf(STUBS, 'cut to a stub: what it is for')) },
  session: {
    session: SESSION_ID,
    done: oneOf(['begun', 'closed'], 'begun, or closed'),
    by: BY,
    hours: optional(figure(0.25, 24, 'hours', 'time that there is for it', 0.25)),
    parts: optional(list(oneOf(WORK_PARTS, 'a part of the work'), WORK_PARTS.length, 'what of the work is done in it')),
    holds: optional(list(id('a branch'), MOST_BRANCHES, 'the branches that it works on')),
    leaves: optional(list(id('a branch'), MOST_BRANCHES, 'branches left for another session')),
    weather: optional(words(120, 'the weather')),
  },
  worked: {
    branch: optional(ABOUT_BRANCH.branch),
    session: SESSION_ID,
    step: words(160, 'which step of it', 1),
    answer: oneOf(STEP_ANSWERS, 'how it went'),
    as: optional(words(160, 'what was asked for when it was answered: asked otherwise, the step is open again')),
    title: optional(words(240, 'the step in words')),
    minutes: optional(figure(0, 1440, 'minutes', 'time that it took', 0.5)),
    reckoned: optional(figure(0, 1440, 'minutes', 'time that it was reckoned to take', 0.5)),
    by: BY,
  },
  promised: {
    branch: optional(ABOUT_BRANCH.branch),
    what: oneOf(PROMISES, 'what is promised'),
    from: optional(day('the day from which it may be done')),
    until: optional(day('the day by which it should be done')),
  },
  fulfilled: { promise: id('the line that promised it'), how: oneOf(['done', 'let-go'], 'done, or let go of') },
  agreed: {
    by: words(120, 'who agreed for a client’s tree', 1),
    branches: list(id('a branch'), MOST_BRANCHES, 'to the cutting of which branches'),
    cuts: optional(
      list(
        part({ ...ABOUT_BRANCH, as: words(160, 'what is cut, and how much', 1) }, 'a cut as it was agreed to'),
        MOST_BRANCHES,
        'each cut as it was decided then',
      ),
    ),
    to: optional(list(oneOf(DEEDS_TO_AGREE, 'what else cannot be undone'), DEEDS_TO_AGREE.length, 'to what else')),
  },
  repotted: { branch: optional(ABOUT_BRANCH.branch) },
  fed: { branch: optional(ABOUT_BRANCH.branch) },
  styled: { branch: optional(ABOUT_BRANCH.branch) },
  pruned: { branch: optional(ABOUT_BRANCH.branch) },
  defoliated: { branch: optional(ABOUT_BRANCH.branch) },
  ailing: { branch: optional(ABOUT_BRANCH.branch), weeks: optional(whole(1, 104, 'weeks', 'for how long')) },
  note: { branch: optional(ABOUT_BRANCH.branch) },
  photo: {
    branch: optional(ABOUT_BRANCH.branch),
    photo: optional(id('the picture, as it is stored')),
    when: optional(oneOf(PHOTO_TIMES, 'before the work, during it, after it, or to measure by')),
    bearing: optional(bearing('from where it was taken')),
    width: optional(whole(1, 20000, 'pixels', 'of the picture')),
    height: optional(whole(1, 20000, 'pixels', 'of the picture')),
    by: BY,
  },
  hours: { branch: optional(ABOUT_BRANCH.branch), hours: optional(figure(0, 1000, 'hours', 'time that it took', 0.25)), by: BY },
  withdrawn: { corrects: id('the line that is taken back') },
};
export type LineKind = keyof typeof LINE_FIELDS;
export const LINE_KINDS = Object.keys(LINE_FIELDS) as LineKind[];

export const LINE_COMMON = {
  id: optional(id('given when it is stored')),
  on: day('the day it was done or seen'),
  text: optional(words(5000, 'a remark')),
  who: optional(words(80, 'who did or saw it, as the device knew')),
  corrects: optional(id('an earlier line that this one replaces')),
  again: optional(id('an earlier line, taken back meanwhile, that this one says again')),
};

/** A line of the record: lines are only ever added; see `corrects`. */
export const LINE = byTag('kind', LINE_COMMON, LINE_FIELDS, 'a line of the record');
export type RecordLine = Static<typeof LINE>;
export type LineOf<K extends LineKind> = Extract<RecordLine, { kind: K }>;

/** The branch that a line is about, where it is about one. */
export const branchIn = (line: RecordLine): string | undefined => ('branch' in line ? line.branch : undefined);
