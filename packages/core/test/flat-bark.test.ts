import fc from 'fast-check';
import { distance, dot, FlatBark, generateTree, largeTree, limb, placeTree, planWiring, pointAt, proposePoses, type Limb, type Vec } from '../src/index.js';

/** A limb of a few pieces that bends by up to half a right angle at each and grows thinner. */
const bent: fc.Arbitrary<Limb> = fc
  .record({
    turns: fc.array(fc.tuple(fc.double({ min: -0.5, max: 0.5, noNaN: true }), fc.double({ min: -0.5, max: 0.5, noNaN: true })), { minLength: 2, maxLength: 7 }),
    d: fc.double({ min: 4, max: 20, noNaN: true }),
  })
  .map(({ turns, d }) => {
    const points: Vec[] = [[0, 0, 0]];
    let [bearing, elevation] = [0.3, 0.4];
    for (const [a, b] of turns) {
      [bearing, elevation] = [bearing + a, elevation + b];
      const [x, y, z] = points[points.length - 1]!;
      points.push([x + 40 * Math.sin(bearing) * Math.cos(elevation), y + 40 * Math.cos(bearing) * Math.cos(elevation), z + 40 * Math.sin(elevation)]);
    }
    return limb(
      points,
      points.map((_, i) => d * (1 - (0.6 * i) / points.length)),
    );
  });
const places = fc.record({
  share: fc.double({ min: 0.1, max: 0.9, noNaN: true }),
  turn: fc.double({ min: -3, max: 3, noNaN: true }),
  lift: fc.double({ min: 0.3, max: 3, noNaN: true }),
});

/** How far a point is above the bark, by looking at every half millimetre of it. */
function liftByLooking(line: Limb, point: Vec): number {
  let least = Infinity;
  const length = line.along[line.along.length - 1]!;
  for (let s = 0; s <= length; s += 0.5) {
    const at = pointAt(line, s);
    least = Math.min(least, distance(point, at.point) - at.diameter / 2);
  }
  return least;
}

test('a place on the bark is a point so high above it as said, and that point is at that place', () => {
  fc.assert(
    fc.property(bent, places, (line, { share, turn, lift }) => {
      const bark = new FlatBark(line);
      const place = { s: share * bark.length, turn, lift };
      const point = bark.point(place);
      expect(Math.abs(liftByLooking(line, point) - lift)).toBeLessThan(0.03);
      expect(Math.abs(bark.liftOf(point) - lift)).toBeLessThan(2e-3);
      const back = bark.placeOf(point);
      expect(distance(bark.point(back), point)).toBeLessThan(0.12);
      // Drawn out of the wood it is as high as asked; what is out already stays where it is.
      const out = bark.clearOfWood(point, lift + 1);
      expect(Math.abs(bark.liftOf(out) - lift - 1)).toBeLessThan(0.35);
      expect(bark.clearOfWood(out, lift)).toBe(out);
    }),
    { numRuns: 200 },
  );
});

test('a frame that was handed out stays as it was, square and of unit length, whatever is asked after it', () => {
  fc.assert(
    fc.property(bent, places, places, (line, one, other) => {
      const bark = new FlatBark(line);
      const [s, way] = [one.share * bark.length, [0.6, 0, 0.8] as const];
      const frame = bark.frame(s);
      const before = JSON.stringify(frame);
      bark.point({ s: other.share * bark.length, turn: other.turn, lift: other.lift });
      bark.facing(other.share * bark.length, other.turn, way);
      expect(JSON.stringify(frame)).toBe(before);
      const { along, up, round } = frame;
      for (const [a, b, product] of [
        [along, up, 0],
        [along, round, 0],
        [up, round, 0],
        [along, along, 1],
        [up, up, 1],
        [round, round, 1],
      ] as const)
        // prettier-ignore
        expect(dot(a, b)).toBeCloseTo(product, 9);
      expect(bark.facing(s, one.turn, way)).toBeCloseTo(dot(bark.outward(s, one.turn), way), 12);
      expect(bark.turnTo(s, bark.outward(s, one.turn))).toBeCloseTo(one.turn, 9);
    }),
    { numRuns: 100 },
  );
});

test('pieces and paths are the same whatever was planned before them', () => {
  const small = placeTree(generateTree({ seed: 7, name: 'Small', species: 'larch', height: 420, base: 44, primaries: 7, secondaries: 2 }));
  const planned = (placed: typeof small): string =>
    JSON.stringify(planWiring(placed, proposePoses(placed)), (_, value: unknown) => (value instanceof Map ? [...value] : value));
  const first = planned(small);
  planned(placeTree(largeTree(60, 4)));
  expect(planned(small)).toBe(first);
  expect(first).toContain('"path"');
});
