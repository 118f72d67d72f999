import fc from 'fast-check';
import {
  chanceOfStage,
  dayOf,
  forecast,
  isoOf,
  MARK_STAGES,
  nextInspection,
  NOTHING_KNOWN,
  placeTree,
  race,
  speciesOf,
  watch,
  type CoilState,
  type MarkStage,
} from '../src/index.js';
import { coilState, held, PLAIN, wired } from './coils.js';
import { branch, tree } from './trees.js';

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
  // Thin bark: every two weeks once it may mark within four, before that every four.
  const slow = forecast({ ...summer, factor: 0.01 });
  expect(nextInspection(summer, null, slow, summer.since, true) - summer.since).toBe(28);
  expect(nextInspection(summer, summer.since + 28, slow, summer.since, true) - summer.since).toBe(14);
  // That the bark may press is not looked for in the first two weeks; that it may mark is.
  const snug = { ...slow, firstTouch: summer.since };
  expect(nextInspection(summer, null, snug, null, false) - summer.since).toBe(14);
  expect(nextInspection(summer, summer.since + 10, snug, null, false) - summer.since).toBe(5);
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
  bend: { wired: 0.22, stored: 0.04, target: 0.2, storedSd: 0, assumedLength: null },
  unknown: NOTHING_KNOWN,
  seen: [],
  ...PLAIN,
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
  const thin = of('spruce', 8, 2, { factor: 1.5 });
  expect(advice(thin)).toBe('rewire');
  // As often on what is thick, or thrice and more: a tie; on what is too thin for one, wired again however often it takes.
  expect(advice(of('spruce', 12, 2, { factor: 1.5 }))).toBe('guy');
  expect(race({ ...thin, diameter: 16, bend: { ...thin.bend!, stored: 0.1 * thin.bend!.wired } }, still.since, null, 'none').advice).not.toBe('rewire');
  expect(advice(of('spruce', 3, 0.3))).toBe('rewire');
  const tender = of('pine-two-needle', 6, 1, { wireDiameter: 5, markLimit: 0.15 });
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
