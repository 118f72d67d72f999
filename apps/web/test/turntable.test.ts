import fc from 'fast-check';
import { PerspectiveCamera, Vector3 } from 'three';
import { distance, FORMS, generateTree, placeTree, type Vec } from '@ustle/core';
import { ballRound, distanceTo, FOV_DEG, frameRings, reachOf } from '../src/turntable/framing';
import { LABEL_HEIGHT, placeLabels, type Label } from '../src/turntable/labels';
import { boxInPicture, overlap, type Reach } from '../src/turntable/sprite-boxes';

const label: fc.Arbitrary<Label> = fc.record({
  id: fc.uuid(),
  text: fc.string({ minLength: 1, maxLength: 18 }),
  x: fc.double({ min: -50, max: 850, noNaN: true }),
  y: fc.double({ min: -50, max: 700, noNaN: true }),
  weight: fc.nat(50),
});

const GAP = 4;
/** Whether two labels leave the room between them that one needs to tell them apart. */
const apart = (a: { left: number; top: number; width: number }, b: { left: number; top: number; width: number }): boolean =>
  a.left + a.width + GAP <= b.left || b.left + b.width + GAP <= a.left || Math.abs(a.top - b.top) >= LABEL_HEIGHT + GAP / 2;

test('labels keep apart and inside the picture, the weightier first, in whatever order they come; none is left out that had room beside its point', () => {
  fc.assert(
    fc.property(fc.uniqueArray(label, { maxLength: 30, selector: (l) => l.id }), fc.nat(), (labels, turn) => {
      const placed = placeLabels(labels, 800, 640);
      const inside = (l: { left: number; top: number; width: number }): boolean =>
        l.left >= 4 && l.left + l.width <= 796 && l.top >= 4 && l.top + LABEL_HEIGHT <= 636;
      placed.forEach((l, i) => {
        expect(inside(l)).toBe(true);
        placed.slice(0, i).forEach((other) => expect(apart(l, other)).toBe(true));
      });
      const from = labels.length ? turn % labels.length : 0;
      expect(placeLabels([...labels.slice(from), ...labels.slice(0, from)].reverse(), 800, 640)).toEqual(placed);
      const order = placed.map((l) => l.weight);
      expect(order).toEqual([...order].sort((x, y) => y - x));
      // What is lighter moves nothing that is weightier.
      const heavy = labels.filter((l) => l.weight >= 25);
      expect(placed.filter((l) => l.weight >= 25)).toEqual(placeLabels(heavy, 800, 640));
      for (const l of labels.filter((x) => !placed.some((p) => p.id === x.id))) {
        const width = l.text.length * 8.2 + 14;
        const beside = { left: l.x < 400 ? l.x - 12 - width : l.x + 12, top: l.y - LABEL_HEIGHT / 2, width };
        expect(inside(beside) && placed.every((p) => apart(p, beside))).toBe(false);
      }
    }),
  );
  const lone = (x: number) => placeLabels([{ id: 'a', text: 'b1', x, y: 300, weight: 1 }], 800, 640)[0]!;
  expect([lone(300), lone(500)].map((l) => [Math.round(l.left * 10) / 10, l.top])).toEqual([
    [257.6, 289],
    [512, 289],
  ]);
  // Two of one weight at one point: the first by name has the spot beside it, the other the next one.
  const twins = placeLabels(
    ['b', 'a'].map((id) => ({ id, text: 'xx', x: 500, y: 300, weight: 1 })),
    800,
    640,
  );
  expect(twins.map((l) => [l.id, l.left > 500])).toEqual([
    ['a', true],
    ['b', false],
  ]);
});

test('the camera stands where the whole tree and table are in the picture, and no farther', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 100, max: 900, noNaN: true }),
      fc.double({ min: 100, max: 1200, noNaN: true }),
      fc.double({ min: 0.4, max: 2.5, noNaN: true }),
      (radius, height, aspect) => {
        const rings = [
          { radius, z: -60 },
          { radius: height * 0.1, z: height },
        ];
        const { distance, aim } = frameRings(rings, 24, aspect, 9);
        const half = Math.tan((12 * Math.PI) / 180);
        const down = (9 * Math.PI) / 180;
        let most = 0;
        for (const ring of rings) {
          for (let i = 0; i < 90; i++) {
            const a = (i / 90) * 2 * Math.PI;
            const [side, near, up] = [Math.sin(a) * ring.radius, Math.cos(a) * ring.radius, ring.z - aim];
            const depth = distance - near * Math.cos(down) - up * Math.sin(down);
            most = Math.max(most, Math.abs((up * Math.cos(down) - near * Math.sin(down)) / (depth * half)), Math.abs(side / (depth * half * aspect)));
          }
        }
        expect(most).toBeLessThan(1);
        expect(most).toBeGreaterThan(0.93);
      },
    ),
    { numRuns: 40 },
  );
});

const DOWN_DEG = 9;

/** A camera as the turntable puts it, seen from a bearing, looking at a point. */
function cameraAt(distance: number, at: Vec, bearing: number, aspect: number): PerspectiveCamera {
  const camera = new PerspectiveCamera(FOV_DEG, aspect, distance / 10, distance * 4);
  const [turn, down] = [(bearing * Math.PI) / 180, (DOWN_DEG * Math.PI) / 180];
  camera.position
    .set(Math.sin(turn) * Math.cos(down), Math.cos(turn) * Math.cos(down), Math.sin(down))
    .multiplyScalar(distance)
    .add(new Vector3(...at));
  camera.up.set(0, 0, 1);
  camera.lookAt(...at);
  camera.updateMatrixWorld();
  camera.updateProjectionMatrix();
  return camera;
}

test('a tree of any form is in the picture from every bearing, its falling line and widest branch too', () => {
  fc.assert(
    fc.property(fc.nat(5000), fc.constantFrom(...FORMS), fc.nat(359), fc.double({ min: 0.5, max: 2, noNaN: true }), (seed, form, bearing, aspect) => {
      const placed = placeTree(generateTree({ seed, form, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 6, secondaries: 2 }));
      const { distance: away, aim } = frameRings(reachOf(placed), FOV_DEG, aspect, DOWN_DEG);
      const camera = cameraAt(away, [0, 0, aim], bearing, aspect);
      for (const line of [placed.trunk, ...placed.branches.map((b) => b.line)])
        for (const point of line.points) {
          const { x, y } = new Vector3(...point).project(camera);
          expect(Math.max(Math.abs(x), Math.abs(y))).toBeLessThan(1);
        }
    }),
    { numRuns: 40 },
  );
});

test('a branch looked at from near is whole in the picture, larger than before, and never so near that nothing is round it', () => {
  fc.assert(
    fc.property(fc.nat(5000), fc.nat(359), fc.double({ min: 0.5, max: 2, noNaN: true }), (seed, bearing, aspect) => {
      const placed = placeTree(generateTree({ seed, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 6, secondaries: 2 }));
      const whole = frameRings(reachOf(placed), FOV_DEG, aspect, DOWN_DEG).distance;
      for (const { line } of placed.branches) {
        const ball = ballRound(line.points);
        for (const point of line.points) expect(distance(ball.center, point)).toBeLessThanOrEqual(ball.radius + 1e-9);
        const away = distanceTo(ball, whole, FOV_DEG, aspect);
        expect(away).toBeGreaterThanOrEqual(whole / 3 - 1e-9);
        expect(away).toBeLessThanOrEqual(whole);
        const camera = cameraAt(away, ball.center, bearing, aspect);
        for (const point of line.points) {
          const { x, y } = new Vector3(...point).project(camera);
          expect(Math.max(Math.abs(x), Math.abs(y))).toBeLessThan(1);
        }
      }
    }),
    { numRuns: 30 },
  );
});

test('the box of what faces the viewer holds its corners, and two boxes overlap as their corners say', () => {
  const reach = fc.record({
    left: fc.integer({ min: -40, max: 0 }),
    right: fc.integer({ min: 1, max: 40 }),
    below: fc.integer({ min: -40, max: 0 }),
    above: fc.integer({ min: 1, max: 40 }),
  });
  const place = fc.tuple(fc.integer({ min: -200, max: 200 }), fc.integer({ min: -200, max: 200 }), fc.integer({ min: -100, max: 300 }));
  fc.assert(
    fc.property(place, place, reach, reach, fc.nat(359), (at, other, own, others, bearing) => {
      const camera = cameraAt(1800, [0, 0, 100], bearing, 1.3);
      const box = boxInPicture(new Vector3(...at), camera, own);
      const across = new Vector3().setFromMatrixColumn(camera.matrixWorld, 0);
      const up = new Vector3().setFromMatrixColumn(camera.matrixWorld, 1);
      const corner = (right: number, above: number): Vector3 => new Vector3(...at).addScaledVector(across, right).addScaledVector(up, above).project(camera);
      const [low, high] = [corner(own.left, own.below), corner(own.right, own.above)];
      expect([low.x, low.y, high.x, high.y].map((v, i) => Math.abs(v - [box.left, box.below, box.right, box.above][i]!) < 1e-9)).toEqual(Array(4).fill(true));
      const second = boxInPicture(new Vector3(...other), camera, others);
      const inside = (b: Reach, x: number, y: number): boolean => x > b.left && x < b.right && y > b.below && y < b.above;
      const shared = [Math.max(box.left, second.left), Math.min(box.right, second.right), Math.max(box.below, second.below), Math.min(box.above, second.above)];
      const [x, y] = [(shared[0]! + shared[1]!) / 2, (shared[2]! + shared[3]!) / 2];
      expect(overlap(box, second)).toBe(inside(box, x, y) && inside(second, x, y));
    }),
  );
});
