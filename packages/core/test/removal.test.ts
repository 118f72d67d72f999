import fc from 'fast-check';
import {
  add,
  bendAt,
  findingEvidence,
  findingsOf,
  formOf,
  judgeFront,
  limb,
  namesOf,
  norm,
  placeTree,
  proposePoses,
  REMOVAL_PROFILES,
  RULES,
  rulesFor,
  scale,
  sub,
  suggestedProfile,
  sayOldWood,
  type Branch,
  type Rule,
  type Tree,
  type Vec,
} from '../src/index.js';
import { after, anyTree, branch, tree, turned } from './trees.js';

const find = (t: Tree) => findingsOf(placeTree(t), t.plan.front ? judgeFront(placeTree(t), t.plan.front) : null);
const rules = (t: Tree, id: string) =>
  find(t)
    .filter((f) => f.branch === id)
    .map((f) => f.rule);
const withFront = (t: Tree, bearing: number): Tree => ({ ...t, plan: { ...t.plan, front: { bearing, pitch: 0, roll: 0 } } });

const parent = branch('p', { bearing: 90, elevation: 0, length: 300, d: 14, tipD: 14 });
const onParent = (id: string, own: Partial<Branch>): Branch =>
  branch(id, { parent: 'p', at: 150, bearing: 0, elevation: 20, length: 60, d: 5, tipD: 2, ...own });
/** A trunk that swings 180 mm towards bearing 90 and back: at half its height the bend's centre lies towards 270. */
const swung = [0, 150, 300, 450, 600].map((z, i) => ({ x: [0, 126, 180, 126, 0][i]!, y: 0, z, d: 50 - z * 0.07 }));
const thick = (d: number): Tree => tree([branch('low', { at: 120, d: 20, bearing: 200 }), branch('a', { d, tipD: 3 })]);
const fork = (third: Branch): Tree => tree([parent, onParent('a', { bearing: 45, d: 12 }), third]);

/** A branch along bearing 90, and one that drops past it at a distance from its axis; both 6 mm thick. */
const drops = (aside: number): Tree => {
  const path: Vec[] = [
    [0, 0, 0],
    [100, aside, 0],
    [100, aside, -200],
  ];
  const even = { elevation: 0, d: 6, tipD: 6 };
  return tree([branch('a', even), branch('b', { ...even, at: 300, length: 300, path, green: 0.01 })]);
};

/** Where each rule fires on a branch, and just inside its threshold where it does not. The trunk is 36 mm thick at 200 mm. */
const CASES: [rule: Rule, id: string, fires: Tree, holds: Tree][] = [
  ['dead', 'a', tree([branch('a', { state: 'dead' })]), tree([branch('a', { state: 'weak' })])],
  ['blind', 'a', tree([branch('a', { state: 'blind' })]), tree([branch('a')])],
  ['weak', 'a', tree([branch('a', { state: 'weak' })]), tree([branch('a', { state: 'strong' })])],
  ['hanging', 'a', tree([parent, onParent('a', { elevation: -61 })]), tree([parent, onParent('a', { elevation: -59 })])],
  ['hanging', 'a', tree([parent, onParent('a', { bearing: 79, elevation: -45 })]), tree([parent, onParent('a', { bearing: 65, elevation: -45 })])],
  ['upright', 'a', tree([parent, onParent('a', { elevation: 66 })]), tree([parent, onParent('a', { elevation: 64 })])],
  ['crotch', 'a', tree([parent, onParent('a', { at: 20 })]), tree([parent, onParent('a', { at: 22 })])],
  ['inside-bend', 'a', tree([branch('a', { at: 394, bearing: 214 })], { trunk: swung }), tree([branch('a', { at: 394, bearing: 206 })], { trunk: swung })],
  [
    'whorl',
    'c',
    tree([branch('a', { at: 200 }), branch('b', { at: 208, bearing: 210 }), branch('c', { at: 216, bearing: 330, green: 0.01 })]),
    tree([branch('a', { at: 200 }), branch('b', { at: 208, bearing: 210 }), branch('c', { at: 222, bearing: 330, green: 0.01 })]),
  ],
  [
    'bar',
    'a',
    tree([branch('a', { bearing: 89, green: 0.01 }), branch('b', { bearing: 250, at: 217 })]),
    tree([branch('a', { bearing: 92, green: 0.01 }), branch('b', { bearing: 250, at: 217 })]),
  ],
  [
    'bar',
    'a',
    tree([branch('a', { green: 0.01 }), branch('b', { bearing: 270, at: 217 })]),
    tree([branch('a', { green: 0.01 }), branch('b', { bearing: 270, at: 220 })]),
  ],
  // The parent goes on, so two shoots at one place make three; the thick one at a good angle stays with it.
  ['fork', 'b', fork(onParent('b', { bearing: 130, at: 160, d: 3 })), fork(onParent('b', { bearing: 130, at: 166, d: 3 }))],
  ['crossing', 'b', drops(8.9), drops(9.1)],
  ['eye', 'a', withFront(tree([branch('a', { bearing: 90, elevation: 0 })]), 71), withFront(tree([branch('a', { bearing: 90, elevation: 0 })]), 69)],
  [
    'hides-trunk',
    'a',
    withFront(tree([branch('a', { bearing: 50, at: 150, length: 260, green: 0.3, bareTo: 0.05 })]), 20),
    withFront(tree([branch('a', { bearing: 90, at: 150, length: 260, green: 0.3, bareTo: 0.05 })]), 0),
  ],
  ['shades', 'b', tree([branch('a'), branch('b', { at: 271, bearing: 119 })]), tree([branch('a'), branch('b', { at: 273, bearing: 119 })])],
  ['shades', 'b', tree([branch('a'), branch('b', { at: 260, bearing: 61 })]), tree([branch('a'), branch('b', { at: 260, bearing: 59 })])],
  // Two thirds of 36 mm are 24; 1.3 times the 20 mm of the branch below are 26.
  ['too-thick', 'a', thick(24.5), thick(24)],
  ['too-thick', 'a', tree([branch('low', { at: 120, d: 12 }), branch('a', { d: 16 })]), tree([branch('low', { at: 120, d: 12 }), branch('a', { d: 15.5 })])],
  ['leggy', 'a', tree([branch('a', { bareTo: 0.61 })]), tree([branch('a', { bareTo: 0.59 })])],
  ['leggy', 'a', tree([branch('a', { bareTo: 0.8 })]), tree([branch('a', { bareTo: 0.8 }), onParent('kid', { parent: 'a', at: 90, d: 2 })])],
  ['low', 'a', tree([branch('a', { at: 66, elevation: 0 })]), tree([branch('a', { at: 73, elevation: 0 })])],
];

test.each(CASES)('%s: found on branch %s where it holds, not just inside the threshold; drawn; also when the tree is turned', (rule, id, fires, holds) => {
  expect(rules(fires, id)).toContain(rule);
  expect(rules(holds, id)).not.toContain(rule);
  const drawn = findingEvidence(placeTree(fires), fires.plan.front ? judgeFront(placeTree(fires), fires.plan.front) : null, id);
  expect(drawn.lines.flat(2).every(Number.isFinite) && drawn.lines.length).toBeTruthy();
  for (const by of [47, 200]) {
    const around = (t: Tree): Tree => (t.plan.front ? withFront(turned(t, by), (t.plan.front.bearing + by) % 360) : turned(t, by));
    expect(rules(around(fires), id)).toContain(rule);
    expect(rules(around(holds), id)).not.toContain(rule);
  }
});

test('what is found is said by names, with what was measured, and drawn where it is', () => {
  for (const [rule, id, fires] of CASES) {
    const names = namesOf(fires);
    const placed = placeTree(fires);
    const found = find(fires).find((f) => f.branch === id && f.rule === rule)!;
    const drawn = findingEvidence(placed, fires.plan.front ? judgeFront(placed, fires.plan.front) : null, id);
    const told = [...found.because, ...drawn.words.map((w) => w.text)].join(' ');
    expect(told).toMatch(/^[^{}[\]]*\.(?!.*(undefined|NaN))/);
    expect(found.also).not.toContain(found.advice);
    // Of what was measured at least one figure is said as it was measured, in degrees, millimetres or percent.
    const { limit: _limit, front: _front, green: _green, with: others = [], ...measured } = found.evidence as Record<string, unknown> & { with?: string[] };
    const figures = Object.values(measured).filter((v): v is number => typeof v === 'number');
    const said = figures.some((v) =>
      [Math.abs(v), Math.abs(v) * 100].some((x) => told.includes(`${Number.isInteger(x) ? x : x.toFixed(1)}`) || told.includes(x.toFixed(0))),
    );
    expect([rule, said || !figures.length || ['hanging', 'eye', 'whorl', 'too-thick'].includes(rule)]).toEqual([rule, true]);
    if (rule === 'too-thick') expect(told).toContain(`${placed.byId.get(id)!.branch.d.toFixed(1)} mm thick`);
    for (const other of others) expect(told).toContain(names(other));
    // It is drawn on the wood that it speaks of, or at the middle of a bend as far away as the sentence says.
    const between = ([p, q]: Vec[]): Vec[] => [0, 0.1, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8, 0.9, 1].map((x) => add(p!, scale(sub(q!, p!), x)));
    const wood = [placed.trunk, ...[id, ...others].flatMap((x) => placed.byId.get(x)?.line ?? [])].flatMap(({ points }) =>
      points.slice(1).flatMap((q, i) => between([points[i]!, q])),
    );
    for (const w of drawn.words) expect(Math.min(...wood.map((q) => norm(sub(w.at, q))))).toBeLessThan(rule === 'inside-bend' ? 240 : 70);
  }
});

test('every rule has its case, and can be switched off and limited by the profile', () => {
  expect(new Set(CASES.map(([rule]) => rule))).toEqual(new Set(RULES));
  const [, , leggy] = CASES.find(([rule]) => rule === 'leggy')!;
  const with_ = (profile: string, limits: Record<string, number>, on: Record<string, boolean>): Tree =>
    after(leggy, { kind: 'rules', profile, limits, rules: on });
  expect(rules(with_('all rules', {}, { leggy: false }), 'a')).toEqual([]);
  expect(rules(with_('all rules', { leggyShare: 0.7 }, {}), 'a')).toEqual([]);
  expect(rules(with_('broadleaf structure', {}, {}), 'a')).toEqual([]);
  expect(rules(with_('broadleaf structure', {}, { leggy: true }), 'a')).toEqual(['leggy']);
  // A school with helpers keeps what feeds the tree.
  const hangs = tree([parent, onParent('a', { elevation: -70 })]);
  const advice = (t: Tree) => find(t).find((f) => f.rule === 'hanging')!.advice;
  expect([advice(hangs), advice(after(hangs, { kind: 'rules', profile: 'first styling', limits: {}, rules: {} }))]).toEqual(['remove', 'reserve']);
  const suggested = (own: Partial<Tree>) => suggestedProfile(tree([], own));
  const hangingTrunk = [60, 90, 40, -80, -160].map((z, i) => ({ x: i * 60, y: 0, z, d: 40 - i * 7 }));
  const trees: [Partial<Tree>, string][] = [
    [{}, 'first styling'],
    [{ styledOn: '2025-01-01' }, 'refinement'],
    [{ species: 'maple-trident' }, 'broadleaf structure'],
    [{ trunk: hangingTrunk }, 'cascade'],
  ];
  for (const [own, name] of trees) expect([suggested(own), name in REMOVAL_PROFILES]).toEqual([name, true]);
  // Where nothing was chosen a cascade and a clump are judged by their own rules, any other tree by all.
  const stems = [40, 160, 280].map((bearing) => branch(`s${bearing}`, { at: 12, bearing, elevation: 70, d: 24, length: 380 }));
  const judgedBy = (t: Tree) => [formOf(t), rulesFor(t).name, rulesFor(after(t, { kind: 'rules', profile: 'refinement', limits: {}, rules: {} })).name];
  expect(judgedBy(tree([], { trunk: hangingTrunk }))).toEqual(['cascade', 'cascade', 'refinement']);
  expect(judgedBy(tree(stems))).toEqual(['clump', 'clump', 'refinement']);
  // A stem is a trunk: by whatever rules, it is no low branch nor one of a whorl, and no habit lays it down.
  const judged = after(tree([...stems, branch('a', { at: 250, elevation: 60 })]), { kind: 'rules', profile: 'all rules', limits: {}, rules: {} });
  expect(find(judged).filter((f) => f.branch.startsWith('s') && ['low', 'whorl', 'bar', 'too-thick'].includes(f.rule))).toEqual([]);
  expect(proposePoses(placeTree(judged)).poses.map((p) => p.branch)).toEqual(['a']);
  expect(judgedBy(tree(stems.slice(0, 1)))).toEqual(['twin', 'clump', 'refinement']);
});

test('what takes the light of several is found once, against the nearest, naming the others', () => {
  const pile = tree([branch('a', { at: 200 }), branch('b', { at: 230, bearing: 100 }), branch('c', { at: 262, bearing: 80 })]);
  const shades = find(pile).filter((f) => f.rule === 'shades');
  expect(shades.map((f) => [f.branch, f.evidence.with])).toEqual([
    ['b', ['a']],
    ['c', ['b', 'a']],
  ]);
  expect(shades[1]!.because[0]).toMatch(/Stands 32 mm above .* and 20° aside of it.* It shades 1 more: first \w+\.$/);
});

test('of a whorl those stay that fill the sides left open, apart from each other, not at the eye; like thickness counts last', () => {
  const around = [branch('below', { at: 130, bearing: 90 }), branch('above', { at: 280, bearing: 210 })];
  const whorl = (...own: Partial<Branch>[]): Branch[] => own.map((o, i) => branch(`w${i}`, { at: 200 + 4 * i, ...o }));
  const goes = (t: Tree): string[] =>
    find(t)
      .filter((f) => f.rule === 'whorl')
      .map((f) => f.branch)
      .sort();
  // Thick ones straight above the one below and under the one above go before thinner ones on the open sides.
  const open = tree([
    ...around,
    ...whorl({ bearing: 92, d: 14 }),
    ...whorl({ bearing: 92, d: 14 }, { bearing: 212, d: 14 }, { bearing: 330, d: 8 }, { bearing: 150, d: 9 }).slice(1),
  ]);
  expect(goes(open)).toEqual(['w0', 'w1']);
  expect(find(open).find((f) => f.rule === 'whorl')!.because[0]).toMatch(/^4 branches leave at one height: .* stand better to the sides left open\.$/);
  // Two of three stand on one side: one of those goes, though they are the thickest pair.
  const oneSide = tree(whorl({ bearing: 80, d: 12 }, { bearing: 110, d: 12 }, { bearing: 240, d: 7 }));
  expect(goes(oneSide)).not.toContain('w2');
  // From the front the one at the eye goes.
  expect(goes(withFront(tree(whorl({ bearing: 60, elevation: 0 }, { bearing: 180, elevation: 0 }, { bearing: 300, elevation: 0 })), 182))).toEqual(['w1']);
  // All else alike, the two of like thickness stay.
  expect(goes(tree(whorl({ bearing: 0, d: 9 }, { bearing: 120, d: 4 }, { bearing: 240, d: 9 })))).toEqual(['w1']);
});

test('a line that goes on and carries the green is one of its fork: thin shoots at the shoulder are what goes', () => {
  const stem = (own: Partial<Branch>): Branch => branch('p', { bearing: 90, elevation: 0, length: 300, d: 14, tipD: 6, ...own });
  const shoots = [onParent('a', { at: 30, bearing: 30, d: 3, green: 0.02 }), onParent('b', { at: 33, bearing: 150, d: 3, green: 0.02 })];
  const found = (t: Tree) => find(t).filter((f) => f.rule === 'fork');
  const green = found(tree([stem({ green: 0.4 }), ...shoots]));
  expect(green.map((f) => [['a', 'b'].includes(f.branch), f.advice])).toEqual([[true, 'remove']]);
  expect(green[0]!.because[0]).toMatch(/goes on and carries the green/);
  // The green may sit on what leaves farther out.
  const farther = found(tree([stem({ green: 0 }), ...shoots, onParent('far', { at: 220, bearing: 60, green: 0.3 })]));
  expect(farther.map((f) => f.advice)).toEqual(['remove']);
  // A bare line going on is cut back to the two.
  const bare = found(tree([stem({ green: 0, tipD: 1 }), ...shoots.map((b, i) => ({ ...b, bearing: [62, 118][i]! }))]));
  expect(bare.map((f) => [f.branch, f.advice])).toEqual([['p', 'shorten']]);
});

test('findings turn with the tree and do not depend on the order of its branches', () => {
  fc.assert(
    fc.property(anyTree, fc.integer({ min: 1, max: 359 }), fc.integer({ min: 0, max: 359 }), fc.integer(), (t, by, bearing, seed) => {
      const key = (x: Tree): string[] => find(x).map((f) => `${f.branch} ${f.rule} ${f.advice} ${f.because.join()}`);
      const here = withFront(t, bearing);
      const mixed = [...t.branches].sort((a, b) => ((a.id.length * 7919 + a.at * 31 + seed) % 101) - ((b.id.length * 7919 + b.at * 31 + seed) % 101));
      expect(key({ ...here, branches: mixed })).toEqual(key(here));
      const still = (x: Tree): string[] => find(x).flatMap((f) => (['eye', 'hides-trunk'].includes(f.rule) ? [] : [`${f.branch} ${f.rule} ${f.advice}`]));
      expect(still(turned(t, by)).sort()).toEqual(still(t).sort());
    }),
    { numRuns: 25 },
  );
});

test('every finding is advice with a reason, names what it would cost, and says no "must"', () => {
  const heavy = withFront(
    tree(
      [
        branch('a', { state: 'blind', green: 0.3, backBuds: false, bearing: 200 }),
        branch('kid', { parent: 'a', at: 100, green: 0.05 }),
        branch('b', { at: 400, bearing: 30 }),
      ],
      { species: 'pine-two-needle', features: [{ kind: 'live vein', bearing: 190, z: [0, 150], good: true, weight: 1 }] },
    ),
    20,
  );
  heavy.plan.runs.push({ id: 'w1', metal: 'copper', size: 2, strands: 1, angle: 45, branches: [{ branch: 'kid', hand: 'cw', start: 'over' }] });
  heavy.plan.guys.push({ id: 'g1', branch: 'b', at: 100, anchor: { kind: 'branch', branch: 'a' } as never, wire: 1.5 });
  const found = find(heavy).find((f) => f.rule === 'blind')!;
  expect([...found.because, ...found.against].join(' ')).toMatch(
    /takes 1 branch.*35% of the green.*only back branch.*nothing else stands to this side.*last living branch on the live vein/s,
  );
  expect([sayOldWood(heavy), sayOldWood({ ...heavy, species: 'maple-trident' })]).toEqual([
    'Old wood of two-needle pine makes no new buds: what is cut bare stays bare.',
    null,
  ]);
  expect(found.conflicts).toEqual(['w1', 'g1']);
  expect(found.also).not.toContain(found.advice);
  fc.assert(
    fc.property(anyTree, (t) => {
      const seen = judgeFront(placeTree(t), { bearing: 10, pitch: 0, roll: 0 });
      const { rules: asked } = rulesFor(t);
      const hides = seen.hiding
        .filter((h) => asked['hides-trunk'] && h.share > 0.06 && h.branch !== 'pot' && h.branch !== 'trunk' && !seen.atEye.includes(h.branch))
        .map((h) => h.branch);
      const found = find(withFront(t, 10));
      expect(found.flatMap((f) => (f.rule === 'hides-trunk' ? [f.branch] : [])).sort()).toEqual(hides.sort());
      for (const f of found) {
        expect(f.because.join(' ')).not.toMatch(/\bmust\b/);
        expect(f.because[0]!.length).toBeGreaterThan(20);
      }
    }),
    { numRuns: 40 },
  );
});

test('the bend at a place of a line is its circle; a straight line has none', () => {
  const arc = Array.from({ length: 40 }, (_, i): Vec => [120 - 120 * Math.cos(i / 40), 0, 120 * Math.sin(i / 40)]);
  const line = limb(
    arc,
    arc.map(() => 12),
  );
  const found = bendAt(line, 60)!;
  expect(found.radius).toBeCloseTo(120, 0);
  expect(found.center[0]).toBeCloseTo(120, 0);
  expect(
    bendAt(
      limb(
        [
          [0, 0, 0],
          [0, 0, 100],
        ],
        [10, 8],
      ),
      50,
    ),
  ).toBeNull();
});
