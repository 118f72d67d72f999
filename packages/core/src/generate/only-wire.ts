import { clamp, greatestOf } from '../units/index.js';
import { blankTree, type Branch, type LineOf, type Tree } from '../tree/index.js';
import type { MetalName } from '../wood/index.js';

/** Where a branch is, as one stands before its tree. */
export const WIRED_SIDES = ['left', 'right', 'front', 'back'] as const;
export type WiredSide = (typeof WIRED_SIDES)[number];
export const WIRED_HEIGHTS = ['low', 'middle', 'high'] as const;
export type WiredHeight = (typeof WIRED_HEIGHTS)[number];
/** How far it was bent, by eye, and about how many degrees that is. */
export const BENT_BY_EYE = { little: 20, half: 45, far: 75 } as const;
export type BentByEye = keyof typeof BENT_BY_EYE;

/** A branch that has wire on, as much as one knows of it without measuring. */
export interface WiredRow {
  side: WiredSide;
  height: WiredHeight;
  /** Thickness by eye or caliper, mm. */
  d: number;
  metal: MetalName;
  size: number;
  /** ISO day on which it was put on. */
  since: string;
  /** Null: nobody knows. */
  bent: BentByEye | null;
}

/** As the tree is seen from bearing 0. */
const BEARINGS: Record<WiredSide, number> = { front: 0, left: 90, back: 180, right: 270 };
const SHARES: Record<WiredHeight, number> = { low: 0.28, middle: 0.52, high: 0.78 };
/** No two branches leave at one height: each side a little off, and what is beside another farther up and to its side. */
const OFF: Record<WiredSide, number> = { left: 0, right: 0.035, front: 0.07, back: 0.05 };
const STEP = { share: 0.06, bearing: 24 };
/** A trunk so much thicker than its thickest branch, and so many times as tall; a branch so many times as long as thick. Guesses. */
const TRUNK = { times: 3.2, least: 25, tall: 9 };
const LENGTH = { times: 18, least: 50, most: 0.6 };
const TAPER = 0.4;
const SLOPE = 12;
const GREEN = 0.7;
/** Whoever bends by eye bends a little farther than it shall stay. */
const KEPT = 0.8;
/** Thickness by eye is so far off, as a share. */
const BY_EYE = 0.12;

const tenth = (x: number): number => Math.round(x * 10) / 10;

/** A tree of which only its wire is known: guessed branches at the places told, and the wire as it went on. docs: Only its wire. */
export function treeFromWire(name: string, species: string, rows: readonly WiredRow[]): Tree {
  const base = Math.max(TRUNK.least, Math.round(TRUNK.times * greatestOf(rows.map((r) => r.d))));
  const tall = base * TRUNK.tall;
  const trunk = [0, 0.25, 0.5, 0.75, 1].map((share) => ({ x: 0, y: 0, z: Math.round(share * tall), d: tenth(base * (1 - 0.82 * share)) }));
  const beside = new Map<string, number>();
  const branches = rows.map((row, i): Branch => {
    const place = `${row.side} ${row.height}`;
    const before = beside.get(place) ?? 0;
    beside.set(place, before + 1);
    const share = Math.min(0.94, SHARES[row.height] + OFF[row.side] + STEP.share * before);
    const turn = before % 2 ? -STEP.bearing : STEP.bearing;
    return {
      id: `b${i + 1}`,
      parent: 'trunk',
      at: Math.round(share * tall),
      bearing: (BEARINGS[row.side] + (before ? turn : 0) + 360) % 360,
      elevation: SLOPE,
      length: Math.round(clamp(LENGTH.times * row.d, LENGTH.least, LENGTH.most * tall)),
      d: row.d,
      tipD: Math.max(0.1, tenth(TAPER * row.d)),
      bareTo: 0.35,
      green: Math.floor((1000 * GREEN) / rows.length) / 1000,
      state: 'normal',
      stage: 'wood',
      backBuds: true,
      known: { how: 'guessed', d: tenth(BY_EYE * row.d) },
    };
  });
  const record = rows.map((row, i): LineOf<'wired'> => ({
    kind: 'wired',
    on: row.since,
    run: `w${i + 1}`,
    branch: `b${i + 1}`,
    metal: row.metal,
    size: row.size,
    strands: 1,
    angle: 45,
    hand: 'cw',
    start: 'over',
    gap: 0,
    wrap: 'none',
    ...(row.bent ? { bentDeg: BENT_BY_EYE[row.bent], targetDeg: Math.round(KEPT * BENT_BY_EYE[row.bent]) } : {}),
  }));
  const pot = { ...blankTree(name, species).pot, width: Math.round(6.5 * base), depth: Math.round(4.8 * base), height: Math.round(1.4 * base) };
  const plan = { ...blankTree(name, species).plan, front: { bearing: 0, pitch: 0, roll: 0 } };
  return {
    ...blankTree(name, species),
    pot,
    trunk,
    trunkKnown: { how: 'guessed' },
    branches,
    plan,
    record: [...record].sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0)),
  };
}
