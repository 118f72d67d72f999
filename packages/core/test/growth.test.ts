import fc from 'fast-check';
import {
  chanceBelow,
  chanceOfStage,
  chanceSet,
  dayOf,
  expectedGrowth,
  forecast,
  growthToHold,
  heldShare,
  learn,
  MARK_STAGES,
  normalCdf,
  normalQuantile,
  NOTHING_KNOWN,
  placeTree,
  quantile,
  seeded,
  speciesOf,
  stageAt,
  stageStarts,
  UNKNOWN_SD,
  watch,
  type CoilState,
  type LineOf,
  type MarkStage,
  type RecordLine,
  type SeenStage,
} from '../src/index.js';
import { between, coilState, held, PLAIN, wired } from './coils.js';
import { branch, tree } from './trees.js';

test('the normal law agrees with its tables and its own inverse', () => {
  for (const [x, p] of [
    [0, 0.5],
    [1, 0.841344746],
    [1.96, 0.975002105],
    [-3.5, 0.000232629],
  ] as const)
    expect(normalCdf(x)).toBeCloseTo(p, 8);
  for (const p of [0.001, 0.1, 0.5, 0.9, 0.999]) expect(normalCdf(normalQuantile(p))).toBeCloseTo(p, 10);
});

test('the new wood that holds a share is the inverse of the share held', () => {
  fc.assert(
    fc.property(
      between(3, 30),
      between(0.001, 0.05),
      between(0, 1),
      between(0, 900),
      between(0.2, 0.7),
      between(60, 300),
      between(0.3, 0.97),
      (diameter, curvature, free, growingDays, relaxedShare, relaxationDays, share) => {
        const held = { diameter, curvature, recoverable: free * curvature, growingDays, relaxedShare, relaxationDays };
        const growth = growthToHold(held, share);
        const back = heldShare({ ...held, radialGrowth: growth });
        if (growth > 0) expect(back).toBeCloseTo(share, 6);
        else expect(back).toBeGreaterThanOrEqual(share - 1e-12);
      },
    ),
  );
});

test('chances rise with time, the dates are in order, and each date is where its chance is reached', () => {
  fc.assert(
    fc.property(coilState, (coil) => {
      const { marking, touching, set } = forecast(coil);
      for (const { p10, p50, p90 } of [marking, touching, set]) {
        const days = [p10, p50, p90].map((d) => d ?? Infinity);
        expect(days).toEqual([...days].sort((a, b) => a - b));
      }
      expect(touching.p50 ?? Infinity).toBeLessThanOrEqual(marking.p50 ?? Infinity);
      if (marking.p50 !== null) {
        expect(chanceOfStage(coil, 'marking', marking.p50)).toBeGreaterThanOrEqual(0.5);
        expect(chanceOfStage(coil, 'marking', marking.p50 - 1)).toBeLessThan(0.5);
      }
      if (set.p50 !== null && set.p50 > coil.since) expect(chanceSet(coil, set.p50 - 1)).toBeLessThan(0.5);
    }),
    { numRuns: 60 },
  );
});

test('the forecast of marks and of set agrees with drawing the unknown many times', () => {
  fc.assert(
    fc.property(coilState, fc.integer({ min: 60, max: 900 }), (coil, later) => {
      const random = seeded(7);
      const day = coil.since + later;
      const starts = stageStarts(coil.markLimit, coil.wireDiameter);
      const draws = 4000;
      let marks = 0;
      for (let i = 0; i < draws; i++) {
        const normal = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
        const stage = stageAt(expectedGrowth(coil, day) * Math.exp(UNKNOWN_SD * normal) - coil.allowance, starts);
        if (MARK_STAGES.indexOf(stage) >= MARK_STAGES.indexOf('marking')) marks++;
      }
      expect(Math.abs(marks / draws - chanceOfStage(coil, 'marking', day))).toBeLessThan(0.03);
    }),
    { numRuns: 20 },
  );
});

test('a bend beyond yield sets sooner, a thick branch later, as under the hand', () => {
  const larch = speciesOf('larch');
  const coil = (diameter: number, turn: number): CoilState => ({
    species: larch,
    hemisphere: 'north',
    since: dayOf('2026-02-20'),
    diameter,
    wireDiameter: 2,
    factor: 1,
    allowance: 0,
    markLimit: 0.45,
    bend: held(larch, diameter, turn),
    unknown: NOTHING_KNOWN,
    seen: [],
    ...PLAIN,
  });
  const months = (c: CoilState): number => ((forecast(c).set.p50 ?? Infinity) - c.since) / 30;
  expect(months(coil(6, 4))).toBeLessThan(months(coil(6, 1)));
  expect(months(coil(6, 1))).toBeLessThan(months(coil(25, 1)));
  expect(months(coil(4, 5))).toBeLessThan(6);
  expect(months(coil(40, 0.8))).toBeGreaterThan(14);
});

test('learning from sightings agrees with the integral over the tree, its branches, and how early and rich the year was', () => {
  const sight = (name: string, stage: MarkStage, expected: number): SeenStage => ({
    branch: name,
    year: 2026,
    stage,
    expected: [{ growth: expected, off: 0.04, allowance: 0 }],
    markLimit: 0.45,
    wireDiameter: 2,
  });
  const seen = [sight('a', 'marking', 0.3), sight('a', 'touching', 0.2), sight('b', 'clear', 0.25)];
  const starts = stageStarts(0.45, 2);
  const bounds = { clear: [-Infinity, starts.touching], touching: [starts.touching, starts.marking], marking: [starts.marking, starts.deep] } as Record<
    string,
    [number, number]
  >;
  const like = (s: SeenStage, z: number, early: number): number => {
    const [low, high] = bounds[s.stage]!;
    const depth = (s.expected[0]!.growth + early * s.expected[0]!.off) * Math.exp(z);
    return 1e-6 + normalCdf((high - depth) / 0.08) - normalCdf((low - depth) / 0.08);
  };
  const half = UNKNOWN_SD / Math.SQRT2;
  const grid = Array.from({ length: 81 }, (_, i) => (-4 + i / 10) * half);
  const law = (from: number, steps: number): [number, number][] =>
    Array.from({ length: steps + 1 }, (_, i) => from - (2 * from * i) / steps).map((u) => [u, Math.exp(-0.5 * u ** 2)]);
  const prior = (z: number): number => Math.exp(-0.5 * (z / half) ** 2);
  const mean = { a: 0, b: 0, c: 0 };
  let total = 0;
  for (const [early, howEarly] of law(-3, 12))
    for (const [rich, howRich] of law(-3, 8))
      for (const t of grid) {
        const own = (name: string): { mass: number; first: number } => {
          let [mass, first] = [0, 0];
          for (const b of grid) {
            const w = prior(b) * seen.filter((s) => s.branch === name).reduce((p, s) => p * like(s, t + b + 0.12 * rich, early), 1);
            mass += w;
            first += w * (t + b);
          }
          return { mass, first };
        };
        const [a, b, c] = [own('a'), own('b'), own('c')];
        const weight = prior(t) * howEarly * howRich * a.mass * b.mass * c.mass;
        total += weight;
        mean.a += (weight * a.first) / a.mass;
        mean.b += (weight * b.first) / b.mass;
        mean.c += (weight * c.first) / c.mass;
      }
  const unknownOf = learn(seen).of;
  for (const name of ['a', 'b', 'c'] as const) {
    const u = unknownOf(name);
    if (u.kind !== 'grid') throw new Error('learned on a grid');
    let first = 0;
    for (let i = 1; i < u.z.length; i++) first += ((u.z[i]! + u.z[i - 1]!) / 2) * (u.below[i]! - u.below[i - 1]!);
    expect(first).toBeCloseTo(mean[name] / total, 2);
  }
  expect(chanceBelow(unknownOf('a'), quantile(unknownOf('a'), 0.3))).toBeCloseTo(0.3, 6);
});

const saw = (id: string, stage: MarkStage, on: string): RecordLine => ({ on, kind: 'inspected', run: `w-${id}`, branch: id, stage });

test('a mark seen early brings the branch forward, its siblings less; a clear coil puts both back', () => {
  const at = (record: RecordLine[]) => {
    const found = watch(placeTree(tree([branch('a', { d: 7 }), branch('b', { d: 7, at: 300, bearing: 220 })], { record })), dayOf('2026-06-20'));
    return Object.fromEntries(found.map((w) => [w.coil.branch, w.race.forecast.marking.p50!])) as { a: number; b: number };
  };
  const plain = at([wired('a'), wired('b')]);
  const early = at([wired('a'), wired('b'), saw('a', 'marking', '2026-05-25')]);
  const late = at([wired('a'), wired('b'), saw('a', 'clear', '2026-06-15')]);
  expect(early.a).toBeLessThan(early.b);
  expect(early.b).toBeLessThan(plain.b);
  expect(late.a).toBeGreaterThan(late.b);
  expect(late.b).toBeGreaterThan(plain.b);
});

test('what was seen deep is to come off; a wrap, a loose coil and a weak tree mark later', () => {
  const one = (own: Partial<LineOf<'wired'>>, more: RecordLine[] = [], vigour: 'weak' | 'normal' = 'normal') =>
    watch(placeTree(tree([branch('a', { d: 7 })], { record: [{ ...wired('a'), ...own }, ...more], vigour })), dayOf('2026-06-20'))[0]!;
  const day = (w: ReturnType<typeof one>): number => w.race.forecast.marking.p50!;
  expect(one({}, [saw('a', 'deep', '2026-06-10')]).race.advice).toBe('remove-now');
  expect(day(one({ gap: 0.5 }))).toBeGreaterThan(day(one({})));
  expect(day(one({ wrap: 'raffia' }))).toBeGreaterThan(day(one({})));
  expect(day(one({}, [], 'weak'))).toBeGreaterThan(day(one({})));
});
