import fc from 'fast-check';
import { bestPairs, type Edge } from '../src/index.js';
import reference from './reference-values.json';

/** The greatest worth by trying everything. */
function byTrying(count: number, edges: readonly Edge[], from = 0, taken = 0): number {
  if (from >= edges.length) return 0;
  const [a, b, w] = edges[from]!;
  const without = byTrying(count, edges, from + 1, taken);
  if (taken & ((1 << a) | (1 << b))) return without;
  return Math.max(without, w + byTrying(count, edges, from + 1, taken | (1 << a) | (1 << b)));
}

const graph = (most: number, density: number) =>
  fc
    .integer({ min: 2, max: most })
    .chain((count) =>
      fc.tuple(
        fc.constant(count),
        fc.array(fc.option(fc.integer({ min: 1, max: 30 }), { freq: density }), { minLength: (count * (count - 1)) / 2, maxLength: (count * (count - 1)) / 2 }),
      ),
    );
const edgesOf = (count: number, worths: readonly (number | null)[]): Edge[] => {
  const all = Array.from({ length: count }, (_, a) => Array.from({ length: count - a - 1 }, (__, k) => [a, a + k + 1] as const)).flat();
  return all.flatMap(([a, b], i): Edge[] => (worths[i] ? [[a, b, worths[i]!]] : []));
};

test('pairs are worth as much as the best found by trying everything, on 1,000 graphs; no node is in two', () => {
  fc.assert(
    fc.property(graph(10, 1), ([count, worths]) => {
      const edges = edgesOf(count, worths);
      const { pairs, worth } = bestPairs(count, edges);
      expect(worth).toBe(byTrying(count, edges));
      expect(new Set(pairs.flat()).size).toBe(pairs.length * 2);
      expect(pairs.reduce((sum, [a, b]) => sum + edges.find((e) => e[0] === a && e[1] === b)![2], 0)).toBe(worth);
    }),
    { numRuns: 1000 },
  );
});

test.each(reference.matching)('pairs of a graph with $nodes nodes are worth what was computed for it elsewhere', ({ nodes, edges, expectWeight }) => {
  expect(bestPairs(nodes, edges as unknown as Edge[]).worth).toBe(expectWeight);
});

test('nothing to pair is no pair', () => {
  expect(bestPairs(0, [])).toEqual({ pairs: [], worth: 0 });
  expect(bestPairs(3, [])).toEqual({ pairs: [], worth: 0 });
});
