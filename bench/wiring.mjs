// How long the wire of a large tree takes: from nothing, and after one change.
import { largeTree, placeTree, PlanMemory, planWiring, proposePoses } from '@ustle/core';

/** A tree with one thing changed, time and again: a piece settled as it is, one size thicker, its branch turned a little. */
export function oneChange(tree, { runs }) {
  const pairs = runs.filter((r) => r.kind === 'pair');
  const settled = ({ metal, size, strands, angle, branches }, thicker) => ({
    id: 'x1',
    metal,
    size: size + thicker,
    strands,
    angle,
    branches: branches.map(({ branch, hand, start }) => ({ branch, hand, start })),
  });
  const turned = ({ branch }) => {
    const { bearing, elevation } = tree.branches.find((b) => b.id === branch);
    return { branch, bearing: (bearing + 20) % 360, elevation: elevation - 15, bends: [] };
  };
  return [0, 0.2, 0.4, 0.6, 0.8].flatMap((share) => {
    const pair = pairs[Math.floor(share * pairs.length)];
    return [{ runs: [settled(pair, 0)] }, { runs: [settled(pair, 0.5)] }, { poses: [turned(pair.branches[0])] }].map((own) => ({
      ...tree,
      plan: { ...tree.plan, ...own },
    }));
  });
}

const median = (times) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];

/** The pieces of trees of so many branches with their paths: the first time, the median of five more, with nothing changed, and after changes, ms each. */
export function measureWiring(counts) {
  const took = (work) => {
    const start = performance.now();
    work();
    return performance.now() - start;
  };
  return counts.map((n) => {
    const placed = placeTree(largeTree(n, 3));
    const posed = proposePoses(placed);
    let plan;
    const first = took(() => (plan = planWiring(placed, posed)));
    const then = median(Array.from({ length: 5 }, () => took(() => planWiring(placed, posed))));
    const memory = new PlanMemory();
    const again = () => planWiring(placed, posed, undefined, memory);
    again();
    const unchanged = median([took(again), took(again), took(again)]);
    const changes = oneChange(placed.tree, plan).map((tree) => {
      const changed = placeTree(tree);
      const poses = proposePoses(changed);
      const time = took(() => planWiring(changed, poses, undefined, memory));
      again();
      return time;
    });
    const branches = plan.runs.reduce((sum, r) => sum + r.branches.length, 0);
    const paired = plan.runs.filter((r) => r.kind === 'pair').length * 2;
    return { n, first, then, unchanged, change: median(changes), worst: Math.max(...changes), pieces: plan.runs.length, branches, paired };
  });
}
