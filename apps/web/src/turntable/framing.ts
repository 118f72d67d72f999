import { greatestOf, leastOf, clamp, distance, toRad, type PlacedTree, type Vec } from '@ustle/core';

/** The camera's angle of view, bottom to top. */
export const FOV_DEG = 24;

/** A ring of points round the table's axis: radius and height, mm. */
export interface Ring {
  radius: number;
  z: number;
}

const BANDS = 10;

/** How far a tree reaches round its axis, in bands of height: what has to be in the picture from every bearing. */
export function reachOf(placed: PlacedTree): Ring[] {
  const limbs = [placed.trunk, ...placed.branches.map((b) => b.line)];
  const pads = [...placed.branches.map((b) => b.pad), placed.apexPad].flatMap((pad) => (pad ? [pad] : []));
  const spots = [
    ...limbs.flatMap((line) => line.points.map(([x, y, z]) => ({ radius: Math.hypot(x, y), z }))),
    ...pads.flatMap(({ center: [x, y, z], half }) =>
      [1.2 * half[2], -half[2]].map((up) => ({ radius: Math.hypot(x, y) + 0.8 * Math.max(half[0], half[1]), z: z + up })),
    ),
  ];
  const [low, high] = [leastOf(spots.map((s) => s.z)), greatestOf(spots.map((s) => s.z))];
  const bands: Ring[] = [];
  for (const spot of spots) {
    const band = Math.min(BANDS - 1, Math.floor(((spot.z - low) / (high - low)) * BANDS));
    const before = bands[band];
    bands[band] = before
      ? { radius: Math.max(before.radius, spot.radius), z: band < BANDS / 2 ? Math.min(before.z, spot.z) : Math.max(before.z, spot.z) }
      : spot;
  }
  return bands.filter(Boolean);
}

export interface Framing {
  /** From the camera to the point on the axis it looks at, mm. */
  distance: number;
  /** Height of that point, mm. */
  aim: number;
}

/** A point on a ring: to the side of the line of sight, towards the camera, and up, mm. */
interface Spot {
  side: number;
  near: number;
  z: number;
}

const POINTS = 24;
const around = Array.from({ length: POINTS }, (_, i) => (i / POINTS) * 2 * Math.PI).map((turn) => ({ side: Math.sin(turn), near: Math.cos(turn) }));
const { max, min, abs } = Math;

/** Least and greatest place on the screen of some points (1 = the picture's edge), for a camera looking down at the axis. */
function extents(spots: readonly Spot[], { distance, aim }: Framing, half: number, aspect: number, cosDown: number, sinDown: number) {
  let [low, high, wide] = [Infinity, -Infinity, 0];
  for (const { side, near, z } of spots) {
    const up = z - aim;
    const reach = half * (distance - near * cosDown - up * sinDown);
    const y = (up * cosDown - near * sinDown) / reach;
    low = min(low, y);
    high = max(high, y);
    wide = max(wide, abs(side) / (reach * aspect));
  }
  return { low, high, wide };
}

/** The nearest stand from which all rings are in the picture, with a margin (share of the picture). The same from every bearing. */
export function frameRings(rings: readonly Ring[], fovDeg: number, aspect: number, downDeg: number, margin = 0.03): Framing {
  const half = Math.tan(toRad(fovDeg / 2));
  const [cosDown, sinDown] = [Math.cos(toRad(downDeg)), Math.sin(toRad(downDeg))];
  const spots = rings.flatMap(({ radius, z }) => around.map(({ side, near }): Spot => ({ side: side * radius, near: near * radius, z })));
  const reach = max(...rings.map((r) => Math.hypot(r.radius, r.z)));
  const seenFrom = (framing: Framing): ReturnType<typeof extents> => extents(spots, framing, half, aspect, cosDown, sinDown);
  const centred = (distance: number): Framing => {
    let aim = 0;
    for (let i = 0; i < 6; i++) {
      const { low, high } = seenFrom({ distance, aim });
      aim += ((low + high) / 2) * half * distance;
    }
    return { distance, aim };
  };
  let near = reach;
  let far = reach * 60;
  for (let i = 0; i < 40; i++) {
    const middle = (near + far) / 2;
    const seen = seenFrom(centred(middle));
    if (max(seen.high, -seen.low, seen.wide) > 1 - margin) near = middle;
    else far = middle;
  }
  return centred(far);
}

/** A part of the tree to look at: all within a radius (mm) of its middle, in the tree's own space. */
export interface Ball {
  center: Vec;
  radius: number;
}

/** The ball round some points: the middle of their box, and as far as the farthest. */
export function ballRound(points: readonly Vec[]): Ball {
  const middle = (k: 0 | 1 | 2): number => (leastOf(points.map((p) => p[k])) + greatestOf(points.map((p) => p[k]))) / 2;
  const center: Vec = [middle(0), middle(1), middle(2)];
  return { center, radius: greatestOf(points.map((p) => distance(center, p))) };
}

/** A part is never shown larger than this, beside the whole: what is round it has to be known again. */
const MOST_NEARER = 3;
/** Room left round a part, as a share of it. */
const ROOM = 1.25;

/** How far from its middle the camera stands so that a ball fills the picture; `whole` is how far it stands for the whole tree. */
export function distanceTo({ radius }: Ball, whole: number, fovDeg: number, aspect: number): number {
  const half = Math.atan(Math.tan(toRad(fovDeg / 2)) * min(1, aspect));
  return clamp((ROOM * radius) / Math.sin(half), whole / MOST_NEARER, whole);
}
