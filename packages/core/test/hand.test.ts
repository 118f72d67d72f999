import fc from 'fast-check';
import {
  allSpecies,
  archOf,
  archTo,
  compactWays,
  direction,
  distance,
  dot,
  HEFT,
  limb,
  linesInWorld,
  norm,
  placeTree,
  proposePoses,
  pulledAlone,
  shortestReach,
  speciesOf,
  sub,
  TipDrag,
  unit,
  woodOf,
  drawTipTo,
  rodOf,
  type Branch,
  type Limb,
  type Vec,
} from '../src/index.js';
import { branch, tree } from './trees.js';

const tipOf = ({ points }: Limb): Vec => points[points.length - 1]!;

test('pulled alone a branch points where its pose does, in an even arch that stands farther off its line than the wired one', () => {
  for (const species of ['larch', 'hemlock', 'elm']) {
    const t = tree([branch('a', { elevation: 45, length: 280, d: 11, tipD: 4 })], { species });
    const placed = placeTree(t);
    const { poses } = proposePoses(placed);
    const wired = linesInWorld(placed, poses).get('a')!;
    const arch = pulledAlone(placed, poses, 'a');
    const [way, pulled] = [wired, arch.line].map((line) => unit(sub(tipOf(line), line.points[0]!))) as [Vec, Vec];
    expect(dot(way, pulled)).toBeGreaterThan(Math.cos(0.01));
    expect(arch.arch).toBeCloseTo(archOf(arch.line), 6);
    expect(arch.wired).toBeCloseTo(archOf(wired), 6);
    expect(arch.arch).toBeGreaterThan(arch.wired);
    expect(arch.missed).toBeLessThan(0.5);
  }
});

test('the pull of an arch is square to its line: along it a branch cannot be stretched', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('larch', 'yew', 'maple-japanese'),
      fc.integer({ min: -60, max: 20 }),
      fc.integer({ min: 30, max: 150 }),
      (key, elevationDeg, bearingDeg) => {
        const wood = woodOf(speciesOf(key));
        const line = limb([[0, 0, 0], [120, 10, 30], [250, 0, 70]], [10, 7, 4]); // prettier-ignore
        const way = direction({ bearingDeg, elevationDeg });
        const arch = archTo(line, wood, way);
        const reach = norm(sub(tipOf(arch.line), arch.line.points[0]!));
        const { pull } = drawTipTo(rodOf(line, wood, { heft: HEFT }), [way[0] * reach, way[1] * reach, way[2] * reach]);
        expect(Math.abs(dot(pull, way))).toBeLessThan(0.25 * norm(pull) + 0.05);
      },
    ),
    { numRuns: 12 },
  );
});

test('a tip dragged on step by step ends where it ends when drawn there at once; where it cannot get it stops and says how far it is', () => {
  const t = tree([branch('a', { elevation: 30, length: 240, d: 10, tipD: 4 })]);
  const placed = placeTree(t);
  const from = tipOf(placed.byId.get('a')!.line);
  const at = (k: number): Vec => [from[0] - 2 * k, from[1] + 3 * k, from[2] - 6 * k];
  const drag = new TipDrag(placed, [], 'a');
  for (let k = 1; k <= 20; k++) drag.to(at(k));
  const [walked, whole] = [drag.to(at(20)), new TipDrag(placed, [], 'a').to(at(20), true)];
  expect(distance(tipOf(walked.line), tipOf(whole.line))).toBeLessThan(1);
  expect([walked.missed < 1, whole.missed < 0.2]).toEqual([true, true]);
  expect(whole.risk).toBeGreaterThan(0.1);
  const far = drag.to([from[0] * 3, from[1] * 3, from[2] * 3], true);
  expect(far.reach).toBeLessThanOrEqual(240 + 1e-6);
  expect(far.missed).toBeGreaterThan(200);
});

test('ways to make a branch shorter: each reaches as far as it says, gentler where there is more length, and none is borne that the wood does not', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...allSpecies().map((s) => s.key)),
      fc.record({ d: fc.integer({ min: 4, max: 14 }), length: fc.integer({ min: 160, max: 340 }) }),
      fc.double({ min: 0.42, max: 0.95, noNaN: true }),
      (species, own: Partial<Branch>, share) => {
        const placed = placeTree(tree([branch('a', { ...own, tipD: own.d! / 3, elevation: 20 })], { species }));
        const asked = { branch: 'a', bearing: 90, elevation: 5, reach: share * own.length! };
        const ways = compactWays(placed, [], asked);
        for (const w of ways.filter((x) => x.bears)) {
          expect([w.reach < asked.reach + 2, w.risk <= 1.6 / 1.5 + 1e-9, w.roll <= 30, w.gap >= 2, w.sideways < 0.27 * own.length!]).toEqual([
            true,
            true,
            true,
            true,
            true,
          ]);
          const pose = { branch: 'a', bearing: 90, elevation: 5, reach: asked.reach, arcs: w.arcs, planes: w.planes, bends: [] };
          const laid = proposePoses(placeTree({ ...placed.tree, plan: { ...placed.tree.plan, poses: [pose] } })).poses[0]!;
          expect(laid.reach).toBeCloseTo(w.reach, 0);
          // Each is made by the hand in one motion; all that grows on it is turned about it no farther than it says.
          expect(Math.max(...laid.bends.filter((b) => b.kind === 'arc').map((b) => b.angle))).toBeLessThan(60);
        }
        const snake = ways.find((w) => w.planes === 2)!;
        if (own.length! > 40 * own.d! && share > 0.5) expect([snake.bears, snake.roll < 20]).toEqual([true, true]);
        // Those borne first, of them those that leave the pad level, and of those the fewest arcs.
        const order = ways.map((w) => (w.bears ? 0 : 100) + (w.roll <= 20 ? 0 : 50) + w.arcs);
        expect(order).toEqual([...order].sort((a, b) => a - b));
        if (ways[0]!.bears) return;
        const least = shortestReach(placed, [], asked);
        if (least < 0.99 * own.length!) expect(compactWays(placed, [], { ...asked, reach: least + 1 })[0]!.bears).toBe(true);
        expect(least).toBeGreaterThan(asked.reach);
      },
    ),
    { numRuns: 10 },
  );
});
