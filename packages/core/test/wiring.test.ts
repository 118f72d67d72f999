import fc from 'fast-check';
import {
  COPPER_GAUGES,
  decided,
  gaugeOf,
  lengthOf,
  METAL_DATA,
  outcomeOf,
  placeTree,
  planWiring,
  proposePoses,
  ruleOfThumb,
  weightMoment,
  type Branch,
  type Tree,
} from '../src/index.js';
import { anyTree, branch, tree } from './trees.js';

const wiring = (t: Tree) => {
  const placed = placeTree(t);
  return planWiring(placed, proposePoses(placed));
};
const plain = (own: Partial<Branch> = {}, of: Partial<Tree> = {}) => wiring(tree([branch('a', { elevation: 50, ...own })], of));

/** Which metal an artist takes, by kind of tree and by what is wired. */
const METALS: [what: string, species: string, own: Partial<Branch>, metal: 'copper' | 'aluminium'][] = [
  ["a conifer's structure", 'larch', {}, 'copper'],
  ["a juniper's structure", 'juniper-scale', {}, 'copper'],
  ["a conifer's soft shoot", 'larch', { stage: 'shoot' }, 'aluminium'],
  ['a maple', 'maple-trident', {}, 'aluminium'],
  ['an olive', 'olive', {}, 'aluminium'],
];

test.each(METALS)('%s is wired in the metal for it', (_, species, own, metal) => {
  const [run] = plain(own, { species }).runs;
  expect(run!.metal).toBe(metal);
  expect(METAL_DATA[metal].sizes.some((s) => Math.abs(s - run!.size) < 1e-9)).toBe(true);
  expect(run!.gauge).toBe(metal === 'copper' ? gaugeOf(run!.size) : null);
});

/** Branches without wire, and why they are told to be. */
const UNWIRED: [own: Partial<Branch>, reason: RegExp][] = [
  [{ state: 'dead' }, /Dead wood is not wired/],
  [{ state: 'weak' }, /Weak: let it grow stronger first/],
  [{ elevation: -10 }, /lies within 10° of where it should/],
  [{ d: 45, tipD: 20, length: 280 }, /No coil of the sizes sold holds|more than the wood takes/i],
];

test.each(UNWIRED)('a branch with %j goes without wire: %p', (own, reason) => {
  const { runs, unwired } = plain(own, { trunk: [0, 150, 300, 450, 600].map((z) => ({ x: 0, y: 0, z, d: 90 - z * 0.07 })) });
  expect(runs).toEqual([]);
  expect(unwired).toMatchObject([{ branch: 'a' }]);
  expect(unwired[0]!.because.join(' ')).toMatch(reason);
});

test('every living branch is wired once or told why not; thick before thin within an order, lengths and masses add up', () => {
  fc.assert(
    fc.property(anyTree, (t) => {
      const { runs, unwired } = wiring(t);
      const wired = runs.flatMap((r) => r.branches.map((b) => b.branch));
      expect([...wired, ...unwired.map((u) => u.branch)].sort()).toEqual(t.branches.map((b) => b.id).sort());
      expect(new Set(runs.map((r) => r.id)).size).toBe(runs.length);
      runs.forEach((r, i) => {
        const before = runs[i - 1];
        if (before && before.order === r.order) expect(before.size).toBeGreaterThanOrEqual(r.size);
        if (before) expect(before.order).toBeLessThanOrEqual(r.order);
        const [part] = r.branches;
        const placed = placeTree(t);
        // Wound at 45°, give or take a fifth, the wire is longer than what it covers; the way round, loops and a twentieth come on top.
        for (const { branch: id, from, to } of r.branches) {
          expect(to - from).toBeLessThan(lengthOf(placed.byId.get(id)!.line) * 0.9 * Math.SQRT2 * 1.15);
          expect(from).toBeGreaterThanOrEqual(0);
        }
        const wound = r.branches.reduce((sum, b) => sum + b.to - b.from, 0);
        expect(r.length).toBeGreaterThan((wound + r.route!.length * 0.8 + 20 * r.size) * 1.05);
        expect(r.length).toBeLessThan((wound + r.route!.length + 20 * r.size + 160) * 1.05);
        expect(r.mass).toBeCloseTo(((Math.PI / 4) * r.size ** 2 * r.length * r.strands * METAL_DATA[r.metal].density) / 1000, 6);
        expect(part!.rule).toEqual(ruleOfThumb(placed.byId.get(part!.branch)!.branch.d));
        expect(part!.bendTo).toBeGreaterThanOrEqual(part!.target - 1e-9);
        expect(part!.because.join(' ')).toMatch(/\d/);
      });
    }),
    { numRuns: 8 },
  );
});

test('what the file fixes keeps its id, wire and hands; what the plan takes off is not wired', () => {
  const fixed: Tree['plan']['runs'][number] = {
    id: 'w7',
    metal: 'aluminium',
    size: 4,
    strands: 2,
    angle: 55,
    branches: [{ branch: 'a', hand: 'ccw', start: 'under' }],
  };
  const t = tree([
    branch('a', { elevation: 50 }),
    branch('b', { elevation: 55, at: 350, bearing: 200 }),
    branch('c', { elevation: 60, at: 450, bearing: 310 }),
  ]);
  t.plan.runs.push(fixed);
  const { runs } = wiring(t);
  expect(runs[0]).toMatchObject({ id: 'w7', metal: 'aluminium', size: 4, strands: 2, angle: 55, branches: [{ branch: 'a', hand: 'ccw', start: 'under' }] });
  expect(runs.map((r) => r.id)).not.toContain('w8');
  const gone = wiring(outcomeOf(decided(t, 'a', 'remove')).tree);
  expect(gone.runs.flatMap((r) => r.branches.map((b) => b.branch))).toEqual(expect.not.arrayContaining(['a']));
});

test('a heavier, longer or flatter branch weighs more on its shoulder, in N·mm', () => {
  const moment = (own: Partial<Branch>): number => weightMoment(placeTree(tree([branch('a', { elevation: 0, ...own })])).byId.get('a')!);
  // 200 mm of 9 to 3 mm wood: 6.1 cm³, 9.3 g with its leaves, 90 mm out: about 8 N·mm.
  expect(moment({})).toBeCloseTo((Math.PI / 12) * 200 * (81 + 27 + 9) * 0.00095 * 1.6 * 0.00981 * 0.45 * 200, 6);
  expect(moment({ d: 12 })).toBeGreaterThan(moment({}));
  expect(moment({ length: 260 })).toBeGreaterThan(moment({}));
  expect(moment({ elevation: 60 })).toBeLessThan(moment({}));
  expect(COPPER_GAUGES.every((g, i) => i === 0 || g < COPPER_GAUGES[i - 1]!)).toBe(true);
});
