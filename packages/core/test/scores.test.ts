import fc from 'fast-check';
import {
  frontEvidence,
  judgeFront,
  LEAST_APART_DEG,
  PARTS,
  peaks,
  placeTree,
  searchFronts,
  tiltsFor,
  turnDeg,
  wedge,
  WEIGHT_PROFILES,
  dayOf,
  type Front,
  type Part,
  type Tree,
} from '../src/index.js';
import { anyTree, branch, tree } from './trees.js';

const at = (t: Tree, bearing: number, pitch = 0, roll = 0): Front => judgeFront(placeTree(t), { bearing, pitch, roll });
const leaning = (x: number): Partial<Tree> => ({
  trunk: [0, 150, 300, 450, 600].map((z) => ({ x: z > 300 ? ((z - 300) / 300) * x : 0, y: 0, z, d: 50 - z * 0.07 })),
});
const wideRoots: Partial<Tree> = { roots: [90, 270].map((bearing) => ({ bearing, length: 90, d: 12 })) };

/** A part's score is better from the first bearing than from the second, as an artist would say, with these words. */
const BETTER: [part: Part, t: Tree, from: number, than: number, words: RegExp, worse: RegExp][] = [
  ['base', tree([], wideRoots), 0, 90, /^230 mm wide of at most 230$/, /50 mm wide of at most 230; a root points at you/],
  [
    'movement',
    tree([], { trunk: [0, 60, -40, 25, 0].map((x, i) => ({ x, y: 0, z: i * 150, d: 50 - i * 9 })) }),
    0,
    90,
    /^3 bends: (left, right, left|right, left, right), turning \d+° in all; nothing in depth$/,
    /^straight as seen from here; coming and going \d+°; 100%/,
  ],
  ['trunkInSight', tree([branch('a', { bearing: 180, bareTo: 0.1, green: 0.3 })]), 0, 180, /^100% of the lower/, /^\d\d% of the lower/],
  ['apex', tree([], leaning(40)), 90, 270, /leans \d+° to you/, /leans \d+° away/],
  ['eye', tree([branch('spear', { bearing: 90, elevation: 0, length: 300, d: 14 })]), 0, 90, /nothing points at you/, /first left \(14 mm\) points at you/],
  [
    'firstBranch',
    tree([branch('one', { bearing: 75, at: 180 }), branch('two', { bearing: 190, at: 260 })]),
    0,
    75,
    /first left goes left, 15° forward; back behind/,
    /first left comes at you/,
  ],
  ['features', tree([], { features: [{ kind: 'shari', bearing: 20, z: [10, 90], good: true, weight: 1 }] }), 20, 200, /shari shown/, /shari hidden/],
  ['greenKept', tree([branch('spear', { bearing: 90, elevation: 0, green: 0.2 })]), 0, 90, /nothing must go/, /20% of the green must move or go/],
];

test.each(BETTER)('%s tells the better bearing from the worse, and why', (part, t, from, than, words, worse) => {
  const [good, bad] = [at(t, from), at(t, than)];
  expect(good.parts[part]).toBeGreaterThan(bad.parts[part] + 0.1);
  expect(good.because[part]).toMatch(words);
  expect(bad.because[part]).toMatch(worse);
});

test('bad features count turned away; the apex is best leaning a little, and a tilt brings it there', () => {
  const scar = tree([], { features: [{ kind: 'saw scar', bearing: 20, z: [10, 90], good: false, weight: 1 }] });
  expect(at(scar, 200).parts.features).toBeGreaterThan(at(scar, 20).parts.features);
  expect(at(tree([], leaning(-60)), 90).parts.apex).toBeLessThan(1);
  expect(at(tree([], leaning(-60)), 90, 20).parts.apex).toBe(1);
});

test('every part lies between 0 and 1, the score is their weighted mean, and each draws what it saw', () => {
  fc.assert(
    fc.property(
      anyTree,
      fc.nat(359),
      fc.integer({ min: -20, max: 20 }),
      fc.integer({ min: -20, max: 20 }),
      fc.constantFrom(...Object.keys(WEIGHT_PROFILES)),
      (t, bearing, pitch, roll, name) => {
        const weights = WEIGHT_PROFILES[name]!;
        const placed = placeTree(t);
        const front = judgeFront(placed, { bearing, pitch, roll }, weights);
        let [sum, whole] = [0, 0];
        for (const part of PARTS) {
          expect(front.parts[part]).toBeGreaterThanOrEqual(0);
          expect(front.parts[part]).toBeLessThanOrEqual(1);
          expect(front.because[part]).toMatch(/\S/);
          sum += weights[part] * front.parts[part];
          whole += weights[part];
          const { lines, words } = frontEvidence(placed, front, part);
          expect([...lines.flat(2), ...words.flatMap((w) => w.at)].every(Number.isFinite)).toBe(true);
        }
        expect(front.score).toBeCloseTo(sum / whole, 9);
        expect(front.wedge).toBeCloseTo(wedge(front, t.pot).height, 9);
        for (const h of front.hiding) expect([h.share > 0 && h.share <= 1, h.from >= 0, h.to <= 1, h.from <= h.to]).toEqual([true, true, true, true]);
      },
    ),
    { numRuns: 40 },
  );
});

test('candidates are peaks of the rose, best first and apart; a tilted front is only taken when the tilt pays', () => {
  fc.assert(
    fc.property(anyTree, (t) => {
      const { rose, candidates } = searchFronts(placeTree(t), { step: 5, pitches: [-5, 0, 5], rolls: [-5, 0, 5] });
      expect(rose.map((f) => f.bearing)).toEqual(Array.from({ length: 72 }, (_, i) => i * 5));
      candidates.forEach((c, i) => {
        expect(i === 0 || candidates[i - 1]!.score >= c.score).toBe(true);
        for (const other of candidates.slice(0, i)) expect(Math.abs(turnDeg(c.bearing, other.bearing))).toBeGreaterThanOrEqual(LEAST_APART_DEG);
        const level = at(t, c.bearing);
        expect(c.score - level.score).toBeGreaterThanOrEqual(0.0015 * (Math.abs(c.pitch) + Math.abs(c.roll)) - 1e-9);
      });
      expect(peaks(rose, 1)).toEqual(candidates.slice(0, 1));
    }),
    { numRuns: 6 },
  );
});

test('weights change which front wins, and a tree repotted lately is only trimmed', () => {
  // Movement is seen from 0 and 180, the base is wide from 90 and 270.
  const t = tree([], {
    trunk: [0, 60, -40, 25, 0].map((x, i) => ({ x, y: 0, z: i * 150, d: 50 - i * 9 })),
    roots: [0, 180].map((bearing) => ({ bearing, length: 160, d: 14 })),
  });
  const only = (part: Part) => Object.fromEntries(PARTS.map((p) => [p, p === part ? 1 : 0])) as Record<Part, number>;
  const best = (part: Part): number => searchFronts(placeTree(t), { step: 15, weights: only(part) }).candidates[0]!.bearing % 180;
  // Seen a little from the side it comes and goes as well.
  expect([Math.abs(turnDeg(0, 2 * best('movement'))) <= 90, best('base')]).toEqual([true, 90]);
  expect(tiltsFor(tree([], { repottedOn: '2026-03-01' }), dayOf('2026-10-10'))).toEqual([-5, 0, 5]);
  expect(tiltsFor(tree([], { repottedOn: '2024-03-01' }), dayOf('2026-10-10'))).toHaveLength(9);
});
