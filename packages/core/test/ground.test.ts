import fc from 'fast-check';
import {
  boxesApart,
  boxOf,
  chanceBelow,
  distances,
  hull,
  isoOf,
  lengthOf,
  limb,
  monthName,
  monthOf,
  normalCdf,
  normalQuantile,
  paint,
  pointAt,
  sayByHand,
  sayPull,
  sayTurning,
  quantile,
  sayDay,
  smooth,
  stageAt,
  stageStarts,
  stretch,
  toDeg,
  toRad,
  turnDeg,
  wrapDeg,
  yearAndDay,
  dayOf,
  type Grid,
  type Point,
  type Unknown,
  type Vec,
} from '../src/index.js';

const finite = (min: number, max: number) => fc.double({ min, max, noNaN: true });

test('what hands do is told as hands do it: bends in tens, pulls as weights', () => {
  expect([2, 12, 18, 24, 25, 57.4, 114].map(sayByHand)).toEqual(['5°', '10°', '20°', '20°', '30°', '60°', '110°']);
  expect([4.9, 9.81, 40, 62, 482].map(sayPull)).toEqual([
    'a light pull, 0.5 kg',
    'a light pull, 1.0 kg',
    'a firm pull, 4 kg',
    'as much as one hand draws, 6.5 kg',
    'more than one hand draws, 49 kg',
  ]);
  expect(sayTurning(7848)).toBe('8 kg a hand’s width out');
});

test('angles: turns and wraps, at their ends too', () => {
  expect([toDeg(Math.PI), toRad(90), wrapDeg(-90), wrapDeg(720), wrapDeg(359.5), wrapDeg(-0.5)]).toEqual([180, Math.PI / 2, 270, 0, 359.5, 359.5]);
  expect([turnDeg(350, 10), turnDeg(10, 350), turnDeg(0, 180), turnDeg(180, 0), turnDeg(90, 271), turnDeg(271, 90)]).toEqual([20, -20, 180, 180, -179, 179]);
  fc.assert(
    fc.property(finite(-1000, 1000), finite(-1000, 1000), (a, b) => {
      const turn = turnDeg(a, b);
      expect(turn > -180 - 1e-9 && turn <= 180).toBe(true);
      expect(Math.abs(((wrapDeg(a + turn) - wrapDeg(b) + 540) % 360) - 180)).toBeLessThan(1e-6);
    }),
  );
});

/** Known to more places than are asked for. */
const NORMAL: [x: number, below: number][] = [
  [0, 0.5],
  [0.5, 0.6914624612740131],
  [1, 0.8413447460685429],
  [1.959963984540054, 0.975],
  [3, 0.9986501019683699],
  [4.5, 0.9999966023268753],
  [6, 0.9999999990134123],
];
test('the normal law, its tails and its quantiles', () => {
  for (const [x, below] of NORMAL) {
    expect(Math.abs(normalCdf(x) - below)).toBeLessThan(3e-12);
    expect(Math.abs(normalCdf(-x) - (1 - below))).toBeLessThan(3e-12);
    if (x < 4) expect(Math.abs(normalQuantile(below) - x)).toBeLessThan(1e-8);
  }
  // Where one way to compute it hands over to the other nothing jumps.
  expect(Math.abs(normalCdf(3) - normalCdf(3 - 1e-9))).toBeLessThan(1e-11);
  // Far out the share that is left still counts: it is not rounded to nothing.
  expect(normalCdf(-8) / 6.220960574271785e-16).toBeCloseTo(1, 9);
  expect(normalCdf(-20) / 2.7536241186062337e-89).toBeCloseTo(1, 9);
  expect([normalCdf(40), normalCdf(-40)]).toEqual([1, 0]);
});

test('dates are days of the calendar and nothing else', () => {
  fc.assert(
    fc.property(fc.integer({ min: -200_000, max: 400_000 }), (day) => {
      const date = new Date(day * 86_400_000);
      const { year, dayOfYear } = yearAndDay(day);
      expect([year, dayOfYear]).toEqual([date.getUTCFullYear(), day - Date.UTC(year, 0, 1) / 86_400_000]);
      if (year >= 1000 && year <= 9999) expect(dayOf(isoOf(day))).toBe(day);
      expect(monthOf(day)).toBe(date.getUTCMonth() + 1);
    }),
  );
  expect(['x2026-01-01', '2026-01-01x', '2026-1-1', '2026-02-30', '2027-02-29', '2026-13-01', ''].map(dayOf)).toEqual(Array(7).fill(NaN));
  expect([dayOf('1970-01-02'), sayDay(dayOf('2028-02-29')), isoOf(dayOf('2026-05-20') + 0.4)]).toEqual([1, '29 February 2028', '2026-05-20']);
  expect([0, 1, 12, 13].map(monthName)).toEqual(['December', 'January', 'December', 'January']);
});

test('a line is found along, cut and smoothed: ends, corners and thickness stay', () => {
  const line = limb([[0, 0, 0], [30, 0, 0], [30, 40, 0], [30, 40, 50]], [10, 8, 4, 2]); // prettier-ignore
  expect([lengthOf(line), line.along]).toEqual([120, [0, 30, 70, 120]]);
  expect(pointAt(line, 50)).toEqual({ point: [30, 20, 0], diameter: 6, direction: [0, 1, 0] });
  expect([pointAt(line, -5).point, pointAt(line, 500).point, pointAt(line, 500).diameter]).toEqual([[0, 0, 0], [30, 40, 50], 2]); // prettier-ignore
  const part = stretch(line, 15, 95);
  expect([part.points, part.diameters]).toEqual([[[15, 0, 0], [30, 0, 0], [30, 40, 0], [30, 40, 25]], [9, 8, 4, 3]]); // prettier-ignore
  // Cut at a corner the corner is there once.
  expect(stretch(line, 30, 70).points).toEqual([[30, 0, 0], [30, 40, 0]]); // prettier-ignore
  const fine = smooth(line, 4);
  expect([fine.points.length, fine.points[0], fine.points[4], fine.points[12]]).toEqual([13, [0, 0, 0], [30, 0, 0], [30, 40, 50]]); // prettier-ignore
  expect(fine.diameters.slice(0, 5)).toEqual([10, 9.5, 9, 8.5, 8]);
  // By hand: half way on the second piece, between its neighbours.
  expect(fine.points[6]).toEqual([30 + 30 / 16, 20, -50 / 16]);
  expect(smooth(limb([[0, 0, 0], [10, 0, 0]], [1, 1]), 5).points).toEqual([0, 2, 4, 6, 8, 10].map((x) => [expect.closeTo(x, 9), 0, 0])); // prettier-ignore
});

test('boxes hold the wood with its thickness, and are apart along any one axis', () => {
  const a = boxOf(limb([[0, 0, 0], [10, 20, 30]] as Vec[], [4, 2])); // prettier-ignore
  expect(a).toEqual({ low: [-2, -2, -2], high: [11, 21, 31] });
  for (const k of [0, 1, 2] as const)
    for (const [from, apart] of [
      [a.high[k] + 4.9, false],
      [a.high[k] + 5.1, true],
      [a.low[k] - 6, true],
      [a.low[k] - 5, false],
    ] as const) {
      // prettier-ignore
      const low = [0, 0, 0].map((_, i) => (i === k ? from : 5)) as unknown as Vec;
      const high = low.map((x, i) => (i === k && from < 0 ? x : x + (i === k ? 0 : 1))) as unknown as Vec;
      expect([k, from, boxesApart(a, { low, high }, 5), boxesApart({ low, high }, a, 5)]).toEqual([k, from, apart, apart]);
    }
});

test('hulls, covered cells and distances are those found by trying all', () => {
  const point = fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 9 }));
  const grid: Grid = { columns: 14, rows: 11, cell: 1, at: (c, r) => [c, r] };
  const across = (o: Point, a: Point, b: Point): number => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
  fc.assert(
    fc.property(fc.array(point, { minLength: 3, maxLength: 9 }), (points) => {
      const corners = hull(points);
      const edges = corners.map((c, i) => [c, corners[(i + 1) % corners.length]!] as const);
      for (const p of points) for (const [a, b] of edges) expect(across(a, b, p)).toBeGreaterThanOrEqual(-1e-9);
      for (const c of corners) expect(points).toContainEqual(c);
      fc.pre(corners.length > 2);
      const covered = paint([corners], grid, -0.31415, -0.70721);
      const inside = (c: number, r: number): boolean => edges.every(([a, b]) => across(a, b, [c + 0.5 - 0.31415, r + 0.5 - 0.70721]) > 0);
      for (let r = 0; r < grid.rows; r++)
        for (let c = 0; c < grid.columns; c++) expect([c, r, covered[r * grid.columns + c]]).toEqual([c, r, Number(inside(c, r))]);
    }),
    { numRuns: 150 },
  );
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 9 }), fc.integer({ min: 2, max: 7 }), fc.infiniteStream(fc.boolean()), (columns, rows, coin) => {
      const empty = Uint8Array.from({ length: columns * rows }, () => Number(coin.next().value));
      fc.pre(empty.some((e) => !e));
      const found = distances(empty, { ...grid, columns, rows });
      for (let i = 0; i < empty.length; i++) {
        const [c, r] = [i % columns, Math.floor(i / columns)];
        const all = [...empty].flatMap((e, k) => (e ? [] : [Math.hypot((k % columns) - c, Math.floor(k / columns) - r)]));
        expect(found[i]).toBeCloseTo(Math.min(...all), 9);
      }
    }),
    { numRuns: 100 },
  );
});

test('the unknown of a branch: chances and quantiles belong together, as a law and as weights', () => {
  const law: Unknown = { kind: 'normal', mean: 0.2, sd: 0.3 };
  const steps = Array.from({ length: 41 }, (_, i) => -1 + i * 0.06);
  const grid: Unknown = {
    kind: 'grid',
    z: Float64Array.from(steps),
    below: Float64Array.from(steps, (z) => (z <= -0.99 ? 0 : z >= 1.39 ? 1 : normalCdf((z - 0.2) / 0.3))),
  };
  for (const unknown of [law, grid]) {
    for (const p of [0.05, 0.1, 0.5, 0.8, 0.9]) {
      expect(chanceBelow(unknown, quantile(unknown, p))).toBeCloseTo(p, 9);
      expect(quantile(unknown, p)).toBeCloseTo(0.2 + 0.3 * normalQuantile(p), unknown === law ? 9 : 2);
    }
    expect([chanceBelow(unknown, Infinity), chanceBelow(unknown, -Infinity)]).toEqual([1, 0]);
  }
  expect([chanceBelow(grid, -1), chanceBelow(grid, -5), chanceBelow(grid, 1.4), chanceBelow(grid, 9)]).toEqual([0, 0, 1, 1]);
});

test('stages begin where they do, and not a hair before', () => {
  const thin = stageStarts(0.45, 1);
  expect(thin).toEqual({ touching: 0.1125, marking: 0.45, deep: 0.5625, swallowed: 1 });
  expect(stageStarts(0.45, 4)).toEqual({ touching: 0.1125, marking: 0.45, deep: 2, swallowed: 4 });
  expect(stageStarts(0.8, 1)).toEqual({ touching: 0.2, marking: 0.8, deep: 1, swallowed: 1.5 });
  const order = ['touching', 'marking', 'deep', 'swallowed'] as const;
  order.forEach((stage, i) => {
    expect(stageAt(thin[stage], thin)).toBe(stage);
    expect(stageAt(thin[stage] - 1e-9, thin)).toBe(i ? order[i - 1] : 'clear');
  });
});
