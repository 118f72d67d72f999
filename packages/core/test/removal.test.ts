import fc from 'fast-check';
import {
  bendAt,
  findingEvidence,
  findingsOf,
  formOf,
  judgeFront,
  limb,
  placeTree,
  proposePoses,
  REMOVAL_PROFILES,
  RULES,
  rulesFor,
  suggestedProfile,
  type Branch,
  type Rule,
  type Tree,
  type Vec,
} from '../src/index.js';
import { after, anyTree, branch, listed, tree, turned } from './trees.js';

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

/** A finding as it is read: what speaks against the branch, what to do, what was measured, why, and what speaks for it; then what is drawn. */
function said(t: Tree, id: string): string[] {
  const front = t.plan.front ? judgeFront(placeTree(t), t.plan.front) : null;
  const at = (p: Vec): string => p.map((x) => Math.round(x)).join(' ');
  const drawn = findingEvidence(placeTree(t), front, id);
  return [
    ...find(t)
      .filter((f) => f.branch === id)
      .flatMap((f) => [
        `${f.rule} (${f.severity}): ${[f.advice, ...f.also].join(' or ')}; ${JSON.stringify(f.evidence).replace(/["{}]/g, '')}`,
        ...f.because,
        ...f.against.map((a) => `but ${a}`),
        ...f.conflicts.map((c) => `carries ${c}`),
      ]),
    ...drawn.words.map((w) => `"${w.text}" at ${at(w.at)}`),
    `drawn: ${drawn.lines.map((l) => `${l.length} from ${at(l[0]!)} to ${at(l[l.length - 1]!)}`).join('; ')}`,
  ];
}

test('what is found is said in words of the bench, with what was measured, and drawn where it is', () => {
  const cases = CASES.map(([rule, id, fires], i) => [`${i} ${rule}: ${id}`, said(fires, id)] as const);
  expect(listed(Object.fromEntries(cases))).toMatchInlineSnapshot(`
   [
     "0 dead: a: dead (3): remove; state:dead,green:0.05",
     "0 dead: a: Dead wood carries no green. Cut it back, or leave a stub of it as a jin.",
     "0 dead: a: drawn: 2 from 11 0 202 to 208 0 237",
     "1 blind: a: blind (2): shorten or remove; state:blind,green:0.05",
     "1 blind: a: No bud at the tip, but buds further back: shortened to one of them it goes on.",
     "1 blind: a: but nothing else stands to this side at its height.",
     "1 blind: a: drawn: 2 from 11 0 202 to 208 0 237",
     "2 weak: a: weak (1): wait or remove; state:weak,green:0.05",
     "2 weak: a: Weak growth: wire and cuts here cost more than they give this year. Light from above may bring it back.",
     "2 weak: a: but nothing else stands to this side at its height.",
     "2 weak: a: drawn: 2 from 11 0 202 to 208 0 237",
     "3 hanging: a: hanging (2): remove or move; elevation:-61,limit:-60",
     "3 hanging: a: Hangs 61° below level under first left: shaded there, and it muddles the underside of the pad.",
     "3 hanging: a: "hangs 61°" at 161 31 144",
     "3 hanging: a: drawn: 2 from 161 2 196 to 161 31 144",
     "4 hanging: a: hanging (2): remove or move; fromBelow:11,limit:20",
     "4 hanging: a: Grows from the underside of first left: shaded there, and it muddles the underside of the pad.",
     "4 hanging: a: "underside" at 205 9 155",
     "4 hanging: a: drawn: 2 from 164 1 197 to 205 9 155",
     "5 upright: a: upright (1): move or remove or shorten; elevation:66,limit:65",
     "5 upright: a: Stands at 66° on first left: strong there, it takes what the tips should have. Lay it into the pad, or take it off.",
     "5 upright: a: "stands 66°" at 161 26 259",
     "5 upright: a: drawn: 2 from 161 2 204 to 161 26 259",
     "6 crotch: a: crotch (2): remove; away:20,diameters:1.4,limit:1.5",
     "6 crotch: a: Grows in the crotch of first left, 20 mm from the fork: no light reaches it, and wire finds no room there.",
     "6 crotch: a: "crotch" at 31 0 200",
     "6 crotch: a: drawn: 33 from 31 13 200 to 31 13 200; 2 from 31 4 201 to 31 60 222",
     "7 inside-bend: a: inside-bend (2): remove or move or reserve; radius:229,inward:0.5,limit:0.5",
     "7 inside-bend: a: Leaves the trunk on the inside of its bend (radius 229 mm): a branch is looked for on the outside, where a tree would have grown it.",
     "7 inside-bend: a: but nothing else stands to this side at its height.",
     "7 inside-bend: a: "centre of the bend" at -49 0 291",
     "7 inside-bend: a: drawn: 2 from 175 0 339 to -49 0 291; 2 from 163 -6 338 to 52 -170 372",
     "8 whorl: c: whorl (2): remove or reserve; with:[a,b],within:18,kept:[a,b]",
     "8 whorl: c: 3 branches leave at one height: the trunk swells there. Two are enough; first left and back stand better to the sides left open.",
     "8 whorl: c: "3 at one height" at 0 0 216",
     "8 whorl: c: drawn: 33 from 0 -28 216 to 0 -28 216; 2 from -5 9 218 to -104 179 253",
     "9 bar: a: bar (2): remove or move or reserve; with:[b],heightGap:17,between:161",
     "9 bar: a: Faces first right straight across the trunk, 17 mm apart in height: together they read as a bar.",
     "9 bar: a: "bar" at -10 -4 219",
     "9 bar: a: drawn: 2 from 11 0 202 to 208 4 237; 2 from -10 -4 219 to -195 -71 254; 33 from 0 -29 209 to 0 -29 209",
     "10 bar: a: bar (2): remove or move or reserve; with:[b],heightGap:17,between:180",
     "10 bar: a: Faces first right straight across the trunk, 17 mm apart in height: together they read as a bar.",
     "10 bar: a: "bar" at -10 0 219",
     "10 bar: a: drawn: 2 from 11 0 202 to 208 0 237; 2 from -10 0 219 to -207 0 254; 33 from 0 -29 209 to 0 -29 209",
     "11 fork: b: fork (1): remove or reserve; with:[a,p],angle:48,at:160",
     "11 fork: b: 3 shoots from one point (first left, first from the trunk on its left side; first left, second from the trunk on its right side and first left itself): two make a fork. first left, first from the trunk on its left side and first left itself stand 48° apart and are most alike in thickness.",
     "11 fork: b: "3 from one point" at 171 0 200",
     "11 fork: b: drawn: 33 from 171 13 200 to 171 13 200; 2 from 174 -3 201 to 217 -39 222",
     "12 crossing: b: crossing (1): move or shorten or remove; with:[a],gap:2.9,along:200,limit:3",
     "12 crossing: b: Passes 2.9 mm from first left: crossing lines trouble the eye, and bark that rubs is hurt.",
     "12 crossing: b: "2 L × 1 L" at 109 4 200",
     "12 crossing: b: drawn: 33 from 115 4 200 to 115 4 200; 33 from 109 10 200 to 109 10 200",
     "13 eye: a: eye (2): move or remove or shorten; front:71,off:19",
     "13 eye: a: Points at the eye from the chosen front and hides the trunk behind it. Led to a side it can serve; where it cannot be moved, it may come off.",
     "13 eye: a: but nothing else stands to this side at its height.",
     "13 eye: a: "at the eye" at 211 0 200",
     "13 eye: a: drawn: 2 from 11 0 200 to 211 0 200",
     "14 hides-trunk: a: hides-trunk (1): move or shorten or remove; share:0.09,limit:0.06",
     "14 hides-trunk: a: Covers 9% of the lower trunk from the chosen front.",
     "14 hides-trunk: a: but it carries 30% of the green.",
     "14 hides-trunk: a: but nothing else stands to this side at its height.",
     "14 hides-trunk: a: "front hides 9%" at 0 0 184",
     "14 hides-trunk: a: drawn: 2 from 0 0 150 to 0 0 219",
     "15 shades: b: shades (1): move or remove or shorten; with:[a],gap:71,between:29,limit:72",
     "15 shades: b: Stands 71 mm above first left and 29° aside of it, less than 12% of the height: that one loses its light, and what is shaded dies back.",
     "15 shades: b: "shade on 1 L" at 149 0 236",
     "15 shades: b: drawn: 33 from 199 0 236 to 199 0 236; 2 from 8 -4 273 to 180 -100 307",
     "16 shades: b: shades (1): move or remove or shorten; with:[a],gap:60,between:29,limit:72",
     "16 shades: b: Stands 60 mm above first left and 29° aside of it, less than 12% of the height: that one loses its light, and what is shaded dies back.",
     "16 shades: b: "shade on 1 L" at 149 0 236",
     "16 shades: b: drawn: 33 from 199 0 236 to 199 0 236; 2 from 8 5 262 to 180 100 296",
     "17 too-thick: a: too-thick (2): remove or shorten or reserve; ofTrunk:0.68",
     "17 too-thick: a: 24.5 mm thick where the trunk has 36.0 mm: it competes with the trunk.",
     "17 too-thick: a: but nothing else stands to this side at its height.",
     "17 too-thick: a: "25 mm" at 11 0 214",
     "17 too-thick: a: drawn: 2 from 11 0 202 to 208 0 237",
     "18 too-thick: a: too-thick (2): remove or shorten or reserve; ofTrunk:0.44,with:[low],thanBelow:1.33",
     "18 too-thick: a: 16.0 mm thick, 1.3 times first left below it: branches want to grow thinner upward.",
     "18 too-thick: a: "16 mm" at 11 0 210",
     "18 too-thick: a: drawn: 2 from 11 0 202 to 208 0 237",
     "19 leggy: a: leggy (1): shorten or compact; bare:0.61,limit:0.6",
     "19 leggy: a: Bare for 61% of its length: the foliage stands far from the trunk.",
     "19 leggy: a: There are buds further back to shorten to, or bends bring the foliage in.",
     "19 leggy: a: but nothing else stands to this side at its height.",
     "19 leggy: a: "122 mm bare" at 71 0 212",
     "19 leggy: a: drawn: 2 from 11 0 202 to 131 0 223",
     "20 leggy: a: leggy (1): shorten or compact; bare:0.8,limit:0.6",
     "20 leggy: a: Bare for 80% of its length: the foliage stands far from the trunk.",
     "20 leggy: a: There are buds further back to shorten to, or bends bring the foliage in.",
     "20 leggy: a: but nothing else stands to this side at its height.",
     "20 leggy: a: "160 mm bare" at 89 0 216",
     "20 leggy: a: drawn: 2 from 11 0 202 to 168 0 230",
     "21 low: a: low (1): remove or reserve; share:0.11,limit:0.12",
     "21 low: a: Leaves at 11% of the height, where the trunk is wanted clear up to 12%. It feeds the base as long as it stays: a sacrifice or a reserve is possible.",
     "21 low: a: but nothing else stands to this side at its height.",
     "21 low: a: "clear below" at 40 0 72",
     "21 low: a: drawn: 2 from 14 0 66 to 214 0 66; 33 from 40 0 72 to 40 0 72",
   ]
  `);
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
    /takes 1 branch.*35% of the green.*only back branch.*nothing else stands to this side.*last living branch on the live vein.*does not bud back/s,
  );
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
