import fc from 'fast-check';
import {
  ANCHOR_KINDS,
  costOf,
  dayOf,
  distance,
  generateTree,
  guyWorld,
  heldBranch,
  HEFT,
  isoOf,
  lengthOf,
  limb,
  outcomeOf,
  placeTree,
  planTree,
  pointAt,
  proposePoses,
  rankAnchors,
  solveGuys,
  speciesOf,
  standTree,
  tieBears,
  tieDown,
  tiePointOf,
  watchGuys,
  windlass,
  woodOf,
  type Form,
  type PlanGuy,
  type Tree,
  type Vec,
} from '../src/index.js';
import { after, branch, tree } from './trees.js';

const ON = dayOf('2026-03-01');
const FORMS: Form[] = ['upright', 'cascade', 'clump'];

/** Trees of all forms whose lowest branches are as thick as no coil holds, to be led down. */
const thick = (i: number): Tree => {
  const made = generateTree({
    seed: 300 + i,
    name: 'Thick',
    species: ['yew', 'hornbeam-korean', 'maple-trident', 'oak', 'spruce'][i % 5]!,
    form: FORMS[i % 3]!,
    height: 460 + 40 * (i % 4),
    base: 90,
    primaries: 4 + (i % 3),
    secondaries: 2,
  });
  const low = made.branches.filter((b) => b.parent === 'trunk' && b.state !== 'dead').slice(0, 2);
  const branches = made.branches.map((b) => (low.includes(b) ? { ...b, d: 26, tipD: 11, length: Math.max(b.length, 440), path: undefined } : b));
  return {
    ...made,
    branches: branches as Tree['branches'],
    pot: { ...made.pot, holes: [{ bearing: 30, radius: 70 }, { bearing: 210, radius: 70 }] }, // prettier-ignore
    plan: {
      ...made.plan,
      front: { bearing: (i * 40) % 360, pitch: i % 2 ? 4 : 0, roll: 0 },
      poses: low.map((b) => ({ branch: b.id, bearing: b.bearing, elevation: b.elevation - 12, bends: [] })),
    },
  };
};

test('ties of twenty trees: on their branch, towards what is there, no longer than drawn, after the coils, and every figure one that can be', () => {
  let seen = 0;
  const kinds = new Set<string>();
  for (let i = 0; i < 20; i++) {
    const t = thick(i);
    const plan = planTree(t, ON, { fronts: false });
    const stands = standTree(outcomeOf(t).tree);
    const ids = [...plan.runs, ...plan.guys].map((x) => x.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(plan.order).toEqual(ids);
    for (const g of plan.guys as PlanGuy[]) {
      seen++;
      kinds.add(g.anchor.kind);
      const line = stands.lineOf.get(g.branch)!;
      expect(ANCHOR_KINDS).toContain(g.anchor.kind);
      expect(g.at).toBeGreaterThan(0);
      expect(g.at).toBeLessThanOrEqual(lengthOf(line) + 0.5);
      // The tie point is no farther from the shoulder than the branch is long up to there.
      expect(distance(stands.out(g.from), line.points[0]!)).toBeLessThanOrEqual(g.at * 1.03 + 8);
      expect(Math.abs(distance(g.from, g.to) - (g.length - g.shortening))).toBeLessThan(1.2);
      expect(g.byHand).toBeLessThanOrEqual(g.shortening + 0.5);
      const rest = { length: g.length - g.byHand, wireDiameter: g.wire, lines: 2 * g.rounds, shortening: Math.max(0, g.shortening - g.byHand) };
      expect(Math.abs(windlass(rest) - g.windlassTurns)).toBeLessThan(6);
      for (const [name, value] of Object.entries(g)) if (typeof value === 'number') expect([name, Number.isFinite(value) && value >= 0]).toEqual([name, true]);
      expect(g.checks.length).toBeGreaterThanOrEqual(4);
      for (const c of g.checks) expect(c.said).toMatch(/^[A-Z].*\.$/);
      const wire = g.checks.find((c) => c.check === 'wire')!;
      expect(wire.limit).toBeCloseTo(tieBears(g.wire, g.rounds), 1);
      expect(wire.ok).toBe(g.tension <= tieBears(g.wire, g.rounds) + 0.1);
      expect(g.stages === null || g.stages >= 1).toBe(true);
      if (g.stages !== null && g.stages > 1) expect(g.rest).not.toBe('');
      expect(g.dates).toEqual([...g.dates].sort());
    }
    expect(plan.lostTies).toEqual([]);
  }
  expect(seen).toBeGreaterThan(10);
  expect(kinds.size).toBeGreaterThan(1);
});

test('wherever an anchor is, in the wood of its own branch too, the pull is worked out or told as none: it ends, and every figure is a number', () => {
  const wood = woodOf(speciesOf('larch'));
  const line = limb([[133, -20, 281], [147, 42, 307], [141, 102, 340], [134, 163, 372], [110, 217, 406], [102, 276, 441], [92, 340, 466]], [26.9, 23.8, 20.8, 17.7, 14.7, 11.7, 8.6]); // prettier-ignore
  const somewhere = fc.integer({ min: 0, max: 413 }).chain((s) => {
    const near = fc.double({ min: -40, max: 40, noNaN: true });
    return fc.tuple(near, near, near).map((off) => pointAt(line, s).point.map((x, k) => x + off[k]!) as unknown as Vec);
  });
  fc.assert(
    fc.property(fc.array(somewhere, { minLength: 1, maxLength: 2 }), fc.constantFrom(10, 24), (anchors, segments) => {
      const tied = tieDown({ line, wood, heft: HEFT, at: 298, anchors, toward: [-28, 269, -57], segments, rough: true });
      for (const x of [...tied.tensions, tied.missDeg, tied.strain, ...tied.point]) expect(Number.isFinite(x)).toBe(true);
    }),
    { numRuns: 60 },
  );
});

test('a cushion is looked at every six weeks of growth, more seldom in dormancy, soon where the bark is touched; thick wood is held for years', () => {
  const tied = (own: object, d = 14, species = 'larch') =>
    watchGuys(
      placeTree(
        after(tree([branch('a', { d, tipD: d / 2, length: 240 })], { species }), {
          kind: 'tie',
          branch: 'a',
          at: 150,
          anchor: { kind: 'pot-rim', bearing: 90 },
          wire: 1,
          on: '2025-05-10',
          cameDeg: 22,
          ...own,
        }),
      ),
      ON,
    )[0]!;
  const since = (on: string) => tied({ on }).look - dayOf(on);
  expect(since('2025-05-10')).toBe(42);
  expect(since('2025-11-20')).toBe(84);
  const looked = (bark: 'clear' | 'touching') =>
    watchGuys(
      placeTree(
        after(
          tree([branch('a', { d: 14 })]),
          { kind: 'tie', branch: 'a', at: 100, anchor: { kind: 'pot-rim', bearing: 90 }, wire: 1, on: '2025-05-10' },
          { kind: 'guyed', branch: 'a', guy: 'g1', done: 'looked', bark, on: '2025-06-10' },
        ),
      ),
      ON,
    )[0]!.look;
  expect(looked('touching')).toBeLessThan(looked('clear'));
  const years = (d: number, species = 'larch') => (tied({}, d, species).holds! - dayOf('2025-05-10')) / 365.25;
  expect(years(6)).toBeLessThan(years(20));
  expect(years(30, 'yew')).toBeGreaterThan(3);
  expect(tied({ cameDeg: undefined }).holds).toBeNull();
  expect(isoOf(tied({}).since)).toBe('2025-05-10');
});

test('anchors are ranked by what comes of a pull from them: the best by solving each is among the first three, and none is judged by a pull that was not made', () => {
  let judged = 0;
  let among = 0;
  for (const [i, species] of (['yew', 'larch', 'spruce', 'hornbeam-korean'] as const).entries()) {
    const placed = placeTree(generateTree({ seed: i, name: 'Any', species, height: 500, base: 60, primaries: 7, secondaries: 2 }));
    const { poses } = proposePoses(placed);
    const world = guyWorld(placed, poses);
    const thick = [...poses].sort((a, b) => placed.byId.get(b.branch)!.branch.d - placed.byId.get(a.branch)!.branch.d);
    for (const { branch } of thick.slice(0, 5)) {
      const held = heldBranch(world, placed, poses, branch);
      const { at } = tiePointOf(world, held);
      const ranked = rankAnchors(world, held, at);
      // A branch that is far from where it shall go is drawn by newtons, or that anchor cannot move it at all.
      const idle = ranked.filter((r) => r.missDeg > 10 && r.tension < 1).length;
      expect(idle).toBeLessThan(ranked.length / 4);
      if (judged >= 8) continue;
      const costs = ranked.map((r) => {
        const [g] = solveGuys(world, held, [{ id: 'g', branch, at, anchor: r.anchor }]);
        const kind = ANCHOR_KINDS.indexOf(r.anchor.kind) * (r.anchor.kind === 'screw' ? 2 : 1);
        return kind + costOf([g!]) + 5 * g!.checks.filter((c) => !c.ok).length + (r.behind === false ? 1 : 0) + g!.tension / 100;
      });
      judged++;
      // Within a quarter of a rank they are alike.
      if (Math.min(...costs.slice(0, 3)) <= Math.min(...costs) + 0.25) among++;
    }
  }
  expect([judged, among]).toEqual([8, 8]);
});
