import { normalCdf } from '../units/index.js';
import { speciesOf, woodOf } from '../species/index.js';
import { pushRatio, HAND_ERROR, STIFFNESS_SD, type MetalName, type Wood } from '../wood/index.js';
import { standing, type Tree } from '../tree/index.js';

/** What is known of a branch's stiffness beside its species': the mean of the logarithm of the factor, and its spread. */
export interface Stiffness {
  meanLog: number;
  sd: number;
}

/** A wire pressed against a branch, and which of the two gave way. */
export interface Press {
  metal: MetalName;
  wireDiameter: number;
  strands?: number;
  branchMoved: boolean;
}

/** A grid so many spreads to either side: what contradicts its kind strongly lies far out. */
const CELLS = 200;
const REACH = 6;

const normal = (x: number, sd: number): number => Math.exp(-0.5 * (x / sd) ** 2);

/** How likely what was seen is, if the branch's factor has this logarithm. */
function likelihood(presses: readonly Press[], diameter: number, wood: Wood, log: number): number {
  return presses.reduce((product, { metal, wireDiameter, strands = 1, branchMoved }) => {
    const moves = normalCdf((Math.log(pushRatio({ diameter, wood, metal, wireDiameter, strands })) - log) / HAND_ERROR);
    return product * (branchMoved ? moves : 1 - moves);
  }, 1);
}

const grid = (sd: number): number[] => Array.from({ length: CELLS + 1 }, (_, i) => ((2 * i) / CELLS - 1) * REACH * sd);

function moments(values: readonly number[], weights: readonly number[]): Stiffness {
  const total = weights.reduce((a, b) => a + b, 0);
  const meanLog = values.reduce((sum, v, i) => sum + v * weights[i]!, 0) / total;
  const variance = values.reduce((sum, v, i) => sum + (v - meanLog) ** 2 * weights[i]!, 0) / total;
  return { meanLog, sd: Math.sqrt(variance) };
}

/** The mean of a branch's stiffness factor after press tests of it alone. docs: Press test. */
export function push(of: { priorMeanLog: number; priorSd: number; diameter: number; wood: Wood; tests: readonly Press[] }): number {
  const logs = grid(of.priorSd).map((x) => x + of.priorMeanLog);
  const weights = logs.map((x) => normal(x - of.priorMeanLog, of.priorSd) * likelihood(of.tests, of.diameter, of.wood, x));
  const total = weights.reduce((a, b) => a + b, 0);
  return logs.reduce((sum, x, i) => sum + Math.exp(x) * weights[i]!, 0) / total;
}

/** What press tests say of every branch of a tree: of those pressed most, through the tree's own share of all the others. docs: Press test. */
export function stiffnessOf(tree: Tree): (branch: string) => Stiffness {
  const wood = woodOf(speciesOf(tree.species));
  const pressed = new Map<string, { diameter: number; presses: Press[] }>();
  for (const line of standing(tree.record)) {
    const branch = line.kind === 'pushed' && tree.branches.find((b) => b.id === line.branch);
    if (line.kind !== 'pushed' || !branch || !line.metal || !line.size || !line.gave) continue;
    const known = pressed.get(line.branch) ?? { diameter: branch.d, presses: [] };
    known.presses.push({ metal: line.metal, wireDiameter: line.size, strands: line.strands ?? 1, branchMoved: line.gave === 'branch' });
    pressed.set(line.branch, known);
  }
  const treeLogs = grid(STIFFNESS_SD.tree);
  const ownLogs = grid(STIFFNESS_SD.branch);
  const ownPrior = ownLogs.map((x) => normal(x, STIFFNESS_SD.branch));
  const ownTotal = ownPrior.reduce((a, b) => a + b, 0);
  /** For each value of the tree's share: how likely what was seen on a branch is. */
  const seen = [...pressed].map(([id, { diameter, presses }]) => ({
    id,
    at: treeLogs.map((t) => ownLogs.reduce((sum, u, i) => sum + ownPrior[i]! * likelihood(presses, diameter, wood, t + u), 0) / ownTotal),
    diameter,
    presses,
  }));
  const treeWeights = treeLogs.map((t, i) => normal(t, STIFFNESS_SD.tree) * seen.reduce((product, s) => product * s.at[i]!, 1));
  const shared = moments(treeLogs, treeWeights);
  const untouched: Stiffness = { meanLog: shared.meanLog, sd: Math.hypot(shared.sd, STIFFNESS_SD.branch) };
  const known = new Map(
    seen.map(({ id, diameter, presses, at }): [string, Stiffness] => {
      const values: number[] = [];
      const weights: number[] = [];
      treeLogs.forEach((t, i) => {
        const others = at[i]! > 0 ? treeWeights[i]! / at[i]! : 0;
        ownLogs.forEach((u, k) => {
          values.push(t + u);
          weights.push(others * ownPrior[k]! * likelihood(presses, diameter, wood, t + u));
        });
      });
      return [id, moments(values, weights)];
    }),
  );
  return (branch) => known.get(branch) ?? untouched;
}
