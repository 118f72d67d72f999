import fc from 'fast-check';
import {
  BUFFER_HEIGHT,
  BUFFER_WIDTH,
  hidingOf,
  judgeFront,
  lengthOf,
  movementOf,
  placeTree,
  searchFronts,
  SEEN_TRUNK_SHARE,
  stretch,
  turnDeg,
  viewer,
  type Limb,
  type PlacedTree,
  type Vec,
} from '../src/index.js';
import { anyTree, branch, mirrored, tree, turned } from './trees.js';

/** Nearest depth at which a ray along the line of sight meets a tapered limb: marched in fine steps of spheres along it. */
function limbDepth(line: Limb, see: (p: Vec) => Vec, x: number, y: number): number {
  let nearest = -Infinity;
  for (let i = 0; i + 1 < line.points.length; i++) {
    const a = see(line.points[i]!);
    const b = see(line.points[i + 1]!);
    for (let k = 0; k <= 60; k++) {
      const t = k / 60;
      const r = (line.diameters[i]! + (line.diameters[i + 1]! - line.diameters[i]!) * t) / 2;
      const square = r * r - (x - a[0] - (b[0] - a[0]) * t) ** 2 - (y - a[1] - (b[1] - a[1]) * t) ** 2;
      if (square >= 0) nearest = Math.max(nearest, a[2] + (b[2] - a[2]) * t + Math.sqrt(square));
    }
  }
  return nearest;
}

/** The same for a pad: the quadratic of a ray and an ellipsoid in the ellipsoid's own axes. */
function padDepth(pad: NonNullable<PlacedTree['apexPad']>, see: (p: Vec) => Vec, x: number, y: number): number {
  const center = see(pad.center);
  const axes = pad.axes.map((axis): Vec => {
    const tip = see([pad.center[0] + axis[0], pad.center[1] + axis[1], pad.center[2] + axis[2]]);
    return [tip[0] - center[0], tip[1] - center[1], tip[2] - center[2]];
  });
  let [a, b, c] = [0, 0, -1];
  axes.forEach((axis, k) => {
    const along = (axis[0] * (x - center[0]) + axis[1] * (y - center[1])) / pad.half[k]!;
    const deep = axis[2] / pad.half[k]!;
    a += deep * deep;
    b += 2 * along * deep;
    c += along * along;
  });
  const inside = b * b - 4 * a * c;
  return inside < 0 ? -Infinity : center[2] + (-b + Math.sqrt(inside)) / (2 * a);
}

/** Hidden share of the lower trunk by plain ray casting, with finer rays than the buffer has cells. */
function rayCast(placed: PlacedTree, bearing: number, pitch: number): number {
  const see = viewer({ bearing, pitch, roll: 0 });
  const low = stretch(placed.trunk, 0, lengthOf(placed.trunk) * SEEN_TRUNK_SHARE);
  const seen = low.points.map(see);
  const reach = Math.max(...low.diameters) / 2;
  const [x0, x1] = [Math.min(...seen.map((p) => p[0])) - reach, Math.max(...seen.map((p) => p[0])) + reach];
  const [y0, y1] = [Math.min(...seen.map((p) => p[1])) - reach, Math.max(...seen.map((p) => p[1])) + reach];
  let [trunk, hidden] = [0, 0];
  for (let i = 0; i < 70; i++) {
    for (let k = 0; k < 150; k++) {
      const x = x0 + ((i + 0.37) * (x1 - x0)) / 70;
      const y = y0 + ((k + 0.41) * (y1 - y0)) / 150;
      const depth = limbDepth(low, see, x, y);
      if (depth === -Infinity) continue;
      trunk++;
      const pads = [...placed.branches.map((b) => b.pad), placed.apexPad].filter((p) => p !== null);
      if (placed.branches.some((b) => limbDepth(b.line, see, x, y) > depth) || pads.some((p) => padDepth(p, see, x, y) > depth)) hidden++;
    }
  }
  return hidden / trunk;
}

test('the depth buffer hides what plain ray casting hides', () => {
  fc.assert(
    fc.property(anyTree, fc.integer({ min: 0, max: 359 }), fc.integer({ min: -15, max: 15 }), (t, bearing, pitch) => {
      const placed = placeTree(t);
      expect(Math.abs(hidingOf(placed)(bearing, pitch).hidden - rayCast(placed, bearing, pitch))).toBeLessThan(0.02);
    }),
    { numRuns: 6 },
  );
  expect([BUFFER_WIDTH, BUFFER_HEIGHT]).toEqual([96, 128]);
});

test('turn the tree and its scores turn with it; mirror it and they are mirrored', () => {
  fc.assert(
    fc.property(anyTree, fc.integer({ min: 1, max: 359 }), fc.integer({ min: 0, max: 359 }), (t, by, bearing) => {
      const here = judgeFront(placeTree(t), { bearing, pitch: 5, roll: 3 });
      const there = judgeFront(placeTree(turned(t, by)), { bearing: (bearing + by) % 360, pitch: 5, roll: 3 });
      const mirror = judgeFront(placeTree(mirrored(t)), { bearing: (360 - bearing) % 360, pitch: 5, roll: -3 });
      // The widest base is looked for at steps of 3°: turned by another angle it is found a hair off.
      for (const part of ['movement', 'trunkInSight', 'apex', 'eye', 'firstBranch', 'features', 'greenKept'] as const) {
        expect([part, Math.abs(there.parts[part] - here.parts[part]) < 0.015]).toEqual([part, true]);
        expect([part, Math.abs(mirror.parts[part] - here.parts[part]) < 0.015]).toEqual([part, true]);
      }
      expect(Math.abs(there.parts.base - here.parts.base)).toBeLessThan(0.01);
    }),
    { numRuns: 25 },
  );
});

test('a tree made with one obvious front is seen from there', () => {
  // Wide roots and S-bends across the line of sight from bearing 70, a branch at the viewer from the other side.
  const sway = [0, 40, -30, 22, -12, 0];
  const at = (70 * Math.PI) / 180;
  const t = tree(
    [branch('side', { bearing: 340, at: 180 }), branch('back', { bearing: 255, at: 300 }), branch('spear', { bearing: 250, at: 150, d: 16, length: 260 })],
    {
      trunk: sway.map((s, i) => ({ x: -Math.cos(at) * s, y: Math.sin(at) * s, z: i * 120, d: 50 - i * 7 })),
      roots: [
        { bearing: 340, length: 80, d: 14 },
        { bearing: 160, length: 80, d: 14 },
      ],
      features: [{ kind: 'shari', bearing: 70, z: [20, 200], good: true, weight: 2 }],
    },
  );
  const { candidates, rose } = searchFronts(placeTree(t));
  expect(Math.abs(turnDeg(70, candidates[0]!.bearing))).toBeLessThanOrEqual(21);
  expect(rose).toHaveLength(120);
  for (const a of candidates) for (const b of candidates) if (a !== b) expect(Math.abs(turnDeg(a.bearing, b.bearing))).toBeGreaterThanOrEqual(25);
});

test('an S with shrinking bends moves more than one arc, and an arc more than a pole', () => {
  const line = (x: (t: number) => number): Vec[] => Array.from({ length: 13 }, (_, i) => [x(i / 12) * 100, i * 50, 0]);
  const s = movementOf(line((t) => Math.sin(t * t * 4 + t * 7) * (1 - t * 0.7))).score;
  const arc = movementOf(line((t) => Math.sin(t * Math.PI))).score;
  const pole = movementOf(line(() => 0)).score;
  expect(s).toBeGreaterThan(arc + 0.1);
  expect(arc).toBeGreaterThan(pole);
  expect(pole).toBe(0);
});
