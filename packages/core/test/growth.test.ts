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
  isoOf,
  learn,
  MARK_LIMIT,
  MARK_STAGES,
  nextInspection,
  normalCdf,
  normalQuantile,
  NOTHING_KNOWN,
  placeTree,
  quantile,
  race,
  seeded,
  speciesOf,
  stageAt,
  stageStarts,
  UNKNOWN_SD,
  watch,
  recoverable,
  woodOf,
  type CoilState,
  type HeldBend,
  type LineOf,
  type MarkStage,
  type RecordLine,
  type Sighting,
  type Species,
} from '../src/index.js';
import { branch, tree } from './trees.js';

const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** A bend of so many times the yield curvature, left a tenth past its target by a wire that holds well. */
function held(species: Species, diameter: number, turn: number): HeldBend {
  const target = (turn * 2 * species.elasticStrain.value) / diameter;
  const wired = target * 1.1;
  return { wired, stored: 0.4 * recoverable({ diameter, curvature: wired, wood: woodOf(species) }), target, assumedLength: null };
}

const coilState: fc.Arbitrary<CoilState> = fc
  .record({
    species: fc.constantFrom('larch', 'maple-trident', 'juniper-scale', 'pine-two-needle', 'spruce'),
    hemisphere: fc.constantFrom('north' as const, 'south' as const),
    since: fc.integer({ min: dayOf('2024-01-01'), max: dayOf('2026-12-31') }),
    diameter: between(3, 18),
    wireDiameter: between(1, 5),
    factor: between(0.3, 2.5),
    allowance: fc.constantFrom(0, 0.3, 0.8),
    turn: between(0.3, 4),
  })
  .map(({ species, turn, ...rest }) => {
    const s = speciesOf(species);
    return { ...rest, species: s, markLimit: MARK_LIMIT[s.bark], bend: held(s, rest.diameter, turn), unknown: NOTHING_KNOWN, seen: [] };
  });

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
  });
  const months = (c: CoilState): number => ((forecast(c).set.p50 ?? Infinity) - c.since) / 30;
  expect(months(coil(6, 4))).toBeLessThan(months(coil(6, 1)));
  expect(months(coil(6, 1))).toBeLessThan(months(coil(25, 1)));
  expect(months(coil(4, 5))).toBeLessThan(6);
  expect(months(coil(40, 0.8))).toBeGreaterThan(14);
});

test('learning from sightings agrees with the integral over the tree and both branches', () => {
  const sight = (name: string, stage: Sighting['stage'], expected: number): Sighting => ({
    branch: name,
    stage,
    expected,
    allowance: 0,
    markLimit: 0.45,
    wireDiameter: 2,
  });
  const seen = [sight('a', 'marking', 0.3), sight('a', 'touching', 0.2), sight('b', 'clear', 0.25)];
  const starts = stageStarts(0.45, 2);
  const bounds = { clear: [-Infinity, starts.touching], touching: [starts.touching, starts.marking], marking: [starts.marking, starts.deep] } as Record<
    string,
    [number, number]
  >;
  const like = (s: Sighting, z: number): number => {
    const [low, high] = bounds[s.stage]!;
    const depth = s.expected * Math.exp(z);
    return 1e-6 + normalCdf((high - depth) / 0.08) - normalCdf((low - depth) / 0.08);
  };
  const half = UNKNOWN_SD / Math.SQRT2;
  const grid = Array.from({ length: 161 }, (_, i) => (-4 + i / 20) * half);
  const prior = (z: number): number => Math.exp(-0.5 * (z / half) ** 2);
  const mean = { a: 0, b: 0, c: 0 };
  let total = 0;
  for (const t of grid) {
    const own = (name: string): { mass: number; first: number } => {
      let [mass, first] = [0, 0];
      for (const b of grid) {
        const w = prior(b) * seen.filter((s) => s.branch === name).reduce((p, s) => p * like(s, t + b), 1);
        mass += w;
        first += w * (t + b);
      }
      return { mass, first };
    };
    const [a, b, c] = [own('a'), own('b'), own('c')];
    const weight = prior(t) * a.mass * b.mass * c.mass;
    total += weight;
    mean.a += (weight * a.first) / a.mass;
    mean.b += (weight * b.first) / b.mass;
    mean.c += (weight * c.first) / c.mass;
  }
  const unknownOf = learn(seen);
  for (const name of ['a', 'b', 'c'] as const) {
    const u = unknownOf(name);
    if (u.kind !== 'grid') throw new Error('learned on a grid');
    let first = 0;
    for (let i = 1; i < u.z.length; i++) first += ((u.z[i]! + u.z[i - 1]!) / 2) * (u.below[i]! - u.below[i - 1]!);
    expect(first).toBeCloseTo(mean[name] / total, 2);
  }
  expect(chanceBelow(unknownOf('a'), quantile(unknownOf('a'), 0.3))).toBeCloseTo(0.3, 6);
});

const wired = (id: string, on = '2026-03-01'): LineOf<'wired'> => ({
  on,
  kind: 'wired',
  run: `w-${id}`,
  branch: id,
  metal: 'copper',
  size: 2.05,
  strands: 1,
  angle: 45,
  hand: 'cw',
  start: 'over',
  gap: 0,
  wrap: 'none',
  bentDeg: 40,
  targetDeg: 30,
  over: 60,
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

test('a look is never later than half the time to one mark in ten, nor than the longest pause', () => {
  fc.assert(
    fc.property(coilState, fc.boolean(), (coil, tender) => {
      const found = forecast(coil);
      const next = nextInspection(coil, found.marking.p10, found, null, tender);
      expect(next).toBeGreaterThan(coil.since);
      expect(next - coil.since).toBeLessThanOrEqual(84);
      if (found.marking.p10 !== null) expect(next).toBeLessThanOrEqual(coil.since + Math.max(3, (found.marking.p10 - coil.since) / 2));
    }),
  );
  const summer = {
    ...fc.sample(coilState, { numRuns: 1, seed: 3 })[0]!,
    species: speciesOf('maple-trident'),
    hemisphere: 'north' as const,
    since: dayOf('2026-05-01'),
  };
  expect(nextInspection(summer, null, forecast({ ...summer, factor: 0.01 }), summer.since, true) - summer.since).toBeLessThanOrEqual(14);
});

const still: CoilState = {
  species: speciesOf('spruce'),
  hemisphere: 'north',
  since: dayOf('2026-03-01'),
  diameter: 3,
  wireDiameter: 1,
  factor: 0.5,
  allowance: 0.8,
  markLimit: 0.45,
  bend: { wired: 0.22, stored: 0.04, target: 0.2, assumedLength: null },
  unknown: NOTHING_KNOWN,
  seen: [],
};

test('a clean window opens when set is sure and shuts before one mark in ten', () => {
  const found = race(still, still.since, null, 'none');
  expect(found.advice).toBe('window');
  expect(found.window!.from).toBeLessThanOrEqual(found.window!.to);
  expect(found.window!.to).toBe(found.forecast.marking.p10);
  expect(found.because[0]).toContain(String(new Date(isoOf(found.window!.from)).getUTCFullYear()));
  expect(race(still, found.window!.to + 1, null, 'none').advice).toBe('remove-now');
});

test('where no window opens: more coils, a wrap, or a guy; and with no bend noted it is off before it marks', () => {
  const of = (species: string, diameter: number, turn: number, own: Partial<CoilState> = {}): CoilState => {
    const s = speciesOf(species);
    return { ...still, allowance: 0, species: s, diameter, bend: held(s, diameter, turn), ...own };
  };
  const advice = (coil: CoilState, on = still.since) => race(coil, on, null, 'none').advice;
  expect(advice(of('spruce', 12, 2, { factor: 1.5 }))).toBe('rewire');
  const tender = of('azalea', 20, 1, { wireDiameter: 5, markLimit: 0.15 });
  expect(advice(tender)).toBe('wrap');
  expect(advice({ ...tender, allowance: 0.6 })).toBe('window');
  expect(advice(of('spruce', 20, 0.3))).toBe('guy');
  const unnoted = of('spruce', 3, 1, { bend: null });
  expect(advice(unnoted)).toBe('wait');
  expect(advice(unnoted, forecast(unnoted).marking.p10! - 30)).toBe('rewire');
});

test('a shallow mark that grows out is borne: the window is longer and what was seen marking may stay, deep may not', () => {
  const larch = { ...still, species: speciesOf('larch'), wireDiameter: 2.5 };
  const [none, fading] = (['none', 'fading'] as const).map((tolerance) => race(larch, larch.since, null, tolerance));
  expect(fading!.limit!).toBeGreaterThan(none!.limit!);
  expect(fading!.limit).toBe(fading!.forecast.deepRisk);
  const seen = (stage: MarkStage, tolerance: 'none' | 'fading') =>
    race({ ...larch, seen: [{ day: larch.since + 90, stage }] }, larch.since + 91, stage, tolerance);
  expect(seen('marking', 'none').advice).toBe('remove-now');
  expect(seen('marking', 'fading').advice).not.toBe('remove-now');
  expect(seen('deep', 'fading').advice).toBe('remove-now');
});

test('a forecast never contradicts what was seen', () => {
  fc.assert(
    fc.property(coilState, fc.array(fc.tuple(fc.integer({ min: 1, max: 700 }), fc.constantFrom(...MARK_STAGES)), { maxLength: 4 }), (coil, looks) => {
      const seen = looks.map(([later, stage]) => ({ day: coil.since + later, stage })).sort((a, b) => a.day - b.day);
      const state = { ...coil, seen };
      const found = forecast(state);
      const at = (stage: MarkStage): number => MARK_STAGES.indexOf(stage);
      for (const stage of ['touching', 'marking', 'deep'] as const) {
        const first = seen.find((s) => at(s.stage) >= at(stage))?.day ?? Infinity;
        for (const { day, stage: was } of seen) {
          if (at(was) >= at(stage)) expect(chanceOfStage(state, stage, day)).toBe(1);
          else if (day < first) expect(chanceOfStage(state, stage, day)).toBe(0);
        }
        for (const p of ['p10', 'p50', 'p90'] as const) if (first < Infinity) expect(found[stage][p]).toBeLessThanOrEqual(first);
      }
    }),
    { numRuns: 60 },
  );
});

test('an angle without a length takes the usual length and says so', () => {
  const [noted, assumed] = [60, undefined].map((over) => {
    const line = wired('a');
    if (over) line.over = over;
    else delete line.over;
    return watch(placeTree(tree([branch('a', { d: 7 })], { record: [line] })), dayOf('2026-06-20'))[0]!;
  });
  expect(noted!.race.because.join()).not.toContain('not noted');
  expect(assumed!.state.bend!.assumedLength).toBeGreaterThan(10);
  expect(assumed!.race.because.join()).toContain('The length of its bend was not noted');
});
