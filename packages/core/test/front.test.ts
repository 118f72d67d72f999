import fc from 'fast-check';
import {
  BUFFER_HEIGHT,
  BUFFER_WIDTH,
  formOf,
  generateTree,
  hidingOf,
  judgeFront,
  movementOf,
  placeTree,
  searchFronts,
  stemsOf,
  turnDeg,
  turningOf,
  usualWeights,
  type Front,
  type PlacedTree,
  type Vec,
} from '../src/index.js';
import { rayCast } from '../../../bench/ray-cast.mjs';
import { anyTree, branch, mirrored, tree, turned } from './trees.js';

test('the depth buffer hides what plain ray casting hides', () => {
  fc.assert(
    fc.property(anyTree, fc.integer({ min: 0, max: 359 }), fc.integer({ min: -15, max: 15 }), (t, bearing, pitch) => {
      const placed = placeTree(t);
      expect(Math.abs(hidingOf(placed)(bearing, pitch).hidden - rayCast(placed, bearing, pitch))).toBeLessThan(0.02);
    }),
    { numRuns: 6 },
  );
  // A cascade hangs past its pot, and from behind the pot stands before it.
  const cascade = placeTree(
    generateTree({ seed: 4, name: 'Falls', species: 'juniper-scale', form: 'cascade', height: 600, base: 44, primaries: 6, leanBearing: 90 }),
  );
  const hide = hidingOf(cascade);
  for (const bearing of [0, 90, 180, 270]) expect(Math.abs(hide(bearing, 4).hidden - rayCast(cascade, bearing, 4))).toBeLessThan(0.02);
  const potHides = (bearing: number): number =>
    hide(bearing, 0)
      .by()
      .find((h) => h.branch === 'pot')?.share ?? 0;
  expect(potHides(270)).toBeGreaterThan(0.1);
  expect(potHides(90)).toBe(0);
  expect([BUFFER_WIDTH, BUFFER_HEIGHT]).toEqual([96, 128]);
});

test('what a branch hides is told by the stretch of the trunk it stands before', () => {
  fc.assert(
    fc.property(fc.integer({ min: 60, max: 330 }), fc.integer({ min: 8, max: 24 }), fc.nat(359), (at, d, bearing) => {
      // A bare spear at the viewer from an upright trunk: it covers its own thickness, and of the other sides nothing.
      const hide = hidingOf(placeTree(tree([branch('spear', { at, d, tipD: d, bearing, elevation: 0, green: 0 })])));
      const [spear, ...others] = hide(bearing, 0).by();
      expect([spear!.branch, others]).toEqual(['spear', []]);
      const seen = 400;
      expect(Math.abs(spear!.from * seen - (at - d / 2))).toBeLessThan(5);
      expect(Math.abs(spear!.to * seen - (at + d / 2))).toBeLessThan(5);
      expect(hide((bearing + 180) % 360, 0).by()).toEqual([]);
    }),
    { numRuns: 30 },
  );
});

/** A made-up cascade that falls to a bearing. */
const falling = (seed: number, leanBearing: number): PlacedTree =>
  placeTree(generateTree({ seed, name: 'Falls', species: 'juniper-scale', form: 'cascade', height: 600, base: 44, primaries: 6, secondaries: 1, leanBearing }));

test('a cascade is seen from where its line falls beside or before the pot, not behind it', () => {
  fc.assert(
    fc.property(fc.nat(5000), fc.nat(359), (seed, leanBearing) => {
      const placed = falling(seed, leanBearing);
      const [best] = searchFronts(placed, { step: 6 }).candidates;
      expect(best!.hiding.find((h) => h.branch === 'pot')?.share ?? 0).toBeLessThan(0.06);
      expect(best!.parts.trunkInSight).toBeGreaterThan(judgeFront(placed, { bearing: (leanBearing + 180) % 360, pitch: 0, roll: 0 }).parts.trunkInSight);
      // Its straight runs are counted over its own height, however low the growing end hangs.
      expect(best!.because.movement).not.toMatch(/\d{3}% of its height/);
      expect(best!.because.apex).toMatch(/^hangs/);
    }),
    { numRuns: 12 },
  );
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

const line = (x: (t: number) => number, z: (t: number) => number = () => 0): Vec[] =>
  Array.from({ length: 13 }, (_, i) => [x(i / 12) * 100, i * 50, z(i / 12) * 100]);
const bow = (t: number): number => Math.sin(t * Math.PI);
const shrinking = (t: number): number => Math.sin(t * t * 4 + t * 7) * (1 - t * 0.7);

test('an S with shrinking bends moves more than one arc, an arc more than a pole, also where it comes at the viewer', () => {
  const of = (l: Vec[]): number => movementOf(l).score;
  const arcs = [line(bow), line(() => 0, bow)].map(of);
  expect(of(line(shrinking))).toBeGreaterThan(arcs[0]! + 0.1);
  // Shrinking upward beats the same bends the other way up.
  expect(of(line(shrinking))).toBeGreaterThan(
    of(
      line(shrinking)
        .reverse()
        .map(([x, y, z]) => [x, 600 - y, z]),
    ) + 0.01,
  );
  expect(arcs[0]!).toBeGreaterThan(arcs[1]! + 0.05);
  expect(arcs[1]!).toBeGreaterThan(0.02);
  expect(of(line(() => 0))).toBe(0);
});

test('movement is continuous: a little more bend is a little more movement, and no wavering of the ruler makes an S', () => {
  const finite = (low: number, high: number) => fc.double({ min: low, max: high, noNaN: true });
  fc.assert(
    fc.property(finite(-1, 1), finite(-1, 1), finite(-1, 1), fc.array(finite(-0.5, 0.5), { minLength: 13, maxLength: 13 }), (a, s, deep, shake) => {
      const shaped = (k: number): Vec[] =>
        line(
          (t) => a * bow(t) + (s + k) * Math.sin(2 * Math.PI * t),
          (t) => deep * bow(t),
        );
      const still = movementOf(shaped(0)).score;
      expect(Math.abs(movementOf(shaped(0.002)).score - still)).toBeLessThan(0.02);
      // Half a millimetre either way at every station.
      const shaken = movementOf(shaped(0).map(([x, y, z], i) => [x + shake[i]!, y, z])).score;
      expect(Math.abs(shaken - still)).toBeLessThan(0.06);
    }),
    { numRuns: 300 },
  );
  expect(turningOf([3, -4, 3, -2, 3, -3])).toMatchObject({ bends: [], total: 0 });
  expect(turningOf([20, 20, -2, 20, -30, -34])).toMatchObject({ bends: [54, -56], back: 54 });
});

test('a cascade is best seen from its side, its end coming a little forward, and its fall is its movement', () => {
  fc.assert(
    fc.property(fc.nat(5000), fc.nat(359), (seed, leanBearing) => {
      const placed = falling(seed, leanBearing);
      const [best] = searchFronts(placed, { step: 6 }).candidates;
      const off = Math.abs(turnDeg(leanBearing, best!.bearing));
      expect([off >= 30 && off <= 110, off]).toEqual([true, off]);
      const from = (turn: number): Front => judgeFront(placed, { bearing: (leanBearing + turn + 360) % 360, pitch: 0, roll: 0 });
      for (const side of [from(90), from(-90)])
        expect(side.parts.movement).toBeGreaterThan(Math.max(0.45, from(0).parts.movement + 0.1, from(180).parts.movement + 0.1));
      expect(from(90).because.movement).toMatch(/^falls to the right(, \d+° to (you|the back))?: /);
      expect(from(-90).because.movement).toMatch(/^falls to the left/);
      expect(from(0).because.movement).toMatch(/^falls straight at you: /);
    }),
    { numRuns: 12 },
  );
});

test('twins stand beside each other: one behind the other is no front', () => {
  fc.assert(
    fc.property(fc.nat(359), fc.integer({ min: 66, max: 78 }), fc.integer({ min: 28, max: 40 }), (bearing, elevation, d) => {
      const twins = tree([
        branch('twin', { at: 8, bearing, elevation, length: 420, d, tipD: 8 }),
        branch('low', { at: 200, bearing: 20 }),
        branch('high', { at: 330, bearing: 200 }),
      ]);
      const placed = placeTree(twins);
      expect([formOf(twins), [...stemsOf(twins)], usualWeights(twins)]).toEqual(['twin', ['twin'], 'twin trunks']);
      const seen = (turn: number): number => judgeFront(placed, { bearing: (bearing + turn) % 360, pitch: 0, roll: 0 }).parts.trunkInSight;
      expect(Math.min(seen(90), seen(270))).toBeGreaterThan(Math.max(seen(0), seen(180)) + 0.15);
      const [best] = searchFronts(placed, { step: 6 }).candidates;
      expect(Math.abs(Math.sin(((best!.bearing - bearing) * Math.PI) / 180))).toBeGreaterThan(0.5);
      expect(best!.because.trunkInSight).toMatch(/of both trunks' lower two thirds/);
      for (const turn of [0, 90, 200]) {
        const at = (bearing + turn) % 360;
        expect(Math.abs(hidingOf(placed)(at, 3).hidden - rayCast(placed, at, 3))).toBeLessThan(0.025);
      }
    }),
    { numRuns: 6 },
  );
  // A thin or short one at the base is a shoot, not a second trunk.
  for (const own of [{ d: 20 }, { length: 200 }, { elevation: 40 }, { at: 80 }])
    expect(formOf(tree([branch('shoot', { at: 8, elevation: 70, length: 420, d: 30, ...own })]))).toBe('upright');
});
