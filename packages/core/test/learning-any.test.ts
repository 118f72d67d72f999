import fc from 'fast-check';
import {
  markLimitFor,
  after as afterSaid,
  believed,
  chanceBelow,
  calibrationOf,
  chanceOfStage,
  coilHistory,
  dayOf,
  forecast,
  fromOthers,
  GROWTH_UNKNOWN,
  isoOf,
  knownFrom,
  learn,
  lookFrom,
  MARK_STAGES,
  NOTHING_LEARNT,
  placeTree,
  quantile,
  scarsOf,
  seasonsAhead,
  speciesOf,
  stageAt,
  stageStarts,
  treeSays,
  unwiringOf,
  usualMean,
  walkItems,
  watch,
  type MarkStage,
  type RecordLine,
  type SeenStage,
  type Tree,
} from '../src/index.js';
import { between, coilState, wired } from './coils.js';
import { branch, tree } from './trees.js';

const START = dayOf('2026-03-01');
const KINDS = ['larch', 'maple-trident', 'olive', 'pine-two-needle', 'beech'] as const;
const rank = (stage: MarkStage): number => MARK_STAGES.indexOf(stage);

/** A tree of three branches, wired in spring, with looks at random, some of its wire off again, things done to it, and measures. */
const lived: fc.Arbitrary<Tree> = fc
  .record({
    species: fc.constantFrom(...KINDS),
    vigour: fc.constantFrom('weak' as const, 'normal' as const, 'strong' as const),
    metal: fc.constantFrom('copper' as const, 'aluminium' as const),
    bentDeg: fc.integer({ min: 15, max: 70 }),
    looks: fc.array(fc.record({ of: fc.nat(2), day: fc.integer({ min: 10, max: 400 }), stage: fc.constantFrom(...MARK_STAGES) }), { maxLength: 8 }),
    off: fc.array(fc.record({ of: fc.nat(2), day: fc.integer({ min: 30, max: 400 }), held: fc.integer({ min: 2, max: 60 }) }), { maxLength: 2 }),
    events: fc.array(fc.record({ kind: fc.constantFrom('fed' as const, 'pruned' as const, 'ailing' as const), day: fc.integer({ min: 0, max: 300 }) }), {
      maxLength: 2,
    }),
  })
  .map(({ species, vigour, metal, bentDeg, looks, off, events }) => {
    const ids = ['a', 'b', 'c'];
    const record: RecordLine[] = [
      ...ids.map((id) => ({ ...wired(id, isoOf(START)), metal, bentDeg, targetDeg: bentDeg * 0.9 })),
      ...looks.map(({ of, day, stage }): RecordLine => ({ on: isoOf(START + day), kind: 'inspected', branch: ids[of]!, run: `w-${ids[of]}`, stage })),
      ...off.map(({ of, day, held }): RecordLine => ({ on: isoOf(START + day), kind: 'unwired', branch: ids[of]!, run: `w-${ids[of]}`, heldDeg: held })),
      ...events.map(({ kind, day }): RecordLine => ({ on: isoOf(START + day), kind })),
    ];
    return tree(
      ids.map((id, i) => branch(id, { at: 150 + i * 120, bearing: i * 120, d: 6 + i * 2 })),
      { species, vigour, record },
    );
  });

test('whatever was seen becomes likelier by having been seen, and moves a sibling less than the branch itself', () => {
  fc.assert(
    fc.property(fc.constantFrom(...MARK_STAGES), between(0.1, 1.5), between(0, 0.1), (stage, growth, off) => {
      const sight: SeenStage = { branch: 'a', year: 2026, stage, expected: [{ growth, off, allowance: 0 }], markLimit: 0.45, wireDiameter: 2 };
      const starts = stageStarts(0.45, 2);
      // Of a thousand equally likely values of the unknown, how many show just that stage.
      const chance = (unknown: ReturnType<ReturnType<typeof learn>['of']>): number =>
        Array.from({ length: 1000 }, (_, i) => stageAt(growth * Math.exp(quantile(unknown, (i + 0.5) / 1000)), starts)).filter((s) => s === stage).length /
        1000;
      const [before, now] = [learn([]), learn([sight])];
      // Where it is all but sure beforehand, what later years may bring can take a little of it away.
      if (chance(before.of('a')) < 0.6) expect(chance(now.of('a'))).toBeGreaterThanOrEqual(chance(before.of('a')) - 0.01);
      const moved = (id: string): number => quantile(now.of(id), 0.5) - quantile(before.of(id), 0.5);
      expect(Math.abs(moved('b'))).toBeLessThanOrEqual(Math.abs(moved('a')) + 1e-3);
      if (Math.abs(moved('a')) > 0.05) expect(Math.sign(moved('b'))).toBe(Math.sign(moved('a')));
    }),
    { numRuns: 60 },
  );
});

test('looks lead to how a tree truly grows, the more years the nearer, though each year is early or late and rich or poor for all of it; the band told is as wide as the year to come is open', () => {
  let state = 7;
  const even = (): number => (state = (state * 1664525 + 1013904223) % 4294967296) / 4294967296 + 1e-10;
  const normal = (): number => Math.sqrt(-2 * Math.log(even())) * Math.cos(2 * Math.PI * even());
  const starts = stageStarts(0.45, 3);
  /** Five branches looked at six times a year, two of them measured in autumn; off: what two weeks of a season grow. */
  const lived = (truth: number, years: number) => {
    const own = ['a', 'b', 'c', 'd', 'e'].map((id) => ({ id, grows: truth * Math.exp(0.35 * Math.SQRT1_2 * normal()) }));
    const seen = Array.from({ length: years }, () => [normal(), Math.exp(0.12 * normal())] as const).flatMap(([early, rich], year) =>
      own.flatMap(({ id, grows }, k) => {
        const looks = [0.1, 0.25, 0.45, 0.7, 0.95, 1.1].map((growth): SeenStage => {
          const depth = Math.max(0, growth + 0.1 * early) * rich * grows + 0.08 * normal();
          return { branch: id, year, stage: stageAt(depth, starts), expected: [{ growth, off: 0.1, allowance: 0 }], markLimit: 0.45, wireDiameter: 3 };
        });
        return k > 1 ? looks : [...looks, { branch: id, year, expected: 1.2, off: 0, grown: 1.2 * rich * grows + 0.1 * normal(), within: 0.15 }];
      }),
    );
    const { of } = learn(seen);
    return own.map(({ id, grows }) => ({
      off: quantile(of(id), 0.5) - Math.log(grows),
      within: Math.abs(2 * chanceBelow(of(id), Math.log(grows) + 0.12 * normal()) - 1) < 0.8,
    }));
  };
  const all: boolean[] = [];
  for (const truth of [0.5, 1, 1.6, 2]) {
    const [one, three] = [1, 3].map((years) => Array.from({ length: 24 }, () => lived(truth, years)).flat());
    const usual = (of: typeof one): number => of!.reduce((sum, x) => sum + Math.abs(x.off), 0) / of!.length;
    expect(usual(three)).toBeLessThan(usual(one));
    expect(usual(three)).toBeLessThan(0.1);
    expect(Math.abs(three!.reduce((sum, x) => sum + x.off, 0) / three!.length)).toBeLessThan(0.1);
    all.push(...three!.map((x) => x.within));
  }
  const inside = all.filter(Boolean).length / all.length;
  expect([inside > 0.7, inside < 0.9]).toEqual([true, true]);
});

test('on any tree that lived a while: no date contradicts what was seen, advice and taking off agree, scars lie within what was seen, every coil is counted once', () => {
  fc.assert(
    fc.property(lived, fc.integer({ min: 1, max: 430 }), (t, later) => {
      const placed = placeTree(t);
      const day = START + later;
      for (const w of watch(placed, day)) {
        const { take, how } = unwiringOf(w, day);
        const seen = w.lastSeen?.stage ?? 'clear';
        if (how === 'unwound') {
          expect(rank(seen)).toBeLessThan(rank('marking'));
          expect(w.coil.metal).toBe('aluminium');
          expect(w.state.species.bark).not.toBe('thin');
        }
        if (take === 'marking') expect(rank(seen)).toBeGreaterThanOrEqual(rank('marking'));
        if (w.race.advice === 'remove-now') expect(take).not.toBe('none');
        expect(w.nextInspection).toBeGreaterThan(w.lastSeen?.day ?? w.coil.since);
        const { first, early } = lookFrom(w, day);
        expect(early).toBeLessThanOrEqual(first);
        const marks = chanceOfStage(w.state, 'marking', day);
        expect(marks >= 0 && marks <= 1).toBe(true);
      }
      const items = walkItems(t, day);
      expect(items.map((i) => i.branch).sort()).toEqual(watch(placed, day).map((w) => w.coil.branch).sort()); // prettier-ignore
      const history = coilHistory(t, day);
      for (const scar of scarsOf(placed, day)) {
        const coil = history.find((c) => c.branch === scar.branch && c.run === scar.run)!;
        expect(Math.max(...coil.seen.map((s) => rank(s.stage)))).toBe(rank(scar.stage));
        const starts = stageStarts(markLimitFor({ limit: watchLimit(t), wireDiameter: coil.size }), coil.size);
        expect(scar.depth).toBeGreaterThanOrEqual(starts[scar.stage]);
        expect(scar.depth).toBeLessThanOrEqual({ marking: starts.deep, deep: starts.swallowed, swallowed: starts.swallowed }[scar.stage]);
        if (scar.growsOut !== null) expect(scar.growsOut).toBeGreaterThan(scar.since);
      }
      const { inside, early, late, open } = calibrationOf(placed, day);
      expect(inside + early + late + open).toBe(history.filter((c) => c.seen.length).length);
    }),
    { numRuns: 150 },
  );
});

const watchLimit = (t: Tree): number => ({ thin: 0.3, medium: 0.45, corky: 0.8 })[speciesOf(t.species).bark];

test('what trees say of their kind is worth more the more there are, whatever their order, and never more than a tree can tell', () => {
  const said = fc.record({ mean: between(-0.6, 0.6), precision: fc.oneof(fc.constant(0), between(1, 200)) });
  fc.assert(
    fc.property(fc.array(said, { maxLength: 8 }), said, (others, one) => {
      const [with_, without] = [fromOthers([...others, one], GROWTH_UNKNOWN), fromOthers(others, GROWTH_UNKNOWN)];
      expect(with_.sd).toBeLessThanOrEqual(without.sd + 1e-12);
      const back = fromOthers([one, ...[...others].reverse()], GROWTH_UNKNOWN);
      expect(back.mean).toBeCloseTo(with_.mean, 12);
      expect(back.sd).toBeCloseTo(with_.sd, 12);
      // What a tree has of its own stays unknown, however many others there are.
      expect(with_.sd).toBeGreaterThanOrEqual(GROWTH_UNKNOWN.sd * Math.sqrt(0.6) - 1e-12);
      const lowest = Math.min(0, one.mean, ...others.map((o) => o.mean));
      expect(with_.mean).toBeGreaterThanOrEqual(lowest - 1e-12);
      expect(afterSaid(GROWTH_UNKNOWN, one).sd).toBeLessThanOrEqual(GROWTH_UNKNOWN.sd);
    }),
  );
  fc.assert(
    fc.property(lived, (t) => {
      const said_ = treeSays(t, START + 430);
      const known = knownFrom([said_]);
      expect(Number.isFinite(known.growth.mean) && Number.isFinite(known.spring.mean)).toBe(true);
      // A tree that nobody looked at and no wire came off says nothing.
      const mute = { ...t, record: t.record.filter((l) => l.kind === 'wired') };
      expect(knownFrom([treeSays(mute, START + 430)])).toEqual({ ...knownFrom([]), ahead: [] });
    }),
    { numRuns: 40 },
  );
  expect(knownFrom([]).growth.mean).toBe(NOTHING_LEARNT.growth.mean);
});

test('a season is never ahead by more than five weeks, warmth moves it the way it should, and time never runs back', () => {
  const monthly = [3, 3.5, 5.5, 8, 11.5, 14.5, 16.5, 16.5, 14, 10.5, 6.5, 4];
  fc.assert(
    fc.property(between(-8, 8), fc.constantFrom('north' as const, 'south' as const), fc.integer({ min: 0, max: 700 }), (warmer, hemisphere, from) => {
      const first = dayOf('2025-01-01') + from;
      const readings = Array.from({ length: 400 }, (_, i) => ({ day: first + i, mean: usualMean(monthly, first + i) + warmer }));
      const ahead = seasonsAhead(readings, monthly, hemisphere);
      let before = -Infinity;
      for (const a of ahead) {
        expect(Math.abs(a.days)).toBeLessThanOrEqual(35);
        if (Math.abs(warmer) > 0.5) expect(a.days * Math.sign(warmer)).toBeGreaterThanOrEqual(0);
        expect(a.day).toBeGreaterThan(before);
        before = a.day;
      }
      expect(believed(readings, monthly)).toHaveLength(readings.length);
    }),
    { numRuns: 40 },
  );
});

test('a spell, a lead of the season and a wider guess never make an early date later than a late one', () => {
  const spell = fc.record({ at: fc.integer({ min: 0, max: 300 }), days: fc.integer({ min: 1, max: 120 }), factor: between(0.2, 1.8) });
  fc.assert(
    fc.property(coilState, fc.array(spell, { maxLength: 3 }), fc.integer({ min: -30, max: 30 }), between(0, 0.4), (coil, spells, lead, storedSd) => {
      const course = {
        spells: spells.map(({ at, days, factor }) => ({ from: coil.since + at, to: coil.since + at + days, factor })),
        ahead: [{ day: coil.since, days: lead }],
      };
      const found = forecast({ ...coil, course, bend: coil.bend && { ...coil.bend, storedSd } });
      for (const { p10, p50, p90 } of [found.touching, found.marking, found.deep, found.set])
        expect([p10, p50, p90].map((d) => d ?? Infinity)).toEqual([p10, p50, p90].map((d) => d ?? Infinity).sort((a, b) => a - b));
    }),
    { numRuns: 80 },
  );
});
