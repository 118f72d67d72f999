import { Bearing, roomForWire, type Lately, type Reading } from '../reading/index.js';
import { cutPieces } from '../rack/index.js';
import { namesOf, sayBranches, woodIn, type PlacedTree } from '../tree/index.js';
import { rollLength, wireMass, type MetalName } from '../wood/index.js';
import type { RunPlan } from '../wire/index.js';
import { digits } from './digits.js';

/** What is cut of one size: the pieces, how many full rolls they take, the least that they could, and mass. */
export interface PlanCut {
  metal: MetalName;
  size: number;
  pieces: { run: string; length: number }[];
  rolls: number;
  bound: number;
  /** Rolls to be bought; all of them, where nothing is known of a rack. */
  buy: number;
  /** mm and g in all. */
  total: number;
  mass: number;
}

/** The pieces of a plan by metal and size, and the rolls that they take. */
export function cutListOf(runs: readonly RunPlan[]): PlanCut[] {
  const bySize = new Map<string, RunPlan[]>();
  for (const run of runs) bySize.set(`${run.metal} ${run.size}`, [...(bySize.get(`${run.metal} ${run.size}`) ?? []), run]);
  return [...bySize.values()]
    .map((of): PlanCut => {
      const { metal, size } = of[0]!;
      const pieces = of.flatMap((run) => Array.from({ length: run.strands }, () => ({ run: run.id, length: digits(run.length, 0) })));
      const { buy, bound } = cutPieces(
        pieces.map((p) => p.length),
        rollLength(metal, size),
      );
      const total = pieces.reduce((sum, p) => sum + p.length, 0);
      return {
        metal,
        size: digits(size, 2),
        pieces,
        rolls: buy,
        bound,
        buy,
        total,
        mass: digits(wireMass(metal, size, total), 0),
      };
    })
    .sort((a, b) => (a.metal < b.metal ? -1 : a.metal > b.metal ? 1 : b.size - a.size));
}

/** Share of the branches that carry wire once all is on, what of it this session bears, and what is said of it. */
export interface Coverage {
  share: number;
  /** Pieces to leave for a later session. */
  later: string[];
  said: string[];
}

/** More of the branches wired than this is much at once, whatever the tree. */
const MUCH = 0.85;

export function coverageOf(
  runs: readonly RunPlan[],
  placed: PlacedTree,
  on: ReadonlySet<string>,
  { reading, lately, heavyOn }: { reading: Reading; lately: Lately; heavyOn: (branch: string) => number },
  lost: readonly string[] = [],
): Coverage {
  const { tree, branches } = placed;
  const living = branches.filter((b) => b.branch.state !== 'dead').length || 1;
  const open = runs.filter((r) => r.branches.some((b) => !on.has(b.branch)));
  const wired = new Set([...on, ...open.flatMap((r) => r.branches.map((b) => b.branch))]);
  wired.delete('trunk');
  const names = namesOf(tree);
  const bearing = new Bearing(tree, roomForWire(reading, living, lately), living);
  const later: string[] = [];
  for (const run of open) {
    const branches = run.branches.map((b) => b.branch).filter((b) => !on.has(b));
    const piece = { branches, heavyBends: branches.reduce((sum, b) => sum + heavyOn(b), 0) };
    if (bearing.refuses(piece) === null) bearing.take(piece);
    else {
      later.push(run.id);
      bearing.leave(branches);
    }
  }
  const share = wired.size / living;
  const first = open.find((r) => r.id === later[0]);
  const thick = open.filter((r) => r.branches.some((b) => r.strands > 1 || r.size > 0.5 * woodIn(placed, b.branch)!.branch.d));
  return {
    share: digits(share, 3),
    later,
    said: [
      ...lost,
      ...(first
        ? [
            `This session bears ${open.length - later.length} of the ${open.length} pieces: leave those from ${sayBranches(
              names,
              first.branches.map((b) => b.branch),
              2,
            )} on for the next.`,
          ]
        : []),
      ...(share > MUCH
        ? [`With ${Math.round(share * 100)}% of the branches wired it stands still for a season: wire what matters, leave the rest to grow.`]
        : []),
      ...(thick.length > 2 ? [`${thick.length} pieces are thick for their branches: a lighter hand would let more light and sap through.`] : []),
    ],
  };
}
