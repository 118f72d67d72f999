import {
  agreedBranches,
  consequencesOf,
  cutList,
  cutsMade,
  dayOf,
  greenTally,
  isoOf,
  lengthOf,
  placeTree,
  takenAlong,
  planTree,
  promisesOf,
  proposeSessions,
  type Fate,
  type Tree,
} from '../src/index.js';
import { after, bears, branch, decided, family, tree } from './trees.js';

const ON = '2026-10-10';

test('what is over the cap is left for sessions that the tree bears, with their days', () => {
  const many = tree(
    ['a', 'b', 'c', 'd', 'e']
      .map((id, i) => branch(id, { at: 100 + 90 * i, bearing: i * 100, green: 0.15 }))
      .concat(branch('dead', { state: 'dead', green: 0 })),
    { vigour: 'strong' },
  );
  const t = decided(many, ...['a', 'b', 'c', 'd', 'e', 'dead'].map((id): [string, Fate] => [id, 'remove']));
  const sessions = proposeSessions(t, dayOf(ON), 1, (id) => (id === 'd' ? 3 : 0), bears)!;
  expect(sessions[0]).toMatchObject({ session: 1, on: ON, branches: ['dead', 'd', 'a', 'b'] });
  expect(sessions.flatMap((s) => s.branches).sort()).toEqual(['a', 'b', 'c', 'd', 'dead', 'e']);
  for (const s of sessions) expect(s.green).toBeLessThanOrEqual(greenTally(t).cap + 1e-9);
  expect(dayOf(sessions[1]!.on!)).toBeGreaterThan(dayOf(ON) + 59);
  const later = after(t, { kind: 'put-off', branches: sessions[1]!.branches, session: 2, until: sessions[1]!.on });
  expect(greenTally(later).sessions.map((s) => [s.session, Math.round(s.removed * 100)])).toEqual([
    [1, 45],
    [2, 30],
  ]);
  expect(promisesOf(placeTree(later), dayOf(ON))).toMatchObject(sessions[1]!.branches.map((id) => ({ branch: id, kind: 'later cut', on: sessions[1]!.on })));
  expect(proposeSessions(later, dayOf(ON), 1, () => 0, bears)).toBeNull();
  expect(planTree(later, dayOf(ON), { fronts: false }).read.used).toBeLessThan(planTree(t, dayOf(ON), { fronts: false }).read.used);
});

test('reserves and sacrifices come back: on their day, when the bend elsewhere is set, when the wood below has thickened', () => {
  const on = dayOf(ON);
  const promise = (t: Tree) => promisesOf(placeTree(t), on)[0]!;
  expect(promise(decided(family(), ['a', 'reserve', { until: '2026-10-10' }]))).toMatchObject({ ready: true, on: '2026-10-10' });
  expect(promise(decided(family(), ['a', 'reserve', { until: '2027-03-01' }]))).toMatchObject({ ready: false, on: '2027-03-01' });
  const waits = decided(family(), ['a', 'reserve', { untilSet: 'b' }]);
  expect(promise(waits)).toMatchObject({ ready: false, on: null, text: expect.stringMatching(/Waits for second left/) });
  const wired: Tree = {
    ...waits,
    record: [{ on: '2024-03-01', kind: 'wired', branch: 'b', metal: 'copper', size: 3.3, strands: 2, angle: 45, bentDeg: 40, targetDeg: 35, over: 60, gap: 0 }],
  };
  expect(promise(wired)).toMatchObject({ kind: 'reserve', on: expect.stringMatching(/^20\d\d/) });
  expect(promise({ ...wired, record: [...wired.record, { on: '2026-06-01', kind: 'unwired', branch: 'b' }] })).toMatchObject({ ready: true, on: '2026-06-01' });
  expect(promise({ ...waits, branches: waits.branches.map((b) => (b.id === 'b' ? { ...b, state: 'dead' as const } : b)) })).toMatchObject({
    ready: true,
    text: expect.stringMatching(/second left is dead/),
  });
  // The trunk is 36 mm there; more wood takes longer, and a stronger tree is quicker.
  const runs = (untilD: number, own: Partial<Tree> = {}) => promise({ ...decided(family(), ['a', 'sacrifice', { untilD }]), ...own });
  expect(runs(35)).toMatchObject({ ready: true });
  expect(dayOf(runs(40).on!)).toBeLessThan(dayOf(runs(44).on!));
  expect(dayOf(runs(40, { vigour: 'weak' }).on!)).toBeGreaterThan(dayOf(runs(40).on!));
  expect(runs(400)).toMatchObject({ on: null });
});

test('the cut list goes from below, tells what to cut where, and leaves out what goes along', () => {
  const t = decided(family(), ['b', 'stub', { stub: 'anchor', length: 40 }], ['a', 'remove'], ['a1', 'remove']);
  const [first, second, ...more] = cutList(placeTree({ ...t, branches: t.branches.map((b) => (b.id === 'b' ? { ...b, at: 90 } : b)) }), 1);
  expect(more).toEqual([]);
  expect(first).toMatchObject({
    tag: 1,
    branch: 'b',
    what: expect.stringMatching(/Cut to 40 mm .* to tie to/),
    where: expect.stringMatching(/90 mm up the trunk, towards 9 o'clock/),
  });
  expect(second).toMatchObject({ tag: 2, branch: 'a', along: ['a1', 'a2'], widthMm: 9, green: expect.closeTo(0.4, 9) });
});

test('numbers of a list stay once the first of it is cut; a cut taken back is on the list again, with its number', () => {
  const rows = tree([120, 200, 280, 360].map((at, i) => branch(`c${i}`, { at, bearing: i * 90, green: 0.05 })));
  const numbers = (t: Tree) => Object.fromEntries(cutList(placeTree(t), 1).map((c) => [c.branch, c.tag]));
  const made = (t: Tree) => cutsMade(t).map((l) => [l.tag, l.branch]);
  const listed = after(
    rows,
    { kind: 'decide', branch: 'c3', act: 'remove' },
    { kind: 'decide', branch: 'c0', act: 'shorten', length: 80, why: 'too long' },
    { kind: 'decide', branch: 'c2', act: 'stub', length: 30, stub: 'anchor' },
  );
  expect([numbers(listed), made(listed)]).toEqual([{ c0: 1, c2: 2, c3: 3 }, []]);
  const first = after(listed, { kind: 'take-off', branches: ['c0'] });
  expect([numbers(first), made(first)]).toEqual([{ c2: 2, c3: 3 }, [[1, 'c0']]]);
  // What is decided now comes behind, however low it is; what is no longer cut leaves a gap.
  const more = after(first, { kind: 'decide', branch: 'c1', act: 'remove' }, { kind: 'decide', branch: 'c3', act: 'stub', length: 30 });
  expect(numbers(more)).toEqual({ c2: 2, c3: 3, c1: 4 });
  expect(numbers(after(more, { kind: 'decide', branch: 'c2', act: 'keep' }))).toEqual({ c3: 3, c1: 4 });
  const two = after(more, { kind: 'take-off', branches: ['c1', 'c2'] });
  expect([numbers(two), made(two)]).toEqual([
    { c3: 3 },
    [
      [1, 'c0'],
      [2, 'c2'],
      [4, 'c1'],
    ],
  ]);
  // Each of the three ways to cut comes back as it was decided.
  const back = cutsMade(two).reduce((t, line) => after(t, { kind: 'withdrawn', corrects: line.id! }), two);
  expect([numbers(back), made(back)]).toEqual([{ c0: 1, c2: 2, c3: 3, c1: 4 }, []]);
  expect(Object.fromEntries(back.plan.decisions.map((d) => [d.branch, d]))).toMatchObject({
    c0: { act: 'shorten', length: 80, why: 'too long', tag: 1 },
    c1: { act: 'remove', tag: 4 },
    c2: { act: 'stub', stub: 'anchor', length: 30, tag: 2 },
  });
  expect(back.branches.find((b) => b.id === 'c0')!.length).toBe(200);
  // The list done, those made stay to be seen until a new list begins, which counts from one.
  const done = after(two, { kind: 'take-off', branches: ['c3'] });
  expect(made(done)).toHaveLength(4);
  const anew = after(done, { kind: 'decide', branch: 'c0', act: 'remove' });
  expect([numbers(anew), made(anew)]).toEqual([{ c0: 1 }, []]);
  expect(made(after(anew, { kind: 'take-off', branches: ['c0'] }))).toEqual([[1, 'c0']]);
});

test('what goes with another branch goes with the lowest that takes it, whatever is decided of itself', () => {
  const t = tree([branch('a'), branch('a1', { parent: 'a', at: 100 }), branch('a11', { parent: 'a1', at: 40 }), branch('b', { at: 300 })]);
  const cut = after(
    t,
    { kind: 'decide', branch: 'a1', act: 'remove' },
    { kind: 'decide', branch: 'a11', act: 'shorten', length: 30 },
    { kind: 'decide', branch: 'b', act: 'keep' },
  );
  expect([...takenAlong(cut)]).toEqual([['a11', 'a1']]);
  expect(new Map([...takenAlong(after(cut, { kind: 'decide', branch: 'a', act: 'remove' }))])).toEqual(
    new Map([
      ['a11', 'a'],
      ['a1', 'a'],
    ]),
  );
});

test("a client's tree is cut only as agreed; a tree of one's own needs nobody's word", () => {
  const t: Tree = {
    ...family(),
    client: 'The ferry office',
    record: [
      { on: ON, kind: 'note', text: 'asked' },
      { id: 'g', on: ON, kind: 'agreed', by: 'their steward', branches: ['a'] },
    ],
  };
  expect([...agreedBranches(t)!]).toEqual(['a']);
  expect(agreedBranches({ ...t, record: [...t.record, { on: ON, kind: 'withdrawn', corrects: 'g' }] })!.size).toBe(0);
  expect(agreedBranches(family())).toBeNull();
});

test('what would be lost is told of what goes and of what dies as a stub, not of what goes along', () => {
  const t: Tree = decided(
    {
      ...tree([
        branch('back', { bearing: 180, green: 0.2 }),
        branch('twig', { parent: 'back', at: 90, green: 0.05 }),
        branch('side', { bearing: 70, at: 420 }),
      ]),
    },
    ['back', 'stub', { stub: 'jin', length: 30 }],
  );
  const front = { ...t, plan: { ...t.plan, front: { bearing: 0, pitch: 0, roll: 0 } } };
  const { losses, before, after } = consequencesOf(front, dayOf(ON));
  expect(losses.map((l) => `${l.branch} ${l.kind}`)).toEqual(['back green', 'back back', 'back gap']);
  expect([before.backBranch, after.backBranch]).toEqual([true, false]);
  expect(consequencesOf(decided(front, ['back', 'keep']), dayOf(ON)).losses).toEqual([]);
});

test('the plan document tells findings, green, budget and promises, the same for the same day', () => {
  const t = decided(family(), ['a', 'remove'], ['b', 'reserve', { until: '2027-01-01' }]);
  const plan = planTree(t, dayOf(ON), { fronts: false });
  expect(plan.green).toEqual({ removed: 0.4, cap: 0.4, pastYear: 0, sessions: [{ session: 1, removed: 0.4 }] });
  expect(plan.read.uses[0]).toMatchObject({ work: 'green', points: 1 });
  expect(plan.notes).toContain('second left, reserve: comes back on 1 January 2027. Kept in reserve until then.');
  expect(plan.runs.flatMap((r) => r.branches.map((b) => b.branch))).not.toContain('a');
  expect(JSON.stringify(planTree(t, dayOf(ON), { fronts: false }))).toBe(JSON.stringify(plan));
  expect(isoOf(dayOf(ON))).toBe(plan.on);
  expect(lengthOf(placeTree(t).trunk)).toBe(600);
});
