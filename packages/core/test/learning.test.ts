import fc from 'fast-check';
import {
  bandOf,
  markLimitFor,
  calibrationOf,
  dayOf,
  dueOn,
  forecast,
  fromOthers,
  gatherRounds,
  generateTree,
  grownAlong,
  growthShare,
  GROWTH_UNKNOWN,
  isoOf,
  learnedOf,
  NOTHING_LEARNT,
  pastsFor,
  placeTree,
  planTree,
  quantile,
  scarsOf,
  seasonsAhead,
  speciesOf,
  unwiringOf,
  usualMean,
  walkItems,
  watch,
  watchingOf,
  type LineOf,
  type MarkStage,
  type RecordLine,
  type Tree,
} from '../src/index.js';
import { coilState, wired } from './coils.js';
import { branch, tree } from './trees.js';

const ON = dayOf('2026-06-20');
const two = (record: RecordLine[], own: Partial<Tree> = {}): Tree =>
  tree([branch('a', { d: 7 }), branch('b', { d: 7, at: 300, bearing: 220 })], { record, ...own });
const saw = (id: string, stage: MarkStage, on: string, gap?: number): RecordLine => ({
  on,
  kind: 'inspected',
  run: `w-${id}`,
  branch: id,
  stage,
  ...(gap === undefined ? {} : { gap }),
});
const off = (id: string, on: string, own: Partial<LineOf<'unwired'>> = {}): RecordLine => ({
  on,
  kind: 'unwired',
  run: `w-${id}`,
  branch: id,
  method: 'cut',
  ...own,
});
const marksOf = (t: Tree, id = 'a'): number => watch(placeTree(t), ON).find((w) => w.coil.branch === id)!.race.forecast.marking.p50!;
const median = (t: Tree, id = 'a'): number => quantile(learnedOf(placeTree(t), ON).of(id), 0.5);

test('events and an early season change what grows, piece by piece of the year', () => {
  const larch = speciesOf('larch');
  const [from, to] = [dayOf('2026-04-01'), dayOf('2026-09-01')];
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 150 }), fc.integer({ min: 1, max: 100 }), fc.double({ min: 0.2, max: 2, noNaN: true }), (at, days, factor) => {
      const spell = { from: from + at, to: from + at + days, factor };
      const within = growthShare(larch, 'north', spell.from, Math.min(spell.to, to));
      const all = growthShare(larch, 'north', from, to);
      expect(grownAlong(larch, 'north', { spells: [spell], ahead: [] }, from, to)).toBeCloseTo(all + (factor - 1) * within, 9);
    }),
  );
  const ahead = { spells: [], ahead: [{ day: from, days: 12 }] };
  expect(grownAlong(larch, 'north', ahead, from, to)).toBeCloseTo(growthShare(larch, 'north', from + 12, to + 12), 9);
  const base = [wired('a', '2026-03-01')];
  expect(marksOf(two([...base, { on: '2026-04-10', kind: 'fed' }]))).toBeLessThan(marksOf(two(base)));
  for (const kind of ['pruned', 'defoliated', 'repotted', 'ailing'] as const)
    expect(marksOf(two([...base, { on: '2026-04-10', kind }]))).toBeGreaterThan(marksOf(two(base)));
  expect(marksOf(two([...base, { on: '2026-04-10', kind: 'fed', branch: 'b' }]))).toBe(marksOf(two(base)));
});

test('warmth: three degrees more bring the season forward, gaps and faults of the station do not, and midwinter begins anew', () => {
  const monthly = [0, 1, 4, 8, 12, 15, 17, 17, 13, 9, 4, 1];
  const from = dayOf('2026-01-01');
  const readings = (of: (day: number, usual: number) => number | null) =>
    Array.from({ length: 500 }, (_, i) => ({ day: from + i, mean: of(from + i, usualMean(monthly, from + i)) }));
  const at = (list: ReturnType<typeof seasonsAhead>, iso: string): number => list.filter((a) => a.day <= dayOf(iso)).pop()?.days ?? 0;
  const usual = seasonsAhead(
    readings((_, mean) => mean),
    monthly,
    'north',
  );
  expect(usual.every((a) => Math.abs(a.days) <= 1)).toBe(true);
  const warm = seasonsAhead(
    readings((_, mean) => mean + 3),
    monthly,
    'north',
  );
  expect(at(warm, '2026-05-15')).toBeGreaterThan(10);
  expect(at(warm, '2027-01-03')).toBe(0);
  expect(
    at(
      seasonsAhead(
        readings((_, mean) => mean - 3),
        monthly,
        'north',
      ),
      '2026-05-15',
    ),
  ).toBeLessThan(-10);
  const faulty = readings((day, mean) => (day % 3 === 0 ? null : day > from + 200 && day < from + 230 ? 21.3 : day % 7 === 0 ? mean + 40 : mean));
  expect(seasonsAhead(faulty, monthly, 'north').every((a) => Math.abs(a.days) <= 1)).toBe(true);
});

test('what is seen is learnt whatever the order of its lines; a gap and a caliper tell growth too', () => {
  const lines = [saw('a', 'touching', '2026-05-01'), saw('b', 'clear', '2026-05-20'), saw('a', 'marking', '2026-06-01')];
  const medians = [lines, [...lines].reverse()].map((seen) => median(two([wired('a'), wired('b'), ...seen])));
  expect(medians[0]).toBe(medians[1]);
  const loose = { ...wired('a'), gap: 1 };
  const left = (gap: number): number => median(two([loose, saw('a', 'clear', '2026-06-10', gap)]));
  expect(left(0.1)).toBeGreaterThan(left(0.9));
  const again = (d: number): number =>
    median(
      two([
        { on: '2026-03-01', kind: 'measured', branch: 'a', d: 7 },
        { on: '2026-06-15', kind: 'measured', branch: 'a', d },
      ]),
    );
  expect(again(9)).toBeGreaterThan(again(7.1));
});

test('other trees of the kind move a new one less than it moves itself, each new tree brings more, and a pace that is said stands', () => {
  const said = { mean: 0.4, precision: 80 };
  const [none, one, many] = [0, 1, 9].map((n) => fromOthers(Array<typeof said>(n).fill(said), GROWTH_UNKNOWN));
  expect(none).toEqual({ mean: 0, sd: expect.closeTo(GROWTH_UNKNOWN.sd, 9) as number });
  expect(one!.mean).toBeGreaterThan(0.02);
  expect(many!.mean).toBeGreaterThan(one!.mean);
  expect(many!.mean).toBeLessThan(0.4);
  expect(many!.sd).toBeLessThan(one!.sd);
  const fast = watch(placeTree(two([wired('a')])), ON, { ...NOTHING_LEARNT, growth: many! })[0]!;
  expect(fast.race.forecast.marking.p50!).toBeLessThan(marksOf(two([wired('a')])));
  const slow = two([wired('a'), saw('a', 'marking', '2026-05-01')]);
  const paced = { ...slow, plan: { ...slow.plan, pace: 0.5 } };
  expect(median(paced)).toBeLessThan(median(slow));
  const anew = { ...slow, plan: { ...slow.plan, learnFrom: '2026-06-01' } };
  expect(learnedOf(placeTree(anew), ON).looks).toBe(0);
  expect(watch(placeTree(anew), ON)[0]!.race.forecast.marking.p50).toBeLessThanOrEqual(dayOf('2026-05-01'));
});

test('what sprang back moves what is expected to, a wire put on again has only the rest to hold, and angles after days count before those at once', () => {
  const sprung = (heldDeg: number, more: RecordLine[] = []) => learnedOf(placeTree(two([wired('a'), off('a', '2026-06-01', { heldDeg }), ...more])), ON);
  expect(sprung(12).spring.mean).toBeGreaterThan(0);
  expect(sprung(38).spring.mean).toBeLessThan(0);
  expect(sprung(38).spring.sd).toBeLessThan(NOTHING_LEARNT.spring.sd);
  expect(sprung(38, [{ on: '2026-06-08', kind: 'measured', branch: 'a', heldDeg: 12 }]).spring).toEqual(sprung(12).spring);
  const again = (heldDeg: number): number =>
    watch(placeTree(two([wired('a'), off('a', '2026-05-01', { heldDeg }), { ...wired('a', '2026-06-10'), run: 'w-2' }])), ON)[0]!.state.bend!.stored;
  expect(again(30)).toBeLessThan(again(5));
});

test('the turns at a bend and those on straight wood run races of their own', () => {
  const wrapped = watch(placeTree(two([{ ...wired('a'), wrap: 'raffia', bentDeg: 60 }])), ON)[0]!;
  const [bend, straight] = wrapped.stretches;
  expect(bend!.where).toBe('bend');
  expect(Math.min(bend!.p50!, straight!.p50!)).toBe(wrapped.race.forecast.marking.p50);
  const bare = watch(placeTree(two([{ ...wired('a'), bentDeg: 60 }])), ON)[0]!.stretches;
  expect(bare[0]!.p50!).toBeLessThan(bare[1]!.p50!);
  fc.assert(
    fc.property(coilState, fc.double({ min: 0.3, max: 1.5, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (coil, factor, allowance) => {
      const both = forecast({ ...coil, straight: { factor, allowance } }).marking;
      const [own, other] = [forecast(coil).marking, forecast({ ...coil, factor, allowance }).marking];
      for (const p of ['p10', 'p50', 'p90'] as const) expect(both[p] ?? Infinity).toBe(Math.min(own[p] ?? Infinity, other[p] ?? Infinity));
    }),
    { numRuns: 40 },
  );
});

test('taking off: marks first and by cutting, copper and thin bark always cut, loose aluminium unwound, late wounds told', () => {
  const at = (own: Partial<LineOf<'wired'>>, seen: RecordLine[], day: string, species = 'larch') => {
    const t = two([{ ...wired('a'), ...own }, ...seen], { species });
    return unwiringOf(watch(placeTree(t), dayOf(day))[0]!, dayOf(day));
  };
  const aluminium = { metal: 'aluminium', size: 2.5, turns: 6.4 } as const;
  expect(at({}, [], '2026-03-20')).toMatchObject({ take: 'none', how: 'cut' });
  expect(at(aluminium, [], '2026-03-20')).toMatchObject({ take: 'none', how: 'unwound', pieces: 6 });
  expect(at(aluminium, [], '2026-03-20', 'maple-japanese').how).toBe('cut');
  const deep = at({ ...aluminium, bentDeg: 20, targetDeg: 20 }, [saw('a', 'deep', '2026-10-02')], '2026-10-02');
  expect(deep).toMatchObject({ take: 'marking', how: 'cut' });
  expect(deep.warnings.join()).toContain('frost');
});

test('scars are as deep as was seen, and grow out where the bark lets them', () => {
  const t = two([wired('a'), saw('a', 'marking', '2026-05-20'), off('a', '2026-05-21'), wired('b'), saw('b', 'touching', '2026-05-20')]);
  const [scar, ...others] = scarsOf(placeTree(t), ON);
  expect(others).toEqual([]);
  expect(scar).toMatchObject({ branch: 'a', stage: 'marking', on: false, since: dayOf('2026-05-21') });
  expect(scar!.depth).toBeGreaterThanOrEqual(markLimitFor({ limit: 0.45, wireDiameter: 2.05 }));
  expect(scar!.growsOut! - scar!.since).toBeGreaterThan(300);
  expect(scarsOf(placeTree({ ...t, species: 'beech' }), ON)[0]!.growsOut).toBeNull();
});

test('forecasts are counted by what came of them', () => {
  const at = (record: RecordLine[]) => calibrationOf(placeTree(two(record)), dayOf('2028-06-01'));
  const { p10, p90 } = watch(placeTree(two([wired('a')])), dayOf('2026-03-01'))[0]!.race.forecast.marking;
  const mark = (day: number): RecordLine[] => [wired('a'), saw('a', 'clear', isoOf(day - 3)), saw('a', 'marking', isoOf(day))];
  expect(at(mark(p10! - 5))).toMatchObject({ early: 1, inside: 0 });
  expect(at(mark(Math.round((p10! + p90!) / 2)))).toMatchObject({ inside: 1 });
  expect(at(mark(p90! + 10))).toMatchObject({ late: 1 });
  expect(at([wired('a'), saw('a', 'clear', '2026-03-20')])).toMatchObject({ open: 1, inside: 0 });
});

test('a look put off waits for its day, though never past the day that the wire should be off; a look ends it', () => {
  const put = (until: string, more: RecordLine[] = []) =>
    watch(
      placeTree(two([wired('a'), saw('a', 'clear', '2026-05-01'), { on: '2026-05-02', kind: 'snoozed', branch: 'a', until, text: 'away' }, ...more])),
      dayOf('2026-05-03'),
    )[0]!;
  const plain = watch(placeTree(two([wired('a'), saw('a', 'clear', '2026-05-01')])), dayOf('2026-05-03'))[0]!;
  const later = isoOf(plain.nextInspection + 2);
  expect(put(later).nextInspection).toBe(Math.min(plain.nextInspection + 2, plain.race.limit!));
  expect(put(later).snoozed?.why).toBe('away');
  expect(put('2027-09-01').nextInspection).toBe(Math.max(plain.nextInspection, plain.race.limit!));
  expect(put(later, [saw('a', 'touching', '2026-05-03')]).snoozed).toBeNull();
});

test('rounds are few, take each look once, and none late', () => {
  const look = fc
    .record({ early: fc.integer({ min: 0, max: 80 }), then: fc.integer({ min: 0, max: 20 }), wait: fc.integer({ min: 0, max: 20 }) })
    .map(({ early, then, wait }) => ({ early, first: early + then, last: early + then + wait }));
  fc.assert(
    fc.property(fc.array(look, { maxLength: 30 }), fc.integer({ min: 0, max: 60 }), (looks, today) => {
      const rounds = gatherRounds(looks, today);
      expect(rounds.flatMap((r) => r.looks)).toHaveLength(looks.length);
      for (const { day, looks: taken } of rounds) for (const l of taken) expect(day).toBeLessThanOrEqual(Math.max(today, l.last));
      // What comes before its first day saves a walk by it; and as many looks that no two walks could share need as many walks.
      for (const { day, looks: taken } of rounds) for (const l of taken) expect(l.early).toBeLessThanOrEqual(Math.max(day, l.last));
      const apart: { first: number; last: number }[] = [];
      for (const l of [...looks].sort((a, b) => a.last - b.last)) if (!apart.length || l.first > Math.max(today, apart[apart.length - 1]!.last)) apart.push(l);
      expect(rounds.length).toBeLessThanOrEqual(apart.length);
      for (const [i, round] of rounds.entries()) if (i) expect(round.looks.some((l) => l.early > rounds[i - 1]!.day || l.last > rounds[i - 1]!.day)).toBe(true);
    }),
  );
});

test('a green birch shoot marks within the summer that it is wired; a thick yew stem has no clean day for years, and is handed to a guy', () => {
  const shoot = tree([branch('a', { d: 3, stage: 'shoot' })], {
    species: 'birch',
    vigour: 'strong',
    record: [{ ...wired('a', '2026-06-08'), size: 1.5, metal: 'aluminium', gap: 0.5 }],
  });
  const [birch] = watch(placeTree(shoot), dayOf('2026-06-08'));
  expect(isoOf(birch!.race.forecast.marking.p50!) >= '2026-06-20' && isoOf(birch!.race.forecast.marking.p50!) <= '2026-08-05').toBe(true);
  const stem = tree([branch('a', { d: 30, tipD: 20, length: 500 })], {
    species: 'yew',
    record: [{ ...wired('a', '2026-03-01'), size: 5.19, strands: 2, bentDeg: 27, targetDeg: 25, over: 250 }],
  });
  const [yew] = watch(placeTree(stem), dayOf('2026-03-01'));
  expect(yew!.race.window).toBeNull();
  expect(yew!.race.forecast.set.p50 ?? Infinity).toBeGreaterThan(dayOf('2029-03-01'));
  expect(['guy', 'rewire']).toContain(yew!.race.advice);
});

test('what a phone takes along is what the plan says; after unwiring the angle is asked for, once', () => {
  const t = two([wired('a'), wired('b'), saw('b', 'touching', '2026-06-01'), off('b', '2026-06-10')]);
  const [item, ...others] = walkItems(t, ON);
  const plan = planTree(t, ON, { fronts: false }).wires[0]!;
  expect(others).toEqual([]);
  expect(item).toMatchObject({ kind: 'wire', branch: 'a', of: 'w-a', because: plan.because, unwiring: plan.unwiring, window: plan.cleanWindow });
  expect(item!.first <= item!.last).toBe(true);
  expect([item!.last, item!.task]).toEqual([plan.task.on, plan.task.kind]);
  const asked = (tree: Tree) => dueOn(tree, ON).due.filter((d) => d.kind === 'held');
  expect(asked(t)).toMatchObject([{ on: '2026-06-20', branches: ['b'], leadsTo: 'watch' }]);
  expect(watchingOf(t, ON)).toMatchObject({ toMeasure: [{ branch: 'b', on: '2026-06-15', wantedDeg: 30 }], scars: [], pace: { looks: 1 } });
  expect(asked({ ...t, record: [...t.record, { on: '2026-06-16', kind: 'measured', branch: 'b', heldDeg: 29 }] })).toEqual([]);
  expect(asked({ ...t, record: [...t.record, wired('b', '2026-06-12')] })).toEqual([]);
});

test('how far past its target a branch is left is a choice of dates: the plan takes the least that opens a window, the artist another', () => {
  const t = generateTree({ seed: 5, name: 'Made up', species: 'larch', height: 420, base: 40, primaries: 4, secondaries: 0 });
  const march = dayOf('2026-03-01');
  const parts = planTree(t, march, { fronts: false }).runs.flatMap((r) => r.branches);
  expect(parts.length).toBeGreaterThan(1);
  for (const part of parts) {
    const choices = pastsFor(t, march, part.branch);
    const used = choices.find((c) => Math.abs(c.past - (part.settles / part.target - 1)) < 0.02)!;
    expect(used.handDeg).toBeCloseTo(part.bendTo, 0);
    // Heavy for the sake of a window no bend is made.
    const borne = choices.filter((c) => c.past <= 0.1 || bandOf(c.risk) !== 'heavy');
    const first = borne.find((c) => c.race.window && c.race.window.firm !== null) ?? borne.find((c) => c.race.window);
    if (first) expect(used.past).toBe(first.past);
    choices.forEach((c, i) => expect(c.handDeg).toBeGreaterThan(choices[i - 1]?.handDeg ?? 0));
  }
  const own = { ...t, plan: { ...t.plan, wiring: [{ branch: parts[0]!.branch, past: 0.25 }] } };
  const chosen = planTree(own, march, { fronts: false }).runs.flatMap((r) => r.branches).find((b) => b.branch === parts[0]!.branch)!; // prettier-ignore
  expect(chosen.settles / chosen.target).toBeCloseTo(1.25, 1);
});
