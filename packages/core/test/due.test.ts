import fc from 'fast-check';
import {
  dayOf,
  decided,
  dueOn,
  generateTree,
  isoOf,
  namesOf,
  placeTree,
  sayBranches,
  urgency,
  watch,
  type Intent,
  type LineOf,
  type RecordLine,
  type Tree,
} from '../src/index.js';
import { maple, wire } from './maple.js';
import { after } from './trees.js';

const START = dayOf('2026-01-10');

const grown = (seed: number): Tree => {
  const tree = generateTree({ seed, name: 'Any', species: 'maple-trident', height: 500, base: 45, primaries: 6, secondaries: 1 });
  return { ...tree, plan: { ...tree.plan, front: { bearing: 0, pitch: 0, roll: 0 } } };
};

const wired = (branch: string, on: number, gap = 0): LineOf<'wired'> => ({
  ...{ id: `w-${branch}`, on: isoOf(on), kind: 'wired', run: `run-${branch}`, branch, metal: 'aluminium', size: 2.5, strands: 1, angle: 45 },
  ...{ hand: 'cw', start: 'over', gap, wrap: 'none', bentDeg: 40, targetDeg: 32, over: 40 },
});

/** A tree with some of its branches wired on days of their own, and some put off or in reserve. */
const worked = fc
  .record({
    seed: fc.nat(500),
    coils: fc.array(fc.record({ after: fc.nat(300), gap: fc.constantFrom(0, 0.5, 1) }), { maxLength: 6 }),
    promised: fc.array(fc.record({ act: fc.constantFrom('reserve' as const, 'remove' as const), in: fc.nat(400) }), { maxLength: 3 }),
    today: fc.integer({ min: START + 1, max: START + 500 }),
  })
  .map(({ seed, coils, promised, today }) => {
    const tree = grown(seed);
    const primaries = tree.branches.filter((b) => b.parent === 'trunk').map((b) => b.id);
    const record = coils.flatMap((c, i) => (START + c.after < today && primaries[i] ? [wired(primaries[i], START + c.after, c.gap)] : []));
    const twigs = tree.branches.filter((b) => b.parent !== 'trunk').map((b) => b.id);
    const put = (t: Tree, p: (typeof promised)[number], i: number): Tree =>
      twigs[i] ? decided(t, twigs[i], p.act, { until: isoOf(START + p.in), session: p.act === 'remove' ? 2 : null }) : t;
    return { tree: promised.reduce(put, { ...tree, record }), today };
  });

test('every coil is in one task that is due, none before today, what is most urgent first', () => {
  fc.assert(
    fc.property(worked, ({ tree, today }) => {
      const { due, race, coils } = dueOn(tree, today);
      const onTree = watch(placeTree(tree), today);
      expect(coils).toBe(onTree.length);
      const ofWires = due.filter((d) => ['look', 'remove', 'window'].includes(d.kind));
      expect(ofWires.flatMap((d) => d.branches).sort()).toEqual(onTree.map((w) => w.coil.branch).sort());
      for (const d of due) {
        expect([d.title.length > 3, d.text.length > 3]).toEqual([true, true]);
        expect(dayOf(d.on)).toBeGreaterThanOrEqual(d.kind === 'promise' ? START : today);
      }
      expect(due.map(urgency)).toEqual(due.map(urgency).sort());
      // A task that is late says since when; one that is not says nothing of it.
      for (const d of ofWires) {
        const late = onTree.some((w) => d.branches.includes(w.coil.branch) && w.nextInspection < today);
        expect(d.text.includes('Due since')).toBe(late);
        if (late) expect(d.on).toBe(isoOf(today));
      }
      expect(race === null).toBe(onTree.length === 0);
      const order = [race?.touchFrom, race?.markFrom, race?.markSure].filter((d): d is string => !!d);
      expect(order).toEqual([...order].sort());
    }),
    { numRuns: 30 },
  );
});

test('looks within three days of each other are one walk; a look and a removal are two tasks', () => {
  fc.assert(
    fc.property(worked, ({ tree, today }) => {
      const groups = dueOn(tree, today).due.filter((d) => d.kind === 'look');
      for (const [i, g] of groups.entries()) for (const other of groups.slice(0, i)) expect(Math.abs(dayOf(g.on) - dayOf(other.on))).toBeGreaterThan(3);
    }),
    { numRuns: 20 },
  );
  const tree = grown(3);
  const ids = tree.branches.filter((b) => b.parent === 'trunk').map((b) => b.id) as [string, string];
  const seen: RecordLine = { id: 's', on: isoOf(START + 60), kind: 'inspected', branch: ids[0], run: `run-${ids[0]}`, stage: 'marking' };
  const { due } = dueOn({ ...tree, record: [wired(ids[0], START), wired(ids[1], START + 59, 1), seen] }, START + 60);
  expect(due[0]).toMatchObject({ kind: 'remove', branches: [ids[0]], on: isoOf(START + 60), mark: 'marking' });
  expect(due[0]!.title).toBe(`${namesOf(tree)(ids[0])}: take the wire off`);
  expect(due.find((d) => d.kind === 'look')!.branches).toEqual([ids[1]]);
});

test('what was promised comes back on its day and stays due after it, told once for branches of one kind and day', () => {
  const tree = grown(4);
  const [a, b, c] = tree.branches.filter((x) => x.parent !== 'trunk').map((x) => x.id) as [string, string, string];
  const day = isoOf(START + 90);
  const reserved = decided(decided(tree, a, 'reserve', { until: day }), b, 'reserve', { until: day });
  const put = decided(reserved, c, 'remove', { session: 2, until: day });
  const names = namesOf(tree);
  const promises = (on: number) => dueOn(put, on).due.filter((d) => d.kind === 'promise');
  expect(promises(START).map((d) => [d.title, d.on])).toEqual(
    expect.arrayContaining([
      [`${sayBranches(names, [a, b])}, in reserve: keep or take off?`, day],
      [`${names(c)}: cut, as left for now`, day],
    ]),
  );
  expect(promises(START)).toHaveLength(2);
  for (const d of promises(START + 120)) expect(d.on).toBe(isoOf(START + 120));
});

test('without dates it says the next step of the plan: front, removals, cuts, poses, wire, and then nothing', () => {
  const plain: Tree = { ...grown(5), plan: { decisions: [], poses: [], runs: [], guys: [] } };
  const step = (t: Tree): string | undefined => dueOn(t, START).due.find((d) => d.kind === 'plan')?.title;
  const fronted = grown(5);
  const [first, second] = fronted.branches.map((b) => b.id) as [string, string];
  const kept = decided(fronted, first, 'keep');
  const toCut = decided(kept, second, 'remove');
  const posed = (t: Tree, ids: string[]): Tree => ({
    ...t,
    plan: { ...t.plan, poses: ids.map((branch) => ({ branch, bearing: 0, elevation: 0, bends: [] })) },
  });
  const mains = kept.branches.filter((b) => b.parent === 'trunk').map((b) => b.id);
  expect([{ ...plain, vigour: 'strong' as const }, fronted, kept, posed(kept, mains.slice(0, 1)), posed(kept, mains), toCut].map(step)).toEqual([
    'choose the front',
    'decide what to remove',
    'pose the branches that stay',
    'go on posing, then wire',
    'wire the branches that stay',
    expect.stringMatching(/^1 branch to cut, as decided$/),
  ]);
  expect(step({ ...kept, record: [wired(first, START - 1)] })).toBeUndefined();
});

test('a session closed in the middle is the first thing said the next day, for two weeks; what is settled and not on is said also later, and nothing once it is done', () => {
  const placed: Intent = { kind: 'placed', on: '2026-03-02', branch: 'low', bends: [] };
  const poses = (['low', 'right'] as const).map((b): Intent => ({ kind: 'pose', branch: b, bearing: 80, elevation: -10, bends: [] }));
  const run = {
    kind: 'run',
    run: 'w1',
    metal: 'aluminium',
    size: 4,
    strands: 1,
    angle: 45,
    branches: [{ branch: 'right', hand: 'cw', start: 'over' }],
  } as Intent;
  const keep = (['low', 'right', 'back', 'twig'] as const).map((b): Intent => ({ kind: 'decide', branch: b, act: 'keep' }));
  const begun = after(
    maple(),
    ...keep,
    ...poses,
    run,
    { kind: 'session', on: '2026-03-02', session: 's', done: 'begun', by: 'Robin' },
    wire('low', '2026-03-02'),
  );
  const closed = after(begun, { kind: 'session', on: '2026-03-02', session: 's', done: 'closed' });
  const first = (t: Tree, day: string): string => dueOn(t, dayOf(day)).due.map((d) => `${d.kind}: ${d.title}`)[0]!;
  expect(first(closed, '2026-03-03')).toBe('session: go on where the session ended: 1 piece of wire, 1 branch to bend and place');
  const later = dueOn(closed, dayOf('2026-03-20')).due.find((d) => d.kind === 'plan')!;
  expect([later.title, later.leadsTo]).toEqual(['1 piece of wire, 1 branch to bend and place, as settled', 'work']);
  const bent: Intent = { ...placed, bends: [{ at: 8, over: 60, bentDeg: 30, toward: { bearing: 80, elevation: -90 } }] } as Intent;
  const rest = after(closed, bent);
  expect(first(rest, '2026-03-03')).toBe('session: go on where the session ended: 1 piece of wire');
  const done = after(
    rest,
    { ...run, kind: 'wired', on: '2026-03-03', branch: 'right', hand: 'cw', start: 'over', branches: undefined } as unknown as Intent,
    { ...bent, branch: 'right', on: '2026-03-03' } as Intent,
  );
  expect(dueOn(done, dayOf('2026-03-04')).due.filter((d) => d.kind === 'session' || d.kind === 'plan')).toEqual([]);
});
