import fc from 'fast-check';
import {
  angleBetween,
  direction,
  habitElevation,
  lengthOf,
  placeTree,
  plantingAngle,
  posed,
  proposePoses,
  slope,
  speciesOf,
  toDeg,
  type Branch,
  type Tree,
} from '../src/index.js';
import { anyTree, branch, tree } from './trees.js';

const poses = (branches: Branch[], own: Partial<Tree> = {}) => proposePoses(placeTree(tree(branches, own))).poses;

test('a branch without a pose of its own is proposed the slope of its habit: low ones fall more, and by kind of tree', () => {
  for (const habit of ['down', 'level', 'up'] as const) {
    const all = [0.1, 0.3, 0.5, 0.7, 0.9].map((share) => habitElevation(habit, share));
    all.forEach((e, i) => expect(e).toBeGreaterThanOrEqual(i ? all[i - 1]! : -90));
  }
  expect(habitElevation('down', 0.2)).toBeLessThan(habitElevation('level', 0.2));
  expect(habitElevation('level', 0.2)).toBeLessThan(habitElevation('up', 0.2));
  const [low, high] = poses([branch('low', { at: 120, elevation: 40 }), branch('high', { at: 480, elevation: 70 })]);
  expect(low!.elevation).toBeLessThan(high!.elevation);
  expect(low!.because[0]).toMatch(/branches at 2\d% of the height lie near/);
});

test('what is dead, gone, or near enough is left as it grows; what the plan says goes before the habit', () => {
  const near = habitElevation(speciesOf('larch').habit, 202 / 600);
  expect(poses([branch('a', { elevation: near + 9 })])).toEqual([]);
  expect(poses([branch('a', { elevation: near + 12 })])).toHaveLength(1);
  expect(poses([branch('a', { elevation: 60, state: 'dead' })])).toEqual([]);
  const own = tree([branch('a', { elevation: 60 })]);
  own.plan.poses.push({ branch: 'a', bearing: 120, elevation: -20, bends: [{ at: 10, angle: 45, toward: { bearing: 120, elevation: -20 }, over: 50 }] });
  expect(proposePoses(placeTree(own)).poses).toMatchObject([{ bearing: 120, elevation: -20, from: 'plan', bends: [{ at: 10, angle: 45, length: 50 }] }]);
});

test('a posed line keeps its shape and points where it shall', () => {
  fc.assert(
    fc.property(anyTree, fc.nat(359), fc.integer({ min: -80, max: 80 }), (t, bearing, elevation) => {
      for (const b of placeTree(t).branches.slice(0, 5)) {
        const line = posed(b.line, { bearing, elevation });
        expect(lengthOf(line)).toBeCloseTo(lengthOf(b.line), 6);
        expect(line.points[0]).toEqual(b.line.points[0]);
        const now = slope({ ...b, line });
        const way = (s: { bearing: number; elevation: number }) => direction({ bearingDeg: s.bearing, elevationDeg: s.elevation });
        expect(toDeg(angleBetween(way(now), way({ bearing, elevation })))).toBeLessThan(0.01);
      }
    }),
    { numRuns: 25 },
  );
});

test('a planting angle changes no angle between branches, and names only what it leads astray', () => {
  fc.assert(
    fc.property(anyTree, fc.nat(359), fc.integer({ min: -20, max: 20 }), fc.integer({ min: -20, max: 20 }), (t, bearing, pitch, roll) => {
      const planting = plantingAngle(placeTree(t), { bearing, pitch, roll });
      const way = (s: { bearing: number; elevation: number }) => direction({ bearingDeg: s.bearing, elevationDeg: s.elevation });
      const [a, b] = planting.branches;
      if (a && b) expect(angleBetween(way(a.after), way(b.after))).toBeCloseTo(angleBetween(way(a.before), way(b.before)), 6);
      for (const x of planting.branches) {
        const off = x.after.elevation - x.meant;
        if (x.astray) expect([Math.abs(off) > 8, x.astray]).toEqual([true, off > 0 ? 'rises' : 'falls']);
      }
      if (!pitch && !roll) expect([planting.wedge, planting.branches.filter((x) => x.astray)]).toEqual([0, []]);
      expect(planting.rootBallRise).toBeLessThanOrEqual(planting.wedge + 1e-9);
    }),
    { numRuns: 40 },
  );
});
