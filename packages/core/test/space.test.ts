import fc from 'fast-check';
import { bearingAndElevation, direction, distance, lengthOf, limb, norm, pointAt, smooth, tilt, turnDeg, wedge, type Vec } from '../src/index.js';

const angle = (limit: number) => fc.double({ min: -limit, max: limit, noNaN: true });
const point = fc.tuple(angle(900), angle(900), angle(900)) as fc.Arbitrary<Vec>;

test('bearing and elevation come back from a direction', () => {
  fc.assert(
    fc.property(angle(720), angle(89), (bearingDeg, elevationDeg) => {
      const back = bearingAndElevation(direction({ bearingDeg, elevationDeg }));
      expect(Math.abs(turnDeg(bearingDeg, back.bearing))).toBeLessThan(1e-6);
      expect(back.elevation).toBeCloseTo(elevationDeg, 6);
    }),
  );
});

test('a tilt keeps distances, and pitch leans the tree to the viewer', () => {
  fc.assert(
    fc.property(point, point, angle(360), angle(45), angle(45), (a, b, frontDeg, pitchDeg, rollDeg) => {
      const lean = (p: Vec): Vec => tilt({ point: p, frontDeg, pitchDeg, rollDeg });
      expect(distance(lean(a), lean(b))).toBeCloseTo(distance(a, b), 6);
    }),
  );
  const top = tilt({ point: [0, 0, 100], frontDeg: 90, pitchDeg: 10, rollDeg: 0 });
  expect(top[0]).toBeCloseTo(100 * Math.sin(Math.PI / 18), 9);
});

test('the wedge is pot width along the lean times the tangent of the tilt', () => {
  const pot = { width: 300, depth: 200 };
  expect(wedge({ bearing: 90, pitch: 10, roll: 0 }, pot).height).toBeCloseTo(300 * Math.tan(Math.PI / 18), 6);
  expect(wedge({ bearing: 0, pitch: 10, roll: 0 }, pot).height).toBeCloseTo(200 * Math.tan(Math.PI / 18), 6);
  expect(wedge({ bearing: 45, pitch: 0, roll: 0 }, pot)).toEqual({ tiltDeg: 0, height: 0 });
});

test('a smoothed line goes through its points and a point along it lies on it', () => {
  const line = limb(
    [
      [0, 0, 0],
      [30, 5, 90],
      [-20, 12, 180],
      [5, -8, 300],
    ],
    [40, 30, 20, 8],
  );
  const fine = smooth(line, 7);
  for (const p of line.points) expect(Math.min(...fine.points.map((q) => distance(p, q)))).toBeLessThan(1e-9);
  expect(lengthOf(fine)).toBeGreaterThan(lengthOf(line));
  const middle = pointAt(line, line.along[1]! / 2);
  expect(middle.diameter).toBeCloseTo(35, 9);
  expect(norm(middle.direction)).toBeCloseTo(1, 9);
});
