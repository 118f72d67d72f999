import type { Static } from '@sinclair/typebox';
import type { Vec } from '../space/index.js';
import { bearing, day, degrees, elevation, figure, id, list, mm, tuple, oneOf, optional, orNull, part, share, words, yesNo } from './describe.js';
import { KEPT_SIGHT } from './sight-fields.js';

export const VIGOURS = ['weak', 'normal', 'strong', 'free', 'refined'] as const;
export type Vigour = (typeof VIGOURS)[number];
export const BRANCH_STATES = ['dead', 'blind', 'weak', 'normal', 'strong'] as const;
export type BranchState = (typeof BRANCH_STATES)[number];
/** A green shoot of this season, or wood. */
export const MATURITIES = ['shoot', 'wood'] as const;
export type Maturity = (typeof MATURITIES)[number];
export const POT_SHAPES = ['oval', 'round', 'rectangle'] as const;

const POINT = tuple<Vec>(3, mm(-5000, 5000, 'coordinate'), 'x, y, z from the shoulder');

export const STATION = part(
  {
    x: mm(-5000, 5000, 'towards bearing 90'),
    y: mm(-5000, 5000, 'towards bearing 0'),
    z: mm(-3000, 5000, 'height above the soil'),
    d: mm(0.5, 1000, 'thickness of the trunk there', 0.1),
  },
  'a place on the trunk’s middle line',
);
export type Station = Static<typeof STATION>;

export const ROOT = part(
  { bearing: bearing('where it runs to'), length: mm(1, 2000, 'how far it shows'), d: mm(0.5, 500, 'thickness at the trunk', 0.1) },
  'a surface root',
);
export type Root = Static<typeof ROOT>;

/** A tree of more is none that a hand works branch by branch; of so many a plan takes seconds. */
export const MOST_BRANCHES = 2000;

/** Words that name other things than branches. */
export const RESERVED_IDS: readonly string[] = ['trunk', 'pot', 'plumb'];

/** How a thing came to be known, the surest first. */
export const KNOWN_BY = ['ruler', 'photographs', 'drawn', 'guessed'] as const;
export type KnownBy = (typeof KNOWN_BY)[number];

/** How well a branch, or the trunk, is known; what is left out is as usual for how. */
export const KNOWN_AS = part(
  {
    how: oneOf(KNOWN_BY, 'by ruler, caliper or scan; from photographs; drawn by eye; or guessed'),
    d: optional(mm(0, 400, 'spread of its thickness', 0.1)),
    deg: optional(degrees(0, 90, 'spread of its slope and bearing')),
    length: optional(mm(0, 4000, 'spread of its length')),
  },
  'how well it is known',
);
export type KnownAs = Static<typeof KNOWN_AS>;

export const BRANCH = part(
  {
    id: id('how the file names it; not "trunk" or "pot"'),
    name: optional(words(80, 'what its owner calls it, if not by its place')),
    parent: id('"trunk", or the branch that it grows on'),
    at: mm(0, 6000, 'how far along its parent it leaves, from the parent’s base'),
    bearing: bearing('where it points to'),
    elevation: elevation('its slope; above the horizontal is positive'),
    length: mm(1, 4000, 'length'),
    d: mm(0.3, 400, 'thickness at the shoulder', 0.1),
    measuredOn: optional(day('the day on which its thickness was measured')),
    tipD: mm(0.1, 400, 'thickness at the tip', 0.1),
    path: optional(list(POINT, 400, 'points of a crooked branch, the first 0, 0, 0; instead of bearing, elevation and length', 2)),
    bareTo: share('part of the length, from the shoulder, without foliage'),
    green: share('of the tree’s foliage on it, what grows on its own sub-branches not counted'),
    state: oneOf(BRANCH_STATES, 'how it is'),
    stage: oneOf(MATURITIES, 'green shoot or wood'),
    backBuds: yesNo('buds show on its older wood'),
    known: optional(KNOWN_AS),
  },
  'a branch',
);
export type Branch = Static<typeof BRANCH>;

export const FEATURE = part(
  {
    kind: words(60, 'what it is, such as shari, live vein, saw scar', 1),
    bearing: bearing('the side of the trunk that it is on'),
    z: tuple<[number, number]>(2, mm(-3000, 5000, 'height'), 'from and to which height'),
    good: yesNo('to be shown; else it is a fault to be hidden'),
    weight: figure(0, 10, '', 'how much it counts', 0.5),
  },
  'something on the trunk worth showing or hiding',
);
export type Feature = Static<typeof FEATURE>;

export const POT = part(
  {
    shape: oneOf(POT_SHAPES, 'as seen from above'),
    width: mm(20, 3000, 'along bearings 90 and 270'),
    depth: mm(20, 3000, 'along bearings 0 and 180'),
    height: mm(5, 1500, 'height'),
    holes: optional(list(part({ bearing: bearing('where it lies'), radius: mm(0, 1500, 'from the middle') }, 'a hole'), 40, 'drainage holes')),
  },
  'the pot',
);
export type Pot = Static<typeof POT>;

export const HEMISPHERES = ['north', 'south'] as const;
export const SITE = part({ hemisphere: oneOf(HEMISPHERES, 'half of the earth') }, 'where it stands');

/** The parts of a tree that measuring changes. */
export const MEASURES = {
  name: words(120, 'the tree’s name', 1),
  species: words(60, 'key of the species, as "ustle species" lists them', 1),
  styledOn: optional(orNull(day('day of the last heavy work'))),
  repottedOn: optional(orNull(day('day of the last repotting'))),
  collectedOn: optional(orNull(day('day it was collected'))),
  vigour: oneOf(VIGOURS, 'strength of growth; free: growing freely and fed; refined: kept pruned'),
  site: SITE,
  pot: POT,
  trunk: list(STATION, 400, 'the trunk’s middle line, base to apex', 2),
  trunkKnown: optional(KNOWN_AS),
  roots: list(ROOT, 200, 'surface roots'),
  branches: list(BRANCH, MOST_BRANCHES, 'branches of every order'),
  features: list(FEATURE, 200, 'features of the trunk'),
  sight: optional(orNull(KEPT_SIGHT)),
  client: optional(orNull(words(120, 'whom it belongs to, where it is not the studio’s own: nothing is cut before they agree'))),
};
