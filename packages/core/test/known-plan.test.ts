import fc from 'fast-check';
import {
  dayOf,
  dueOn,
  generateTree,
  GROWTH_UNKNOWN,
  isoOf,
  NOTHING_LEARNT,
  PlanMemory,
  planTree,
  walkItems,
  walksOf,
  type Known,
  type LineOf,
  type RecordLine,
  type WalkItem,
} from '../src/index.js';
import { wired } from './coils.js';
import { branch, tree } from './trees.js';

const ON = dayOf('2026-04-20');

const known: fc.Arbitrary<Known> = fc
  .record({
    growth: fc.double({ min: -0.4, max: 0.4, noNaN: true }),
    spring: fc.double({ min: -0.3, max: 0.3, noNaN: true }),
    lead: fc.integer({ min: -20, max: 20 }),
  })
  .map(({ growth, spring, lead }) => ({
    growth: { mean: growth, sd: GROWTH_UNKNOWN.sd * 0.9 },
    spring: { mean: spring, sd: 0.15 },
    ahead: [{ day: dayOf('2026-01-01'), days: lead }],
    aheadIn: 'north' as const,
  }));

test('a plan that remembers the one before is the same as one from nothing, whatever was learnt in between', () => {
  const grown = generateTree({ seed: 9, name: 'Made up', species: 'larch', height: 420, base: 42, primaries: 5, secondaries: 1 });
  const first = grown.branches[0]!.id;
  const lived = { ...grown, record: [{ ...wired(first, '2026-03-01'), d: undefined }].map(({ d: _d, ...line }) => line as RecordLine) };
  const memory = new PlanMemory();
  fc.assert(
    fc.property(known, fc.boolean(), (what, on) => {
      const t = on ? lived : grown;
      const remembered = planTree(t, ON, { fronts: false, memory, known: what });
      expect(remembered).toEqual(planTree(t, ON, { fronts: false, known: what }));
    }),
    { numRuns: 8 },
  );
});

test('faster kinds, an early season and wood that springs back more move every date the way they should, in plan, season and walk alike', () => {
  const t = tree([branch('a', { d: 7 }), branch('b', { d: 9, at: 320, bearing: 200 })], { record: [wired('a', '2026-03-10'), wired('b', '2026-03-10')] });
  const marks = (what: Known): string[] =>
    planTree(t, ON, { fronts: false, known: what })
      .wires.map((w) => w.marking.p50!)
      .sort();
  const set = (what: Known): string[] =>
    planTree(t, ON, { fronts: false, known: what })
      .wires.map((w) => w.set.p50 ?? '9999')
      .sort();
  const usual = marks(NOTHING_LEARNT);
  const fast = { ...NOTHING_LEARNT, growth: { mean: 0.4, sd: GROWTH_UNKNOWN.sd } };
  const early = { ...NOTHING_LEARNT, ahead: [{ day: dayOf('2026-01-01'), days: 15 }] };
  const springy = { ...NOTHING_LEARNT, spring: { mean: 0.4, sd: 0.15 } };
  for (const what of [fast, early]) marks(what).forEach((day, i) => expect(day < usual[i]!).toBe(true));
  set(springy).forEach((day, i) => expect(day >= set(NOTHING_LEARNT)[i]!).toBe(true));
  expect(marks(springy)).toEqual(usual);
  for (const what of [NOTHING_LEARNT, fast, early, springy]) {
    const plan = planTree(t, ON, { fronts: false, known: what });
    const items = walkItems(t, ON, what);
    for (const w of plan.wires) {
      const item = items.find((i) => i.branch === w.branch)!;
      expect([item.because, item.window, item.unwiring]).toEqual([w.because, w.cleanWindow, w.unwiring]);
    }
    // What Season has first is no later than what the walk takes along first.
    const wire = dueOn(t, ON, what).due.find((d) => d.leadsTo === 'watch')!;
    const [walk] = walksOf(items, ON);
    expect(wire.on <= walk!.day || walk!.items.some((i) => wire.branches.includes(i.branch))).toBe(true);
  }
});

const tied: LineOf<'guyed'> = { on: '2025-05-01', kind: 'guyed', branch: 'a', guy: 'g1', done: 'placed', cameDeg: 20, length: 150 };

test('ties walk along with the wire: their cushions are asked for, what was seen of them is told, and each thing is on one walk', () => {
  const guys = [{ id: 'g1', branch: 'a', at: 120, anchor: { kind: 'rim' as const, bearing: 90 }, wire: 1.5, cushion: { kind: 'tube' as const, width: 12 } }];
  const base = tree([branch('a', { d: 12 }), branch('b', { at: 320, bearing: 200 })], { record: [tied, wired('b', '2026-03-10')] });
  const t = { ...base, plan: { ...base.plan, guys } };
  const items = walkItems(t, ON);
  const tie = items.find((i) => i.kind === 'tie')!;
  expect(tie).toMatchObject({ branch: 'a', of: 'g1', what: 'tie', since: '2025-05-01', seen: null, unwiring: null });
  expect(tie.because[0]).toMatch(/taut|hold by itself/);
  const looked: RecordLine = { on: isoOf(ON), kind: 'guyed', branch: 'a', guy: 'g1', done: 'looked', bark: 'touching' };
  const after = walkItems({ ...t, record: [...t.record, looked] }, ON).find((i) => i.kind === 'tie')!;
  expect(after.seen).toEqual({ on: isoOf(ON), stage: 'touching' });
  expect(after.last > tie.last).toBe(true);
  const walks = walksOf<WalkItem>(items, ON);
  expect(walks.flatMap((w) => w.items)).toHaveLength(items.length);
  for (const { day, items: taken } of walks) for (const item of taken) expect(day <= (item.last > isoOf(ON) ? item.last : isoOf(ON))).toBe(true);
});
