import fc from 'fast-check';
import { decided, generateTree, seenFrom, silhouetteOf, viewer, type Form, type Tree } from '../src/index.js';
import { mirrored, turned } from './trees.js';

type Point = [number, number];

const anyForm = fc
  .record({ seed: fc.nat(2000), form: fc.constantFrom<Form>('upright', 'cascade', 'clump'), front: fc.nat(359) })
  .map(({ seed, form, front }): Tree => {
    const tree = generateTree({ seed, form, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 5, secondaries: 1 });
    return { ...tree, plan: { ...tree.plan, front: { bearing: front, pitch: 0, roll: 0 } } };
  });

/** The shapes of a path, each a list of corners. */
const shapes = (path: string): Point[][] =>
  path
    .split('z')
    .filter(Boolean)
    .map((s) => {
      const [from, steps] = s
        .slice(1)
        .split('l')
        .map((part) => part.split(' ').map(Number)) as [number[], number[]];
      const corners: Point[] = [from as Point];
      for (let i = 0; i < steps.length; i += 2) corners.push([corners.at(-1)![0] + steps[i]!, corners.at(-1)![1] + steps[i + 1]!]);
      return corners;
    });

test('who goes a quarter to the right of a front has in front of him what was on the right', () => {
  fc.assert(
    fc.property(anyForm, fc.nat(3), fc.tuple(fc.double({ min: -9, max: 9, noNaN: true }), fc.double({ min: -9, max: 9, noNaN: true })), (tree, k, [x, y]) => {
      const seen = (quarters: number): readonly number[] => viewer(seenFrom(tree, quarters % 4).plan.front!)([x, y, 3]);
      expect(seen(k + 1)[2]).toBeCloseTo(seen(k)[0]!, 6);
      expect(seen(k + 1)[0]).toBeCloseTo(-seen(k)[2]!, 6);
    }),
  );
});

test('the small picture fills its frame: within it, as wide or as tall as it, the pot at its foot', () => {
  fc.assert(
    fc.property(anyForm, (tree) => {
      const { wood, foliage, pot } = silhouetteOf(tree);
      const all = [wood, foliage, pot].flatMap(shapes).flat();
      const [xs, ys] = [all.map((p) => p[0]), all.map((p) => p[1])];
      expect([...xs, ...ys].every(Number.isFinite)).toBe(true);
      const [wide, tall] = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
      expect(Math.max(wide, tall)).toBeGreaterThan(99);
      expect([Math.min(...xs) > -0.2, Math.max(...xs) < 100.2, Math.min(...ys) > -0.2, Math.max(...ys) < 100.2]).toEqual([true, true, true, true]);
      // It stands on its foot, unless it hangs below it.
      const foot = Math.max(...shapes(pot)[0]!.map((p) => p[1]));
      expect(
        foot > 99.8 ||
          Math.max(
            ...shapes(wood + foliage)
              .flat()
              .map((p) => p[1]),
          ) > 99.8,
      ).toBe(true);
      // One strip for the trunk and each branch, one patch for each pad.
      expect(shapes(wood)).toHaveLength(tree.branches.length + 1);
      expect(shapes(foliage).every((s) => s.length === 10)).toBe(true);
    }),
    { numRuns: 25 },
  );
});

test('what the plan takes off is not in it; turned with its front it looks the same, mirrored the other way round', () => {
  fc.assert(
    fc.property(anyForm, fc.integer({ min: 1, max: 359 }), (tree, by) => {
      const gone = tree.branches.find((b) => b.parent === 'trunk' && !tree.branches.some((c) => c.parent === b.id)) ?? tree.branches.at(-1)!;
      expect(shapes(silhouetteOf(decided(tree, gone.id, 'remove')).wood).length).toBeLessThan(shapes(silhouetteOf(tree).wood).length);
      const { front } = tree.plan;
      const seenFrom = (t: Tree, bearing: number): Point[] => shapes(silhouetteOf({ ...t, plan: { ...t.plan, front: { ...front!, bearing } } }).wood).flat();
      const here = seenFrom(tree, front!.bearing);
      const around = seenFrom(turned(tree, by), (front!.bearing + by) % 360);
      const behindGlass = seenFrom(mirrored(tree), (360 - front!.bearing) % 360);
      expect(around).toHaveLength(here.length);
      // Corners are written to a tenth; a strip's two sides change places in the mirror.
      const near = (a: Point[], b: Point[]): boolean => a.every(([x, y]) => b.some(([u, v]) => Math.abs(x - u) < 0.21 && Math.abs(y - v) < 0.21));
      expect(near(here, around)).toBe(true);
      expect(
        near(
          here.map(([x, y]): Point => [100 - x, y]),
          behindGlass,
        ),
      ).toBe(true);
    }),
    { numRuns: 15 },
  );
});
