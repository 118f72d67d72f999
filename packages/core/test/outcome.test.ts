import fc from 'fast-check';
import {
  afterCut,
  applyAct,
  beforeCut,
  coilsOn,
  consequencesOf,
  cutList,
  dayOf,
  decided as decideOn,
  decisionsOf,
  greenCutInYear,
  greenTally,
  outcomeOf,
  placeTree,
  takenAlong,
  planTree,
  promisesOf,
  proposeSessions,
  treeOn,
  unfinishedCuts,
  usualDetails,
  type CutLine,
  type Fate,
  type Intent,
  type Tree,
} from '../src/index.js';
import { actFrom, after, anyTree, bears, decided, family } from './trees.js';

const ON = '2026-10-10';
const log = (t: Tree, branches: string[]): Tree => after(t, { kind: 'take-off', on: ON, branches });

test('a removed branch takes its own along, and the tally counts each green once', () => {
  const t = decided(family(), ['a1', 'remove'], ['a', 'remove']);
  expect([...outcomeOf(t).gone].sort()).toEqual(['a', 'a1', 'a2']);
  expect(decisionsOf(t).get('a2')).toBe('remove');
  expect(greenTally(t)).toMatchObject({ removed: expect.closeTo(0.4, 9), cap: expect.closeTo(0.4, 9) });
  expect(outcomeOf(t).tree.branches).toMatchObject([{ id: 'b', green: expect.closeTo(0.5, 9) }]);
});

test('shortened to a length or just past a side shoot; a stub keeps no green', () => {
  // Foliage begins at 80 of 200 mm: to 140 mm half of it stays, and the shoot at 150 goes.
  const short = outcomeOf(decided(family(), ['a', 'shorten', { length: 140 }]));
  expect([[...short.gone], short.green]).toEqual([['a2'], expect.closeTo(0.2, 9)]);
  expect(short.tree.branches[0]).toMatchObject({ length: 140, tipD: 4.8, bareTo: 0.571 });
  const toShoot = outcomeOf(decided(family(), ['a', 'shorten', { toShoot: 'a2' }]));
  expect([toShoot.gone.size, toShoot.tree.branches[0]!.length]).toEqual([0, 159]);
  const stub = outcomeOf(decided(family(), ['a', 'stub', { stub: 'jin', length: 30 }]));
  expect(stub.tree.branches.map((b) => [b.id, b.state, b.length])).toEqual([
    ['a', 'dead', 30],
    ['b', 'normal', 200],
  ]);
  expect(usualDetails(family(), 'a', 'shorten', dayOf(ON))).toEqual({ toShoot: 'a2' });
  expect(usualDetails(family(), 'b', 'shorten', dayOf(ON))).toEqual({ length: 120 });
});

test.each<[string, (t: Tree) => Tree, RegExp]>([
  ['to no length', (t) => decided(t, ['a', 'shorten']), /without a length is not made/],
  ['from a shoot to "a length"', (t) => decided(t, ['a', 'shorten', { toShoot: 'a2' }], ['a', 'shorten', { toShoot: null }]), /without a length/],
  [
    'longer than it was measured since',
    (t) => after(decided(t, ['a', 'shorten', { length: 120 }]), { kind: 'remeasure', branch: 'a', changes: { length: 110 } }),
    /say a shorter/,
  ],
  [
    'to a shoot that is no longer listed',
    (t) => after(decided(t, ['a', 'shorten', { toShoot: 'a2' }]), { kind: 'unlist', branches: ['a2'] }),
    /not there any more/,
  ],
  [
    'to a shoot that grows elsewhere now',
    (t) => after(decided(t, ['a', 'shorten', { toShoot: 'a2' }]), { kind: 'remeasure', branch: 'a2', changes: { parent: 'b' } }),
    /not there any more/,
  ],
  ['to a shoot that goes too', (t) => decided(t, ['a', 'shorten', { toShoot: 'a2' }], ['a2', 'remove']), /goes as well/],
  [
    'to a shoot at its very end',
    (t) => decided({ ...t, branches: t.branches.map((b) => (b.id === 'a2' ? { ...b, at: 198 } : b)) }, ['a', 'shorten', { toShoot: 'a2' }]),
    /nothing would come off/,
  ],
  [
    'to a length and to a shoot',
    (t) => ({ ...t, plan: { ...t.plan, decisions: [{ branch: 'a', act: 'shorten', length: 100, toShoot: 'a2' }] } }),
    /which of the two/,
  ],
  ['to a stub of no length', (t) => decided(t, ['a', 'stub', { stub: 'jin' }]), /without a length/],
  ['to a stub longer than itself', (t) => decided(t, ['a', 'stub', { stub: 'jin', length: 200 }]), /say a shorter/],
])('a cut %s is unfinished: on no list, counted nowhere, refused when it is made', (_, decide, why) => {
  const start: Tree = { ...family(), record: [{ id: 'w', on: '2026-09-01', kind: 'wired', branch: 'a', metal: 'copper', size: 2 }] };
  const own = decide(start);
  expect(unfinishedCuts(own)).toEqual([{ branch: 'a', why: expect.stringMatching(why) }]);
  // Beside a cut that can be made, it is as if nothing were decided of it.
  const t = decided(own, ['b', 'remove']);
  const without = { ...t, plan: { ...t.plan, decisions: t.plan.decisions.filter((d) => d.branch !== 'a') } };
  expect(cutList(placeTree(t), 1)).toEqual(cutList(placeTree(without), 1));
  expect(outcomeOf(t)).toEqual({ ...outcomeOf(without), tree: expect.anything() });
  expect([greenTally(t), takenAlong(t), proposeSessions(t, dayOf(ON), 0.1, () => 0, bears)]).toEqual([
    greenTally(without),
    takenAlong(without),
    proposeSessions(without, dayOf(ON), 0.1, () => 0, bears),
  ]);
  expect(promisesOf(placeTree(after(t, { kind: 'put-off', branches: ['a'], session: 2, until: null })), dayOf(ON))).toEqual([]);
  expect(planTree(t, dayOf(ON), { fronts: false }).notes[0]).toMatch(why);
  const made = applyAct(t, actFrom({ kind: 'take-off', branches: ['a'] }), dayOf(ON) + 400);
  expect(made).toEqual({ refused: [{ field: 'branches', code: 'unfinished', message: expect.stringMatching(why) }] });
  // Listed beside one that is made, it stays with its wire and its decision.
  const cut = afterCut(t, ['a', 'b']);
  expect(cut.branches.find((b) => b.id === 'a')).toBeDefined();
  expect(cut.plan.decisions.map((d) => d.branch)).toContain('a');
  expect(coilsOn(cut, dayOf(ON)).map((c) => c.branch)).toEqual(['a']);
});

test('a cut goes to a length or to a shoot: what is said now takes the place of the other', () => {
  const shoot = decided(family(), ['a', 'shorten', { length: 100 }], ['a', 'shorten', { toShoot: 'a2' }]);
  expect(cutList(placeTree(shoot), 1)[0]!.what).toMatch(/^Shorten to 159 mm, just past /);
  const length = decided(shoot, ['a', 'shorten', { length: 100 }]);
  expect(cutList(placeTree(length), 1)[0]!.what).toBe('Shorten to 100 mm.');
  for (const act of [{ toShoot: 'a1', length: 60 }, { toShoot: 'b' }])
    expect(applyAct(length, actFrom({ kind: 'decide', branch: 'a', act: 'shorten', ...act }), dayOf(ON) + 400)).toMatchObject({
      refused: [{ field: 'toShoot' }],
    });
});

test('a cut taken back brings back all that was planned of its wood, unless it was planned anew since', () => {
  const bend = { at: 20, angle: 30, toward: { bearing: 90, elevation: -40 }, over: 60 };
  const run = {
    id: 'w1',
    metal: 'copper' as const,
    size: 2,
    strands: 1,
    angle: 45,
    branches: ['a', 'b'].map((id) => ({ branch: id, hand: 'cw' as const, start: 'over' as const })),
  };
  const start = decided(family(), ['a', 'shorten', { length: 90, why: 'too long', session: 1 }], ['a2', 'reserve', { until: '2027-01-01', why: 'in case' }]);
  const planned: Tree = {
    ...start,
    plan: {
      ...start.plan,
      poses: ['a', 'a2', 'b'].map((id) => ({ branch: id, bearing: 80, elevation: -10, bends: [bend, { ...bend, at: 110 }] })),
      aside: [{ branch: 'a2', bearing: 10, elevation: 0, bends: [] }],
      runs: [run],
      guys: [{ id: 'g1', branch: 'a2', at: 20, anchor: { kind: 'pot-rim', bearing: 90 }, wire: 1 }],
      worse: [{ branch: 'a2', what: ['dry'] }],
      wiring: [{ branch: 'a2', clip: true }],
      either: [['a2', 'b']],
    },
  };
  const sorted = ({ plan }: Tree) =>
    Object.fromEntries(Object.entries(plan).map(([key, v]) => [key, Array.isArray(v) ? v.map((x) => JSON.stringify(x)).sort() : v]));
  const cut = log(planned, ['a']);
  expect(cut.plan).toMatchObject({ poses: [{ branch: 'a', bends: [bend] }, { branch: 'b' }], guys: [], worse: [], wiring: [], either: [], aside: [] });
  const back = after(cut, { kind: 'withdrawn', corrects: cut.record[0]!.id! });
  const { cutting: _list, ...was } = sorted(planned);
  expect(
    sorted({
      ...back,
      plan: { ...back.plan, decisions: back.plan.decisions.map(({ tag: _tag, ...d }) => d as typeof d & { branch: string }) } as Tree['plan'],
    }),
  ).toMatchObject(was);
  // Posed anew on what the cut left, and wired with another piece: that stays.
  const anew = after(cut, { kind: 'pose', branch: 'a', bearing: 5, elevation: 5, bends: [] } as Intent);
  const kept = after(anew, { kind: 'withdrawn', corrects: cut.record[0]!.id! });
  expect(kept.plan.poses.find((p) => p.branch === 'a')).toMatchObject({ bearing: 5, bends: [] });
  expect(kept.plan.poses.find((p) => p.branch === 'a2')).toMatchObject({ bearing: 80 });
});

test('cuts in any order and all at once leave the same tree; green never grows and adds up', () => {
  const acts = fc.constantFrom<Fate>('keep', 'remove', 'shorten', 'stub', 'reserve');
  fc.assert(
    fc.property(anyTree, fc.array(acts, { minLength: 30, maxLength: 30 }), (t, list) => {
      const t1 = t.branches.reduce((now, b, i) => decideOn(now, b.id, list[i % 30]!, usualDetails(t, b.id, list[i % 30]!, 0)), t);
      const off = outcomeOf(t1);
      const left = off.tree.branches.reduce((sum, b) => sum + b.green, 0);
      const all = t.branches.reduce((sum, b) => sum + b.green, 0);
      expect(left * (1 - off.green)).toBeCloseTo(all - off.green, 6);
      expect(off.green).toBeGreaterThanOrEqual(0);
      expect(off.tree.branches.every((b) => b.green <= 1 && b.tipD <= b.d && b.length > 0)).toBe(true);
      expect(() => placeTree(off.tree)).not.toThrow();
      const ids = t1.plan.decisions.map((d) => d.branch);
      expect(afterCut(t1, ids).branches.map((b) => b.id)).toEqual(off.tree.branches.map((b) => b.id));
    }),
    { numRuns: 30 },
  );
});

test('of a pair of which one goes the other follows; another act keeps only why and session', () => {
  const t = after(family(), { kind: 'either', a: 'a', b: 'b' });
  expect(decided(t, ['a', 'remove']).plan.decisions).toMatchObject([
    { branch: 'a', act: 'remove' },
    { branch: 'b', act: 'keep' },
  ]);
  expect(
    decided(t, ['a', 'remove'], ['b', 'remove'])
      .plan.decisions.map((d) => [d.branch, d.act])
      .sort(),
  ).toEqual([
    ['a', 'keep'],
    ['b', 'remove'],
  ]);
  const { either } = consequencesOf(t, dayOf(ON));
  expect(either[0]!.map((w) => [w.keep, w.remove, Math.round(w.green * 100)])).toEqual([
    ['a', 'b', 30],
    ['b', 'a', 40],
  ]);
  expect(after(t, { kind: 'either', a: 'b', b: 'a' }).plan.either).toEqual([]);
  const changed = decided(
    family(),
    ['a', 'stub', { length: 30, why: 'too low' }],
    ['a', 'reserve', { until: '2027-01-01' }],
    ['a', 'reserve', { until: null }],
  );
  expect(changed.plan.decisions).toEqual([{ branch: 'a', act: 'reserve', why: 'too low' }]);
});

test('logging a cut moves the tree on; the record gives it back on any day before, and it can be taken back', () => {
  const wired: Tree = {
    ...family(),
    record: [{ id: 'w', on: '2026-09-01', kind: 'wired', branch: 'a2', run: 'w1', metal: 'copper', size: 2, strands: 1, angle: 45, hand: 'cw', start: 'over' }],
  };
  const t = decided(wired, ['a', 'remove', { why: 'bar' }], ['b', 'shorten', { length: 100 }]);
  const cut = log(t, ['b', 'a']);
  expect(cut.branches.map((b) => [b.id, b.length])).toEqual([['b', 100]]);
  expect(cut.plan.decisions).toEqual([]);
  expect(cut.record.slice(1)).toMatchObject([
    { kind: 'removed', branch: 'a', on: ON, text: 'bar', was: [{ id: 'a' }, { id: 'a1' }, { id: 'a2' }], green: expect.closeTo(0.4, 9) },
    { kind: 'shortened', branch: 'b', length: 100 },
  ]);
  expect([coilsOn(cut, dayOf(ON) - 1).length, coilsOn(cut, dayOf(ON)).length]).toEqual([1, 0]);
  const before = treeOn(cut, dayOf(ON) - 1);
  const measured = (x: Tree) => [...x.branches].map((b) => ({ ...b, green: Math.round(b.green * 1e6) })).sort((a, b) => (a.id < b.id ? -1 : 1));
  expect(measured(before)).toEqual(measured(t));
  expect(treeOn(cut, dayOf(ON))).toBe(cut);
  // Taken back in the record, the wood counts as never cut.
  const back = {
    ...beforeCut(cut, cut.record[2] as CutLine),
    record: [...cut.record, { id: 'x', on: ON, kind: 'withdrawn' as const, corrects: cut.record[2]!.id! }],
  };
  expect(back.branches.find((b) => b.id === 'b')).toMatchObject({ length: 200 });
  expect(greenCutInYear(cut, dayOf(ON))).toBeCloseTo(1 - 0.6 * (1 - (cut.record[2] as CutLine).green!), 9);
  expect([greenCutInYear(back, dayOf(ON)), greenCutInYear(back, dayOf(ON) + 366)]).toEqual([expect.closeTo(0.4, 9), 0]);
});
