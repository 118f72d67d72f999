import { turnDeg } from '../units/index.js';
import { findSpecies } from '../species/index.js';
import { slope, withChildren, type PlacedTree, type Tree } from '../tree/index.js';

const MUCH_GREEN = 0.15;

/** Ids of the runs and guys that would lose their branch, or a child of it. */
export function conflictsOf(tree: Tree, id: string): string[] {
  const gone = withChildren(tree, id);
  return [
    ...tree.plan.runs.filter((r) => r.branches.some((b) => gone.has(b.branch))).map((r) => r.id),
    ...tree.plan.guys.filter((g) => gone.has(g.branch)).map((g) => g.id),
  ];
}

/** What speaks for keeping a branch, as sentences. */
export function reasonsToKeep(placed: PlacedTree, id: string, front: { bearing: number } | null): string[] {
  const { tree } = placed;
  const reasons: string[] = [];
  const gone = withChildren(tree, id);
  const green = tree.branches.filter((b) => gone.has(b.id)).reduce((sum, b) => sum + b.green, 0);
  if (green > MUCH_GREEN) reasons.push(`Against removing it: it carries ${(green * 100).toFixed(0)}% of the green.`);
  if (front) {
    const behind = placed.branches.filter((b) => b.order === 1 && b.branch.state !== 'dead' && Math.abs(turnDeg(front.bearing, slope(b).bearing)) > 125);
    if (behind.length === 1 && behind[0]!.branch.id === id) reasons.push('Against removing it: it is the only back branch.');
  }
  const species = findSpecies(tree.species);
  if (species && !species.budsBackOnOldWood && green > 0.02) reasons.push(`Against removing it: ${species.name} does not bud back on old wood.`);
  return reasons;
}
